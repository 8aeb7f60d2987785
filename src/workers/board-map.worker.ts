import { expose, transfer } from 'comlink'
import {
  findInMap,
  indexMap,
  near,
  netsOf,
  partsOnNet,
  socketOnMap,
  twinsOf,
} from '@/core/parts/board-map/board-map'
import type { BoardMap, BoardSide, IndexedMap, Placement } from '@/core/parts/board-map/board-map'
import { drawingOf } from '@/core/parts/board-map/drawing'
import type { MapDrawing } from '@/core/parts/board-map/drawing'
import { meetings, netOfPart, padsByMap, smallPartsAt } from '@/core/parts/board-map/known-of-part'
import type { Meeting, PadsByMap } from '@/core/parts/board-map/known-of-part'
import { partPlaces } from '@/core/parts/found'
import type { PartPlace } from '@/core/parts/found'
import { readNetlist } from '@/core/parts/board-map/netlist'
import type { Finding } from '@/core/tables/finding'
import { placementsIn } from '@/tables/read-board-map'

/** How far round a part its neighbours are told, mm. */
const ROUND_MM = 6
const MOST_NEAR = 24

/** What is told of a part. */
export interface PartTold {
  readonly ref: string
  readonly side: BoardSide
  readonly value: string
  readonly body: string
  readonly pins: readonly { readonly pin: string; readonly net: string }[]
  readonly near: readonly { readonly ref: string; readonly mm: number; readonly side: BoardSide }[]
  readonly twins: readonly string[]
  readonly net: string | null
  readonly pads: PadsByMap | null
}
export interface MapOpened {
  readonly drawing: MapDrawing
  readonly parts: number
  readonly nets: number
  /** The socket on the map, and contacts that were not found on it. */
  readonly socket: { readonly ref: string; readonly unknown: number } | null
  /** The place of each contact of the socket, by its number in the drawing. */
  readonly contacts: Readonly<Record<string, number>>
  /** How many small parts have a line of each place. */
  readonly smallParts: Readonly<Record<PartPlace, number>>
  readonly findings: readonly Finding[]
}

let open: {
  readonly of: IndexedMap
  readonly contactNets: ReadonlyMap<string, string>
  readonly socketRef: string | null
} | null = null
const noNets: ReadonlyMap<string, string> = new Map()

/** A file of the map; null where none is kept. */
async function fetched(url: string): Promise<string | null> {
  const answer = await fetch(url)
  if (answer.status === 404) return null
  if (!answer.ok) throw new Error('The server does not give the map. Open it again.')
  return answer.text()
}

function placesOf(map: BoardMap, ref: string, contacts: readonly string[]): Readonly<Record<string, number>> {
  const by = new Map(map.points.flatMap((p, i) => (p.ref === ref ? [[p.pin.toUpperCase(), i] as const] : [])))
  return Object.fromEntries(
    contacts.flatMap((c) => {
      const at = by.get(c.toUpperCase())
      return at === undefined ? [] : [[c, at]]
    }),
  )
}

const worker = {
  /** Fetches and reads the map of a board; null where it has none. */
  async open(board: string, contacts: readonly string[]): Promise<MapOpened | null> {
    const [netlist, placements] = await Promise.all(
      ['netlist', 'placements'].map((kind) => fetched(`/api/boards/${board}/map/${kind}`)),
    )
    if (netlist == null && placements == null) return null
    const read = netlist == null ? null : readNetlist(netlist)
    const map: BoardMap = read?.map ?? { points: [], units: '0.001 mm', unconnected: 0 }
    const placed: { placements: readonly Placement[]; findings: readonly Finding[] } =
      placements == null ? { placements: [], findings: [] } : placementsIn(placements)
    const of = indexMap(map, placed.placements)
    const socket = socketOnMap(of, contacts)
    open = { of, contactNets: socket?.nets ?? noNets, socketRef: socket?.ref ?? null }
    const drawing = drawingOf(of)
    const opened: MapOpened = {
      drawing,
      parts: of.parts.size,
      nets: of.nets.size,
      socket: socket && { ref: socket.ref, unknown: socket.unknown },
      contacts: socket ? placesOf(map, socket.ref, contacts) : {},
      smallParts: Object.fromEntries(
        partPlaces.map((place) => [place, smallPartsAt(of, place).length]),
      ) as Record<PartPlace, number>,
      findings: [...(read?.findings ?? []), ...placed.findings],
    }
    return transfer(opened, [
      drawing.points.buffer,
      drawing.of.buffer,
      drawing.side.buffer,
      drawing.round.buffer,
      drawing.boxes.buffer,
    ])
  },
  find: (text: string) => (open ? findInMap(open.of, text, 12) : { parts: [], nets: [] }),
  part(ref: string): PartTold | null {
    const part = open?.of.parts.get(ref)
    if (!open || !part) return null
    const { of } = open
    return {
      ref,
      side: part.side,
      value: part.value,
      body: part.body,
      pins: netsOf(of, ref),
      near: near(of, ref, ROUND_MM).slice(0, MOST_NEAR),
      twins: twinsOf(of, ref),
      net: netOfPart(of, ref),
      pads: padsByMap(of, ref),
    }
  },
  /** Small parts at a place of the board, or round the socket. */
  at(place: PartPlace | 'round the socket'): readonly string[] {
    if (!open) return []
    if (place !== 'round the socket') return smallPartsAt(open.of, place)
    return open.socketRef === null ? [] : near(open.of, open.socketRef, ROUND_MM).map((p) => p.ref)
  },
  net: (net: string) => (open ? partsOnNet(open.of, net) : []),
  meetings: (contacts: readonly string[], refs: readonly string[]): readonly Meeting[] =>
    open ? meetings(open.of, open.contactNets, contacts, refs) : [],
}

export type BoardMapWorker = typeof worker

expose(worker)
