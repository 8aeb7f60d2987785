'use client'
import { letGo } from './keys'

/** A move of a map’s view: its name with its key; the focus goes back to the map. */
export function MapMove({
  name,
  says,
  hint,
  on,
  onPress,
}: {
  name: string
  /** What it does, where its name is only a sign. */
  says?: string
  hint: string | undefined
  on?: boolean
  onPress: () => void
}) {
  return (
    <button
      type="button"
      aria-label={says}
      aria-pressed={on}
      onClick={(event) => {
        letGo(event)
        onPress()
      }}
      className="hover:text-ink aria-pressed:font-semibold aria-pressed:text-ink"
    >
      {name} <kbd className="num text-[0.82rem]">{hint}</kbd>
    </button>
  )
}
