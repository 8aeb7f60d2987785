import Joi from 'joi'
import { meetings, netOfPart, padsByMap } from '@/core/parts/board-map/known-of-part'
import { inferMissing } from '@/core/parts/missing/infer'
import type { MissingPart } from '@/core/parts/missing/infer'
import { dielectrics, substitutes, uses } from '@/core/parts/substitute/substitute'
import type { StockPart, Wanted } from '@/core/parts/substitute/substitute'
import { readMarking } from '@/core/parts/value/marking'
import { partKinds, readValue, sayValue } from '@/core/parts/value/quantity'
import type { PartKind } from '@/core/parts/value/quantity'
import { sizeCodes } from '@/core/parts/value/size-code'
import {
  findInMap,
  indexMap,
  near,
  netsOf,
  partsOnNet,
  socketOnMap,
  twinsOf,
} from '@/core/parts/board-map/board-map'
import { mapUnits, readNetlist } from '@/core/parts/board-map/netlist'
import type { MapUnits } from '@/core/parts/board-map/netlist'
import { readPlacements } from '@/core/parts/board-map/placement'
import { readCsv } from '@/tables/read-csv'
import { missingPart } from '@/entry-schemas/parts'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

/** A value as a number of Ω or F, or as it is written: 4k7, 100n. */
const value = Joi.alternatives(Joi.number().min(0), Joi.string().max(20)).required()
type Written<T extends { readonly value: number }> = Omit<T, 'value'> & { readonly value: number | string }

function toNumber<T extends { readonly kind: PartKind; readonly value: number }>(
  of: Written<T>,
  field: string,
): T {
  const { kind, value: written } = of as { kind: PartKind; value: number | string }
  const read = typeof written === 'number' ? written : readValue(kind, written)
  if (read === null)
    throw new BadInput(
      field,
      `“${written}” is no value of a ${kind}: ${kind === 'capacitor' ? 'give pF, nF or µF, such as 100n' : 'give Ω, such as 33 or 4k7'}`,
    )
  return { ...of, value: read } as unknown as T
}

const share = Joi.number().greater(0).max(1)
const wanted = Joi.object({
  kind: Joi.valid(...partKinds).required(),
  value,
  tolerance: share,
  size: Joi.valid(...sizeCodes),
  use: Joi.valid(...uses).default('other'),
  workingV: Joi.number().min(0),
  watts: Joi.number().min(0),
  amps: Joi.number().min(0),
  dielectric: Joi.valid(...dielectrics),
})
const stock = Joi.object({
  id: Joi.string().max(80).required(),
  kind: Joi.valid(...partKinds).required(),
  value,
  tolerance: share,
  size: Joi.valid(...sizeCodes),
  watts: Joi.number().greater(0),
  volts: Joi.number().greater(0),
  amps: Joi.number().greater(0),
  dielectric: Joi.valid(...dielectrics),
  free: Joi.number().integer().min(0),
})

interface AskedOfMap {
  readonly netlist: string
  readonly placements?: string
  readonly units?: MapUnits
  readonly find?: string
  readonly net?: string
  readonly near?: string
  readonly mm: number
  readonly contacts?: readonly string[]
  readonly damaged?: readonly string[]
  readonly missing?: readonly string[]
}

function mapOf(asked: AskedOfMap) {
  const { map, findings } = readNetlist(readFile(asked.netlist, 'netlist').toString('latin1'), asked.units)
  if (!map) return { map: null, findings }
  const table =
    asked.placements === undefined ? null : readCsv(readFile(asked.placements, 'placements').toString())
  const placed = table ? readPlacements(table.rows, table.columns) : { placements: [], findings: [] }
  const of = indexMap(map, placed.placements)
  for (const [field, name, known] of [
    ['near', asked.near, of.parts],
    ['net', asked.net, of.nets],
  ] as const)
    if (name !== undefined && !known.has(name)) {
      const like = findInMap(of, name, 5)[field === 'net' ? 'nets' : 'parts']
      throw new BadInput(
        field,
        `there is no ${name} on this map${like.length > 0 ? `; there is ${like.join(', ')}` : ''}`,
      )
    }
  const socket = asked.contacts && socketOnMap(of, asked.contacts)
  const damaged = asked.damaged && (socketOnMap(of, asked.contacts ?? asked.damaged)?.nets ?? new Map())
  return {
    map: {
      points: map.points.length,
      parts: of.parts.size,
      nets: of.nets.size,
      units: map.units,
      unconnected: map.unconnected,
    },
    ...(asked.find === undefined ? {} : { found: findInMap(of, asked.find) }),
    ...(asked.net === undefined ? {} : { onNet: partsOnNet(of, asked.net) }),
    ...(asked.near === undefined
      ? {}
      : {
          near: near(of, asked.near, asked.mm),
          twins: twinsOf(of, asked.near),
          nets: netsOf(of, asked.near),
          pads: padsByMap(of, asked.near),
          net: netOfPart(of, asked.near),
        }),
    ...(asked.contacts === undefined
      ? {}
      : {
          socket: socket
            ? { ref: socket.ref, unknown: socket.unknown, nets: Object.fromEntries(socket.nets) }
            : null,
        }),
    ...(asked.damaged || asked.missing
      ? { meets: meetings(of, damaged ?? new Map(), asked.damaged ?? [], asked.missing ?? []) }
      : {}),
    findings: [...findings, ...placed.findings],
  }
}

/** What is computed of small parts. */
export const partsOperations: Readonly<Record<string, Operation>> = {
  'parts.marking': operation<{ marking: string }>(
    'Everything a marking may say of a resistor or a capacitor, likeliest first.',
    Joi.object({ marking: Joi.string().max(12).required() }),
    ({ marking }) => ({
      readings: readMarking(marking).map((r) => ({ ...r, say: sayValue(r.kind, r.value) })),
    }),
  ),
  'parts.substitute': operation<{ wanted: Written<Wanted>; stock: readonly Written<StockPart>[] }>(
    'What may stand in for a part, best first, and why the others may not.',
    Joi.object({ wanted: wanted.required(), stock: Joi.array().items(stock).max(5000).required() }),
    (asked) => {
      const of = toNumber<Wanted>(asked.wanted, 'wanted.value')
      const parts = asked.stock.map((s, i) => toNumber<StockPart>(s, `stock[${i}].value`))
      return { judged: substitutes(of, parts).map((j) => ({ ...j, say: sayValue(of.kind, j.value) })) }
    },
  ),
  'parts.map': operation<AskedOfMap>(
    'Reads a board’s netlist (IPC-D-356A) and placement list: what it holds, a part, a net, what stands near, contacts on their nets, nets on which damage meets.',
    Joi.object({
      netlist: Joi.string().required(),
      placements: Joi.string(),
      units: Joi.valid(...mapUnits),
      find: Joi.string().max(80),
      net: Joi.string().max(80),
      near: Joi.string().max(40),
      mm: Joi.number().greater(0).max(500).default(10),
      contacts: Joi.array().items(Joi.string().max(12)).max(10_000),
      damaged: Joi.array().items(Joi.string().max(12)).max(10_000),
      missing: Joi.array().items(Joi.string().max(60)).max(1000),
    }),
    mapOf,
  ),
  'parts.infer': operation<MissingPart>(
    'What a missing part did, from readings of its two pads; its value only where it may be tried.',
    Joi.object({ ref: Joi.string().max(60), ...missingPart }),
    (part) => inferMissing(part),
  ),
}
