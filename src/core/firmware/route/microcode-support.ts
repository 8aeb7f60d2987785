import type { Microcode } from '../image/microcode'
import type { Support } from './support-table'

export interface CarriedMicrocode {
  readonly say: string
  /** The table says otherwise. */
  readonly contradicts: boolean
}

/** CPU signatures as they are written: family, model and stepping, without zeros before. */
export const saySignature = (signature: number) => signature.toString(16).toUpperCase()

/**
 * The CPUs an image carries microcode for, beside what the table says of its release. A CPU that the table lets start and
 * that the image carries nothing for, or the other way round, is a contradiction: one of the two is wrong, or the image
 * is another release than its label says.
 *
 * @param release the release it is taken for; null where that is not known, or is none of the table
 */
export function microcodeSupport(
  carried: readonly Microcode[],
  support: Support | null,
  release: string | null,
): readonly CarriedMicrocode[] {
  const at = release === null ? undefined : support?.releaseAt.get(release)
  const told = support?.signatures ?? []
  const sound = carried.filter((m) => m.sumGood)
  const lines = sound.map((m): CarriedMicrocode => {
    const names = told.filter((t) => t.signature === m.signature).map((t) => t.cpu)
    const against =
      at === undefined || names.length === 0 ? [] : names.filter((n) => support!.rowOf(at, n) === null)
    const what = `microcode 0x${m.revision.toString(16)} of ${m.date} for CPU ${saySignature(m.signature)}`
    const whose = names.length > 0 ? ` (${names.join(', ')})` : ''
    return against.length > 0 && against.length === names.length
      ? { say: `${what}${whose}, which ${release} does not run by the table`, contradicts: true }
      : { say: `${what}${whose}`, contradicts: false }
  })
  if (at === undefined) return lines
  const missing = told.filter(
    (t) => support!.rowOf(at, t.cpu) !== null && !sound.some((m) => m.signature === t.signature),
  )
  return [
    ...lines,
    ...missing.map((t) => ({
      say: `no microcode for CPU ${saySignature(t.signature)} (${t.cpu}), which ${release} runs by the table`,
      contradicts: true,
    })),
  ]
}
