import { firstFindings } from '@/core/tables/finding'
import type { Finding, Row } from '@/core/tables/finding'
import { readRows } from '@/core/tables/row-reader'
import type { RowReader } from '@/core/tables/row-reader'
import type { FirmwareState } from '../slice'
import { identityNow, lastNoted } from '../slice'
import { readHexBytes, readId, sayIdBytes } from './jedec-id'
import type { ChipId } from './jedec-id'
import { quadEnables } from './sfdp'
import type { EraseType, QuadEnable } from './sfdp'
import type { ChipWanted, FlashChip } from './substitute'

/** A chip that a board is known to take. */
export interface TakenChip extends FlashChip {
  /** Whether the board looks at the ID; null where nobody knows. */
  readonly checksId: boolean | null
}
/** Chips that a board is known to take; the first is the one it was made with. */
export interface ChipTable {
  readonly name: string
  readonly chips: readonly TakenChip[]
}

export const chipColumns = [
  'chip',
  'id',
  'volts',
  'mib',
  'package',
  'quad',
  'addressing',
  'erases',
  'mhz',
  'checks_id',
] as const

const addressings = ['3 bytes', '3 or 4 bytes', '4 bytes'] as const
const MIB = 1024 * 1024

/** Reads the chips a board is known to take; `erases` as KiB and command, such as “4:20 64:D8”. */
export function readChips(
  name: string,
  rows: readonly Row[],
  columns: readonly string[],
): { readonly body: ChipTable | null; readonly findings: readonly Finding[] } {
  const { rows: chips, findings } = readRows(rows, columns, ['chip'], 'chips', (r): TakenChip => {
    const volts = r.number('volts', 0, 0.5, 12)
    const mib = r.number('mib', 0, 1 / 64, 512)
    const mhz = r.number('mhz', 0, 1, 1000)
    return {
      name: r.named('chip').toUpperCase(),
      id: idIn(r),
      volts: volts || null,
      bytes: mib ? Math.round(mib * MIB) : null,
      package: r.orNull('package'),
      quadEnable: r.text('quad') === '' ? null : r.one('quad', quadEnables),
      addressing: r.text('addressing') === '' ? null : r.one('addressing', addressings),
      erases: erasesIn(r),
      mhz: mhz || null,
      checksId: r.text('checks_id') === '' ? null : r.yes('checks_id', false),
    }
  })
  return { body: findings.length ? null : { name, chips }, findings: firstFindings(findings) }
}

function idIn(r: RowReader): ChipId | null {
  const text = r.hex('id', '7F 7F 33 60 15', 64)
  if (text === null) return null
  const bytes = readHexBytes(text)
  const read = bytes && readId(bytes)
  if (read?.is === 'read') return read.id
  r.fault('id', `“${text}” is no ID: ${read ? read.say : 'two figures a byte, like 7F 7F 33 60 15'}`)
  return null
}

function erasesIn(r: RowReader): readonly EraseType[] | null {
  const words = r.text('erases').split(/\s+/).filter(Boolean)
  if (words.length === 0) return null
  return words.flatMap((word) => {
    const match = /^(\d{1,4}):([0-9a-f]{1,2})$/i.exec(word)
    if (!match) r.fault('erases', `“${word}” is no erase: KiB and command, like 4:20`)
    return match ? [{ bytes: Number(match[1]) * 1024, opcode: parseInt(match[2]!, 16) }] : []
  })
}

const byte = (n: number) => n.toString(16).toUpperCase().padStart(2, '0')
export const chipRows = ({ chips }: ChipTable): string[][] =>
  chips.map((c) => [
    c.name,
    c.id ? sayIdBytes(c.id) : '',
    c.volts === null ? '' : String(c.volts),
    c.bytes === null ? '' : String(c.bytes / MIB),
    c.package ?? '',
    c.quadEnable ?? '',
    c.addressing === null || c.addressing === 'reserved' ? '' : c.addressing,
    c.erases?.map((e) => `${e.bytes / 1024}:${byte(e.opcode)}`).join(' ') ?? '',
    c.mhz === null ? '' : String(c.mhz),
    c.checksId === null ? '' : c.checksId ? 'yes' : 'no',
  ])

/** What a board wants of its chip: what the one it was made with is, and the IDs of all it is known to take. */
export function wantedOf({ chips }: ChipTable): ChipWanted | null {
  const own = chips[0]
  if (!own) return null
  const { name: _, id: __, ...rest } = own
  return {
    ...rest,
    takes: chips.flatMap((c) => (c.id ? [c.id] : [])),
    usesQuad: own.quadEnable === null ? null : own.quadEnable !== 'none',
  }
}

/** The chip on the board or in the clip, as far as it was read and noted; null while it was not asked. */
export function chipAsRead(firmware: FirmwareState): FlashChip | null {
  const identity = identityNow(firmware)
  const asked = firmware.steps.findLast((f) => f.chipId !== undefined && f.seq >= firmware.chipSince)
  if (!identity?.answers || !asked) return null
  const read = readId(readHexBytes(asked.chipId!)!)
  const { sfdp } = identity
  return {
    name: lastNoted(firmware, 'chip') ?? '',
    id: read.is === 'read' ? read.id : null,
    volts: lastNoted(firmware, 'chipVolts') ?? null,
    bytes: sfdp?.bytes ?? null,
    package: null,
    quadEnable: (sfdp?.quadEnable as QuadEnable | null) ?? null,
    addressing: sfdp?.addressing ?? null,
    erases: sfdp?.erases ?? null,
    mhz: null,
  }
}
