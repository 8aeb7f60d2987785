import type { Release, SupportRow } from './support-table'

/** A release with nothing odd about it. */
export const release = (name: string, rest: Partial<Release> = {}): Release => ({
  name,
  date: null,
  unstable: false,
  withdrawn: false,
  needs: null,
  holds: null,
  source: '',
  trust: 1,
  ...rest,
})

/** A CPU that starts from one release on, to another or to the last. */
export const starts = (
  cpu: string,
  from: string,
  until: string | null = null,
  rest: Partial<SupportRow> = {},
): SupportRow => ({
  cpu,
  family: '',
  from,
  until,
  unstable: false,
  source: '',
  date: null,
  trust: 0.95,
  ...rest,
})
