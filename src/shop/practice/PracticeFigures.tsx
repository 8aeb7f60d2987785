/** What an exercise comes to so far, figure by figure. */
export function PracticeFigures({
  figures,
}: {
  figures: readonly (readonly [name: string, value: string])[]
}) {
  return (
    <dl className="mt-3 border-t border-line">
      {figures.map(([name, value]) => (
        <div key={name} className="flex justify-between gap-3 border-b border-line py-1">
          <dt className="text-soft">{name}</dt>
          <dd className="num text-right">{value}</dd>
        </div>
      ))}
    </dl>
  )
}

/** The mean of the scores of this sitting, and over how many. */
export const meanOf = (scores: readonly number[], what: readonly [one: string, more: string]): string =>
  scores.length === 0
    ? '–'
    : `${Math.round(scores.reduce((a, b) => a + b, 0) / scores.length)}, ${scores.length} ${what[scores.length === 1 ? 0 : 1]}`
