/** What the bench needs of a job to say when it is its turn. */
export interface Queued {
  readonly id: string
  readonly promisedAt: string | null
  readonly minutesLeft: number
  readonly waiting: boolean
}

/** How a job stands against its promise. Slack is bench minutes to spare; null without a promise. */
export interface Standing {
  readonly id: string
  readonly slackMinutes: number | null
  readonly say: 'late' | 'today' | 'soon' | 'in time' | 'waits for the owner' | 'no promise'
}

/** Bench minutes in a working day (bench default). */
const DAY_MINUTES = 420

/**
 * The working order: late ones first, then least slack, jobs without a promise after those with one, jobs that wait for
 * the owner last. Slack is the working time until the promise less the minutes still needed; a day has 7 bench hours.
 * @param dayOf the day of a moment where the shop is: today is a date, not the next 24 hours
 */
export function workingOrder(
  queue: readonly Queued[],
  nowIso: string,
  dayOf: (at: string) => string = (at) => at.slice(0, 10),
): Standing[] {
  const now = Date.parse(nowIso)
  const today = dayOf(nowIso)
  const standings = queue.map((job): Standing & { rank: number } => {
    if (job.promisedAt === null)
      return {
        id: job.id,
        slackMinutes: null,
        say: job.waiting ? 'waits for the owner' : 'no promise',
        rank: job.waiting ? 3 : 1,
      }
    const days = (Date.parse(job.promisedAt) - now) / 86_400_000
    const slackMinutes = Math.round(days * DAY_MINUTES - Math.max(0, job.minutesLeft))
    const late = days < 0
    const say = job.waiting
      ? 'waits for the owner'
      : late
        ? 'late'
        : dayOf(job.promisedAt) === today
          ? 'today'
          : slackMinutes < DAY_MINUTES
            ? 'soon'
            : 'in time'
    return { id: job.id, slackMinutes, say, rank: job.waiting ? 3 : late ? -1 : 0 }
  })
  standings.sort(
    (a, b) => a.rank - b.rank || (a.slackMinutes ?? 0) - (b.slackMinutes ?? 0) || (a.id < b.id ? -1 : 1),
  )
  return standings.map(({ id, slackMinutes, say }) => ({ id, slackMinutes, say }))
}

/**
 * The order with some taken first by hand, in the order somebody gave them; the others follow as they are. What waits for the owner
 * is not taken up, whoever put it there.
 */
export function takenFirst(order: readonly Standing[], byHand: readonly string[]): Standing[] {
  const takes = new Map(order.filter((s) => s.say !== 'waits for the owner').map((s) => [s.id, s]))
  const first = [...new Set(byHand)].flatMap((id) => takes.get(id) ?? [])
  const named = new Set(first.map((s) => s.id))
  return [...first, ...order.filter((s) => !named.has(s.id))]
}

/** What is taken first by hand once one job of a list was moved: it, all that now lies before it, and what was put first already. */
export function firstByHand(list: readonly string[], byHand: readonly string[], moved: string): string[] {
  const last = Math.max(...[moved, ...byHand].map((id) => list.indexOf(id)))
  return list.slice(0, last + 1)
}
