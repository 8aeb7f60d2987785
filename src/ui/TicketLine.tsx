import { useId } from 'react'
import type { ReactElement } from 'react'
import { cloneElement } from 'react'

interface FieldProps {
  readonly id?: string
  readonly 'aria-invalid'?: boolean
  readonly 'aria-describedby'?: string
}

/** One line of the ticket: what it is at the left, what was written at the right, a fault below. */
export function TicketLine({
  label,
  error,
  hint,
  narrow = false,
  children,
}: {
  label: string
  error?: string
  hint?: string
  narrow?: boolean
  children: ReactElement<FieldProps>
}) {
  const id = useId()
  const message = error ?? hint
  return (
    <div
      className={`ticket-line grid items-baseline gap-x-3 ${narrow ? 'grid-cols-[4.3rem_minmax(0,1fr)]' : 'grid-cols-[6.6rem_minmax(0,1fr)]'}`}
    >
      <label htmlFor={id} className="text-[0.94rem] text-soft">
        {label}
      </label>
      {cloneElement(children, {
        id,
        'aria-invalid': error ? true : undefined,
        'aria-describedby': message ? `${id}-say` : undefined,
      })}
      {message && (
        <p
          id={`${id}-say`}
          role={error ? 'alert' : undefined}
          className={`col-start-2 pb-1 text-[0.88rem] ${error ? 'font-semibold text-ember' : 'text-soft'}`}
        >
          {message}
        </p>
      )}
    </div>
  )
}
