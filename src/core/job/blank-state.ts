import { stations } from './entry'
import type { Station, Ticket } from './entry'
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

type Mutable<T> = { -readonly [K in keyof T]: T[K] }
export type Draft = Mutable<JobState>

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
  lastMapped: 0,
  lastPowered: 0,
  limitedSinceTouch: false,
})
