import { sayWay } from '@/core/firmware/route/way'
import { weightings } from '@/core/firmware/route/search'
import { Choice } from '@/ui/Choice'
import { TicketLine } from '@/ui/TicketLine'
import type { RouteInHand } from './use-route'

const least = { time: 'minutes', risk: 'risk', purchase: 'purchase' } as const

/** What is wanted, and with what: CPUs and ways at hand. */
export function Wish({ route: { support, names, ways, chosen, wish, now } }: { route: RouteInHand }) {
  const toggled = (of: ReadonlySet<string>, name: string) => {
    const next = new Set(of)
    if (!next.delete(name)) next.add(name)
    return next
  }
  return (
    <div className="ticket grid gap-x-6 gap-y-1 @md:grid-cols-2">
      <TicketLine label="CPU wanted">
        <select value={chosen.cpu ?? ''} onChange={(e) => wish({ cpu: e.target.value || null })}>
          <option value="">any CPU</option>
          {names.map((n) => (
            <option key={n}>{n}</option>
          ))}
        </select>
      </TicketLine>
      <TicketLine label="On release">
        <select value={chosen.release ?? ''} onChange={(e) => wish({ release: e.target.value || null })}>
          <option value="">any that runs it</option>
          {support!.table.releases.map((r) => (
            <option key={r.name} value={r.name}>
              {r.name}
              {r.unstable ? ', unstable' : ''}
              {r.withdrawn ? ', withdrawn' : ''}
            </option>
          ))}
        </select>
      </TicketLine>
      <Ticks
        label="CPUs at hand"
        all={names}
        on={(n) => chosen.hand.has(n) || n === chosen.cpu || n === now.cpu}
        fixed={(n) => n === chosen.cpu || n === now.cpu}
        onTick={(n) => wish({ hand: toggled(chosen.hand, n) })}
      />
      <Ticks
        label="Ways at hand"
        all={ways.map(sayWay)}
        on={(w) => chosen.ways.has(w)}
        onTick={(w) => wish({ ways: toggled(chosen.ways, w) })}
      />
      <div className="col-span-full [&_label]:w-[6.6rem]!">
        <Choice
          label="Least"
          value={chosen.by}
          options={weightings}
          words={least}
          onChange={(by) => wish({ by })}
        />
      </div>
    </div>
  )
}

function Ticks({
  label,
  all,
  on,
  fixed,
  onTick,
}: {
  label: string
  all: readonly string[]
  on: (name: string) => boolean
  fixed?: (name: string) => boolean
  onTick: (name: string) => void
}) {
  return (
    <div role="group" aria-label={label} className="col-span-full flex items-baseline gap-x-3">
      <span aria-hidden="true" className="w-[6.6rem] shrink-0 text-[0.94rem] text-soft">
        {label}
      </span>
      <span className="flex max-h-24 flex-wrap gap-x-4 gap-y-0.5 overflow-y-auto">
        {all.map((name) => (
          <label key={name} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={on(name)}
              disabled={fixed?.(name)}
              onChange={() => onTick(name)}
            />
            {name}
          </label>
        ))}
      </span>
    </div>
  )
}
