'use client'

/** A button that picks a file, a table where nothing else is said; what it takes stands beside it. */
export function FileButton({
  children,
  hint = '',
  label,
  accept = '.csv,text/csv,text/plain',
  disabled = false,
  onFile,
}: {
  children: string
  hint?: string
  /** Said by a screen reader. */
  label: string
  accept?: string
  disabled?: boolean
  onFile: (file: File) => void
}) {
  return (
    <p className="flex items-baseline gap-2.5">
      <label
        className={`relative shrink-0 rounded-sheet border-[1.5px] border-line px-3 py-1 font-semibold focus-within:outline-[2.5px] focus-within:outline-offset-2 focus-within:outline-brass ${disabled ? 'opacity-50' : 'cursor-pointer hover:border-slate'}`}
      >
        {children}
        <input
          type="file"
          accept={accept}
          className="sr-only"
          disabled={disabled}
          aria-label={label}
          onChange={(event) => {
            const file = event.target.files?.[0]
            event.target.value = ''
            if (file) onFile(file)
          }}
        />
      </label>
      {hint && <span className="text-[0.88rem] text-soft">{hint}</span>}
    </p>
  )
}
