// What each fault does to a board, with figures of this world’s own: how often it keeps a start back, and what finds it.
import type { Setup } from '@/core/triage/model/setup'
import type { FaultId } from '@/core/triage/model/faults'

/** The stages of a start, by what the board waits for; the last is that it runs. */
const STAGES = 11
export const [STANDBY, REQUEST, RAILS, GOOD, RESET, FETCH, CPU, MEMORY, GRAPHICS, BOOT, RUNS] = Array.from(
  { length: STAGES },
  (_, i) => i,
) as [number, number, number, number, number, number, number, number, number, number, number]

export interface Part {
  /** The stage that waits for it. */
  readonly at: number
  /** How often it keeps a start from going on. */
  readonly blocks: number
  /** Set-ups in which it is not asked of, or is another part. */
  readonly out?: (s: Setup) => boolean
  readonly rail?: readonly [rail: string, is: 'short' | 'dead']
  /** Tests that come upon it without a start: the outcome, and how often. */
  readonly seen?: Readonly<Record<string, readonly [outcome: string, chance: number]>>
}

const good = (s: Setup) => s.cpu === 'known-good'
const noA = (s: Setup) => s.memory === 'good in B' || s.memory === 'own in slot B' || s.memory === 'none'
const noB = (s: Setup) => s.memory === 'good in A' || s.memory === 'none'
const bare = (s: Setup) => s.fitted !== 'all'
const ownModules = (s: Setup) => s.memory.startsWith('own')
const socket = (outcome: string, chance: number): Part['seen'] => ({
  socket: [outcome, chance],
  swept: [outcome, Math.min(0.99, chance + 0.08)],
})
const short = (rail: string, at: number): Part => ({
  at,
  blocks: 0.98,
  rail: [rail, 'short'],
  seen: { outside: ['scorched at a rail', 0.3] },
})
const dead = (rail: string, at: number): Part => ({
  at,
  blocks: 0.96,
  rail: [rail, 'dead'],
  seen: { outside: ['scorched at a controller', 0.12] },
})

/** Every fault the reasoner can name, as this world has it. */
export const parts: Readonly<Record<FaultId, Part>> = {
  supply: { at: GOOD, blocks: 0.85, out: (s) => s.supply === 'bench supply' },
  'front wiring': {
    at: REQUEST,
    blocks: 0.97,
    out: (s) => s.fitted === 'bridged',
    seen: { 'front wiring': ['wrong', 0.9], 'self start': ['starts by itself', 0.3] },
  },
  'reset held': { at: RESET, blocks: 0.97, out: bare, seen: { 'front wiring': ['wrong', 0.7] } },
  'something fitted': {
    at: RAILS,
    blocks: 0.93,
    out: bare,
    seen: { outside: ['a plugged-in part burnt', 0.12] },
  },
  drive: { at: BOOT, blocks: 0.96, out: (s) => s.drive === 'known-good' },
  'cell weak': {
    at: CPU,
    blocks: 0.25,
    out: (s) => s.cell === 'new',
    seen: {
      cell: ['low', 0.92],
      'cell under load': ['low', 0.98],
      'settings kept': ['lost', 0.92],
    },
  },
  'cell holder': {
    at: CPU,
    blocks: 0.2,
    seen: {
      'cell under load': ['low', 0.88],
      'new cell under load': ['low', 0.9],
      'settings kept': ['lost', 0.96],
      outside: ['cell holder green', 0.35],
    },
  },
  settings: { at: MEMORY, blocks: 0.9, out: (s) => s.settings === 'cleared' },
  training: { at: MEMORY, blocks: 0.99, out: (s) => s.wait === 'out' },
  'standby rail short': {
    ...short('standby', STANDBY),
    seen: { outside: ['scorched at a rail', 0.3], 'standby heat': ['too high', 0.92] },
  },
  '12 V short': short('12v', RAILS),
  '5 V short': short('5v', RAILS),
  '3.3 V short': short('3v3', RAILS),
  'core rail short': short('vcore', GOOD),
  'memory rail short': short('vmem', GOOD),
  'other rail short': short('other', GOOD),
  'core controller': dead('vcore', GOOD),
  'memory controller': dead('vmem', MEMORY),
  'system-agent controller': dead('vsys', CPU),
  'board controller': {
    at: REQUEST,
    blocks: 0.97,
    seen: {
      'controller talks': ['silent', 0.93],
      outside: ['scorched at a controller', 0.08],
      'self start': ['starts by itself', 0.12],
    },
  },
  chipset: {
    at: RESET,
    blocks: 0.92,
    seen: { outside: ['scorched at a controller', 0.08], 'standby heat': ['too high', 0.4] },
  },
  'firmware corrupt': {
    at: FETCH,
    blocks: 0.93,
    out: (s) => s.chip === 'second',
    seen: { 'chip contents': ['differ', 0.97] },
  },
  'firmware partly corrupt': {
    at: MEMORY,
    blocks: 0.94,
    out: (s) => s.chip === 'second',
    seen: { 'chip contents': ['differ', 0.96] },
  },
  'firmware chip': {
    at: FETCH,
    blocks: 0.96,
    out: (s) => s.chip === 'second',
    seen: {
      'chip id': ['another', 0.94],
      'round the chip': ['chip reworked', 0.25],
      marking: ['another chip', 0.9],
    },
  },
  'chip dead': {
    at: FETCH,
    blocks: 0.97,
    out: (s) => s.chip === 'second',
    seen: { 'chip id': ['none', 0.96], marking: ['no chip there', 0.15] },
  },
  'strip off': {
    at: STANDBY,
    blocks: 1,
    out: (s) => s.supply === 'bench supply',
    seen: { strip: ['off', 0.96] },
  },
  'core regulator part': {
    at: GOOD,
    blocks: 0.93,
    rail: ['vcore', 'dead'],
    seen: { 'round the socket': ['part broken at the regulator', 0.7], outside: ['a part missing', 0.25] },
  },
  'memory A traces': {
    at: MEMORY,
    blocks: 0.92,
    out: noA,
    seen: { 'round the socket': ['traces scratched', 0.5] },
  },
  'memory B traces': {
    at: MEMORY,
    blocks: 0.92,
    out: noB,
    seen: { 'round the socket': ['traces scratched', 0.5] },
  },
  'CPU memory side': { at: MEMORY, blocks: 0.9, out: good, seen: { 'CPU elsewhere': ['fails', 0.88] } },
  'chip joint': {
    at: FETCH,
    blocks: 0.95,
    out: (s) => s.chip === 'second',
    seen: {
      'chip lines': ['open', 0.94],
      'chip id': ['none', 0.65],
      'round the chip': ['chip reworked', 0.35],
    },
  },
  'chip resistor': {
    at: FETCH,
    blocks: 0.98,
    seen: { 'round the chip': ['a resistor gone', 0.88], 'chip lines': ['open', 0.96] },
  },
  'chip supply part': {
    at: FETCH,
    blocks: 0.93,
    seen: { 'round the chip': ['another part gone', 0.82], 'chip id': ['none', 0.7] },
  },
  'controller line part': {
    at: REQUEST,
    blocks: 0.92,
    seen: {
      outside: ['a part missing', 0.5],
      'round the chip': ['another part gone', 0.35],
      'controller lines': ['open', 0.95],
    },
  },
  'power contacts shorted': {
    at: GOOD,
    blocks: 0.98,
    rail: ['vcore', 'short'],
    seen: socket('power contacts touch', 0.94),
  },
  'power contacts open': { at: CPU, blocks: 0.75, seen: socket('power contacts open', 0.93) },
  'control contact open': { at: FETCH, blocks: 0.96, seen: socket('control contact off', 0.9) },
  'sense contact open': {
    at: GOOD,
    blocks: 0.88,
    out: (s) => s.cpu === 'none',
    seen: socket('sense contact off', 0.88),
  },
  'memory A contact open': { at: MEMORY, blocks: 0.96, out: noA, seen: socket('memory A contact off', 0.9) },
  'memory B contact open': { at: MEMORY, blocks: 0.96, out: noB, seen: socket('memory B contact off', 0.9) },
  'signal contacts touch': { at: MEMORY, blocks: 0.96, seen: socket('signal contacts touch', 0.94) },
  'display contact open': {
    at: GRAPHICS,
    blocks: 0.96,
    out: (s) => s.graphics === 'known-good card',
    seen: socket('display contact off', 0.9),
  },
  'card contact open': {
    at: GRAPHICS,
    blocks: 0.55,
    out: (s) => s.graphics === 'own graphics',
    seen: socket('card contacts off', 0.9),
  },
  'CPU seat': {
    at: FETCH,
    blocks: 0.88,
    out: (s) => s.seat !== 'as it came',
    seen: { 'CPU proud': ['proud', 0.87], 'seat gauged': ['proud', 0.97] },
  },
  pressure: {
    at: MEMORY,
    blocks: 0.75,
    out: (s) => s.seat === 'eased',
    seen: { 'CPU proud': ['proud', 0.3], 'seat gauged': ['proud', 0.55] },
  },
  'module seat': {
    at: MEMORY,
    blocks: 0.97,
    out: (s) => s.memory !== 'own' && s.memory !== 'own, reseated',
    seen: { slots: ['module not home', 0.62], 'slots probed': ['module not home', 0.8] },
  },
  module: {
    at: MEMORY,
    blocks: 0.95,
    out: (s) => !ownModules(s),
    seen: { 'module elsewhere': ['fails', 0.95] },
  },
  'slot A': {
    at: MEMORY,
    blocks: 0.93,
    out: noA,
    seen: { slots: ['slot A', 0.85], 'slots probed': ['slot A', 0.96] },
  },
  'slot B': {
    at: MEMORY,
    blocks: 0.93,
    out: noB,
    seen: { slots: ['slot B', 0.85], 'slots probed': ['slot B', 0.96] },
  },
  CPU: { at: CPU, blocks: 0.96, out: good, seen: { 'CPU elsewhere': ['fails', 0.96] } },
  'CPU unsupported': { at: CPU, blocks: 0.98, out: good, seen: { version: ['does not run it', 0.88] } },
  'CPU without graphics': {
    at: GRAPHICS,
    blocks: 0.99,
    out: (s) => good(s) || s.graphics === 'known-good card',
  },
  card: { at: GRAPHICS, blocks: 0.96, out: (s) => s.graphics !== 'as it came' || bare(s) },
  cooling: {
    at: BOOT,
    blocks: 0.55,
    out: (s) => s.seat !== 'as it came',
    seen: { outside: ['cooler loose', 0.55] },
  },
}
