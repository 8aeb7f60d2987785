import type { FunctionGroup } from '../board/function-group'
import { voltsOf } from '../board/proved'
import type { Proved } from '../board/proved'
import { sayRail } from '../board/rail'
import type { Rail } from '../board/rail'
import type { ShelfItem } from '../board/shelf-items'
import type { Touched } from '../board/station-says'
import type { Placed } from './doubt'

/** A test that can be part of a proof, and when a board owes it. */
export interface Kind extends Placed {
  readonly test: string
  readonly limit: string
  readonly starts?: number
  readonly needs: readonly ShelfItem[]
  /** Why a board owes it; null where it does not. */
  readonly owed: (t: Touched, has: (...groups: FunctionGroup[]) => boolean) => string | null
}

const when = (is: boolean, why: string): string | null => (is ? why : null)

const repaired = ({ repaired: all }: Touched, what: Proved): boolean => all.some(({ of }) => of === what)

const inEachSlot = (channel: 'A' | 'B'): Kind => ({
  id: `memory ${channel} slots`,
  test: `A module in each slot of channel ${channel}`,
  limit: 'each slot seen at rated speed',
  minutes: 8,
  needs: ['known-good module'],
  shows: { [`memory ${channel}`]: 0.95 },
  owed: (t, has) =>
    has(`memory ${channel}`)
      ? `contacts of channel ${channel} were damaged`
      : when(repaired(t, `memory ${channel}`), `channel ${channel} was repaired`),
})

/** Every test of a proof by what it shows (chances: bench defaults). */
export const kinds: readonly Kind[] = [
  {
    id: 'continuity',
    test: 'Continuity from pin to far end of each part fitted',
    limit: 'below 1 Ω, or the part’s value',
    minutes: 5,
    needs: ['meter'],
    shows: { joints: 0.85 },
    unpowered: true,
    owed: (t) => when(t.parts, 'small parts were fitted'),
  },
  {
    id: 'temperature',
    test: 'Temperature under load for 15 minutes',
    limit: 'levels off well below the limit',
    minutes: 15,
    needs: [],
    shows: { cooling: 0.95, 'core power': 0.5, ground: 0.4 },
    after: 'system',
    owed: () => 'mounting and power contacts',
  },
  {
    id: 'memory amount',
    test: 'One module, then two: amount and dual channel',
    limit: 'the full amount, dual channel',
    minutes: 6,
    needs: ['known-good module', 'second known-good module'],
    shows: { 'memory A': 0.8, 'memory B': 0.8, 'memory power': 0.4 },
    owed: (t, has) =>
      has('memory A', 'memory B', 'memory power')
        ? 'memory contacts were touched'
        : t.exchanged.includes('module')
          ? 'a module was exchanged'
          : 'half-seen memory is easily missed',
  },
  inEachSlot('A'),
  inEachSlot('B'),
  {
    id: 'memory test',
    test: 'Memory test, one pass',
    limit: 'no error',
    minutes: 20,
    needs: [],
    shows: { 'memory A': 0.9, 'memory B': 0.9, 'memory power': 0.8 },
    owed: (t, has) =>
      has('memory A', 'memory B', 'memory power')
        ? 'a weak contact shows under load'
        : when(t.exchanged.includes('module'), 'a module was exchanged'),
  },
  {
    id: 'CPU named',
    test: 'CPU named, with all its cores and its rated speed',
    limit: 'as on its lid',
    minutes: 2,
    needs: [],
    shows: { CPU: 0.9 },
    owed: (t) => when(t.exchanged.includes('CPU'), 'the CPU was exchanged'),
  },
  {
    id: 'card width',
    test: 'A card in the slot: picture and link width',
    limit: 'picture, and full width',
    minutes: 5,
    needs: ['known-good card'],
    shows: { 'card lanes': 0.95, 'io power': 0.5 },
    owed: (t, has) =>
      has('card lanes')
        ? 'card-lane contacts were damaged'
        : has('io power')
          ? 'contacts of io power were damaged'
          : t.exchanged.includes('card')
            ? 'the card was exchanged'
            : when(repaired(t, 'card lanes'), 'the card slot was repaired'),
  },
  {
    id: 'storage ports',
    test: 'A drive on each port',
    limit: 'each port sees the drive',
    minutes: 6,
    needs: ['known-good drive'],
    shows: { 'storage lanes': 0.95 },
    owed: (t, has) =>
      has('storage lanes')
        ? 'storage contacts were damaged'
        : t.exchanged.includes('drive')
          ? 'the drive was exchanged'
          : when(repaired(t, 'storage lanes'), 'storage was repaired'),
  },
  {
    id: 'own graphics',
    test: 'Picture from the CPU’s own graphics',
    limit: 'picture on each output',
    minutes: 4,
    needs: [],
    shows: { display: 0.95 },
    owed: (t, has) =>
      has('display') ? 'display contacts were damaged' : when(repaired(t, 'display'), 'display was repaired'),
  },
  {
    id: 'load',
    test: 'All cores under load for 20 minutes',
    limit: 'no error, no restart',
    minutes: 20,
    needs: [],
    shows: { 'core power': 0.85, ground: 0.85, 'io power': 0.6, 'memory power': 0.5, cooling: 0.6, CPU: 0.5 },
    after: 'system',
    owed: (t, has) =>
      has('core power', 'io power', 'ground')
        ? 'power or ground contacts were damaged'
        : when(repaired(t, 'core power'), 'the core supply was repaired'),
  },
  {
    id: 'core volts',
    test: 'Core volts at rest and under load',
    limit: 'within 5 % of what is asked for',
    minutes: 5,
    needs: ['meter'],
    shows: { sense: 0.95, 'core power': 0.5 },
    owed: (_, has) => when(has('sense'), 'a voltage-sense contact was damaged'),
  },
  {
    id: 'restart',
    test: 'Restart from the system, five times',
    limit: 'five of five',
    minutes: 8,
    needs: [],
    shows: { control: 0.8, reset: 0.8, clock: 0.6, starts: 0.3 },
    after: 'system',
    owed: (_, has) => when(has('control', 'reset', 'clock'), 'a control contact was damaged'),
  },
  {
    id: 'ports',
    test: 'Network, USB and sound, one of each',
    limit: 'each works',
    minutes: 6,
    needs: [],
    shows: { ports: 0.9, 'io power': 0.3 },
    after: 'system',
    owed: (_, has) =>
      has('reserved', 'unknown')
        ? 'contacts without a known function were damaged'
        : when(has('io power'), 'contacts of io power were damaged'),
  },
  {
    id: 'version',
    test: 'Version shown after a start with mains off',
    limit: 'the version that was meant',
    minutes: 3,
    needs: [],
    shows: { version: 0.98 },
    owed: (t) => when(t.firmware, 'firmware was changed'),
  },
  {
    id: 'settings',
    test: 'Clock and settings kept over ten minutes without mains',
    limit: 'time and settings are kept',
    minutes: 12,
    needs: [],
    shows: { 'settings kept': 0.95 },
    owed: (t) =>
      t.cell
        ? 'the cell was at fault or changed'
        : t.firmware
          ? 'firmware was changed'
          : when(repaired(t, 'settings kept'), 'what keeps the settings was repaired'),
  },
  {
    id: 'system',
    test: 'An operating system loads',
    limit: 'desktop or log-in appears',
    minutes: 5,
    needs: ['known-good drive'],
    shows: { system: 0.95, 'storage lanes': 0.4, 'memory A': 0.3, 'memory B': 0.3, version: 0.3 },
    owed: () => 'the owner needs more than a POST',
  },
]

export const coldStarts = (starts: number, share: number, why: string): Kind => ({
  id: 'cold starts',
  test: `${starts} cold starts, mains off a minute before each`,
  limit: `${starts} of ${starts} reach the picture`,
  minutes: starts * 3,
  starts,
  needs: [],
  shows: { starts: 1 - (1 - share) ** starts, control: 0.5, 'core power': 0.3, 'memory power': 0.3 },
  owed: () => why,
})

export const voltsUnderLoad = (rail: Rail): Kind => ({
  id: voltsOf(rail),
  test: `Volts of the ${sayRail(rail)} at rest and under load`,
  limit: 'within 5 % at rest, and no lower than that under load',
  minutes: 4,
  needs: ['meter'],
  shows: { [voltsOf(rail)]: 0.95 },
  owed: () => 'it had read short or low, or its supply was repaired',
})
