import type { FaultId } from './faults'

/**
 * Chance that a repair meant for a fault takes, where it is not the usual one. Bench defaults, until the shop’s own record
 * stands in their place: a chip written 0.85, a chip refitted or a small part 0.8, a part of many legs or a contact
 * transplanted 0.72.
 */
const succeeds: Readonly<Partial<Record<FaultId, number>>> = {
  'firmware corrupt': 0.85,
  'firmware partly corrupt': 0.85,
  'CPU unsupported': 0.9,
  'firmware chip': 0.8,
  'chip dead': 0.8,
  'chip joint': 0.8,
  'chip resistor': 0.8,
  'chip supply part': 0.8,
  'controller line part': 0.8,
  'cell holder': 0.8,
  'standby rail short': 0.8,
  '12 V short': 0.8,
  '5 V short': 0.8,
  '3.3 V short': 0.8,
  'core rail short': 0.8,
  'memory rail short': 0.8,
  'core regulator part': 0.8,
  'memory A lines': 0.72,
  'memory B lines': 0.72,
  'core controller': 0.72,
  'memory controller': 0.72,
  'system-agent controller': 0.72,
  'board controller': 0.72,
  chipset: 0.72,
  'slot A': 0.72,
  'slot B': 0.72,
  'power contacts shorted': 0.85,
  'power contacts open': 0.85,
  'control contact open': 0.85,
  'sense contact open': 0.85,
  'memory A contact open': 0.85,
  'memory B contact open': 0.85,
  'signal contacts touch': 0.85,
  'display contact open': 0.85,
  'card contact open': 0.85,
}
/** What is exchanged, seated or set anew. */
const USUALLY = 0.97

/** What a repair takes, minutes (bench default): exchanged or seated 6; contacts 15; a chip written or a small part 20. */
const takesMinutes: readonly (readonly [minutes: number, ...of: FaultId[]])[] = [
  [20, 'firmware corrupt', 'firmware partly corrupt', 'CPU unsupported', 'chip resistor', 'chip supply part'],
  [20, 'controller line part', 'cell holder', 'core regulator part', 'chip joint'],
  [25, 'firmware chip', 'chip dead', '12 V short', '5 V short', '3.3 V short', 'standby rail short'],
  [25, 'core rail short', 'memory rail short'],
  [45, 'core controller', 'memory controller', 'system-agent controller', 'board controller', 'chipset'],
  [45, 'slot A', 'slot B', 'memory A lines', 'memory B lines'],
  [15, 'power contacts shorted', 'power contacts open', 'control contact open', 'sense contact open'],
  [15, 'memory A contact open', 'memory B contact open', 'signal contacts touch'],
  [15, 'display contact open', 'card contact open'],
]
const minutesTo = new Map(takesMinutes.flatMap(([minutes, ...of]) => of.map((fault) => [fault, minutes])))
export const repairMinutes = (fault: FaultId): number => minutesTo.get(fault) ?? 6

/**
 * Chance that work which can make a fault makes it (bench default): modules that were moved are not home; of a chip soldered
 * on again a joint is open or bridged, or a part beside it is gone; a chip that was changed is of another kind.
 */
const makes: Readonly<Partial<Record<FaultId, number>>> = {
  'module seat': 0.08,
  'chip joint': 0.06,
  'chip resistor': 0.05,
  'firmware chip': 0.15,
}

/**
 * What was done to the board that a fault hangs on: a repair meant for it; work that can have made it; a test that puts it
 * right for good, such as clearing the settings; or a test that can leave it behind, such as moving modules.
 */
export interface Change {
  readonly is: 'mended' | 'made' | 'cured' | 'left'
  readonly fault: FaultId
}

/** Whether a change can bring a fault in; any other takes one away. */
export const brings = ({ is }: Change): boolean => is === 'made' || is === 'left'

/** Chance that a change did to the board what it can do: put the fault right, or make it. */
export const chanceToTake = ({
  is,
  fault,
}: {
  readonly is: Change['is']
  readonly fault: FaultId
}): number => (is === 'cured' ? 1 : is === 'mended' ? (succeeds[fault] ?? USUALLY) : (makes[fault] ?? 0.05))

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
  ...(movesModules.test(test) ? [{ is: 'left' as const, fault: 'module seat' as const }] : []),
]
