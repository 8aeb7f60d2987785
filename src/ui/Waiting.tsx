/** While a page is fetched: its shape, quietly, and a word for those who do not see it. */
export function Waiting() {
  return (
    <div role="status" aria-busy="true" className="motion-safe:animate-pulse">
      <span className="sr-only">Fetching it…</span>
      <div aria-hidden="true" className="h-8 w-80 max-w-full rounded-sheet bg-line" />
      <div aria-hidden="true" className="mt-3 h-4 w-[32rem] max-w-full rounded-sheet bg-line/60" />
      {[0, 1, 2, 3, 4].map((i) => (
        <div key={i} aria-hidden="true" className="mt-6 border-t border-line pt-3">
          <div className="h-4 w-2/3 rounded-sheet bg-line/60" />
        </div>
      ))}
    </div>
  )
}
