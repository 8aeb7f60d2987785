import { isWhole, sample } from './assess'
import type { AssessOptions, Drawn } from './assess'
import { starts } from '../contact/function-law'
import type { Marks } from './mark'
import { fieldOf } from '../model/socket'
import { functionGroups } from '../../board/function-group'
import type { Socket } from '../model/socket'

/** Odds that the board runs, and that nothing is lost, with one contact good or with it lost, all else as it falls. */
export interface GoodOrLost {
  readonly good: { readonly runs: number; readonly whole: number }
  readonly lost: { readonly runs: number; readonly whole: number }
}

/** How a draw ends with one more or one fewer lost of a group. */
interface Ends {
  readonly runs: number
  readonly whole: number
}

/**
 * What each contact is worth to the board. All contacts share the same draws: in each, the contact’s own fate is set
 * to good and then to lost, and the law of its group is asked again (common random numbers; any text of simulation).
 * @param names contacts to ask about; those of which the draws decide nothing are taken to be good
 */
export function goodOrLost(
  socket: Socket,
  marks: Marks,
  options: AssessOptions & { readonly draws: number },
  names: readonly string[],
): ReadonlyMap<string, GoodOrLost> {
  const { named } = fieldOf(socket)
  const sums = names.map(() => ({ good: { runs: 0, whole: 0 }, lost: { runs: 0, whole: 0 } }))
  const groups = names.map((name) => functionGroups.indexOf(named.get(name)?.group ?? 'unknown'))
  let places: Int32Array | null = null
  sample(socket, marks, options, (drawn, atRisk) => {
    places ??= Int32Array.from(names, (name) => atRisk.indexOf(name))
    const known = new Map<number, Ends>()
    const endsWith = (by: -1 | 0 | 1, group: number) => {
      const key = by * (group + 1)
      const before = known.get(key)
      if (before) return before
      drawn.lost[group]! += by
      const ends = endsOf(drawn)
      drawn.lost[group]! -= by
      known.set(key, ends)
      return ends
    }
    for (let i = 0; i < names.length; i++) {
      const place = places[i]!
      const really = place < 0 ? groups[i]! : drawn.really[place]!
      const isLost = place >= 0 && drawn.isLost[place] === 1
      add(sums[i]!.good, endsWith(isLost ? -1 : 0, really))
      add(sums[i]!.lost, endsWith(isLost ? 0 : 1, really))
    }
  })
  const mean = ({ runs, whole }: Ends): Ends => ({ runs: runs / options.draws, whole: whole / options.draws })
  return new Map(names.map((name, i) => [name, { good: mean(sums[i]!.good), lost: mean(sums[i]!.lost) }]))
}

const add = (to: { runs: number; whole: number }, ends: Ends) => {
  to.runs += ends.runs
  to.whole += ends.whole
}

const endsOf = (drawn: Drawn): Ends => ({
  runs: drawn.seated && !drawn.deadShort && starts(drawn.lost, drawn.totalOf) ? 1 : 0,
  whole: isWhole(drawn) ? 1 : 0,
})
