import { railWords } from '../job/entry'
import { railState } from '../job/power-gate'
import { benchSeconds, unaccounted } from '../job/state'
import type { JobState } from '../job/state'
import { proofStanding } from '../proof/plan'
import { handBackHolds } from './holds'
import { isDamage, sayMark } from '../socket/mark'
import { comparePasses } from '../socket/pass'
import type { PassChange } from '../socket/pass'
import type { Socket } from '../socket/socket'
import { stageReached } from '../triage/stage'

/** What the owner reads: found, done, proved, not proved, advice, safety. */
export interface HandBackSheet {
  readonly title: string
  readonly complaint: string
  readonly outcome: string
  readonly found: readonly string[]
  readonly done: readonly string[]
  readonly proved: readonly string[]
  readonly notProved: readonly string[]
  readonly advice: readonly string[]
  readonly safety: readonly string[]
  readonly changes: readonly PassChange[]
  readonly holds: readonly string[]
  readonly minutes: number
  readonly priceMinor: number | null
}

const safety = [
  'Disconnect the mains before opening the case. Never open a power supply.',
  'Never run the CPU without its cooler. Hold the CPU by its edges and lower it straight down; it falls flat by itself.',
  'Coin cells: keep away from children, never short or solder one. Cells and boards go to electronic waste.',
  'Where local rules ask for a licensed person, ask one.',
]

/** The sheet from the tape. Nothing is claimed to be proved that has no reading. */
export function handBackSheet(state: JobState, socket: Socket | null, nowIso: string): HandBackSheet {
  const t = state.ticket
  const found: string[] = []
  for (const look of state.looks) if (!look.clear) found.push(`${look.what}: ${look.seen}`)
  for (const reading of Object.values(state.rails))
    if (railState(reading) !== 'good')
      found.push(`${railWords[reading.rail]}: ${reading.ohms} Ω to ground (${railState(reading)})`)
  if (state.cell && state.cell.volts < 2.8) found.push(`coin cell at ${state.cell.volts} V`)
  const first = state.passes[0]
  const firstDamage = Object.entries(first?.marks ?? {}).filter(([, mark]) => isDamage(mark))
  const ever = new Set([...firstDamage.map(([name]) => name), ...state.strokes.map((s) => s.contact)])
  if (ever.size > 0)
    found.push(
      `${ever.size} damaged ${ever.size === 1 ? 'contact' : 'contacts'} in the CPU socket${firstDamage.length > 0 && firstDamage.length <= 6 ? ` (${firstDamage.map(([name, mark]) => `${name} ${sayMark(mark)}`).join('; ')})` : ''}`,
    )
  for (const part of state.parts)
    if (part.did.startsWith('found'))
      found.push(`${part.ref}: ${part.did.slice(6)}${part.text ? `, ${part.text}` : ''}`)
  for (const claim of state.claims)
    if (claim.checked?.verdict === 'wrong') found.push(`“${claim.text}” did not hold: ${claim.checked.how}`)
  const baseline = state.baselines[0]
  if (baseline) found.push(`at the first power-up it ${stageReached(baseline).say}`)

  const done: string[] = []
  const there = new Set(state.strokes.filter((s) => s.result === 'there').map((s) => s.contact))
  if (there.size > 0) done.push(`${there.size} ${there.size === 1 ? 'contact' : 'contacts'} straightened`)
  const snapped = state.strokes.filter((s) => s.result === 'snapped').map((s) => s.contact)
  if (snapped.length > 0) done.push(`${snapped.join(', ')} snapped while being straightened`)
  for (const [name, why] of Object.entries(state.left)) done.push(`${name} left as it is: ${why}`)
  for (const f of state.firmware) if (f.did) done.push(f.did)
  for (const part of state.parts)
    if (part.did === 'fitted') done.push(`${part.ref} fitted${part.value ? `, ${part.value}` : ''}`)
  for (const seat of state.seats.slice(-1)) done.push(`CPU seated: ${seat.cpu}, fell ${seat.drop}`)

  const standing = proofStanding(state, socket)
  const proved = standing.tests
    .filter((p) => p.result === 'pass')
    .map((p) => `${p.test}: ${p.reading || 'passed'}`)
  const notProved = standing.tests
    .filter((p) => p.result !== 'pass')
    .map(
      (p) =>
        `${p.test}: ${p.result === 'fail' ? `failed, ${p.reading}` : p.result === 'cannot run here' ? `cannot be run here, ${p.reading || 'no means'}` : 'not done'}`,
    )
  const last = state.passes.at(-1)
  const stillDamaged = Object.entries(last?.marks ?? {}).filter(([, mark]) => isDamage(mark))
  for (const [name, mark] of stillDamaged)
    notProved.push(`${name} stays ${sayMark(mark)}${state.left[name] ? ` (${state.left[name]})` : ''}`)
  for (const item of unaccounted(state)) notProved.push(`${item.what} was not found`)

  return {
    title: [t.board, t.revision && `rev ${t.revision}`, t.use].filter(Boolean).join(', '),
    complaint: t.complaint,
    outcome: state.handBack?.outcome ?? 'in work',
    found,
    done,
    proved,
    notProved,
    advice: [...state.advice, ...(state.handBack?.text ? [state.handBack.text] : [])],
    safety,
    changes: first && last && first !== last ? comparePasses(first.marks, last.marks) : [],
    holds: handBackHolds(state).map((h) => h.text),
    minutes: Math.round(benchSeconds(state, nowIso).all / 60),
    priceMinor: state.handBack?.priceMinor ?? null,
  }
}
