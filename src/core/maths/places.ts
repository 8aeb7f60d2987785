import KDBush from 'kdbush'

/** Places in the plane, kept so that those near one are found without going through all. */
export class Places {
  private readonly tree: KDBush
  constructor(
    private readonly x: ArrayLike<number>,
    private readonly y: ArrayLike<number>,
  ) {
    this.tree = new KDBush(x.length)
    for (let i = 0; i < x.length; i++) this.tree.add(x[i]!, y[i]!)
    this.tree.finish()
  }

  /** Indexes of the places within a radius of one, in index order. */
  within(x: number, y: number, radius: number): number[] {
    return this.tree.within(x, y, radius).sort((a, b) => a - b)
  }

  /** The nearest within a radius, or −1; of two as near the later. */
  nearest(x: number, y: number, radius: number): number {
    let best = -1
    let far = radius
    for (const i of this.within(x, y, radius)) {
      const distance = Math.hypot(this.x[i]! - x, this.y[i]! - y)
      if (distance > far) continue
      best = i
      far = distance
    }
    return best
  }
}
