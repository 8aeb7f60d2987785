/** What is looked at when a board goes back into its machine, in the order of the work. */
export const reassemblyChecks = [
  'standoffs',
  'retention frame',
  'cooler and pump',
  'supply cables',
  'front wiring',
  'card clearance',
  'settings',
  'strip and switch',
  'starts in its machine',
] as const
export type ReassemblyCheck = (typeof reassemblyChecks)[number]

export const checkWords: Readonly<Record<ReassemblyCheck, { readonly say: string; readonly when: string }>> =
  {
    standoffs: {
      say: 'Standoffs',
      when: 'one under every hole of the board and none anywhere else; no washer or screw loose',
    },
    'retention frame': {
      say: 'Retention frame and lever',
      when: 'closed by hand force alone, lever under its hook; heatsink screws crosswise',
    },
    'cooler and pump': {
      say: 'Cooler, fan and pump',
      when: 'fresh paste, fan and pump on their own headers, both heard or felt to run',
    },
    'supply cables': {
      say: 'Supply cables',
      when: 'main and CPU plug home until they click; cables of this supply and no other',
    },
    'front wiring': {
      say: 'Front-panel wiring',
      when: 'by the board’s own print: power switch, reset, LEDs; no reset held',
    },
    'card clearance': {
      say: 'Cards',
      when: 'home and screwed down; nothing presses on the cooler or bends the board',
    },
    settings: {
      say: 'Settings',
      when: 'put back as the owner had them: boot order, memory speed, security module',
    },
    'strip and switch': {
      say: 'Mains strip and switch',
      when: 'strip on, switch at the back of the supply on',
    },
    'starts in its machine': {
      say: 'It starts in its machine',
      when: 'by the front switch, to the system; once more after mains off',
    },
  }

/** What was found of each check, the last of each; without a machine nothing is owed. */
export interface Reassembly {
  readonly machine: boolean | null
  readonly found: Readonly<Partial<Record<ReassemblyCheck, { readonly ok: boolean; readonly note: string }>>>
}

export const notReassembled: Reassembly = { machine: null, found: {} }

/** Checks that nobody has made; none where no machine came with the board, or nobody has said. */
export const openChecks = ({ machine, found }: Reassembly): readonly ReassemblyCheck[] =>
  machine ? reassemblyChecks.filter((check) => found[check] === undefined) : []

export const failedChecks = ({ machine, found }: Reassembly): readonly ReassemblyCheck[] =>
  machine ? reassemblyChecks.filter((check) => found[check]?.ok === false) : []

/**
 * What a board that ran on the bench and does not start in its machine is looked at for first: what is between the two, what was
 * found wrong first, then what was not looked at.
 */
export function inItsMachineFirst(reassembly: Reassembly): ReassemblyCheck | null {
  if (reassembly.found['starts in its machine']?.ok !== false) return null
  const others = (check: ReassemblyCheck) => check !== 'starts in its machine'
  return failedChecks(reassembly).find(others) ?? openChecks(reassembly).find(others) ?? null
}
