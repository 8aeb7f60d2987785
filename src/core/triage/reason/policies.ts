import { benchTests } from '../model/bench-tests'
import { suggested } from './work-board'
import type { Policy } from './work-board'

const byId = new Map(benchTests.map((t) => [t.id, t]))
const inOrder =
  (order: readonly string[]): Policy =>
  (_, done) =>
    byId.get(order.find((t) => !done.has(t)) ?? '') ?? null
/** A sensible list, as it hangs on a wall: look, measure, start, change one thing after another. */
const wall = 'outside|socket|ohms 12v|ohms 5v|ohms 3v3|ohms standby|ohms vcore|ohms vmem|ohms vsys|cell|as it came|codes|needed only|settings cleared|no memory|good in A|good in B|reseated|round the chip|bench supply|bridged|card|volts vcore|volts vmem|volts vsys|power-good|reset|trained|own graphics|good drive|front wiring|cell under load|chip lines|slots|CPU proud|memory reseated|module elsewhere|version|known-good CPU|chip id|second chip|chip contents|eased|CPU elsewhere'.split('|') // prettier-ignore

/** Ways of choosing the next test: the product's own, a list on the wall, and whatever is cheapest. */
export const policies: Readonly<Record<'suggested' | 'checklist' | 'cheapest first', Policy>> = {
  suggested,
  checklist: inOrder([...wall, ...benchTests.map((t) => t.id).filter((id) => !wall.includes(id))]),
  'cheapest first': inOrder([...benchTests].sort((a, b) => a.minutes - b.minutes).map((t) => t.id)),
}
