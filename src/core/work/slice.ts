import type { GoingOn, WorkBodies } from './bodies'
import { workCommands } from './commands'
import { stations } from '../board/station'
import type { Station } from '../board/station'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface StationMark {
  readonly mark: 'untouched' | 'open' | 'settled' | 'passed over'
  readonly why: string
}

/** How a station stands, as it is said. */
export const markWords: Readonly<Record<StationMark['mark'], string>> = {
  untouched: 'not begun',
  open: 'open',
  settled: 'done',
  'passed over': 'skipped',
}

export interface WorkState {
  readonly photos: readonly (Noted & WorkBodies['photo'])[]
  readonly notes: readonly (Noted & { readonly text: string })[]
  /** The last decision to go on, with what it was decided by. */
  readonly decidedToGoOn: (Noted & GoingOn) | null
  readonly marks: Readonly<Record<Station, StationMark>>
  readonly clock: {
    readonly running: { readonly station: Station; readonly since: string } | null
    readonly seconds: Readonly<Record<Station, number>>
    /** When it was stopped last; null while it never was. */
    readonly stoppedAt: string | null
  }
}

const each = <T>(of: () => T) => Object.fromEntries(stations.map((s) => [s, of()])) as Record<Station, T>

const ranSeconds = (since: string, at: string) => Math.max(0, (Date.parse(at) - Date.parse(since)) / 1000)

function stopClock(
  clock: {
    running: { station: Station; since: string } | null
    seconds: Record<Station, number>
    stoppedAt: string | null
  },
  at: string,
): void {
  if (!clock.running) return
  clock.stoppedAt = at
  clock.seconds[clock.running.station] += ranSeconds(clock.running.since, at)
  clock.running = null
}

export const work = slice<WorkBodies, { 'hand-back': object }>().of({
  id: 'work',
  commands: workCommands,
  initial: (): WorkState => ({
    photos: [],
    notes: [],
    decidedToGoOn: null,
    marks: each(() => ({ mark: 'untouched', why: '' })),
    clock: { running: null, seconds: each(() => 0), stoppedAt: null },
  }),
  kinds: {
    photo: {
      words: ({ body: b }) => `photo, ${b.caption || b.name}`,
      files: (b) => [{ field: 'file', sha256: b.file, text: 'its picture is not with the job' }],
    },
    note: { words: ({ body: b }) => b.text },
    decision: { words: ({ body: b }) => `decided: ${b.text}` },
    clock: { words: ({ body: b }) => (b.run ? `clock on ${b.run}` : 'clock paused') },
    station: { words: ({ body: b }) => `${b.station} ${markWords[b.mark]}${b.why ? `: ${b.why}` : ''}` },
    strike: {
      words: ({ body: b, strikes }) =>
        strikes === null ? `struck nothing: ${b.why}` : `struck line ${strikes}: ${b.why}`,
    },
  },
  each(s, _, { opens }) {
    if (opens !== null && s.marks[opens as Station].mark === 'untouched')
      s.marks[opens as Station] = { mark: 'open', why: '' }
  },
  on: {
    photo(s, line) {
      s.photos.push({ ...notedOf(line), ...line.body })
    },
    note(s, line) {
      s.notes.push({ ...notedOf(line), text: line.body.text })
    },
    decision(s, line) {
      s.decidedToGoOn = line.body.goingOn ? { ...notedOf(line), ...line.body.goingOn } : null
    },
    clock(s, line) {
      stopClock(s.clock, line.at)
      if (line.body.run) s.clock.running = { station: line.body.run, since: line.at }
    },
    'hand-back'(s, line) {
      stopClock(s.clock, line.at)
    },
    station(s, { body }) {
      s.marks[body.station] = { mark: body.mark, why: body.why }
    },
  },
})

/** Seconds on the bench clock at a moment, by station and together. */
export function benchSeconds(
  { clock: { running, seconds } }: WorkState,
  nowIso: string,
): { readonly all: number; readonly station: (station: Station) => number } {
  const extra = running ? ranSeconds(running.since, nowIso) : 0
  const at = (station: Station) => seconds[station] + (running?.station === station ? extra : 0)
  return { all: stations.reduce((sum, station) => sum + at(station), 0), station: at }
}
