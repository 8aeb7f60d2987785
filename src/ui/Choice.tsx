'use client'
import { Label, Radio, RadioGroup } from '@headlessui/react'

/** A few words to choose one from, all in sight; arrows move, shape and weight tell the chosen one. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  words,
}: {
  label: string
  value: T
  options: readonly T[]
  onChange: (value: T) => void
  words?: Partial<Record<T, string>>
}) {
  return (
    <RadioGroup value={value} onChange={onChange} className="flex flex-wrap items-baseline gap-x-1 gap-y-1.5">
      <Label className="w-24 shrink-0 text-[0.94rem] text-soft">{label}</Label>
      {options.map((option) => (
        <Radio
          key={option}
          value={option}
          className="cursor-pointer rounded-sheet border-[1.5px] border-transparent px-2.5 py-1 text-soft outline-none data-checked:border-ink data-checked:font-semibold data-checked:text-ink data-focus:outline-2 data-focus:outline-brass data-focus:outline-offset-1"
        >
          {words?.[option] ?? option}
        </Radio>
      ))}
    </RadioGroup>
  )
}
