import { contentsSince } from '../slice'
import type { FirmwareView } from '../view'
import type { SeenStart } from './version-odds'

type OfStarts = Pick<FirmwareView, 'board' | 'firmware'>

/** Power-ups that tell of a CPU, made since a contact or a part was last worked on: that may have been what kept it dark. */
const told = ({ board }: OfStarts): readonly (SeenStart & { readonly seq: number })[] =>
  board.baselines.flatMap(({ seq, cpu, picture, fans }) =>
    cpu === null || picture === 'not noted' || fans === 'off' || fans === 'twitch' || seq < board.lastTouched
      ? []
      : [{ seq, cpu, saw: picture === 'none' ? 'dark' : 'starts' }],
  )

/** Which CPU started, and which stayed dark, on what is in the chip now. */
export const startsNow = (view: OfStarts): readonly SeenStart[] =>
  told(view)
    .filter((s) => s.seq > contentsSince(view.firmware))
    .map(({ cpu, saw }) => ({ cpu, saw }))

/** The CPU that last stayed dark, whatever was in the chip then. */
export const stayedDark = (view: OfStarts): string | null =>
  told(view).findLast((s) => s.saw === 'dark')?.cpu ?? null

/** A CPU that starts on what is in the chip, beside another that never did; null where there are not both. */
export function oneStartsOneNot(view: OfStarts): { readonly runs: string; readonly dark: string } | null {
  const starts = startsNow(view)
  const runs = starts.find((s) => s.saw === 'starts')
  const dark = starts.find(
    (s) => s.saw === 'dark' && !starts.some((o) => o.cpu === s.cpu && o.saw === 'starts'),
  )
  return runs && dark ? { runs: runs.cpu, dark: dark.cpu } : null
}
