import { lowerFirst } from '../sentence'
import { percent } from '../maths/percent'
import type { PowerGate } from '../board/gate-reason'
import type { Step } from '../board/step'
import type { Cluster } from './damage/cluster'
import { isDamage } from './damage/mark'
import type { Plan } from './straighten/plan'
import { currentPass } from './slice'
import type { SocketState } from './slice'
import type { Socket } from './model/socket'

/** The order of work, and where the damage lies. */
export interface SocketWork {
  readonly planned: Plan
  readonly clusters: readonly Cluster[]
}

const clusterSay: Readonly<Record<Cluster['shape'], string>> = {
  crater: 'Level the',
  swath: 'Raise the',
  row: 'Run along the',
  patch: 'Work through the',
  stray: 'Straighten the',
}

const at = (say: string, why: string, more: Partial<Step> = {}): Step => ({
  station: 'socket',
  say,
  why,
  ...more,
})

/**
 * What is done at the socket next.
 * @param work the order of work, or null while it is being computed
 */
export function socketStep(
  state: SocketState,
  field: Socket | null,
  gate: PowerGate,
  work: SocketWork | null,
): Step {
  if (!field)
    return at(
      'Choose this board’s socket in the ticket first.',
      'The library has it, or takes it from a CSV table.',
    )
  const pass = currentPass(state)
  if (!pass)
    return at(
      'Look over the whole field and mark what breaks the pattern.',
      'Light from low at one side; the tips must catch it in the same place.',
      { test: 'socket' },
    )
  if (Object.values(pass.marks).some(isDamage) && !work)
    return at('Calculating which contact goes first.', 'The order stands under the map.', { pending: true })
  const open = work?.planned.steps.filter((s) => s.technique !== 'leave') ?? []
  const first = open[0]
  if (first && work) {
    const short = gate.reasons.find((r) => r.code === 'short' && r.level === 'closed')
    const touching = short ? `; ${lowerFirst(short.at.say)} before any power` : ''
    const most = work.clusters[0]
    const level = most && most.names.length >= 4 ? `${clusterSay[most.shape]} ${most.say}` : null
    const waiting = open.filter((s) => s.after.includes(first.contact)).length
    const begin = `begin with ${first.contact}${waiting > 0 ? `, for which ${waiting === 1 ? 'another waits' : `${waiting} others wait`}` : ''}`
    const inward = most?.shape === 'crater' && state.school === 'A' && first.contact !== most.middle
    const big = !level
      ? `Begin with ${first.contact}: ${first.say}`
      : most!.names.includes(first.contact)
        ? `${level}${inward ? ' from its rim inward' : ''}, ${begin}`
        : `First ${first.contact}, then ${lowerFirst(level)}`
    return at(
      `${big}${touching}.`,
      `${open.length} to do, about ${Math.max(1, Math.round(work.planned.minutes))} minutes; ${percent(work.planned.anySnaps)} that one of them breaks.`,
      { part: first.contact },
    )
  }
  const looked = Object.keys(pass.looked).length
  if (looked < field.contacts.length)
    return at(
      `Look at the other ${field.contacts.length - looked} contacts.`,
      'One in a thousand is easily missed; people still find one on the next pass.',
    )
  const left = work?.planned.steps.length ?? 0
  const stands =
    left === 0
      ? 'The field looks right'
      : `Leave the ${left === 1 ? 'marked contact' : `${left} marked contacts`} as ${left === 1 ? 'it is' : 'they are'}`
  const why =
    left === 0
      ? 'It must fall flat by its own weight.'
      : 'None is worth another stroke; why stands with each.'
  // How it was seated is put right by seating it again; anything else that closes the gate comes before a try.
  const closed = gate.reasons.find((r) => r.level === 'closed' && r.code !== 'seat')
  return closed
    ? at(`${stands}. Do not power yet: ${closed.text}.`, `${closed.at.say}.`)
    : at(`${stands}. Seat the CPU and try.`, `${why} Heatsink before power.`)
}
