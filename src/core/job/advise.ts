import type { PowerGate } from '../board/gate-reason'
import type { BenchFigures } from '../socket/straighten/bench-figures'
import { lostMinor, minutesMinor } from '../socket/straighten/bench-figures'
import { clusters } from '../socket/damage/cluster'
import { isDamage } from '../socket/damage/mark'
import type { Marks } from '../socket/damage/mark'
import type { SocketWork } from '../socket/next-step'
import { orderOfWork } from '../socket/straighten/reckon'
import type { ToReckon, Worth } from '../socket/straighten/reckon'
import { snapFactors } from '../socket/straighten/snap-record'
import { seenOf } from '../socket/lost-groups'
import { currentPass } from '../socket/slice'
import type { SocketState } from '../socket/slice'
import type { Socket } from '../socket/model/socket'
import type { SnapFactors } from '../socket/straighten/technique'
import { believe } from '../triage/reason/belief'
import type { Belief, ToBelieve } from '../triage/reason/belief'
import { triageStep } from '../triage/next-step'
import type { AdviceSetting } from './advice-setting'
import { knownOf } from './known'
import { startedAs } from './start-evidence'
import type { JobState } from './job-state'

/** What is slow to compute, asked for; null where it is not needed. */
export interface ToAdvise {
  readonly believe: ToBelieve | null
  readonly order: ToReckon | null
}

/** What is slow to compute, answered. */
export interface Reckoned {
  readonly belief: Belief | null
  readonly work: SocketWork | null
}

/** What the odds are made from: the same on the page, on the server and on the command line. */
export function toBelieve(
  state: JobState,
  field: Socket | null,
  gate: PowerGate,
  setting: AdviceSetting,
): ToBelieve {
  const due = triageStep(state.board, gate, null).test
  const { shelf, references } = setting
  return {
    ...knownOf(state, field, setting),
    mayPower: gate.lamp !== 'do not power',
    ...(shelf ? { shelf } : {}),
    ...(due === undefined ? {} : { due }),
    start: startedAs(
      { seq: state.seq, cpu: state.board.fitted.cpu, without: state.board.without },
      state,
      references,
    ),
  }
}

/** What strokes of a job are weighed by. */
export const worthOf = (valueMinor: number | null, figures: BenchFigures): Worth => ({
  worthMinor: valueMinor ?? figures.boardMinor,
  strokeMinor: minutesMinor(figures.strokeMinutes, figures),
  lossMinor: lostMinor(figures),
  withALoss: figures.withALoss,
})

/** How each contact was when it was first seen damaged. */
export function firstSeen(passes: SocketState['passes']): Marks {
  const first: Record<string, Marks[string]> = {}
  for (const pass of passes) for (const [name, mark] of Object.entries(pass.found)) first[name] ??= mark
  return first
}

/** What the order of work is made from. */
export function toReckon(socket: SocketState, field: Socket, worth: Worth, factors: SnapFactors): ToReckon {
  const pass = currentPass(socket)
  const { looked, looks, straightened } = seenOf(socket, field)
  const strokes: Record<string, number> = {}
  for (const s of socket.strokes) strokes[s.contact] = (strokes[s.contact] ?? 0) + s.strokes
  return {
    marks: pass?.marks ?? {},
    looked: [...looked],
    looks,
    straightened,
    school: socket.school,
    left: socket.left,
    strokes,
    first: firstSeen(socket.passes),
    worth,
    factors,
  }
}

/** How one last looked while straightening, as the tape has it. */
export function lastEye({ strokes }: SocketState) {
  const last = strokes.findLast((s) => s.light ?? s.magnification)
  return { light: last?.light ?? '', magnification: last?.magnification ?? '' }
}

/** What has to be computed before a job can be advised. */
export function toAdvise(
  state: JobState,
  field: Socket | null,
  gate: PowerGate,
  setting: AdviceSetting,
): ToAdvise {
  if (state.handBack.done) return { believe: null, order: null }
  const { socket } = state
  const damaged = Object.values(currentPass(socket)?.marks ?? {}).some(isDamage)
  return {
    believe: toBelieve(state, field, gate, setting),
    order:
      field && damaged
        ? toReckon(
            socket,
            field,
            worthOf(state.intake.ticket.valueMinor, setting.figures),
            snapFactors(setting.record, lastEye(socket)),
          )
        : null,
  }
}

export const orderWork = (field: Socket, order: ToReckon): SocketWork => ({
  planned: orderOfWork(field, order),
  clusters: clusters(field, order.marks),
})

/** Computes it: tenths of a second, in a worker or a thread of the server. */
export const reckonAdvice = (field: Socket | null, asked: ToAdvise): Reckoned => ({
  belief: asked.believe && believe(asked.believe),
  work: field && asked.order && orderWork(field, asked.order),
})
