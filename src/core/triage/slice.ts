import { sayOutcome } from './model/outcome-words'
import type { TriageBodies } from './bodies'
import { triageCommands } from './commands'
import { percent } from '../maths/percent'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { newCell, slice } from '../tape/slice'
import { lineOfTest } from './test-line'

export interface TriageState {
  readonly codes: readonly string[]
  readonly codeLog: readonly (Noted & TriageBodies['codes'])[]
  readonly swaps: readonly (Noted & TriageBodies['swap'])[]
  readonly runs: (Noted & TriageBodies['runs']) | null
  readonly trials: readonly (Noted & TriageBodies['trial'])[]
  readonly mended: readonly (Noted & TriageBodies['mended'])[]
  readonly said: readonly (Noted & TriageBodies['odds said'])[]
}

/** Faults that are put right by hand, without heat; any other may have been soldered. */
const byHand: ReadonlySet<string> = new Set([
  'supply',
  'front wiring',
  'reset held',
  'something fitted',
  'drive',
  'settings',
  'training',
  'firmware corrupt',
  'control contact open',
  'power contacts shorted',
  'power contacts open',
  'sense contact open',
  'memory A contact open',
  'memory B contact open',
  'signal contacts touch',
  'display contact open',
  'card contact open',
  'CPU seat',
  'pressure',
  'module seat',
  'module',
  'CPU unsupported',
  'CPU without graphics',
  'card',
  'cooling',
])
/** Those of them that touch nothing a rail could be shorted by. */
const leavesShort: ReadonlySet<string> = new Set(['new cell', 'second chip'])
/** Tests for which something is taken out, put in or moved. */
const changesSetup: ReadonlySet<string> = new Set([
  'needed only',
  'bridged',
  'new cell',
  'no memory',
  'memory reseated',
  'good in both',
  'no CPU',
  'reseated',
  'eased',
  'own graphics',
  'second chip',
  'beeps',
  'CPU elsewhere',
  'module elsewhere',
])

export const triage = slice<TriageBodies, { baseline: { readonly codes: readonly string[] } }>().of({
  id: 'triage',
  commands: triageCommands,
  initial: (): TriageState => ({
    codes: [],
    codeLog: [],
    swaps: [],
    runs: null,
    trials: [],
    mended: [],
    said: [],
  }),
  kinds: {
    codes: {
      opens: 'triage',
      words: ({ body: b }) =>
        `codes ${b.codes.join(' ') || 'none'}${b.watchedS === undefined ? '' : `, watched ${Math.round(b.watchedS)} s`}`,
    },
    swap: {
      opens: 'triage',
      words: ({ body: b }) =>
        `${b.part.includes(b.what) ? b.part : `${b.what} ${b.part}`} in ${b.place}: ${sayOutcome(b.outcome)}`,
      changesBoard: (b) => ({
        what: `${b.what} tried`,
        ...(b.what === 'supply' ? ({ putsRight: true, liftsNoShort: true } as const) : {}),
      }),
    },
    runs: {
      opens: 'triage',
      words: ({ body: b }) => {
        const noted = [
          b.seenMTs !== null &&
            `memory at ${b.seenMTs}${b.ratedMTs === null ? '' : ` of ${b.ratedMTs}`} MT/s`,
          b.startS !== null && `starts in ${b.startS} s`,
          b.settingsKept !== null && `settings ${b.settingsKept ? 'kept' : 'lost'}`,
        ]
        return `runs: ${noted.filter(Boolean).join(', ') || 'nothing noted'}`
      },
    },
    trial: {
      opens: 'triage',
      words: ({ body: b }) => `${b.test}: ${sayOutcome(b.outcome)}`,
      // A test that measures what has a line of its own is read as that line.
      upcast: (b) => {
        const line = lineOfTest(b)
        return line.kind === 'trial' ? null : line
      },
      changesBoard: ({ test }) => ({
        ...(changesSetup.has(test) ? { what: `the test “${test}”` } : {}),
        ...(leavesShort.has(test) ? { liftsNoShort: true as const } : {}),
        ...(test === 'new cell' ? { undoes: 'cell' as const } : {}),
      }),
    },
    'odds said': {
      opens: 'triage',
      words: ({ body: b }) =>
        `said before the start: ${percent(b.odds)} that there is a picture${b.reckoned === null ? '' : `, reckoned ${percent(b.reckoned)}`}`,
    },
    mended: {
      words: ({ body: b }) => `repaired: ${b.fault}`,
      changesBoard: ({ fault }) =>
        fault === 'cell weak'
          ? newCell
          : {
              what: 'a mend',
              putsRight: true,
              undoes: 'all',
              ...(byHand.has(fault) ? {} : { heat: true as const }),
            },
    },
  },
  on: {
    codes(s, line) {
      s.codes = [...line.body.codes]
      s.codeLog.push({ ...notedOf(line), ...line.body } as (typeof s.codeLog)[number])
    },
    baseline(s, { body }) {
      if (body.codes.length > 0) s.codes = [...body.codes]
    },
    swap(s, line) {
      s.swaps.push({ ...notedOf(line), ...line.body })
    },
    runs(s, line) {
      s.runs = { ...notedOf(line), ...line.body }
    },
    trial(s, line) {
      s.trials.push({ ...notedOf(line), ...line.body })
    },
    'odds said'(s, line) {
      s.said.push({ ...notedOf(line), ...line.body })
    },
    mended(s, line) {
      s.mended.push({ ...notedOf(line), ...line.body })
    },
  },
})
