import type { ReactNode } from 'react'

/** What to do next, in one computed sentence, with its reason below. */
export function NextStep({ say, why, children }: { say: string; why: string; children?: ReactNode }) {
  return (
    <div data-next-step>
      <h1>{say}</h1>
      <p className="mt-0.5 min-h-[1.4em] text-[0.97rem] text-soft">{why}</p>
      {children}
    </div>
  )
}
