import { createHash } from 'node:crypto'
import { generateField } from '@/core/socket/model/generate'
import type { FieldParameters, Region } from '@/core/socket/model/generate'
import type { Socket, Trust } from '@/core/socket/model/socket'
import type { FunctionGroup } from '@/core/board/function-group'
import { socketId } from '@/tables/read-socket'

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')

type Span = readonly [number, number]
const region = (
  rows: Span,
  columns: Span,
  group: FunctionGroup,
  net: string,
  trust: Trust,
  groundEvery = 0,
): Region => ({
  rows,
  columns,
  group,
  net,
  trust,
  ...(groundEvery > 0 ? { groundEvery } : {}),
})

const made = (p: Omit<FieldParameters, 'id'>): Socket => {
  const { id: _, ...field } = generateField({ ...p, id: '' })
  return { id: socketId(field, sha256), ...field }
}

/** The contacts every CPU of these lines has only once, at the given names. */
function singles(names: readonly string[]): FieldParameters['singles'] {
  const alone: readonly (readonly [FunctionGroup, string])[] = [
    ['clock', 'REF_CLK_P'],
    ['clock', 'REF_CLK_N'],
    ['reset', 'CPU_RST'],
    ['control', 'PWR_OK_IN'],
    ['sense', 'VCORE_SENSE'],
    ['sense', 'VSS_SENSE'],
    ['control', 'STRAP_0'],
    ['control', 'STRAP_1'],
    ['control', 'FW_SEL'],
    ['control', 'TRIP_OUT'],
  ]
  return Object.fromEntries(names.map((name, i) => [name, { group: alone[i]![0], net: alone[i]![1] }]))
}

/** LG-1284: 36 × 40 with an empty middle of 12 × 13; memory to the right, lanes below, power to the left. */
const lg1284 = made({
  name: 'LG-1284',
  kind: 'land-grid',
  pitchMm: 0.95,
  rows: 36,
  columns: 40,
  holes: [{ rows: [12, 23], columns: [14, 26] }],
  beamDeg: [45, 225],
  singles: singles(['B17', 'B18', 'B21', 'B23', 'D17', 'D18', 'D21', 'D23', 'F17', 'F21']),
  regions: [
    region([0, 7], [27, 39], 'memory A', 'MA_', 'published', 5),
    region([8, 17], [27, 39], 'memory B', 'MB_', 'published', 5),
    region([18, 20], [27, 39], 'memory power', 'VMEM', 'published', 2),
    region([21, 25], [27, 39], 'display', 'DISP_', 'published', 3),
    region([26, 35], [0, 25], 'card lanes', 'LANE_', 'published', 3),
    region([26, 35], [26, 39], 'storage lanes', 'STOR_', 'published', 3),
    region([10, 25], [0, 13], 'core power', 'VCORE', 'published', 2),
    region([0, 11], [14, 26], 'core power', 'VCORE', 'published', 2),
    region([24, 25], [14, 26], 'io power', 'VIO', 'published', 2),
    region([0, 9], [0, 13], 'reserved', 'RSV_', 'region', 3),
  ],
})

/** LG-1716: 42 × 44 with an empty middle of 11 × 12; its table is shared among shops, not published. */
const lg1716 = made({
  name: 'LG-1716',
  kind: 'land-grid',
  pitchMm: 0.85,
  rows: 42,
  columns: 44,
  holes: [{ rows: [15, 25], columns: [16, 27] }],
  beamDeg: [45, 225],
  singles: singles(['C18', 'C19', 'C22', 'C24', 'E18', 'E19', 'E22', 'E24', 'G18', 'G22']),
  regions: [
    region([0, 10], [28, 43], 'memory A', 'MA_', 'shared', 5),
    region([11, 21], [28, 43], 'memory B', 'MB_', 'shared', 5),
    region([22, 25], [28, 43], 'memory power', 'VMEM', 'shared', 2),
    region([26, 30], [28, 43], 'display', 'DISP_', 'shared', 3),
    region([31, 41], [0, 27], 'card lanes', 'LANE_', 'shared', 3),
    region([31, 41], [28, 43], 'storage lanes', 'STOR_', 'shared', 3),
    region([10, 30], [0, 15], 'core power', 'VCORE', 'shared', 2),
    region([0, 14], [16, 27], 'core power', 'VCORE', 'shared', 2),
    region([26, 30], [16, 27], 'io power', 'VIO', 'shared', 2),
    region([0, 9], [0, 15], 'reserved', 'RSV_', 'region', 3),
  ],
})

/** PG-906: 31 × 31 pins with an empty middle and one cut corner; nobody has a table, only painted regions. */
const pg906 = made({
  name: 'PG-906',
  kind: 'pin-grid',
  pitchMm: 1.2,
  rows: 31,
  columns: 31,
  holes: [
    { rows: [12, 18], columns: [12, 18] },
    { rows: [0, 0], columns: [0, 2] },
    { rows: [1, 1], columns: [0, 1] },
    { rows: [2, 2], columns: [0, 0] },
  ],
  beamDeg: [0, 0],
  singles: singles(['C13', 'C14', 'C16', 'C18', 'E13', 'E14', 'E16', 'E18', 'G13', 'G16']),
  regions: [
    region([0, 12], [19, 30], 'memory A', 'MA_', 'region', 5),
    region([13, 20], [19, 30], 'memory B', 'MB_', 'region', 5),
    region([21, 30], [19, 30], 'storage lanes', 'STOR_', 'region', 3),
    region([19, 30], [0, 18], 'card lanes', 'LANE_', 'region', 3),
    region([6, 18], [0, 11], 'core power', 'VCORE', 'region', 2),
    region([0, 11], [8, 18], 'core power', 'VCORE', 'region', 2),
    region([0, 5], [0, 7], 'reserved', 'RSV_', 'region', 3),
  ],
})

export const demoSockets = { lg1284, lg1716, pg906 }
