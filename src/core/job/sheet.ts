import { comparedNow, writtenNow } from '../firmware/slice'
import type { Verdict } from '../firmware/image/same-code'
import type { AdviceSetting } from './advice-setting'
import type { JobState } from './job-state'
import { unaccounted } from '../board/slice'
import { benchSeconds } from '../work/slice'
import { sayOhms } from '../maths/units'
import { sayRail } from '../board/rail'
import { railState } from '../board/rail-limits'
import { handBackBlockers, proofStanding } from './stations-say'
import type { ProofStanding } from '../proof/plan'
import { adviceFor } from '../hand-back/advice'
import { checkWords, openChecks, reassemblyChecks } from '../hand-back/reassembly'
import type { Reassembly } from '../hand-back/reassembly'
import type { SheetPart, SheetWords } from '../hand-back/sheet-words'
import { percent } from '../maths/percent'
import { sayProved } from '../board/proved'
import { isDamage, sayMark } from '../socket/damage/mark'
import type { Marks } from '../socket/damage/mark'
import { comparePasses } from '../socket/damage/pass'
import type { PassChange } from '../socket/damage/pass'
import type { Socket } from '../socket/model/socket'
import { faults } from '../triage/model/faults'
import type { FaultId } from '../triage/model/faults'
import { cellState, stageReached } from '../triage/model/stage'

/** What the owner reads, each under its own heading; nothing is in two of them. */
export interface HandBackSheet {
  readonly title: string
  readonly complaint: string
  readonly outcome: string
  readonly found: readonly string[]
  readonly cause: readonly string[]
  readonly repaired: readonly string[]
  readonly verified: readonly string[]
  readonly failed: readonly string[]
  readonly notTested: readonly string[]
  /** Damage and work that stays as it is, and why. */
  readonly leftAsItIs: readonly string[]
  /** What could still be wrong, in a sentence and by thing; that it is not known, where it is not. */
  readonly oddsLeft: readonly string[]
  readonly warranty: readonly string[]
  readonly advice: readonly string[]
  readonly safety: readonly string[]
  /** The field as it was first found and as it is left; null when the socket was never mapped. */
  readonly maps: { readonly before: Marks; readonly after: Marks } | null
  readonly changes: readonly PassChange[]
  readonly holds: readonly string[]
  readonly minutes: number
  readonly priceMinor: number | null
}

/** The sheet part by part, in the order in which it is read. */
function sheetParts(sheet: HandBackSheet): SheetPart[] {
  const part = (title: string, lines: readonly string[], none: string) => ({ title, lines, none })
  return [
    part('Found', sheet.found, 'nothing noted'),
    part('Cause', sheet.cause, 'not found'),
    part('Repaired', sheet.repaired, 'nothing'),
    part('Verified', sheet.verified, 'nothing'),
    part('Failed', sheet.failed, 'nothing'),
    part('Not tested', sheet.notTested, 'nothing is open'),
    part('Left as it is', sheet.leftAsItIs, 'nothing'),
    part('Could still be wrong', sheet.oddsLeft, ''),
    part('Warranty', sheet.warranty, 'none was given'),
    part('Advice', sheet.advice, 'none'),
    part('Safety', sheet.safety, ''),
  ]
}

export const sheetWords = (sheet: HandBackSheet): SheetWords => ({
  title: sheet.title,
  complaint: sheet.complaint,
  outcome: sheet.outcome,
  parts: sheetParts(sheet),
  minutes: sheet.minutes,
  priceMinor: sheet.priceMinor,
})

/** The sheet from the tape. Nothing is claimed to be verified that has no result of its own. */
export function handBackSheet(
  state: JobState,
  socket: Socket | null,
  nowIso: string,
  setting: AdviceSetting,
): HandBackSheet {
  const t = state.intake.ticket
  const standing = proofStanding(state, socket, setting)
  const first = state.socket.passes[0]
  const last = state.socket.passes.at(-1)
  const maps = first && last ? { before: state.socket.asFound, after: last.marks } : null
  const { done, advice, reassembly } = state.handBack
  const causes = causesOf(state)
  return {
    title: [t.board, t.revision && `rev ${t.revision}`, t.use].filter(Boolean).join(', '),
    complaint: t.complaint,
    outcome: [
      (done?.outcome ?? 'in work') +
        (done?.exchangedFor ? ` for ${done.exchangedFor}, of verified stock` : ''),
      done?.fate && `the board that came: ${done.fate}`,
    ]
      .filter(Boolean)
      .join('; '),
    found: foundLines(state),
    cause: causes.map((cause) => faults[cause as FaultId]?.say ?? damagedInTheSocket),
    repaired: repairedLines(state),
    verified: [
      ...standing.tests.filter((p) => p.result === 'pass').map((p) => `${p.test}: ${p.reading || 'passed'}`),
      ...reassemblyLines(reassembly, true),
    ],
    failed: [
      ...standing.tests.filter((p) => p.result === 'fail').map((p) => `${p.test}: ${p.reading || 'failed'}`),
      ...reassemblyLines(reassembly, false),
    ],
    notTested: notTestedLines(state, standing),
    leftAsItIs: leftLines(state),
    oddsLeft: oddsLines(standing),
    warranty: warrantyLines(done?.warrantyMonths),
    advice: [...new Set([...advice, ...(done?.text ? [done.text] : []), ...adviceFor(causes, t.history)])],
    safety,
    maps,
    changes: maps ? comparePasses(maps.before, maps.after) : [],
    holds: handBackBlockers(state).map((h) => h.text),
    minutes: Math.round(benchSeconds(state.work, nowIso).all / 60),
    priceMinor: done?.priceMinor ?? null,
  }
}

const damagedInTheSocket = 'damaged contacts in the CPU socket'

/** What it was: faults that were repaired, and damaged contacts where those were worked on. */
function causesOf({ triage, socket }: JobState): readonly string[] {
  const worked = socket.strokes.length > 0 || socket.replaced.length > 0
  return [
    ...(worked && Object.keys(socket.asFound).length > 0 ? ['contacts'] : []),
    ...new Set(triage.mended.map(({ fault }) => fault)),
  ]
}

function reassemblyLines({ machine, found }: Reassembly, ok: boolean): string[] {
  if (!machine) return []
  const checks = reassemblyChecks.filter((check) => found[check]?.ok === ok)
  return checks.map((check) => {
    const { note } = found[check]!
    return `${checkWords[check].say}: ${note || (ok ? 'in order' : 'not in order')}`
  })
}

function oddsLines({ left }: ProofStanding): string[] {
  if ('notKnown' in left) return [`not known: ${left.notKnown}`]
  const most = left.of.slice(0, 3).map(({ what, odds }) => `${sayProved(what)} (${percent(odds)})`)
  return [
    `${percent(left.odds)} that something is wrong that was not found here`,
    ...(most.length > 0 ? [`most of it: ${most.join(', ')}`] : []),
  ]
}

const warrantyLines = (months: number | undefined): string[] =>
  months
    ? [
        `${months} ${months === 1 ? 'month' : 'months'} on what stands under Repaired`,
        'none on what was not tested, and on what is left as it is',
      ]
    : []

const damagedNames = (marks: Marks) => Object.keys(marks).filter((name) => isDamage(marks[name]))
const counted = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`

function foundLines(state: JobState): string[] {
  const found: string[] = []
  for (const look of state.board.looks) if (!look.clear) found.push(`${look.what}: ${look.seen}`)
  const own = state.board.ownRails
  const bad = new Map(state.board.railLog.filter((r) => railState(r, own) !== 'good').map((r) => [r.rail, r]))
  for (const r of bad.values())
    found.push(
      `${sayRail(r.rail)} at ${sayOhms(r.ohms)} to ground: ${railState(r, own) === 'short' ? 'shorted' : 'low'}`,
    )
  const told = new Map(
    state.board.told.rails.flatMap((r) => (r.is === 'good' || bad.has(r.rail) ? [] : [[r.rail, r.is]])),
  )
  for (const [rail, is] of told)
    found.push(`${sayRail(rail)} ${is === 'short' ? 'shorted' : 'low'} to ground, without a figure`)
  const weak = state.board.cellLog.find((c) => cellState(c.volts).state !== 'good')
  if (weak) found.push(`coin cell at ${weak.volts} V`)
  else if (state.board.told.cells.some((c) => c.is === 'low')) found.push('coin cell low, without a figure')
  const ever = new Map(Object.entries(state.socket.asFound))
  if (ever.size > 0) {
    const few =
      ever.size <= 6 ? `: ${[...ever].map(([name, mark]) => `${name} ${sayMark(mark)}`).join('; ')}` : ''
    found.push(`${counted(ever.size, 'damaged contact', 'damaged contacts')} in the CPU socket${few}`)
  }
  for (const part of state.parts.noted)
    if (part.did.startsWith('found'))
      found.push(`${part.ref}: ${part.did.slice(6)}${part.text ? `, ${part.text}` : ''}`)
  for (const claim of state.intake.claims)
    if (claim.opinion === null && claim.checked?.verdict === 'wrong')
      found.push(`“${claim.text}” did not hold: ${claim.checked.how}`)
  const compared = comparedNow(state.firmware)
  const contents = compared && contentsWords[compared.verdict]
  if (contents) found.push(contents)
  const baseline = state.board.baselines[0]
  if (baseline) found.push(`at the first power-up it ${stageReached(baseline).say}`)
  const last = state.board.baselines.at(-1)
  if (last && last !== baseline) found.push(`at the last power-up it ${stageReached(last).say}`)
  return found
}

/** What was found on the firmware chip, as its owner reads it. */
const contentsWords: Readonly<Record<Verdict, string | null>> = {
  'same code': 'the firmware chip holds its release, sound',
  'broken off': 'an update of the firmware had been broken off',
  damaged: 'the firmware was damaged',
  'another release': 'the firmware chip holds another release than was thought',
  'cannot tell': null,
}

const dropWords = {
  flat: 'fell flat by itself',
  'light push': 'wanted a light push',
  proud: 'one corner stayed proud',
  'needed force': 'needed force',
}

function repairedLines(state: JobState): string[] {
  const done: string[] = []
  const there = new Set(state.socket.strokes.filter((s) => s.result === 'there').map((s) => s.contact))
  if (there.size > 0) done.push(`${counted(there.size, 'contact', 'contacts')} straightened`)
  const snapped = state.socket.strokes.filter((s) => s.result === 'snapped').map((s) => s.contact)
  for (const name of snapped) {
    const found = state.socket.asFound[name]
    done.push(`${name}, ${found ? `found ${sayMark(found)}, ` : ''}snapped while being straightened`)
  }
  for (const r of state.socket.replaced)
    done.push(
      r.how === 'whole socket'
        ? `the whole socket changed${r.holds ? '' : ', it does not hold'}`
        : `${r.contact}: ${r.how}, ${r.holds ? 'it holds' : 'it does not hold'}${r.pulledOut.length > 0 ? `; ${r.pulledOut.join(', ')} came out with it` : ''}`,
    )
  for (const { fault } of state.triage.mended)
    done.push(`put right: ${faults[fault as FaultId]?.say ?? fault}`)
  for (const [name, why] of Object.entries(state.socket.left)) done.push(`${name} left as it is: ${why}`)
  for (const f of state.firmware.steps) if (f.did) done.push(f.did)
  const written = writtenNow(state.firmware)
  if (written)
    done.push(
      written.release === null
        ? 'the firmware chip given back what it held'
        : 'the firmware chip written with the maker’s release, the board’s own data kept, and read back',
    )
  for (const part of state.parts.noted)
    if (part.did === 'fitted') done.push(`${part.ref} fitted${part.value ? `, ${part.value}` : ''}`)
  for (const seat of state.socket.seats.slice(-1))
    done.push(`CPU seated: ${seat.cpu}, ${dropWords[seat.drop]}`)
  return done
}

function notTestedLines({ handBack }: JobState, { tests }: ProofStanding): string[] {
  return [
    ...tests.flatMap((p) => {
      if (p.result === 'pass' || p.result === 'fail') return []
      const why =
        p.result === 'cannot run here'
          ? `cannot be run here${p.reading ? `, ${p.reading}` : ''}`
          : p.again
            ? 'not repeated since the last change'
            : 'not done'
      const odds = p.untold === null ? '' : `; ${percent(p.untold)} that it would find something`
      return [`${p.test}: ${why}${odds}`]
    }),
    ...openChecks(handBack.reassembly).map((check) => `${checkWords[check].say}: not looked at`),
  ]
}

function leftLines(state: JobState): string[] {
  const lines: string[] = []
  const marks = state.socket.passes.at(-1)?.marks ?? {}
  for (const name of damagedNames(marks))
    lines.push(`${name} stays ${sayMark(marks[name]!)}${fate(state, name)}`)
  for (const item of unaccounted(state.board)) lines.push(`${item.what} was not found`)
  for (const { text, settled } of state.parts.deferred)
    if (settled?.how !== 'done') lines.push(`not repaired: ${text}${settled?.why ? `, ${settled.why}` : ''}`)
  return lines
}

/** How a contact that stays damaged came to it, and why it is left: what broke here is said to have broken here. */
function fate(state: JobState, name: string): string {
  const found = state.socket.asFound[name]
  const broke = state.socket.strokes.some((s) => s.contact === name && s.result === 'snapped')
  const out = state.socket.replaced.some((r) => r.pulledOut.includes(name))
  const said = [
    broke && `found ${found ? sayMark(found) : 'sound'}; snapped while straightening`,
    out && 'came out with another while it was replaced',
    state.socket.left[name],
  ].filter(Boolean)
  return said.length > 0 ? ` (${said.join('; ')})` : ''
}

const safety = [
  'Disconnect the mains before opening the case. Never open a power supply.',
  'Never run the CPU without its cooler. Hold the CPU by its edges and lower it straight down; it falls flat by itself.',
  'Coin cells: keep away from children, never short or solder one. Cells and boards go to electronic waste.',
  'Where local rules ask for a licensed person, ask one.',
]
