import Joi from 'joi'
import { functionGroups } from '@/core/board/function-group'
import { OWN_RAIL, rails } from '@/core/board/rail'
import { shelfItems } from '@/core/board/shelf-items'
import type { ShelfItem } from '@/core/board/shelf-items'
import { exchangeable } from '@/core/board/station-says'
import type { Touched } from '@/core/board/station-says'
import { CERTAIN, moreStarts, mostFailing, sayStarts, shareOf } from '@/core/proof/cold-starts'
import { doubtsOf } from '@/core/proof/doubt'
import { proofPlan, standingOf } from '@/core/proof/plan'
import {
  BEARS_C,
  keptTemperature,
  readTemperature,
  sayTemperature,
  verdictOf,
} from '@/core/proof/temperature'
import { faultIds, faults } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import { provedBy, repairOf, suppliedBy } from '@/core/triage/model/repair'
import { readCsv } from '@/tables/read-csv'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

const touched = Joi.object({
  groups: Joi.array()
    .items(Joi.valid(...functionGroups))
    .default([]),
  contacts: Joi.number().integer().min(0).default(0),
  firmware: Joi.boolean().default(false),
  parts: Joi.boolean().default(false),
  lost: Joi.object()
    .pattern(Joi.valid(...functionGroups), Joi.number().min(0).max(1))
    .default({}),
  rails: Joi.array()
    .items(Joi.alternatives(Joi.valid(...rails), Joi.string().pattern(OWN_RAIL)))
    .unique()
    .default([]),
  exchanged: Joi.array()
    .items(Joi.valid(...exchangeable))
    .unique()
    .default([]),
  repaired: Joi.array()
    .items(
      Joi.object({
        fault: Joi.valid(...faultIds).required(),
        succeeds: Joi.number().min(0).max(1),
      }),
    )
    .default([]),
  suspected: Joi.array()
    .items(
      Joi.object({
        fault: Joi.valid(...faultIds).required(),
        odds: Joi.number().min(0).max(1).required(),
      }),
    )
    .unique('fault')
    .default([]),
  cameUp: Joi.boolean().default(false),
  cell: Joi.boolean().default(false),
  cellAlone: Joi.boolean().default(false),
  intermittent: Joi.boolean().default(false),
  ownGraphics: Joi.boolean().default(true),
  passed: Joi.array().items(Joi.string()).default([]),
  atHand: Joi.array().items(Joi.valid(...shelfItems)),
})

interface ToPlan extends Omit<Touched, 'repaired' | 'suspected'> {
  readonly suspected: readonly { readonly fault: FaultId; readonly odds: number }[]
  readonly repaired: readonly { readonly fault: FaultId; readonly succeeds?: number }[]
  /** Tests that passed, by their names here. */
  readonly passed: readonly string[]
  readonly atHand?: readonly ShelfItem[]
}

const passing = (test: string) =>
  ({ id: test, seq: 1, at: '', by: '', test, result: 'pass', reading: '' }) as const

/** What is computed of the proof. */
export const proofOperations: Readonly<Record<string, Operation>> = {
  'proof.plan': operation<ToPlan>(
    'What has to be proved, from what was damaged, touched, changed, repaired and suspected, what tells most per minute first; and what could still be wrong.',
    touched,
    ({ passed, atHand, repaired, suspected, ...rest }) => {
      const cells = repaired.filter(({ fault }) => fault === 'cell weak').length
      const t: Touched = {
        ...rest,
        cell: rest.cell || cells > 0,
        // A holder that was soldered is more than a cell, whatever else is said.
        cellAlone: (rest.cellAlone || cells > 0) && cells === repaired.length,
        rails: [...new Set([...rest.rails, ...repaired.flatMap(({ fault }) => suppliedBy(fault) ?? [])])],
        repaired: repaired.map(({ fault, succeeds = repairOf(fault).succeeds }) => ({
          of: provedBy(fault),
          fails: 1 - succeeds,
        })),
        suspected: suspected.map(({ fault, odds }) => ({
          of: provedBy(fault),
          odds,
          say: faults[fault].say,
        })),
      }
      const planned = proofPlan(t)
      const stranger = passed.find((id) => !planned.some((test) => test.id === id))
      if (stranger !== undefined)
        throw new BadInput(
          'passed',
          `“${stranger}” is none of the tests of this plan: ${planned.map((test) => test.id).join(', ')}`,
        )
      const { tests, left } = standingOf(
        planned,
        doubtsOf(t),
        {
          results: Object.fromEntries(passed.map((test) => [test, passing(test)])),
          starts: [],
          temperatures: [],
        },
        { lastTouched: 0, changed: { firmware: 0, cpu: 0, cell: 0 } },
        { start: t.cameUp ? { seq: 1, came: true } : null, ...(atHand ? { atHand: new Set(atHand) } : {}) },
      )
      return {
        tests: tests.map(({ again: _, reading: __, counted: ___, ...test }) => test),
        left,
      }
    },
  ),

  'proof.starts': operation<{ starts: number; failures: number; certainty: number; share: number }>(
    'What cold starts prove: the share that can still fail at the most, and how many clean ones are still to be made.',
    Joi.object({
      starts: Joi.number().integer().min(0).max(1_000_000).required(),
      failures: Joi.number().integer().min(0).max(Joi.ref('starts')).default(0),
      certainty: Joi.number().greater(0).less(1).default(CERTAIN),
      share: Joi.number().greater(0).less(1).default(shareOf(false)),
    }),
    ({ starts, failures, certainty, share }) => ({
      mostFailing: mostFailing(starts, failures, certainty),
      more: moreStarts(starts, failures, certainty, share),
      say: sayStarts({ made: starts, failed: failures }, certainty),
    }),
  ),

  'proof.temperature': operation<{ log: string; bearsC: number }>(
    'Where a temperature under load levels off, from a log that may not have got there yet.',
    Joi.object({ log: Joi.string().required(), bearsC: Joi.number().min(50).max(150).default(BEARS_C) }),
    ({ log, bearsC }) => {
      const { rows, columns, uneven } = readCsv(readFile(log, 'log').toString('utf8'))
      const read = readTemperature(rows, columns)
      const findings = [...read.findings, ...uneven]
      if (!read.log || uneven.length > 0) return { fit: null, findings }
      const kept = keptTemperature(log, read.log, bearsC)
      const { readings, levelC, leastC, mostC, slowS } = kept
      return {
        fit: {
          readings,
          levelC,
          leastC,
          mostC,
          slowS,
          bearsC,
          verdict: verdictOf(kept),
          say: sayTemperature(kept),
        },
        findings,
      }
    },
  ),
}
