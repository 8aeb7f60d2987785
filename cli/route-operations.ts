import Joi from 'joi'
import { kit } from '@/core/firmware/route/kit'
import type { KitBoard, KitCpu } from '@/core/firmware/route/kit'
import { routeOf, routesOf, whatOpens } from '@/core/firmware/route/route'
import type { CpuToHave, RouteAsk } from '@/core/firmware/route/route'
import type { Weighting } from '@/core/firmware/route/search'
import { tableFaults } from '@/core/firmware/route/support-table'
import type { SupportTable } from '@/core/firmware/route/support-table'
import { firstSteps, labelKinds, versionOdds } from '@/core/firmware/route/version-odds'
import type { VersionAsk, VersionOdds } from '@/core/firmware/route/version-odds'
import { programmerBy, usualWays, wayKinds } from '@/core/firmware/route/way'
import type { ProgrammerBy, Way, WayKind } from '@/core/firmware/route/way'
import { coverSolver } from '@/server/solve-cover'
import { BadInput, operation } from './operation'
import type { Operation } from './operation'

const name = Joi.string().trim().min(1).max(60)
const orNone = name.allow(null)
const odds = Joi.number().min(0).max(1)
const money = Joi.number().min(0).max(1e7)

const release = Joi.object({
  name: name.required(),
  date: orNone.default(null),
  unstable: Joi.boolean().default(false),
  withdrawn: Joi.boolean().default(false),
  needs: orNone.default(null),
  holds: orNone.default(null),
  source: Joi.string().allow('').max(200).default(''),
  trust: odds.default(0.95),
})
const supportRow = Joi.object({
  cpu: name.required(),
  family: Joi.string().allow('').max(60).default(''),
  from: name.required(),
  until: orNone.default(null),
  unstable: Joi.boolean().default(false),
  source: Joi.string().allow('').max(200).default(''),
  date: orNone.default(null),
  trust: odds.default(0.95),
  signature: Joi.number().integer().min(0).max(0xffffffff),
})
/** Releases oldest first, and the CPUs they start. */
export const table = Joi.object({
  releases: Joi.array().items(release).min(1).max(2000).required(),
  support: Joi.array().items(supportRow).max(20_000).default([]),
})
/** A way; what is not given is as usual for its kind. */
const way = Joi.object({
  kind: Joi.valid(...wayKinds).required(),
  by: Joi.valid(...programmerBy),
  minutes: Joi.number().min(0).max(10_000),
  risk: odds.less(1),
  price: money.default(0),
  from: orNone.default(null),
  downgrades: Joi.boolean(),
  stepping: Joi.boolean(),
  holds: orNone.default(null),
})
const cpuToHave = Joi.object({ cpu: name.required(), price: money.default(0) })

type GivenWay = Partial<Way> & { kind: WayKind; by?: ProgrammerBy }
const asWay = (w: GivenWay): Way => ({
  ...usualWays[w.by ?? w.kind],
  price: 0,
  from: null,
  holds: null,
  ...w,
})

/** @throws BadInput for the first thing that is wrong in the table */
export function sound(of: SupportTable, field: string): void {
  const fault = tableFaults(of).find((f) => f.level === 'error')
  if (!fault) return
  const part = ['from', 'until', 'family'].includes(fault.field) ? 'support' : 'releases'
  const row = fault.line >= 2 ? `.${fault.line - 2}` : ''
  throw new BadInput(`${field}.${part}${row}`, fault.text)
}

/** @throws BadInput when a release that is named does not stand in the table */
export function known(of: SupportTable, said: string | null, field: string): void {
  if (said !== null && !of.releases.some((r) => r.name === said))
    throw new BadInput(
      field,
      `${said} is no release of the table: ${of.releases.map((r) => r.name).join(', ')}`,
    )
}

interface RouteInput extends Omit<RouteAsk, 'ways'> {
  readonly ways: readonly GivenWay[]
  readonly by: Weighting | 'all'
  readonly buy: readonly CpuToHave[]
  readonly programmer: GivenWay | null
  readonly odds: VersionOdds['odds'] | null
}

export const routeOperations: Readonly<Record<string, Operation>> = {
  'firmware.route': operation<RouteInput>(
    'The best route from release and CPU to what is wanted: steps, minutes, risk, purchase, where it stays dark; or what opens one.',
    Joi.object({
      table: table.required(),
      ways: Joi.array().items(way).max(20).required(),
      start: Joi.object({ release: orNone.required(), cpu: orNone.required() }).required(),
      want: Joi.object({ cpu: orNone.default(null), release: orNone.default(null) })
        .custom((v: { cpu: string | null; release: string | null }, h) =>
          v.cpu === null && v.release === null ? h.error('any.invalid') : v,
        )
        .messages({ 'any.invalid': 'say which CPU is to start, or which release is wanted, or both' })
        .required(),
      cpus: Joi.array().items(cpuToHave).max(2000).default([]),
      fit: Joi.object({ minutes: Joi.number().min(0).max(1000), risk: odds.less(1) }).default({
        minutes: 6,
        risk: 0.01,
      }),
      by: Joi.valid('time', 'risk', 'purchase', 'all').default('time'),
      buy: Joi.array().items(cpuToHave).max(2000).default([]),
      programmer: way.allow(null).default(null),
      odds: Joi.array()
        .items(Joi.object({ release: name.required(), odds: odds.required() }))
        .allow(null)
        .default(null),
    }),
    ({ ways: given, by, buy, programmer, odds: versions, ...rest }) => {
      const ask: RouteAsk = { ...rest, ways: given.map(asWay) }
      sound(ask.table, 'table')
      known(ask.table, ask.start.release, 'start.release')
      known(ask.table, ask.want.release, 'want.release')
      ask.ways.forEach((w, i) => {
        known(ask.table, w.from, `ways.${i}.from`)
        known(ask.table, w.holds, `ways.${i}.holds`)
      })
      versions?.forEach((o, i) => known(ask.table, o.release, `odds.${i}.release`))
      if (versions) return firstSteps(ask, versions, by === 'all' ? 'time' : by)
      if (by === 'all') return routesOf(ask)
      const answer = routeOf(ask, by)
      if (answer.is === 'route') return answer
      return { ...answer, opens: whatOpens(ask, { cpus: buy, programmer: programmer && asWay(programmer) }) }
    },
  ),

  'firmware.version': operation<VersionAsk>(
    'Odds over the releases that a chip may hold, from labels and from which CPUs start; and which CPU to try next.',
    Joi.object({
      table: table.required(),
      prior: Joi.object().pattern(name, Joi.number().min(0)).default({}),
      others: Joi.number().min(0).default(1),
      labels: Joi.array()
        .items(Joi.object({ says: name.required(), on: Joi.valid(...labelKinds).required() }))
        .max(20)
        .default([]),
      seen: Joi.array()
        .items(Joi.object({ cpu: name.required(), saw: Joi.valid('starts', 'dark').required() }))
        .max(200)
        .default([]),
      tries: Joi.array().items(name).max(500).default([]),
      otherFault: odds.less(1).default(0.3),
    }),
    (ask) => {
      sound(ask.table, 'table')
      ask.labels.forEach((l, i) => known(ask.table, l.says, `labels.${i}.says`))
      for (const r of Object.keys(ask.prior)) known(ask.table, r, `prior.${r}`)
      if (ask.table.releases.every((r) => (ask.prior[r.name] ?? ask.others) === 0))
        throw new BadInput('prior', 'every release is ruled out: give at least one more than nought')
      return versionOdds(ask)
    },
  ),

  'firmware.kit': operation<{ boards: KitBoard[]; cpus: KitCpu[]; dropped: string | null }>(
    'The least costly bench CPUs that carry every board, also when one family is dropped; what each is for.',
    Joi.object({
      boards: Joi.array()
        .items(
          Joi.object({
            board: name.required(),
            table: table.required(),
            mayHold: Joi.array().items(name).min(1).max(2000).required(),
          }),
        )
        .max(500)
        .required(),
      cpus: Joi.array()
        .items(
          Joi.object({
            cpu: name.required(),
            family: Joi.string().allow('').max(60).default(''),
            price: money.required(),
          }),
        )
        .unique('cpu')
        .messages({ 'array.unique': 'this CPU stands twice: give it once' })
        .max(1000)
        .required(),
      dropped: name.allow(null).default(null),
    }),
    async ({ boards, cpus, dropped }) => {
      boards.forEach((b, i) => {
        sound(b.table, `boards.${i}.table`)
        b.mayHold.forEach((r, k) => known(b.table, r, `boards.${i}.mayHold.${k}`))
      })
      if (dropped !== null && !cpus.some((c) => c.family === dropped))
        throw new BadInput('dropped', `no CPU here is of the family ${dropped}`)
      return kit(boards, cpus, dropped, await coverSolver())
    },
  ),
}
