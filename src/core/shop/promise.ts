import { normalDraw, seeded } from '../maths/seeded'

/** A job in the order it is taken up. Moments are of the shop’s own clock: “2026-12-01T14:30”. */
export interface Promised {
  readonly id: string
  /** Bench minutes it still takes, in the middle. */
  readonly minutesLeft: number
  /** A part or the owner’s word is awaited until then; null where nothing is. */
  readonly notBefore: string | null
  readonly promisedAt: string | null
}

export interface Hours {
  /** Bench hours of each weekday, Monday first: minutes of the day from and to; null for a closed one. */
  readonly week: readonly (readonly [from: number, to: number] | null)[]
  /** Closed days, “2026-12-25”. */
  readonly closed: readonly string[]
  /** How many work at once. */
  readonly people: number
}

export interface Ready {
  readonly id: string
  /** When it is ready: as likely before as after, and with 80 %. */
  readonly middle: string
  readonly likely: string
  /** Chance that its promise is kept; null without one. */
  readonly kept: number | null
  /** What keeps it, where it is not likely kept. */
  readonly because:
    'no bench hours before it' | 'what is awaited' | 'what comes before it' | 'its own work' | null
}

/** What a promise would come to, before it is given. */
export interface IfPromised extends Pick<Ready, 'kept' | 'because'> {
  /** When it is likely ready, with 80 %, by the clock on the wall; null where nobody knows a day. */
  readonly likely: string | null
  /** Tags of jobs whose own promise was likely kept, and would not be any more. */
  readonly makesLate: readonly string[]
  /** The owner has not agreed yet: it is told as if they had. */
  readonly onceAgreed: boolean
}

/** Weekdays from nine to four, seven bench hours (bench default). */
export const usualHours: Hours = {
  week: [...Array.from({ length: 5 }, () => [540, 960] as const), null, null],
  closed: [],
  people: 1,
}
/** How far bench minutes scatter (standard deviation of their logarithm, bench default). */
const SCATTER = 0.5
const DRAWS = 500
const SURE = 0.8
/** The normal quantile of that. */
const SURE_Z = 0.8416
/** A day the calendar is laid out for at the most. */
const MOST_DAYS = 730

/** Open stretches of the calendar, and how many bench minutes lie before each. */
class Calendar {
  private readonly from: number[] = []
  private readonly to: number[] = []
  private readonly before: number[] = []
  private day: number
  private laid = 0

  constructor(
    private readonly hours: Hours,
    private readonly now: number,
  ) {
    if (!hours.week.some((open) => open && open[1] > open[0]))
      throw new RangeError('no weekday has bench hours: nothing is ever ready')
    this.day = Math.floor(now / 1440)
  }

  private lay(): boolean {
    if (this.laid++ > MOST_DAYS) return false
    const date = new Date(this.day * 86_400_000)
    const open = this.hours.week[(date.getUTCDay() + 6) % 7]
    if (open && !this.hours.closed.includes(date.toISOString().slice(0, 10))) {
      const [from, to] = [Math.max(this.now, this.day * 1440 + open[0]), this.day * 1440 + open[1]]
      if (to > from) {
        this.before.push(this.total)
        this.from.push(from)
        this.to.push(to)
      }
    }
    this.day++
    return true
  }
  private get total(): number {
    const last = this.from.length - 1
    return last < 0 ? 0 : this.before[last]! + this.to[last]! - this.from[last]!
  }

  /** The moment at which so many bench minutes are over. */
  at(minutes: number): number {
    while (this.total < minutes) if (!this.lay()) return Infinity
    let [low, high] = [0, this.before.length - 1]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (this.before[middle]! < minutes) low = middle
      else high = middle - 1
    }
    const from = this.from[low]
    return from === undefined ? this.now : from + minutes - this.before[low]!
  }

  /** Bench minutes until a moment. */
  until(moment: number): number {
    if (moment <= this.now) return 0
    while (this.day * 1440 <= moment) if (!this.lay()) break
    return this.from.reduce((sum, from, i) => sum + Math.max(0, Math.min(moment, this.to[i]!) - from), 0)
  }
}

const minutesOf = (local: string): number => Date.parse(`${local.slice(0, 16)}Z`) / 60_000
const momentOf = (minutes: number): string =>
  Number.isFinite(minutes) ? new Date(Math.round(minutes) * 60_000).toISOString().slice(0, 16) : 'never'

/**
 * When each job is ready: whoever is free takes up the first in order for which nothing is awaited any more (list scheduling; a
 * job that waits for something holds nobody up), and where all wait the one that waits shortest; over bench hours and closed days; bench minutes scatter log-normally, played through 500 times with a fixed seed.
 */
export function readyDates(queue: readonly Promised[], hours: Hours, nowLocal: string): Ready[] {
  const now = minutesOf(nowLocal)
  const calendar = new Calendar(hours, now)
  const earliest = queue.map((job) => (job.notBefore === null ? 0 : calendar.until(minutesOf(job.notBefore))))
  const ends = queue.map(() => new Float64Array(DRAWS))
  const draw = seeded(80)
  const free = new Float64Array(Math.max(1, hours.people))
  const waited = new Float64Array(queue.length)
  const took = new Float64Array(queue.length)
  for (let d = 0; d < DRAWS; d++) {
    free.fill(0)
    for (let j = 0; j < queue.length; j++)
      took[j] = Math.max(1, queue[j]!.minutesLeft) * Math.exp(SCATTER * normalDraw(draw))
    const left = [...queue.keys()]
    while (left.length > 0) {
      let who = 0
      for (let p = 1; p < free.length; p++) if (free[p]! < free[who]!) who = p
      const from = free[who]!
      let place = left.findIndex((j) => earliest[j]! <= from)
      if (place < 0) place = left.reduce((a, j, i) => (earliest[j]! < earliest[left[a]!]! ? i : a), 0)
      const [j] = left.splice(place, 1) as [number]
      waited[j]! += from / DRAWS
      free[who] = Math.max(from, earliest[j]!) + took[j]!
      ends[j]![d] = free[who]!
    }
  }
  return queue.map((job, j): Ready => {
    const sorted = ends[j]!.sort()
    const promised = job.promisedAt === null ? null : minutesOf(job.promisedAt)
    const by = promised === null ? 0 : calendar.until(promised)
    const kept =
      promised === null
        ? null
        : sorted.reduce((n, end) => n + (promised > now && end <= by ? 1 : 0), 0) / DRAWS
    // Alone on the bench, and with nothing awaited: would it be kept?
    const likelyTakes = Math.max(1, job.minutesLeft) * Math.exp(SCATTER * SURE_Z)
    const because =
      kept === null || kept >= SURE
        ? null
        : by === 0
          ? 'no bench hours before it'
          : likelyTakes > by
            ? 'its own work'
            : earliest[j]! >= waited[j]! && earliest[j]! + likelyTakes > by
              ? 'what is awaited'
              : 'what comes before it'
    return {
      id: job.id,
      middle: momentOf(calendar.at(sorted[Math.floor(0.5 * DRAWS)]!)),
      likely: momentOf(calendar.at(sorted[Math.floor(SURE * DRAWS)]!)),
      kept,
      because,
    }
  })
}
