import type { FirmwareBodies } from './bodies'

/** A chip beside a release, as it is noted; a read that was made twice alike unless it is said otherwise. */
export const comparedLine = (
  original: string,
  release: string,
  verdict: FirmwareBodies['compared']['verdict'],
  rest: Partial<FirmwareBodies['compared']> = {},
): FirmwareBodies['compared'] => ({
  original,
  second: original,
  release,
  older: null,
  label: null,
  verdict,
  say: `It is ${verdict}.`,
  why: [],
  places: [],
  ...rest,
})
