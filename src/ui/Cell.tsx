import type { InputHTMLAttributes } from 'react'

/** A field in a grid of figures, named for a screen reader; what is wrong stands below it. */
export function Cell({
  error,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { readonly 'aria-label': string; readonly error?: string }) {
  return (
    <span className="min-w-0">
      <input className="num w-full" aria-invalid={error ? true : undefined} {...rest} />
      {error && (
        <span role="alert" className="block text-[0.88rem] font-semibold text-ember">
          {error}
        </span>
      )}
    </span>
  )
}
