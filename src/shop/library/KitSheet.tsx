'use client'
import Link from 'next/link'
import { useActionState } from 'react'
import type { Kit } from '@/core/firmware/route/kit'
import type { BenchCpu } from '@/data/bench-cpus'
import { Button } from '@/ui/Button'
import { useReader } from '@/ui/reader'
import { benchCpuAction } from './kit-actions'

type Known = BenchCpu & { readonly family: string }

/** The fewest, cheapest CPUs that carry every board the shop knows; what each is for, and what is owned for nothing. */
export function KitSheet({
  boards,
  cpus,
  families,
  dropped,
  kit,
}: {
  boards: readonly string[]
  cpus: readonly Known[]
  families: readonly string[]
  dropped: string | null
  kit: Kit
}) {
  const { money } = useReader()
  const unpriced = cpus.filter((c) => !c.owned && c.priceMinor === null).map((c) => c.cpu)
  if (boards.length === 0)
    return (
      <>
        <h1>Bench CPUs</h1>
        <p className="mt-1 text-soft">
          No board’s releases and CPUs are known yet: give them to a board of{' '}
          <Link href="/library" className="underline">
            the library
          </Link>
          , then this says which CPUs carry all boards.
        </p>
      </>
    )
  const toBuy = kit.members.filter((m) => !m.owned)
  return (
    <>
      <h1>
        {kit.members.length === 0
          ? 'No CPU is owned, and none has a price yet.'
          : toBuy.length === 0
            ? `${kit.members.length} owned ${kit.members.length === 1 ? 'CPU carries' : 'CPUs carry'} what can be carried.`
            : `To get: ${toBuy.map((m) => m.cpu).join(', ')}, for ${money(kit.cost * 100)}.`}
      </h1>
      <p className="mt-0.5 text-soft">
        Every board, on whatever release it may come with, starts with one of them, so that its own updater
        can be used. Boards: {boards.join(', ')}.
      </p>
      <p className="mt-2 flex flex-wrap items-baseline gap-x-3">
        <span className="text-soft">Still, if this family is dropped by releases to come:</span>
        {[null, ...families].map((f) => (
          <Link
            key={f ?? ''}
            href={f === null ? '/library/kit' : `/library/kit?dropped=${encodeURIComponent(f)}`}
            aria-current={f === dropped ? 'true' : undefined}
            className={
              f === dropped ? 'border-b-2 border-brass font-semibold' : 'underline underline-offset-4'
            }
          >
            {f ?? 'none'}
          </Link>
        ))}
      </p>
      <div className="mt-4 grid gap-x-10 gap-y-6 md:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
        <section aria-label="The kit">
          <h2 className="border-b-2 border-ink pb-1">The kit</h2>
          <ul>
            {kit.members.map((m) => (
              <li key={m.cpu} className="border-b border-line py-2">
                <b className="text-[1.1rem] font-semibold">{m.cpu}</b>{' '}
                <span className={m.owned ? 'text-verd' : 'text-brass'}>{m.owned ? 'owned' : 'to get'}</span>
                <p className="text-soft">carries {m.carries.join(', ')}</p>
                {m.only.length > 0 && <p>needed for {m.only.join(', ')}</p>}
                <p className="text-soft">
                  {m.without === null
                    ? 'without it not all are carried'
                    : m.without === 0
                      ? 'another would do for no more'
                      : `without it the kit costs ${money(m.without * 100)} more`}
                </p>
              </li>
            ))}
          </ul>
          <ul className="mt-3 list-disc pl-5">
            <li>
              {kit.oneLess === null
                ? 'With one CPU fewer not all are carried.'
                : `With one CPU fewer it costs ${money(kit.oneLess * 100)}.`}
            </li>
            {kit.notNeeded.length > 0 && <li>Owned and not needed: {kit.notNeeded.join(', ')}.</li>}
            {unpriced.length > 0 && (
              <li className="text-brass">
                Left out, for nobody knows what they cost: {unpriced.join(', ')}.
              </li>
            )}
            {grouped(kit.notCarried).map(([board, releases]) => (
              <li key={board} className="text-ember">
                {board} with {releases.join(', ')}: none of these CPUs runs on it.
              </li>
            ))}
            {grouped(kit.notRobust).map(([board, releases]) => (
              <li key={board} className="text-brass">
                {board} with {releases.join(', ')}: only the family {dropped} runs on it.
              </li>
            ))}
          </ul>
        </section>
        <section aria-label="CPUs">
          <h2 className="border-b-2 border-ink pb-1">CPUs</h2>
          <ul>
            {cpus.map((c) => (
              <CpuRow key={c.cpu} cpu={c} />
            ))}
          </ul>
        </section>
      </div>
    </>
  )
}

const grouped = (of: readonly { board: string; release: string }[]): [string, string[]][] => {
  const by = new Map<string, string[]>()
  for (const { board, release } of of) by.set(board, [...(by.get(board) ?? []), release])
  return [...by]
}

/** One CPU: whether the shop owns it, and what it would cost. */
function CpuRow({ cpu: { cpu, family, owned, priceMinor } }: { cpu: Known }) {
  const [state, act, busy] = useActionState(benchCpuAction, { fault: '' })
  const { currency } = useReader()
  return (
    <li className="border-b border-line py-1.5">
      <form action={act} className="flex items-center gap-3">
        <input type="hidden" name="cpu" value={cpu} />
        <span className="w-28 shrink-0">
          <b className="font-semibold">{cpu}</b> <span className="text-soft">{family}</span>
        </span>
        <label className="inline-flex items-center gap-1.5">
          <input type="checkbox" name="owned" value="yes" defaultChecked={owned} />
          owned
        </label>
        <input
          name="price"
          aria-label={`Price of ${cpu}, ${currency}`}
          placeholder={`price, ${currency}`}
          defaultValue={priceMinor === null ? '' : priceMinor / 100}
          className="num w-28 py-0.5!"
          inputMode="decimal"
        />
        <Button type="submit" look="bare" disabled={busy} aria-label={`Keep ${cpu}`}>
          Keep
        </Button>
      </form>
      {state.fault && (
        <p role="alert" className="text-[0.9rem] font-semibold text-ember">
          {state.fault}
        </p>
      )}
    </li>
  )
}
