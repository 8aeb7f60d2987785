import type { ReactNode } from 'react'
import { Findings } from './Findings'
import type { TableAnswer } from './use-table'

/** What the server said of a table that was sent: why it was not taken, what was wrong in it, or that it is kept. */
export function TableSays({ answer, children }: { answer: TableAnswer | null; children: ReactNode }) {
  return (
    <>
      {answer?.error && (
        <p role="alert" className="font-semibold text-ember">
          {answer.error.text}
        </p>
      )}
      <Findings findings={answer?.findings ?? []} />
      {answer?.kept && (
        <p role="status" className="text-verd">
          {children}
        </p>
      )}
    </>
  )
}
