/** Lets messages in, a stop among them. */
export const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0))

/**
 * Carries work to its end and tells how far it is; null when it was dropped on the way.
 * @param progress answered once it is heard: it takes a way of its own to the page, and the answer must not overtake it
 */
export async function stepByStep<T>(
  work: Generator<number, T>,
  progress: (share: number) => unknown,
  isDropped: () => boolean,
): Promise<T | null> {
  let heard: unknown
  for (;;) {
    const { done, value } = work.next()
    if (!done) {
      heard = progress(value)
      await breath()
      if (!isDropped()) continue
    }
    await heard
    return done ? value : null
  }
}
