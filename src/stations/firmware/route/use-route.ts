'use client'
import { useEffect, useMemo, useRef, useState } from 'react'
import { namedIn, releaseNow } from '@/core/firmware/route/on-route'
import type { Planned, ToPlan } from '@/core/firmware/route/plan-route'
import type { Weighting } from '@/core/firmware/route/search'
import { startsNow } from '@/core/firmware/route/starts'
import { supportOf } from '@/core/firmware/route/support-table'
import { sayWay, usualWays } from '@/core/firmware/route/way'
import type { Way } from '@/core/firmware/route/way'
import { useJob } from '@/job/JobProvider'
import { latestOnly } from '@/job/latest-only'
import { useWorker } from '@/ui/use-worker'
import type { RouteWorker } from '@/workers/route.worker'

/** What is asked of the route, kept while the station is open; null: as the tape has it. */
interface Wish {
  readonly cpu: string | null
  readonly release: string | null
  readonly hand: ReadonlySet<string>
  readonly ways: ReadonlySet<string>
  readonly by: Weighting
}

const here = { price: 0, from: null, holds: null }
/** Ways of a board whose ways nobody has noted. */
const anyBoard: readonly Way[] = [
  { ...usualWays.updater, ...here },
  { ...usualWays.clip, ...here },
]

const startWorker = () =>
  new Worker(new URL('../../../workers/route.worker.ts', import.meta.url), { type: 'module' })

/** The route that is asked for, planned in a worker whenever the wish or the tape changes; the last stays meanwhile. */
export function useRoute() {
  const { releases, cpus, ways: kept } = useJob((j) => j.setting.references)
  const firmware = useJob((j) => j.state.firmware)
  const board = useJob((j) => j.state.board)
  const fitted = board.fitted.cpu
  const starts = useMemo(() => startsNow({ board, firmware }), [board, firmware])
  const ticket = useJob((j) => j.state.intake.ticket.cpu)
  const bench = useJob((j) => j.benchCpus)
  const [wish, setWish] = useState<Partial<Wish>>({})
  const [planned, setPlanned] = useState<{ of: string; is: Planned | string } | null>(null)
  const remote = useWorker<RouteWorker>(startWorker)
  const send = useRef<((to: string) => void) | null>(null)
  useEffect(() => {
    // The thread begins with the first wish: most jobs have none.
    send.current = latestOnly(async (to) => {
      try {
        setPlanned({ of: to, is: await remote().plan(JSON.parse(to) as ToPlan) })
      } catch {
        setPlanned({
          of: to,
          is: 'The route was not planned. Change something, or open the station again.',
        })
      }
    })
    return () => {
      send.current = null
    }
  }, [remote])
  const support = useMemo(() => supportOf({ releases, cpus }), [releases, cpus])
  const ways = kept?.ways ?? anyBoard
  const names = useMemo(() => support?.cpus.map((c) => c.cpu) ?? [], [support])
  const now = useMemo(() => {
    const { release, by } = releaseNow(firmware)
    const known = release === null || (support?.releaseAt.has(release) ?? false)
    return {
      by,
      /** What was seen, also where it is no release of the table. */
      said: release,
      release: known ? release : null,
      foreign: !known,
      cpu: fitted === null ? null : namedIn(fitted, names),
      other: fitted !== null && namedIn(fitted, names) === null ? fitted : null,
    }
  }, [firmware, fitted, names, support])
  const chosen: Wish = useMemo(() => {
    const { route } = firmware
    const lower = ticket.toLowerCase()
    const told = names
      .filter((n) => namedIn(ticket, [n]) === n)
      .sort((a, b) => lower.indexOf(a.toLowerCase()) - lower.indexOf(b.toLowerCase()))
    const dark = starts.find((s) => s.saw === 'dark')
    const seen = starts.map((s) => namedIn(s.cpu, names)).filter((n) => n !== null)
    const owned = bench.flatMap((c) => (c.owned && names.includes(c.cpu) ? [c.cpu] : []))
    return {
      cpu: route ? route.want.cpu : ((dark && namedIn(dark.cpu, names)) ?? told[0] ?? now.cpu),
      release: route ? route.want.release : null,
      hand: new Set(route ? route.hand : [...told, ...seen, ...owned, ...(now.cpu ? [now.cpu] : [])]),
      ways: new Set(route ? route.ways : ways.map(sayWay)),
      by: route?.by ?? 'time',
      ...wish,
    }
  }, [firmware, starts, names, ticket, now.cpu, ways, wish, bench])
  const ask = useMemo((): ToPlan | null => {
    if (!support || (chosen.cpu === null && chosen.release === null) || now.foreign) return null
    return {
      table: support.table,
      ways: ways.filter((w) => chosen.ways.has(sayWay(w))),
      start: { release: now.release, cpu: now.cpu },
      want: { cpu: chosen.cpu, release: chosen.release },
      cpus: [...chosen.hand].map((cpu) => ({ cpu, price: 0 })),
      fit: { minutes: 6, risk: 0.01 },
      by: chosen.by,
      known: now.by,
      prices: Object.fromEntries(
        bench.flatMap((c) => (c.priceMinor === null ? [] : [[c.cpu, c.priceMinor / 100]])),
      ),
      seen: starts.flatMap(({ cpu, saw }) => {
        const named = namedIn(cpu, names)
        return named ? [{ cpu: named, saw }] : []
      }),
    }
  }, [support, chosen, ways, now, starts, names, bench])
  const key = useMemo(() => JSON.stringify(ask), [ask])
  useEffect(() => {
    if (ask) send.current?.(key)
  }, [ask, key])
  return {
    support,
    names,
    ways,
    now,
    chosen,
    ask,
    planned: ask && planned ? planned.is : null,
    planning: ask !== null && planned?.of !== key,
    wish: (more: Partial<Wish>) => setWish((w) => ({ ...w, ...more })),
  }
}
export type RouteInHand = ReturnType<typeof useRoute>
