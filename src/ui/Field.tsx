import { useId } from 'react'
import type { InputHTMLAttributes, ReactNode, SelectHTMLAttributes, TextareaHTMLAttributes } from 'react'

interface Labelled {
  readonly label: string
  readonly hint?: string
  readonly error?: string
  readonly wide?: boolean
}

function Frame({ id, label, hint, error, wide, children }: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className={`flex flex-col gap-1 ${wide ? 'col-span-full' : ''}`}>
      <label htmlFor={id} className="text-[0.94rem] text-soft">
        {label}
      </label>
      {children}
      {error ? (
        <p id={`${id}-say`} role="alert" className="text-[0.9rem] font-semibold text-ember">
          {error}
        </p>
      ) : (
        hint && (
          <p id={`${id}-say`} className="text-[0.88rem] text-soft">
            {hint}
          </p>
        )
      )}
    </div>
  )
}

const described = (id: string, { hint, error }: Labelled) => ({
  id,
  'aria-invalid': error ? true : undefined,
  'aria-describedby': hint || error ? `${id}-say` : undefined,
})

export function TextField({
  label,
  hint,
  error,
  wide,
  className = '',
  ...rest
}: Labelled & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId()
  const own = { label, hint, error, wide }
  return (
    <Frame id={id} {...own}>
      <input {...described(id, own)} className={`w-full ${className}`} {...rest} />
    </Frame>
  )
}

export function TextArea({
  label,
  hint,
  error,
  wide,
  ...rest
}: Labelled & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId()
  const own = { label, hint, error, wide }
  return (
    <Frame id={id} {...own}>
      <textarea {...described(id, own)} rows={2} className="w-full" {...rest} />
    </Frame>
  )
}

export function SelectField({
  label,
  hint,
  error,
  wide,
  children,
  ...rest
}: Labelled & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId()
  const own = { label, hint, error, wide }
  return (
    <Frame id={id} {...own}>
      <select {...described(id, own)} className="w-full" {...rest}>
        {children}
      </select>
    </Frame>
  )
}
