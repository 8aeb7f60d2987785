import type { Bodies, Kind } from '@/core/slices'
import { rails } from '@/core/board/rail'
import Joi from 'joi'
import { benchTests } from '@/core/triage/model/bench-tests'
import { keptCurrent, readCurrent } from '@/core/triage/instruments/current-trace'
import { testOf } from '@/core/triage/reason/hypotheses'
import { lineOfTest } from '@/core/triage/test-line'
import type { SimulatedBoard } from '@/simulated-bench/simulated-board'

/** What can be asked of the simulated bench. */
export const simulatedAsks = [
  'power-up',
  'ohms',
  'volts',
  'cell',
  'codes',
  'current',
  'test',
  'cold start',
  'temperature',
] as const
export type SimulatedAsk = (typeof simulatedAsks)[number]

export const simulatedRequest = Joi.object({
  ask: Joi.valid(...simulatedAsks).required(),
  test: Joi.when('ask', {
    is: 'test',
    then: Joi.valid(...benchTests.map((t) => t.id)).required(),
    otherwise: Joi.forbidden(),
  }),
  cpu: Joi.valid('in', 'out').default('out'),
  where: Joi.valid('by itself', 'at the board').default('by itself'),
  isNew: Joi.boolean().default(false),
})

export interface SimulatedRequest {
  readonly ask: SimulatedAsk
  readonly test?: string
  readonly cpu: 'in' | 'out'
  readonly where: 'by itself' | 'at the board'
  readonly isNew: boolean
}

/** Whether this starts the board, so that the power gate has a say. */
export const asksForPower = ({ ask, test }: SimulatedRequest): boolean =>
  ask === 'test'
    ? testOf(test!).powers
    : ['power-up', 'volts', 'codes', 'current', 'cold start', 'temperature'].includes(ask)

type Line = { [K in Kind]: { readonly kind: K; readonly body: Bodies[K] } }[Kind]

/** A test carried out: with its reading where there is one to be had. */
function tested(board: SimulatedBoard, test: string, cpu: 'in' | 'out', limitA: number | null): Line {
  if (test === 'as it came') return { kind: 'baseline', body: board.powerUp(limitA) }
  const rail = rails.find((r) => test === `ohms ${r}`)
  if (rail) return { kind: 'rail', body: board.allOhms(cpu).find((r) => r.rail === rail)! }
  const live = rails.find((r) => test === `volts ${r}`)
  if (live) return { kind: 'volts', body: { rail: live, volts: board.volts(live) } }
  if (test === 'cell')
    return { kind: 'cell', body: { volts: board.cell('by itself', false), where: 'by itself' } }
  return lineOfTest({ test, outcome: board.carryOut(test) })
}

/** What the instruments say, as lines for the tape. */
export function simulatedEntries(
  board: SimulatedBoard,
  { ask, test, cpu, where, isNew }: SimulatedRequest,
  limitA: number | null,
): readonly Line[] {
  switch (ask) {
    case 'power-up':
      return [{ kind: 'baseline', body: board.powerUp(limitA) }]
    case 'ohms':
      return board.allOhms(cpu).map((body) => ({ kind: 'rail', body }))
    case 'volts':
      return board.rails.map((rail) => ({ kind: 'volts', body: { rail, volts: board.volts(rail) } }))
    case 'cell':
      return [{ kind: 'cell', body: { volts: board.cell(where, isNew), where, isNew } }]
    case 'codes':
      return [{ kind: 'codes', body: board.codes() as Bodies['codes'] }]
    case 'current': {
      const trace = board.current(limitA)
      return [{ kind: 'current', body: keptCurrent('simulated supply', trace, readCurrent(trace)) }]
    }
    case 'temperature':
      return [{ kind: 'temperature', body: board.temperature() }]
    case 'cold start':
      return [{ kind: 'cold start', body: { came: board.starts(limitA) } }]
    case 'test':
      return [tested(board, test!, cpu, limitA)]
  }
}
