import { readId } from '@/core/firmware/chip/jedec-id'
import type { TakenChip } from '@/core/firmware/chip/taken-chips'
import { soldChips } from '@/simulated-bench/flash-chips'
import type { Release, SupportRow } from '@/core/firmware/route/support-table'
import { usualWays } from '@/core/firmware/route/way'
import { rails } from '@/core/board/rail'
import { readCurrent, thinCurve } from '@/core/triage/instruments/current-trace'
import type { CodeTable } from '@/core/triage/instruments/code-tape'
import type { FaultId } from '@/core/triage/model/faults'
import type { RailReference } from '@/core/triage/instruments/rail-table'
import { usualVolts } from '@/core/triage/instruments/rail-table'
import type { References } from '@/core/job/references'
import { signals } from '@/core/triage/model/shows'
import type { Signal } from '@/core/triage/model/shows'
import { SimulatedBoard } from '@/simulated-bench/simulated-board'
import { goodRails, railsWithCpu } from './jobs/job'

/** Codes of the harbour's boards; training takes longer on the newer ones. */
const codes = (name: string, trainingS: number): CodeTable => ({
  name,
  codes: [
    { code: '02', stage: 'reset released', say: 'reset released', restS: 3 },
    { code: '10', stage: 'first fetch', say: 'first fetch from the chip', restS: 5 },
    { code: '19', stage: 'CPU and chipset', say: 'CPU wakes', restS: 8 },
    { code: '2B', stage: 'CPU and chipset', say: 'chipset answers', restS: 8 },
    { code: '4C', stage: 'memory training', say: 'memory trains', restS: trainingS },
    { code: '51', stage: 'memory training', say: 'memory, second channel', restS: 20 },
    { code: '55', stage: 'memory training', say: 'memory is mapped', restS: 20 },
    { code: '70', stage: 'graphics', say: 'graphics', restS: 15 },
    { code: '9A', stage: 'boot device', say: 'looks for a drive', restS: 30 },
    { code: 'AA', stage: 'running', say: 'handed over', restS: 0 },
  ],
})

const goodBoard = (name: string, own: RailReference['rails'] = {}): RailReference => ({
  name,
  rails: {
    ...Object.fromEntries(
      rails.map((rail) => [
        rail,
        { ohmsOut: goodRails[rail], ohmsIn: railsWithCpu[rail], volts: usualVolts[rail] },
      ]),
    ),
    ...own,
  },
})

/** The current of a good board, recorded on the simulated supply. */
function goodCurrent(name: string, seed: number): NonNullable<References['current']> {
  for (let line = 0; ; line++) {
    const board = new SimulatedBoard({ faults: [], seed, rails: null, codes: null }, [], line)
    const trace = board.current(null)
    const reading = readCurrent(trace)
    if (reading.pattern === 'steady' && reading.plateauA! > 1.6)
      return { name, reading, curve: thinCurve(trace) }
  }
}

const { updater, button, socket, clip } = usualWays
const here = { price: 0, from: null, holds: null }
const release = (name: string, date: string, rest: Partial<Release> = {}): Release => ({
  name,
  date,
  needs: null,
  holds: null,
  unstable: false,
  withdrawn: false,
  source: 'the maker’s page',
  trust: 0.97,
  ...rest,
})
const cpu = (
  name: string,
  from: string,
  until: string | null = null,
  rest: Partial<SupportRow> = {},
): SupportRow => ({
  cpu: name,
  family: `${/\d/.exec(name)?.[0] ?? ''}x`,
  from,
  until,
  unstable: false,
  source: 'the maker’s list',
  date: '2026-05-04',
  trust: 0.95,
  ...rest,
})

/** A chip as its data sheet has it. */
const chip = (marking: string, checksId: boolean | null): TakenChip => {
  const sold = soldChips.find((c) => c.marking === marking)!
  const { bytes, quadEnable, addressing, erases } = sold.sfdp
  const read = readId(Uint8Array.from(sold.id))
  return {
    name: marking,
    id: read.is === 'read' ? read.id : null,
    volts: sold.volts,
    bytes,
    package: 'SOIC-8',
    quadEnable,
    addressing,
    erases,
    mhz: 104,
    checksId,
  }
}

/** The K74 came out with the 4x; the 5x need a release that the first ones cannot write by themselves. */
const k74 = {
  releases: {
    name: 'TW-K74, as of May',
    releases: [
      release('1.20', '2023-02-10'),
      release('1.30', '2023-06-21'),
      release('1.40', '2024-01-15'),
      release('1.52', '2024-05-30'),
      release('1.60', '2024-09-03', { needs: '1.40' }),
      release('1.62', '2024-11-28', { needs: '1.40', withdrawn: true }),
      release('2.00', '2025-04-09', { needs: '1.60', unstable: true }),
      release('2.04', '2025-10-30', { needs: '1.60' }),
    ],
  },
  cpus: {
    name: 'TW-K74, as of May',
    support: [
      cpu('Orrin 41', '1.20', '1.62', { signature: 0x60a50 }),
      cpu('Orrin 44', '1.20', '1.62', { signature: 0x60a51 }),
      cpu('Orrin 47', '1.30', null, { signature: 0x60a51 }),
      cpu('Orrin 53', '2.00'),
      cpu('Orrin 55', '1.60', null, { trust: 0.7, source: 'seen once, on another bench' }),
      cpu('Orrin 58', '2.04'),
    ],
  },
  ways: {
    name: 'TW-K74',
    ways: [
      { ...updater, ...here },
      { ...clip, ...here },
    ],
  },
}
const k61 = {
  releases: {
    name: 'TW-K61 rev B',
    releases: [
      release('1.20', '2021-03-02'),
      release('1.30', '2021-11-17'),
      release('1.40', '2022-02-08', { needs: '1.30' }),
      release('1.52', '2022-08-05', { needs: '1.40' }),
    ],
  },
  cpus: {
    name: 'TW-K61 rev B',
    support: [cpu('Orrin 31', '1.20', '1.40'), cpu('Orrin 36', '1.20'), cpu('Orrin 42', '1.52')],
  },
  ways: {
    name: 'TW-K61 rev B',
    ways: [
      { ...updater, ...here },
      { ...button, ...here, from: '1.40' },
      { ...socket, ...here },
    ],
  },
}

/** What a board can show: LEDs and a code display on the better ones, a beeper on the old ones. */
const shows = (name: string, ...there: readonly Signal[]): NonNullable<References['shows']> => ({
  name,
  shown: Object.fromEntries(signals.map((what) => [what, there.includes(what)])),
})

/** What is known of the boards that come often. */
export const demoReferences: Readonly<Record<string, Partial<References>>> = {
  'tw-k61': { rails: goodBoard('the spare K61') },
  'tw-k74': {
    shows: shows('', 'debug LEDs', 'code display'),
    codes: codes('TW-K74 codes', 240),
    // It feeds its chipset and the second rail of its memory from controllers of their own.
    rails: goodBoard('the spare K74', {
      chipset: { ohmsOut: 92, ohmsIn: null, volts: 1.05 },
      vmem2: { ohmsOut: 340, ohmsIn: null, volts: 2.5 },
    }),
    current: goodCurrent('the spare K74', 74),
    ...k74,
    chips: { name: 'TW-K74', chips: [chip('LSN-16V', true)] },
  },
  'tw-k61-b': k61,
  'hv-gannet': { shows: shows('', 'code card', 'beeper') },
  'br-sound-7': {
    shows: shows('', 'debug LEDs', 'code display', 'beeper'),
    codes: codes('Sound-7 codes', 120),
    rails: goodBoard('the observatory’s other board'),
    current: goodCurrent('the observatory’s other board', 7),
    chips: { name: 'Sound-7', chips: [chip('LSN-16V', true)] },
  },
}

/** What is really wrong with the boards on the bench, for the simulated instruments. */
export const demoHidden: Readonly<Record<string, readonly FaultId[]>> = {
  'Q-0408': ['pressure'],
  'Q-0409': ['cell holder'],
  'Q-0410': ['firmware chip'],
  'Q-0411': ['CPU unsupported'],
  'Q-0412': ['memory rail short', 'slot B'],
  'Q-0413': ['firmware corrupt'],
  'Q-0414': ['signal contacts touch'],
  'Q-0415': ['power contacts open'],
  'Q-0416': ['chip resistor'],
  'Q-0417': ['memory A contact open'],
  'Q-0418': ['12 V short'],
}

/** CPUs the shop keeps to carry boards over an update, and what others would cost. */
export const demoBenchCpus = [
  { cpu: 'Orrin 31', owned: true, priceMinor: null },
  { cpu: 'Orrin 36', owned: false, priceMinor: 9_000 },
  { cpu: 'Orrin 41', owned: true, priceMinor: null },
  { cpu: 'Orrin 44', owned: true, priceMinor: null },
  { cpu: 'Orrin 47', owned: false, priceMinor: 22_000 },
  { cpu: 'Orrin 53', owned: false, priceMinor: 64_000 },
  { cpu: 'Orrin 55', owned: false, priceMinor: 31_000 },
] as const
