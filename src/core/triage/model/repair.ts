import { voltsOf } from '../../board/proved'
import type { Proved } from '../../board/proved'
import type { Rail } from '../../board/rail'
import type { Fault } from './fault'
import { faults } from './faults'
import type { FaultId } from './faults'

/** A kind of repair: what it takes, minutes, and how often it succeeds. Bench defaults, until the shop’s own record stands in their place. */
interface Repair {
  readonly minutes: number
  readonly succeeds: number
}
const write: Repair = { minutes: 20, succeeds: 0.85 }
const smallPart: Repair = { minutes: 20, succeeds: 0.8 }
const chip: Repair = { minutes: 25, succeeds: 0.8 }
const manyPins: Repair = { minutes: 45, succeeds: 0.72 }
const straighten: Repair = { minutes: 15, succeeds: 0.85 }
/** What is exchanged, seated or set anew. */
const exchange: Repair = { minutes: 6, succeeds: 0.97 }

const repairs: Readonly<Partial<Record<FaultId, Repair>>> = {
  'firmware corrupt': write,
  'firmware partly corrupt': write,
  'CPU unsupported': { minutes: 20, succeeds: 0.9 },
  'firmware chip': chip,
  'chip dead': chip,
  'chip joint': smallPart,
  'chip resistor': smallPart,
  'chip supply part': smallPart,
  'controller line part': smallPart,
  'core regulator part': smallPart,
  'cell holder': smallPart,
  'standby rail short': smallPart,
  '12 V short': smallPart,
  '5 V short': smallPart,
  '3.3 V short': smallPart,
  'core rail short': smallPart,
  'memory rail short': smallPart,
  'other rail short': smallPart,
  'core controller': manyPins,
  'memory controller': manyPins,
  'system-agent controller': manyPins,
  'board controller': manyPins,
  chipset: manyPins,
  'slot A': manyPins,
  'slot B': manyPins,
  'memory A traces': manyPins,
  'memory B traces': manyPins,
  'power contacts shorted': straighten,
  'power contacts open': straighten,
  'control contact open': straighten,
  'sense contact open': straighten,
  'memory A contact open': straighten,
  'memory B contact open': straighten,
  'signal contacts touch': straighten,
  'display contact open': straighten,
  'card contact open': straighten,
}
/** Whether it is put right at the contacts of the socket. */
export const isStraightened = (fault: FaultId): boolean => repairs[fault] === straighten
export const repairOf = (fault: FaultId): Repair => repairs[fault] ?? exchange

/** What a repair takes that has to be bought, beside its minutes. */
export type Part = 'small part' | 'chip' | 'controller' | 'thing'
const takesPart: Readonly<Record<Part, readonly FaultId[]>> = {
  'small part': [
    'chip resistor',
    'chip supply part',
    'controller line part',
    'core regulator part',
    'cell holder',
    'cell weak',
    'standby rail short',
    '12 V short',
    '5 V short',
    '3.3 V short',
    'core rail short',
    'memory rail short',
    'other rail short',
  ],
  chip: ['firmware chip', 'chip dead'],
  controller: [
    'core controller',
    'memory controller',
    'system-agent controller',
    'board controller',
    'chipset',
    'slot A',
    'slot B',
  ],
  thing: ['supply', 'drive', 'module', 'CPU', 'CPU memory side', 'CPU without graphics', 'card', 'cooling'],
}
const parts = new Map(
  (Object.keys(takesPart) as Part[]).flatMap((part) => takesPart[part].map((f) => [f, part])),
)
/** What has to be bought for a repair; null where it is written, straightened, soldered, seated or set. */
export const partOf = (fault: FaultId): Part | null => parts.get(fault) ?? null

const proves: Readonly<Partial<Record<FaultId, Proved>>> = {
  'memory A contact open': 'memory A',
  'memory B contact open': 'memory B',
  'memory A traces': 'memory A',
  'memory B traces': 'memory B',
  'slot A': 'memory A',
  'slot B': 'memory B',
  module: 'memory A',
  'module seat': 'memory A',
  'CPU memory side': 'memory A',
  'memory controller': 'memory power',
  'display contact open': 'display',
  'CPU without graphics': 'display',
  'card contact open': 'card lanes',
  card: 'card lanes',
  drive: 'storage lanes',
  cooling: 'cooling',
  pressure: 'cooling',
  'sense contact open': 'sense',
  'power contacts open': 'core power',
  'power contacts shorted': 'core power',
  'core regulator part': 'core power',
  'core controller': 'core power',
  'control contact open': 'control',
  'reset held': 'reset',
  'cell weak': 'settings kept',
  'cell holder': 'settings kept',
  settings: 'settings kept',
  'CPU unsupported': 'version',
  'firmware corrupt': 'version',
  'firmware partly corrupt': 'version',
}
/** Rails whose supply a repair concerns, by the fault. */
const supplies: Readonly<Partial<Record<FaultId, Rail>>> = {
  'core regulator part': 'vcore',
  'core controller': 'vcore',
  'memory controller': 'vmem',
  'system-agent controller': 'vsys',
  'chip supply part': 'standby',
}
export const suppliedBy = (fault: FaultId): Rail | null => {
  const { rail } = faults[fault] as Fault
  return supplies[fault] ?? (rail && rail.rail !== 'other' ? rail.rail : null)
}

/** What has to work once a fault is repaired. */
export function provedBy(fault: FaultId): Proved {
  const rail = suppliedBy(fault)
  return proves[fault] ?? (rail === null ? 'starts' : voltsOf(rail))
}

/**
 * Chance that work which can make a fault makes it (bench default): modules that were moved are not home; of a chip soldered
 * on again a joint is open or bridged, or a part beside it is gone; a chip that was changed is of another kind; of contacts that
 * were straightened a neighbour was disturbed.
 */
const makes: Readonly<Partial<Record<FaultId, number>>> = {
  'module seat': 0.08,
  'chip joint': 0.06,
  'chip resistor': 0.05,
  'firmware chip': 0.15,
  'signal contacts touch': 0.03,
}

/**
 * What was done to the board that a fault hangs on: a repair meant for it; work that can have made it; a test that puts it
 * right for good, such as clearing the settings; or what can be left behind, by a test that moves modules or by strokes beside
 * a contact.
 */
export interface Change {
  readonly is: 'mended' | 'made' | 'cured' | 'left'
  readonly fault: FaultId
  /** Chance that a repair takes by the shop’s own record; the bench default when left out. */
  readonly takes?: number
}

/** Whether a change can bring a fault in; any other takes one away. */
export const brings = ({ is }: Change): boolean => is === 'made' || is === 'left'

/** Faults that changes were to put right, each once. */
export const mendedBy = (changes: readonly Change[]): readonly FaultId[] => [
  ...new Set(changes.flatMap((c) => (brings(c) ? [] : [c.fault]))),
]

/** Chance that a change did to the board what it can do: put the fault right, or make it. */
export const chanceToTake = ({ is, fault, takes }: Change): number =>
  is === 'cured' ? 1 : is === 'mended' ? (takes ?? repairOf(fault).succeeds) : (makes[fault] ?? 0.05)

/** What a test puts right for good by being done: settings stay cleared, memory stays trained, what was seated stays so. */
const cures: Readonly<Record<string, readonly FaultId[]>> = {
  'settings cleared': ['settings'],
  'new cell': ['cell weak', 'settings'],
  trained: ['training'],
  'memory reseated': ['module seat'],
  reseated: ['CPU seat'],
  eased: ['CPU seat', 'pressure'],
}
export const curedBy = (test: string): readonly FaultId[] => cures[test] ?? []

/** Tests for which modules are moved. */
const movesModules = /^(no memory|own in B|good in (A|B|both))$/

/** What a test changes on the board by being done. */
export const changedBy = (test: string): readonly Change[] => [
  ...curedBy(test).map((fault) => ({ is: 'cured' as const, fault })),
  // They go back when it is done: home now, or not.
  ...(movesModules.test(test)
    ? (['cured', 'left'] as const).map((is) => ({ is, fault: 'module seat' as const }))
    : []),
]
