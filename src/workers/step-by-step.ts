/** Lets messages in, a stop among them. */
export const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0))

/** Carries work to its end and tells how far it is; null when it was dropped on the way. */
export async function stepByStep<T>(
  work: Generator<number, T>,
  progress: (share: number) => void,
  isDropped: () => boolean,
): Promise<T | null> {
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
    progress(value)
    await breath()
    if (isDropped()) return null
  }
}
