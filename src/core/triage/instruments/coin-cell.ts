import { percent } from '../../maths/percent'
import type { BoardState } from '../../board/slice'
import { normalise } from '../../maths/normalise'
import type { TriageState } from '../slice'

/** What was seen of the coin cell and of the settings; null where nobody looked. */
export interface CellSeen {
  /** Volts of the cell by itself. */
  readonly aloneV: number | null
  /** Volts at the board with the cell in its holder, mains off. */
  readonly atBoardV: number | null
  readonly settings: 'kept' | 'lost' | null
  /** A new cell was put in before these were seen. */
  readonly isNew: boolean
}

/** What the tape has seen of the cell: the last of each, from the newest cell on. */
export function cellSeen(
  { cellLog }: Pick<BoardState, 'cellLog'>,
  { runs, trials }: Pick<TriageState, 'runs' | 'trials'>,
): CellSeen {
  const renewed = cellLog.findLastIndex((c) => c.isNew)
  const log = cellLog.slice(Math.max(0, renewed))
  const volts = (where: 'by itself' | 'at the board') =>
    log.findLast((c) => (c.where ?? 'by itself') === where)?.volts ?? null
  const tried = trials.findLast((t) => t.test === 'settings kept')
  const kept =
    runs?.settingsKept != null && runs.seq > (tried?.seq ?? 0)
      ? runs.settingsKept
      : tried && tried.outcome === 'kept'
  return {
    aloneV: volts('by itself'),
    atBoardV: volts('at the board'),
    settings: kept === undefined ? null : kept ? 'kept' : 'lost',
    isNew: renewed >= 0,
  }
}

export const cellCauses = ['nothing', 'cell', 'holder', 'drain', 'settings'] as const
export type CellCause = (typeof cellCauses)[number]
export const cellWords: Readonly<Record<CellCause, string>> = {
  nothing: 'cell, holder and settings are well',
  cell: 'the cell is weak',
  holder: 'the holder does not carry: oxidised, bent or cracked',
  drain: 'the board drains the cell',
  settings: 'the settings are lost for another reason',
}

export interface CellReading {
  readonly odds: readonly { readonly cause: CellCause; readonly odds: number }[]
  readonly likeliest: CellCause
  /** What to look at next, the cheapest first; null when the cause is plain. */
  readonly next: 'aloneV' | 'atBoardV' | 'settings' | null
  readonly say: string
}

/** Odds before anything is seen, and with a new cell (bench default). */
const prior: Readonly<Record<CellCause, number>> = {
  nothing: 0.55,
  cell: 0.25,
  holder: 0.08,
  drain: 0.05,
  settings: 0.07,
}
/** Mean and spread, V; and the share that lies anywhere beyond the mean, on the side where things are worse. */
type Volts = readonly [mean: number, spread: number, beyond?: number]
/** Volts by itself, worse below; a cell that is empty may read anything. What is lost on the way to the board, worse above; an open holder loses all (bench default). */
const alone: Readonly<Record<CellCause, Volts>> = {
  nothing: [3.05, 0.12],
  cell: [2.4, 0.35, 0.35],
  holder: [3.03, 0.14],
  drain: [2.7, 0.3, 0.25],
  settings: [3.05, 0.12],
}
const lostV: Readonly<Record<CellCause, Volts>> = {
  nothing: [0.05, 0.06],
  cell: [0.2, 0.15],
  holder: [0.9, 0.6, 0.35],
  drain: [0.2, 0.15],
  settings: [0.05, 0.06],
}
const loses: Readonly<Record<CellCause, number>> = {
  nothing: 0.02,
  cell: 0.85,
  holder: 0.93,
  drain: 0.8,
  settings: 0.95,
}

/** Most a coin cell reads, V. */
const MOST_V = 3.6

/** Density of a reading; `worse` is the end that what lies beyond the mean goes to. */
function density(x: number, [mean, spread, beyond = 0]: Volts, worse: 0 | typeof MOST_V): number {
  const about = Math.exp(-0.5 * ((x - mean) / spread) ** 2) / (spread * Math.sqrt(2 * Math.PI))
  const past = worse === 0 ? x < mean : x > mean
  const tail = past ? 1 / Math.abs(worse - mean) : 0
  // A meter that slips reads anything from 0 to 3.6 V, one time in fifty.
  return 0.98 * ((1 - beyond) * about + beyond * tail) + 0.02 / MOST_V
}

/**
 * Why settings are lost, or whether they will be: Bayes over five causes from the volts of the cell by itself, the
 * volts that reach the board, and whether settings outlast mains off. Volts are Gaussian about what each cause gives, with
 * a tail to the worse side where there is no end to it (an empty cell, an open holder), and one reading in fifty slipped. A good reading of the cell alone does not clear the holder: that takes the board.
 */
export function readCell(seen: CellSeen): CellReading {
  const odds = normalise(
    Float64Array.from(cellCauses, (c) => {
      let p = prior[c]
      if (seen.isNew && c === 'cell') p *= 0.08
      if (seen.aloneV !== null) p *= density(seen.aloneV, alone[c], 0)
      if (seen.atBoardV !== null)
        p *=
          seen.aloneV !== null
            ? density(seen.aloneV - seen.atBoardV, lostV[c], MOST_V)
            : density(seen.atBoardV, both(c), 0)
      if (seen.settings !== null) p *= seen.settings === 'lost' ? loses[c] : 1 - loses[c]
      return p
    }),
  )
  const top = odds.indexOf(Math.max(...odds))
  const likeliest = cellCauses[top]!
  const open = (['aloneV', 'atBoardV', 'settings'] as const).filter((f) => seen[f] === null)
  const sure = odds[top]! >= 0.95 && !(likeliest === 'nothing' && seen.settings === null)
  const next = sure ? null : (open[0] ?? null)
  return {
    odds: cellCauses.map((cause, i) => ({ cause, odds: odds[i]! })).sort((a, b) => b.odds - a.odds),
    likeliest,
    next,
    say: `${cellWords[likeliest]} (${percent(odds[top]!)})${next ? `; ${nextWords[next]}` : ''}`,
  }
}

/** Volts at the board when the cell by itself was not read: both spreads together. */
const both = (c: CellCause): Volts => [
  alone[c][0] - lostV[c][0],
  Math.hypot(alone[c][1], lostV[c][1]),
  Math.max(alone[c][2] ?? 0, lostV[c][2] ?? 0),
]

const nextWords = {
  aloneV: 'measure the cell by itself',
  atBoardV: 'measure at the board, the cell in its holder, mains off',
  settings: 'change a setting, mains off for ten minutes, look whether it stayed',
} as const
