/** What to do next, in one computed sentence, with its reason below. */
export function NextStep({ say, why }: { say: string; why: string }) {
  return (
    <div data-next-step>
      <h1>{say}</h1>
      <p className="mt-0.5 min-h-[1.4em] text-[0.97rem] text-soft">{why}</p>
    </div>
  )
}
