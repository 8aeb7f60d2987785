import type { ReactNode } from 'react'

/** A safety note, where the hazard is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2.5 border-l-4 border-ember py-0.5 pl-3 text-[0.94rem] text-soft">
      <span>
        <b className="font-semibold text-ink">Care. </b>
        {children}
      </span>
    </p>
  )
}
