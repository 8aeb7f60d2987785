import type { ButtonHTMLAttributes, ReactNode } from 'react'

type Look = 'first' | 'quiet' | 'danger' | 'bare'

const looks: Record<Look, string> = {
  first: 'bg-ink text-sheet border-ink',
  quiet: 'border-line text-ink hover:border-slate',
  danger: 'border-ember text-ember hover:bg-ember-bg',
  bare: 'border-transparent text-ink underline decoration-line underline-offset-4 hover:decoration-ink px-1',
}

/** A button says a verb; its key, if it has one, stands at its end. */
export function Button({
  look = 'quiet',
  keyHint,
  children,
  className = '',
  type = 'button',
  ...rest
}: { look?: Look; keyHint?: string; children: ReactNode } & ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type={type}
      className={`inline-flex items-center justify-between gap-4 rounded-sheet border-[1.5px] px-3.5 py-2 text-left font-semibold disabled:opacity-50 ${looks[look]} ${className}`}
      {...rest}
    >
      <span>{children}</span>
      {keyHint && <kbd className="font-mono text-sm opacity-75">{keyHint}</kbd>}
    </button>
  )
}
