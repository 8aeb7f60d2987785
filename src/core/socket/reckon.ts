import { assess } from './assess'
import type { Assessment } from './assess'
import { clusters } from './cluster'
import type { Cluster } from './cluster'
import type { Marks } from './mark'
import { afterPlan, plan } from './plan'
import type { Plan, School } from './plan'
import type { Socket } from './socket'

/** What the socket surface asks for after each mark. */
export interface Reckoning {
  readonly now: Assessment
  readonly planned: Plan
  /** The field once the plan went through, with the odds of what may snap on the way. */
  readonly then: Assessment
  readonly clusters: readonly Cluster[]
}

export interface ToReckon {
  readonly marks: Marks
  readonly looked: readonly string[]
  readonly school: School
  readonly left: Readonly<Record<string, string>>
  readonly strokes: Readonly<Record<string, number>>
}

/** Assessment, order of work and outlook of one field; about 100 ms for 1,700 contacts with 60 damaged. */
export function reckon(socket: Socket, { marks, looked, school, left, strokes }: ToReckon): Reckoning {
  const seen = new Set(looked)
  const planned = plan(socket, marks, school, left, strokes)
  const after = afterPlan(planned, marks)
  return {
    now: assess(socket, marks, { looked: seen }),
    planned,
    then: assess(socket, after.marks, { looked: seen, mayBeGone: after.mayBeGone }),
    clusters: clusters(socket, marks),
  }
}
