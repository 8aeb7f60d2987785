import type { Hours } from './promise'

export const weekdays = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const

/** Hours as they stand in their fields: times of the day, empty on a closed weekday; closed days one a line, or from and to. */
export interface TypedHours {
  readonly week: readonly (readonly [from: string, to: string])[]
  readonly closed: string
  readonly people: string
}

const minuteOf = (text: string): number | null => {
  const [, h, m] = /^(\d{1,2})[:.](\d{2})$/.exec(text.trim()) ?? []
  const [hours, minutes] = [Number(h), Number(m)]
  return h === undefined || hours > 24 || minutes > 59 || hours * 60 + minutes > 1440
    ? null
    : hours * 60 + minutes
}
const timeOf = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`

const DAY_MS = 86_400_000
/** The moment a date begins, or null where there is no such day. */
const dayOf = (text: string): number | null => {
  const at = /^\d{4}-\d{2}-\d{2}$/.test(text) ? Date.parse(`${text}T00:00Z`) : NaN
  return Number.isNaN(at) || dateOf(at) !== text ? null : at
}
const dateOf = (at: number): string => new Date(at).toISOString().slice(0, 10)
/** A closed stretch is not longer, days. */
const LONGEST = 366
const MOST_CLOSED = 2000

/** Reads hours as they were typed; what is wrong is named by its field. */
export function readHours({ week, closed, people }: TypedHours): {
  readonly hours: Hours | null
  readonly faults: Readonly<Record<string, string>>
} {
  const faults: Record<string, string> = {}
  const open = weekdays.map((day, i): readonly [number, number] | null => {
    const [from = '', to = ''] = week[i] ?? []
    if (from.trim() === '' && to.trim() === '') return null
    const [begins, ends] = [minuteOf(from), minuteOf(to)]
    if (begins === null || ends === null)
      faults[day] =
        `“${begins === null ? from : to}” is no time: like 09:00, or leave both empty on a closed day.`
    else if (ends <= begins) faults[day] = 'It ends before it begins.'
    return begins === null || ends === null ? null : [begins, ends]
  })
  const days = new Set<string>()
  for (const line of closed.split(/[\n,;]+/)) {
    const [first, last, ...rest] = line.trim().split(/\s*(?:\bto\b|\.\.|–)\s*/)
    if (!first) continue
    const [from, to] = [dayOf(first), dayOf(last ?? first)]
    if (from === null || to === null || rest.length > 0)
      faults.closed = `“${line.trim()}” is no day: like 2026-12-24, or 2026-12-24 to 2027-01-01.`
    else if (to < from || to - from > LONGEST * DAY_MS)
      faults.closed = `“${line.trim()}” ends before it begins, or is over a year.`
    else for (let at = from; at <= to; at += DAY_MS) days.add(dateOf(at))
  }
  if (days.size > MOST_CLOSED) faults.closed = `${days.size} closed days are more than ${MOST_CLOSED}.`
  const count = Number(people)
  if (!Number.isInteger(count) || count < 1 || count > 50)
    faults.people = `“${people}” is no number of people at the bench: 1 to 50.`
  if (Object.keys(faults).length === 0 && open.every((o) => o === null))
    faults.Monday = 'No weekday has bench hours: nothing is ever ready. Open one at least.'
  return {
    hours: Object.keys(faults).length > 0 ? null : { week: open, closed: [...days].sort(), people: count },
    faults,
  }
}

/** Hours as they stand in their fields, closed days next to one another as one stretch. */
export function typedHours({ week, closed, people }: Hours): TypedHours {
  const stretches: [number, number][] = []
  for (const at of [...closed].sort().map((day) => dayOf(day)!)) {
    const last = stretches.at(-1)
    if (last && at - last[1] === DAY_MS) last[1] = at
    else stretches.push([at, at])
  }
  return {
    week: week.map((open) => (open ? [timeOf(open[0]), timeOf(open[1])] : ['', ''])),
    closed: stretches
      .map(([from, to]) => (from === to ? dateOf(from) : `${dateOf(from)} to ${dateOf(to)}`))
      .join('\n'),
    people: String(people),
  }
}

/** Bench hours of a week, all people together. */
export const weekHours = ({ week, people }: Hours): number =>
  (people * week.reduce((sum, open) => sum + (open ? open[1] - open[0] : 0), 0)) / 60
