import { nothingRound } from '../job/advice-setting'
import { gateOf } from '../job/gate'
import { jobState } from '../job/job-state'
import { stepAt } from '../job/next-step'
import type { tape } from '../job/tape.testing'
import type { FirmwareBodies } from './bodies'

export type Tape = ReturnType<typeof tape>

/** Files that stand for what a chip holds and what is to go into it. */
export const [a, b, c] = ['a', 'b', 'c'].map((letter) => letter.repeat(64)) as [string, string, string]

export const stateOf = (t: Tape) => jobState(t.entries)

/** The next step at the firmware station. */
export function step(t: Tape) {
  const state = stateOf(t)
  return stepAt('firmware', {
    state,
    field: null,
    gate: gateOf(state, null),
    setting: nothingRound,
    belief: null,
    work: null,
  })
}

/** A file of a chip’s size, as it is noted. */
export const image = (file: string, role: FirmwareBodies['image']['role'] = 'read') => ({
  file,
  name: 'x.bin',
  bytes: 2_097_152,
  role,
  versions: [],
})

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
