'use client'
import { useId, useState } from 'react'
import { Button } from './Button'

/** One line of words and the button that keeps it; an empty press says what is wanted. */
export function OneLine({
  label,
  placeholder,
  keep,
  wanted,
  onKeep,
}: {
  label: string
  placeholder: string
  /** What the button says. */
  keep: string
  /** What is missing when nothing was written. */
  wanted: string
  onKeep: (text: string) => void
}) {
  const id = useId()
  const [text, setText] = useState('')
  const [empty, setEmpty] = useState(false)
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!text.trim()) return setEmpty(true)
        onKeep(text.trim())
        setText('')
      }}
    >
      <div className="flex flex-wrap gap-2">
        <input
          value={text}
          onChange={(e) => {
            setText(e.target.value)
            setEmpty(false)
          }}
          aria-label={label}
          aria-invalid={empty || undefined}
          aria-describedby={empty ? id : undefined}
          placeholder={placeholder}
          className="min-w-48 flex-1"
        />
        <Button type="submit" className="shrink-0">
          {keep}
        </Button>
      </div>
      {empty && (
        <p id={id} role="alert" className="font-semibold text-ember">
          {wanted}
        </p>
      )}
    </form>
  )
}
