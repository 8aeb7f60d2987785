import { stations } from './entry'
import type { Station, Ticket } from './entry'
import { noPower } from './power-history'
import type { PowerDraft } from './power-history'
import type { JobState } from './state'

const emptyTicket: Ticket = {
  boardModelId: null,
  board: '',
  revision: '',
  serial: '',
  socketId: null,
  use: '',
  complaint: '',
  cpu: '',
  memory: '',
  history: [],
  valueMinor: null,
  limitMinor: null,
  minutesPromised: null,
  promisedAt: null,
  warranty: 'unknown',
  warrantyDecision: '',
  diskLock: 'unknown',
}

type Open<T> = T extends readonly (infer U)[]
  ? U[]
  : string extends keyof T
    ? { -readonly [K in keyof T]: T[K] }
    : T
/** A state while it is folded: a private draft, so that a line is pushed and not copied. */
export type Draft = { -readonly [K in keyof JobState]: Open<JobState[K]> } & {
  changed: { -readonly [K in keyof JobState['changed']]: number }
  power: PowerDraft
}

/** What an empty tape says. */
export const blank = (): Draft => ({
  seq: 0,
  ticket: emptyTicket,
  claims: [],
  consent: null,
  offers: [],
  photos: [],
  notes: [],
  railLog: [],
  rails: {},
  volts: {},
  cellLog: [],
  cell: null,
  codes: [],
  codeLog: [],
  currents: [],
  swaps: [],
  runs: null,
  baselines: [],
  looks: [],
  fitted: { cpu: null, heatsink: false, modules: [], card: null },
  supplyLimitA: null,
  passes: [],
  asFound: {},
  worked: {},
  strokes: [],
  left: {},
  replaced: [],
  school: 'A',
  trials: [],
  mended: [],
  seats: [],
  ledger: [],
  firmware: [],
  parts: [],
  proof: {},
  advice: [],
  handBack: null,
  lateOutcomes: [],
  marks: Object.fromEntries(
    stations.map((s) => [s, { mark: 'untouched', why: '' }]),
  ) as unknown as Draft['marks'],
  clock: {
    running: null,
    seconds: Object.fromEntries(stations.map((s) => [s, 0])) as unknown as Record<Station, number>,
  },
  lastTouched: 0,
  changed: { firmware: 0, cpu: 0, cell: 0 },
  lastMapped: 0,
  lastPowered: 0,
  power: noPower(),
})
