import type { Finding } from '@/core/tables/finding'

/** What is wrong with a table, line by line. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null
  return (
    <ul
      role="alert"
      className="max-h-56 overflow-y-auto border-l-4 border-ember pl-3"
      aria-label="What is wrong with the table"
    >
      {findings.map((f, i) => (
        <li key={i} className={f.level === 'error' ? '' : 'text-soft'}>
          {f.line > 0 && <span className="num">line {f.line}, </span>}
          {f.field}: {f.text}
        </li>
      ))}
    </ul>
  )
}
