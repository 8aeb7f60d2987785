/** Sets of things that are paid for once, each a number; 0 is the empty set. */
export class Bought {
  private readonly sets: (readonly number[])[] = [[]]
  private readonly ids = new Map<string, number>([['', 0]])
  private readonly next = new Map<number, number>()

  /** @param prices of each thing, in whole hundredths */
  constructor(private readonly prices: readonly number[]) {}

  with(set: number, thing: number): number {
    const key = set * this.prices.length + thing
    const known = this.next.get(key)
    if (known !== undefined) return known
    const have = this.sets[set]!
    const all = have.includes(thing) ? have : [...have, thing].sort((a, b) => a - b)
    const name = all.join()
    const id = this.ids.get(name) ?? this.sets.push(all) - 1
    this.ids.set(name, id)
    this.next.set(key, id)
    return id
  }

  has(set: number, thing: number): boolean {
    return set !== 0 && this.sets[set]!.includes(thing)
  }

  /** What is still to be paid, owning `have`, for all of `wanted`. */
  missing(wanted: number, have: number): number {
    if (wanted === 0 || wanted === have) return 0
    let price = 0
    for (const thing of this.sets[wanted]!) if (!this.has(have, thing)) price += this.prices[thing]!
    return price
  }
}
