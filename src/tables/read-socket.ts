import Joi from 'joi'
import { canonical } from '@/core/tape/canonical'
import type { Finding } from '@/core/tables/finding'
import { generateField, placeOf, readRegions } from '@/core/socket/model/generate'
import { sayOrientation } from '@/core/socket/table/orientation'
import { tableUnits } from '@/core/socket/table/table-columns'
import type { TableUnit } from '@/core/socket/table/table-columns'
import type { Socket, SocketKind } from '@/core/socket/model/socket'
import { readContactCsv } from '@/tables/contact-csv'

/** What a socket is made from: a table as CSV, or rows, columns and painted regions. */
export interface SocketRequest {
  readonly name: string
  readonly kind: SocketKind
  readonly csv?: string
  /** What is said of the table where it does not say so itself. */
  readonly unit?: TableUnit
  readonly putRight?: boolean
  readonly grid?: {
    readonly rows: number
    readonly columns: number
    readonly pitchMm: number
    readonly hole: string
    /** Way from foot to tip in the left and in the right half, degrees anticlockwise from the right. */
    readonly beamDeg?: readonly [number, number]
    readonly regions: string
  }
  /** Only look; keep nothing. */
  readonly look: boolean
}

const MAX_CSV = 4 * 1024 * 1024

export const socketRequest = Joi.object({
  name: Joi.string()
    .trim()
    .min(2)
    .max(60)
    .required()
    .messages({ '*': 'Name the socket with two to sixty letters.' }),
  kind: Joi.valid('land-grid', 'pin-grid').required().messages({ '*': 'Land-grid or pin-grid?' }),
  look: Joi.boolean().required(),
  csv: Joi.string()
    .max(MAX_CSV)
    .messages({ 'string.max': 'A contact table has at most 4 MB.', '*': 'The file is empty.' }),
  unit: Joi.valid(...Object.keys(tableUnits)),
  putRight: Joi.boolean(),
  grid: Joi.object({
    rows: Joi.number()
      .integer()
      .min(2)
      .max(200)
      .required()
      .messages({ '*': 'Rows: a whole number from 2 to 200.' }),
    columns: Joi.number()
      .integer()
      .min(2)
      .max(200)
      .required()
      .messages({ '*': 'Columns: a whole number from 2 to 200.' }),
    pitchMm: Joi.number().min(0.3).max(5).required().messages({ '*': 'Pitch: millimetres from 0.3 to 5.' }),
    beamDeg: Joi.array()
      .items(Joi.number().min(-360).max(360).required(), Joi.number().min(-360).max(360).required())
      .length(2)
      .messages({ '*': 'Directions of the beams: degrees from −360 to 360.' }),
    hole: Joi.string().trim().allow('').max(40).required(),
    regions: Joi.string().allow('').max(20_000).required(),
  }),
}).xor('csv', 'grid')

export interface ReadSocket {
  readonly socket: Socket | null
  readonly findings: readonly Finding[]
  /** Of a table: the unit it was taken to be in, and whether it lies otherwise than its names say. */
  readonly table?: { readonly unit: TableUnit; readonly odd: string | null }
}

/** The socket a request describes, and what is wrong with it. The id is made from the content. */
export function readSocket(request: SocketRequest, sha256: (text: string) => string): ReadSocket {
  const { name, kind } = request
  const finish = (socket: Omit<Socket, 'id'>, findings: readonly Finding[]): ReadSocket => ({
    socket: { id: socketId(socket, sha256), ...socket },
    findings,
  })
  if (request.csv !== undefined) {
    const { unit, putRight } = request
    const table = readContactCsv(request.csv, {
      ...(unit ? { unit } : {}),
      ...(putRight ? { putRight } : {}),
    })
    const told = { unit: table.unit, odd: sayOrientation(table.orientation) }
    if (table.contacts.length === 0) return { socket: null, findings: table.findings, table: told }
    return {
      ...finish({ name, kind, pitchMm: table.pitchMm ?? 1, contacts: table.contacts }, table.findings),
      table: told,
    }
  }
  const grid = request.grid!
  const { regions, faults } = readRegions(grid.regions)
  const findings: Finding[] = faults.map((text) => ({ level: 'error', line: 0, field: 'regions', text }))
  const [a, b] = grid.hole.split(/[\s:–-]+/).map(placeOf)
  if (grid.hole && (!a || !b))
    findings.push({
      level: 'error',
      line: 0,
      field: 'hole',
      text: 'the empty middle is two corners, like M15 Y27',
    })
  if (findings.length > 0) return { socket: null, findings }
  const holes = a && b ? [{ rows: [a.row, b.row], columns: [a.column, b.column] } as const] : []
  try {
    const { rows, columns, pitchMm } = grid
    const field = generateField({
      id: '',
      name,
      kind,
      pitchMm,
      rows,
      columns,
      holes,
      beamDeg: grid.beamDeg ?? [45, 225],
      regions,
    })
    return finish({ name, kind, pitchMm, contacts: field.contacts }, [])
  } catch (error) {
    const text = error instanceof Error ? error.message : 'this grid cannot be made'
    return { socket: null, findings: [{ level: 'error', line: 0, field: 'rows', text }] }
  }
}

/** An id made from what the socket is, so that the same table is the same socket in every shop. */
export function socketId(socket: Omit<Socket, 'id'>, sha256: (text: string) => string): string {
  const stem = socket.name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
  return `${stem}-${sha256(canonical([socket.kind, socket.pitchMm, socket.contacts])).slice(0, 8)}`
}
