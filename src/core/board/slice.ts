import type { RailWord, BoardBodies } from './bodies'
import { castDraft } from 'immer'
import { boardCommands } from './commands'
import { newCell, slice } from '../tape/slice'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import type { Baseline } from './baseline'
import { hazardWords } from './hazard'
import { account, addLoose, itemId, ledgerOf, nothingLoose, settleLoose } from './loose'
import type { LedgerItem, LooseItems } from './loose'
import { hearChange, hearPower, noPower } from './power-history'
import type { HeardForPower, PowerHistory } from './power-history'
import { sayOhms } from '../maths/units'
import { sayRail } from './rail'
import type { OwnRail, Rail } from './rail'
import type { RailSeen } from './rail-limits'

const railIs: Readonly<Record<RailWord, string>> = { short: 'shorted to ground', low: 'low', good: 'good' }

interface VoltsSeen {
  readonly rail: Rail
  readonly volts: number
}
type CellSeen = Omit<BoardBodies['cell'], 'volts' | 'is'> & { readonly volts: number }

/** A reading to ground; asked about when it contradicts what is known to be fitted. */
export type RailReading = Noted & RailSeen & { readonly asked?: true }
/** A reading that was told in a word. */
type Told<K extends 'rail' | 'volts' | 'cell'> = Noted & BoardBodies[K]
/** A rail told in a word; asked about, as a reading is, when it contradicts what is known to be fitted. */
type RailTold = Told<'rail'> & { readonly asked?: true }

/** Whether a CPU is the bench’s own and not the board’s, by what it is called. */
export const isLentCpu = (cpu: string | null): cpu is string =>
  cpu !== null && /^(bench|known-good)\b/i.test(cpu)

/** What has to go back for the board to be as it came; null where nothing has. */
export function notAsItCame({ fitted, without }: Pick<BoardState, 'fitted' | 'without'>): string | null {
  const back = [
    (isLentCpu(fitted.cpu) || without.includes('CPU')) && 'its own CPU, heatsink on',
    without.includes('modules') && 'its modules',
    without.includes('drive') && 'its drive',
  ].filter(Boolean)
  return back.length > 0 ? back.join('; ') : null
}

/** What a board may be started without. */
const removable = ['CPU', 'modules', 'drive'] as const
type Without = readonly (typeof removable)[number][]

export interface BoardState {
  readonly railLog: readonly RailReading[]
  /** Rails of this board beyond the usual ones, as the ticket has them. */
  readonly ownRails: readonly OwnRail[]
  readonly rails: Readonly<Partial<Record<Rail, RailReading>>>
  readonly voltsLog: readonly (Noted & VoltsSeen)[]
  readonly volts: Readonly<Partial<Record<Rail, Noted & VoltsSeen>>>
  readonly cellLog: readonly (Noted & CellSeen)[]
  readonly cell: (Noted & CellSeen) | null
  /** What was told in a word, in the order of the tape. */
  readonly told: {
    readonly rails: readonly RailTold[]
    readonly volts: readonly Told<'volts'>[]
    readonly cells: readonly Told<'cell'>[]
  }
  readonly currents: readonly (Noted & BoardBodies['current'])[]
  /** Power-ups, with the CPU that was in the socket, and what was said to be out. */
  readonly baselines: readonly (Noted &
    Baseline & { readonly cpu: string | null; readonly without: Without })[]
  readonly looks: readonly (Noted & BoardBodies['look'])[]
  readonly fitted: {
    readonly cpu: string | null
    readonly heatsink: boolean
    readonly modules: readonly string[]
    readonly card: string | null
    readonly drive: string | null
  }
  /** What was said to be out, which is more than that nobody said it is in. */
  readonly without: Without
  readonly supplyLimitA: number | null
  readonly loose: LooseItems
  /** Place on the tape of the last change to socket or parts, of other changes, and of the last power-up. */
  readonly lastTouched: number
  readonly changed: Readonly<Record<'firmware' | 'cpu' | 'cell', number>>
  /** Of the last change to the board that was not another cell. */
  readonly changedElse: number
  readonly lastPowered: number
  /** What bears on the power gate. */
  readonly power: PowerHistory
}

/** Rails that were read, in ohms or in a word. */
export const railsRead = ({ rails: read, told }: BoardState): ReadonlySet<Rail> =>
  new Set([...Object.keys(read), ...told.rails.map((r) => r.rail)])

/** Whether the coin cell was read, in volts or in a word. */
export const cellRead = ({ cell, told }: BoardState): boolean => cell !== null || told.cells.length > 0

/** Fragments and parts nobody has accounted for. */
export const unaccounted = ({ loose }: BoardState): readonly LedgerItem[] =>
  ledgerOf(loose).filter((i) => i.where === null)

const initial = (): BoardState => ({
  ownRails: [],
  railLog: [],
  rails: {},
  voltsLog: [],
  volts: {},
  cellLog: [],
  cell: null,
  told: { rails: [], volts: [], cells: [] },
  currents: [],
  baselines: [],
  looks: [],
  fitted: { cpu: null, heatsink: false, modules: [], card: null, drive: null },
  without: [],
  supplyLimitA: null,
  loose: nothingLoose,
  lastTouched: 0,
  changed: { firmware: 0, cpu: 0, cell: 0 },
  changedElse: 0,
  lastPowered: 0,
  power: noPower(),
})

/** What several stations share; it hears every line by what it does to the board. */
export const board = slice<BoardBodies, HeardForPower>().of({
  id: 'board',
  commands: boardCommands,
  initial,
  kinds: {
    rail: {
      opens: 'triage',
      words: ({ body: b }) =>
        b.ohms === null
          ? `${sayRail(b.rail)} to ground: ${railIs[b.is ?? 'good']}, no figure`
          : `${sayRail(b.rail)} to ground ${sayOhms(b.ohms)}, CPU ${b.cpu}`,
    },
    volts: {
      opens: 'triage',
      words: ({ body: b }) =>
        b.volts === null ? `${sayRail(b.rail)}: volts ${b.is}` : `${sayRail(b.rail)} at ${b.volts} V`,
    },
    cell: {
      opens: 'triage',
      words: ({ body: b }) =>
        `${b.isNew ? 'new ' : ''}cell ${b.volts === null ? b.is : `${b.volts} V`}${b.where === 'at the board' ? ' at the board' : ''}`,
      changesBoard: (b) => (b.isNew ? newCell : null),
    },
    current: {
      opens: 'triage',
      words: ({ body: b }) => {
        const pattern = {
          none: 'nothing',
          standby: 'standby only',
          steady: b.plateauA === null ? 'steady' : `steady ${b.plateauA.toFixed(2)} A`,
          cycling: b.periodS === null ? 'cycles' : `cycles every ${b.periodS.toFixed(1)} s`,
          trips: 'trips',
        }[b.pattern]
        return `current recorded: ${pattern}, peak ${b.peakA.toFixed(2)} A`
      },
    },
    baseline: {
      opens: 'triage',
      words: ({ body: b }) => {
        const noted = [
          b.fans !== 'not noted' && (b.fans === 'restarts' ? 'restarts by itself' : `fans ${b.fans}`),
          b.fanSpeed && (b.fanSpeed === 'settle' ? 'fans settle' : 'fans stay at full speed'),
          b.current !== 'not noted' && `current ${b.current}${b.amps === null ? '' : ` ${b.amps} A`}`,
          b.lamp !== 'not noted' && `debug LED ${b.lamp === 'cpu' ? 'CPU' : b.lamp}`,
          b.beeps && `beeps ${b.beeps}`,
          b.cpuHeat !== 'not noted' && `CPU ${b.cpuHeat}`,
          b.codes.length > 0 && `codes ${b.codes.join(' ')}`,
          b.picture !== 'not noted' && `picture ${b.picture === 'maker screen' ? 'start screen' : b.picture}`,
        ]
        return `powered: ${noted.filter(Boolean).join(', ') || 'nothing noted'}`
      },
    },
    fitted: {
      words: ({ body: b }) => {
        const noted = [
          b.cpu !== undefined && (b.cpu === null ? 'CPU out' : `CPU ${b.cpu}`),
          b.heatsink !== undefined && `heatsink ${b.heatsink ? 'on' : 'off'}`,
          b.modules && `memory in ${b.modules.join(', ') || 'no slot'}`,
          b.card !== undefined && (b.card ? `card ${b.card}` : 'no card'),
          b.drive !== undefined && (b.drive ? `drive ${b.drive}` : 'no drive'),
        ]
        return `fitted: ${noted.filter(Boolean).join(', ')}`
      },
    },
    supply: {
      words: ({ body: b }) => (b.limitA === null ? 'supply: limit off' : `supply: limit ${b.limitA} A`),
    },
    look: {
      opens: 'triage',
      words: ({ body: b }) =>
        `looked at ${b.what}: ${b.seen}${b.hazard && b.hazard !== 'harmless' ? ` (${hazardWords[b.hazard]})` : ''}`,
      loose: (b) =>
        b.hazard === 'part gone'
          ? [{ what: `the part that is gone (${b.test ? b.seen : b.what})`, from: 'board' }]
          : [],
    },
    missing: {
      words: ({ body: b }) => `to be accounted for: ${b.what}`,
      loose: (b) => [{ what: b.what, from: b.from }],
    },
    accounted: {
      words: ({ body: b }) => {
        const [line, index] = itemId(b.item).split('/')
        return `line ${line}${index === '0' ? '' : `, piece ${Number(index) + 1},`} accounted for: ${b.where}`
      },
      subjects: (b) => [`missing ${b.item}`],
      refers: (b) => [
        {
          field: 'item',
          seq: Number.parseInt(String(b.item), 10),
          to: { loose: typeof b.item === 'string' ? Number(b.item.split('/')[1]) : null },
        },
      ],
    },
  },
  each(s, line, { change, loose, settled }) {
    hearPower(s.power, line, s)
    if (change) {
      hearChange(s.power, line.seq, change)
      if (change.undoes === 'all') s.lastTouched = line.seq
      else if (change.undoes) s.changed[change.undoes] = line.seq
      if (change.undoes !== 'cell' && change.what) s.changedElse = line.seq
    }
    settleLoose(s.loose, settled)
    addLoose(s.loose, notedOf(line), loose)
  },
  on: {
    ticket(s, { body }) {
      if (body.set.rails) s.ownRails = castDraft(body.set.rails)
    },
    rail(s, line) {
      const { rail, ohms } = line.body
      const cpu = line.body.cpu ?? s.power.cpu ?? 'out'
      // A reading that contradicts what is fitted is a question.
      const asked = s.power.cpu !== null && s.power.cpu !== cpu ? { asked: true as const } : {}
      if (ohms === null) {
        s.told.rails.push({ ...notedOf(line), ...line.body, cpu, ...asked })
        return
      }
      const reading = { ...notedOf(line), rail, ohms, cpu, ...asked }
      s.railLog.push(reading)
      s.rails[reading.rail] = reading
    },
    volts(s, line) {
      const { rail, volts } = line.body
      if (volts === null) return void s.told.volts.push({ ...notedOf(line), ...line.body })
      const reading = { ...notedOf(line), rail, volts }
      s.voltsLog.push(reading)
      s.volts[rail] = reading
    },
    cell(s, line) {
      const { volts } = line.body
      if (volts === null) {
        s.told.cells.push({ ...notedOf(line), ...line.body })
        return
      }
      s.cell = { ...notedOf(line), ...line.body, volts }
      s.cellLog.push({ ...s.cell })
    },
    current(s, line) {
      s.currents.push({ ...notedOf(line), ...line.body } as (typeof s.currents)[number])
    },
    baseline(s, line) {
      const { cpu } = s.fitted
      s.baselines.push({
        ...notedOf(line),
        ...line.body,
        cpu,
        without: s.without,
      } as (typeof s.baselines)[number])
      s.lastPowered = line.seq
    },
    look(s, line) {
      s.looks.push({ ...notedOf(line), ...line.body })
      if (line.body.test === 'outside' && line.body.seen === 'cooler loose') s.fitted.heatsink = false
    },
    fitted(s, line) {
      const { cpu } = line.body
      if (cpu !== undefined && cpu !== s.fitted.cpu) s.changed.cpu = line.seq
      // Another CPU had the heatsink off; unless it is noted again it counts as none.
      const off = cpu !== undefined && (cpu === null || cpu !== s.fitted.cpu)
      Object.assign(s.fitted, off ? { heatsink: false } : {}, line.body)
      const { modules, drive } = line.body
      const none = (part: string | null | undefined) => (part === undefined ? undefined : part === null)
      const out = { CPU: none(cpu), modules: modules && modules.length === 0, drive: none(drive) }
      s.without = removable.filter((part) => out[part] ?? s.without.includes(part))
    },
    supply(s, line) {
      s.supplyLimitA = line.body.limitA
    },
    accounted(s, line) {
      account(s.loose, itemId(line.body.item), line.body.where)
    },
    seat(s, line) {
      s.fitted.cpu = line.body.cpu
      s.fitted.heatsink = line.body.heatsink === true
      s.without = s.without.filter((part) => part !== 'CPU')
    },
    written(s, line) {
      s.changed.firmware = line.seq
    },
    firmware(s, line) {
      const { chip, did } = line.body
      const another = chip !== undefined && s.power.chip !== null && chip !== s.power.chip
      if (another) hearChange(s.power, line.seq, { what: 'the chip changed', heat: true })
      if (another || did !== undefined) s.changed.firmware = line.seq
      s.power.chip = chip ?? s.power.chip
    },
  },
})
