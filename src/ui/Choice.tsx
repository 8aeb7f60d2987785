'use client'
import { Label, Radio, RadioGroup } from '@headlessui/react'

interface Props<T extends string> {
  readonly label: string
  readonly value: T
  readonly options: readonly T[]
  readonly onChange: (value: T) => void
  readonly words?: Partial<Record<T, string>>
  /** What a second press on the chosen one goes back to; it is not shown itself. */
  readonly none?: T
  readonly hideLabel?: boolean
  /** Its label may be longer than a word or two. */
  readonly wide?: boolean
}

/** A few words to choose one from, all in sight; arrows move, shape and weight tell the chosen one. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  words,
  none,
  hideLabel = false,
  wide = false,
}: Props<T>) {
  return (
    <RadioGroup value={value} onChange={onChange} className="flex items-baseline gap-x-1">
      <Label
        className={
          hideLabel ? 'sr-only' : `${wide ? 'w-[8.4rem]' : 'w-[5.4rem]'} shrink-0 text-[0.94rem] text-soft`
        }
      >
        {label}
      </Label>
      <span className="flex flex-wrap gap-x-0.5 gap-y-1">
        {options.map((option) => (
          <Radio
            key={option}
            value={option}
            onClick={() => none !== undefined && option === value && onChange(none)}
            className="cursor-pointer rounded-sheet border-[1.5px] border-transparent px-2 py-0.5 text-soft outline-none data-checked:border-ink data-checked:font-semibold data-checked:text-ink data-focus:outline-2 data-focus:outline-offset-1 data-focus:outline-brass"
          >
            {words?.[option] ?? option}
          </Radio>
        ))}
      </span>
    </RadioGroup>
  )
}
