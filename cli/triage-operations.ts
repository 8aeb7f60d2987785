import { seeded } from '@/core/maths/seeded'
import type { FaultId } from '@/core/triage/model/faults'
import { priorOdds } from '@/core/triage/reason/odds'
import { policies } from '@/core/triage/reason/policies'
import { workBoard } from '@/core/triage/reason/work-board'
import { DrawnBoard } from '@/simulated-bench/drawn-board'
import type { SwapPart } from '@/core/triage/bodies'
import type { Rail } from '@/core/board/rail'
import type { Bodies } from '@/core/slices'
import { swapParts } from '@/core/triage/bodies'
import { anyRail } from '@/entry-schemas/field'
import { historyItems } from '@/core/board/history-item'
import { CODE } from '@/core/triage/instruments/code'
import Joi from 'joi'
import { succeeds } from '@/core/triage/model/repair-record'
import type { RepairTally } from '@/core/triage/model/repair-record'
import { believe } from '@/core/triage/reason/belief'
import type { ToBelieve } from '@/core/triage/reason/belief'
import type { Change } from '@/core/triage/model/repair'
import type { Evidence } from '@/core/triage/reason/likelihood'
import { shelfItems } from '@/core/board/shelf-items'
import { outcomesMeant } from '@/core/triage/model/bench-test'
import { readCodes, readCodeTable } from '@/core/triage/instruments/code-tape'
import { cellWords, readCell } from '@/core/triage/instruments/coin-cell'
import type { CellSeen } from '@/core/triage/instruments/coin-cell'
import { compareTraces, readCurrent, readTrace } from '@/core/triage/instruments/current-trace'
import { readFaultTable } from '@/core/triage/model/fault-table'
import { practiceScore } from '@/core/triage/practice/practice-score'
import type { Practice } from '@/core/triage/practice/practice-score'
import { judgeRails, readRailTable } from '@/core/triage/instruments/rail-table'
import { runsRight } from '@/core/triage/instruments/runs-right'
import { openOutcomes, startOutcomes } from '@/core/triage/model/start-model'
import { readGrid } from '@/core/triage/instruments/swap-grid'
import type { Swap } from '@/core/triage/instruments/swap-grid'
import { benchTests } from '@/core/triage/model/bench-tests'
import { faultIds, faults } from '@/core/triage/model/faults'
import { changedBy } from '@/core/triage/model/repair'
import { asItCounts } from '@/core/triage/reason/likelihood'
import { testOf } from '@/core/triage/reason/hypotheses'
import type { Finding } from '@/core/tables/finding'
import { readCsv } from '@/tables/read-csv'
import { BadInput, operation, readFile } from './operation'
import { repairs, shown, tableOf } from './setting-input'
import type { Operation } from './operation'

const fault = Joi.valid(...faultIds)
const asked = {
  history: Joi.array()
    .items(Joi.valid(...historyItems))
    .default([]),
  evidence: Joi.array()
    .items(
      Joi.object({
        test: Joi.valid(...benchTests.map((t) => t.id)).required(),
        outcome: Joi.string().required(),
        mended: Joi.array().items(fault).unique().default([]),
        reliability: Joi.number().min(0).max(1),
        of: Joi.valid(...benchTests.filter((t) => t.outcomes === startOutcomes).map((t) => t.id)),
      }),
    )
    .max(200)
    .default([]),
  mended: Joi.array().items(fault).unique().default([]),
  mayPower: Joi.forbidden().default(true),
  again: Joi.array().items(fault).unique().default([]),
  table: Joi.string(),
  repairs,
  shown,
}
interface Asked extends Omit<ToBelieve, 'evidence' | 'changes'> {
  readonly evidence: readonly (Omit<Evidence, 'after'> & { readonly mended: readonly FaultId[] })[]
  readonly mended: readonly FaultId[]
  /** A shop's own odds of faults: a fault table by path. */
  readonly table?: string
  /** What came of repairs in the shop. */
  readonly repairs: readonly RepairTally[]
}

/** What is asked, ready to be believed: outcomes of their tests, and the shop's odds if it has some. */
function toBelieve({ table, evidence, mended, repairs, ...asked }: Asked): ToBelieve {
  known({ evidence })
  return {
    ...asked,
    ...inOrder(evidence, mended, repairs),
    ...(table === undefined ? {} : { own: tableOf(table, 'table', readFaultTable).odds! }),
  }
}

/**
 * The evidence as it is given, in the order in which it was seen: what had been repaired by then, and what tests before
 * it have put right for good. @throws BadInput where something had been repaired before and not later
 */
function inOrder(
  evidence: Asked['evidence'],
  mended: Asked['mended'],
  repairs: Asked['repairs'],
): Pick<ToBelieve, 'evidence' | 'changes'> {
  const changes: Change[] = []
  const repaired = () => changes.filter((c) => c.is === 'mended').map((c) => c.fault)
  const repair = (by: readonly FaultId[]) =>
    changes.push(
      ...by
        .filter((fault) => !repaired().includes(fault))
        .map((fault) => ({ is: 'mended' as const, fault, takes: succeeds(fault, repairs) })),
    )
  const dated = evidence.map(({ mended: by, ...seen }, i) => {
    const missing = repaired().filter((fault) => !by.includes(fault))
    if (missing.length > 0)
      throw new BadInput(
        `evidence.${i}.mended`,
        `evidence comes in the order in which it was seen: ${missing.join(', ')} had been repaired before it`,
      )
    repair(by)
    const after = changes.length
    changes.push(...changedBy(seen.test))
    return { ...seen, after }
  })
  repair(mended)
  return { evidence: asItCounts(dated), changes }
}

/** The evidence, each outcome being one of its test. */
function known({ evidence }: Pick<Asked, 'evidence'>): void {
  evidence.forEach(({ test, outcome }, i) => {
    const asked = testOf(test)
    if (outcomesMeant(asked, outcome).length === 0)
      throw new BadInput(
        `evidence.${i}.outcome`,
        `“${outcome}” is no outcome of ${test}; it gives ${[...asked.outcomes, ...Object.keys(asked.open ?? {})].join(', ')}`,
      )
  })
}

/** What triage computes, on the command line. */
export const triageOperations: Readonly<Record<string, Operation>> = {
  'triage.odds': operation<Asked>(
    'What it may be: the odds of each fault with what speaks for and against it, and the verdict if there is one.',
    Joi.object({ ...asked }),
    (input) => {
      const { faults, causes, otherwise, two, somethingElse, unknownAt, verdict, confirms, unexplained } =
        believe(toBelieve(input))
      return { faults, causes, otherwise, two, somethingElse, unknownAt, verdict, confirms, unexplained }
    },
  ),

  'triage.next': operation<Asked>(
    'Which test next: what it tells, minutes, risk, and what each outcome would point to; or the repair that comes first.',
    Joi.object({
      ...asked,
      mayPower: Joi.boolean().default(true),
      shelf: Joi.array().items(Joi.valid(...shelfItems)),
    }),
    (input) => {
      const { verdict, next, repair, confirms } = believe(toBelieve(input))
      return { verdict, next, repair, confirms }
    },
  ),

  'triage.work': operation<{ faults?: readonly FaultId[]; seed: number; policy: keyof typeof policies }>(
    'Works a simulated board by a policy, from the first power-up to a verdict: each test, what it showed, what was mended.',
    Joi.object({
      faults: Joi.array()
        .items(Joi.valid(...faultIds))
        .max(2)
        .unique(),
      seed: Joi.number().integer().min(0).max(2_147_483_647).default(1),
      policy: Joi.valid(...Object.keys(policies)).default('suggested'),
    }),
    ({ faults, seed, policy }) => {
      const prior = priorOdds([])
      const board = new DrawnBoard(prior, seeded(seed), faults)
      const steps: { test: string; minutes: number; outcome: string; mended: readonly FaultId[] }[] = []
      const mended: FaultId[] = []
      const { minutes, end } = workBoard(policies[policy], prior, {
        unlisted: false,
        get wrong() {
          return board.wrong
        },
        see(test) {
          const outcome = board.see(test)
          steps.push({ test: test.id, minutes: test.minutes, outcome, mended: [...mended] })
          return outcome
        },
        mend(fault) {
          mended.push(fault)
          return board.mend(fault)
        },
      })
      return { faults: board.truth, end, minutes, mended, steps }
    },
  ),

  'triage.faults': operation<{ table?: string }>(
    'The faults the reasoner knows with their figures; a shop’s own table (CSV by path) is checked against them.',
    Joi.object({ table: Joi.string() }),
    ({ table }) => {
      const read = table === undefined ? null : readCsv(readFile(table, 'table').toString('utf8'))
      const { odds, findings } = read
        ? readFaultTable(read.rows, read.columns)
        : { odds: null, findings: [] as readonly Finding[] }
      return {
        good: findings.length === 0 && !read?.uneven.length,
        findings: [...findings, ...(read?.uneven ?? [])],
        faults: faultIds.map((id) => {
          const { say, at, stage, shows } = faults[id]
          return { fault: id, say, at, stage, shows, odds: odds?.[id] ?? faults[id].odds }
        }),
      }
    },
  ),

  'triage.codes': operation<Bodies['codes'] & { table?: string }>(
    'What a run of codes says: stuck, going round, how far it came, or wait.',
    Joi.object({
      codes: Joi.array()
        .items(Joi.string().uppercase().pattern(CODE, 'two hex figures'))
        .max(20_000)
        .required(),
      atS: Joi.array()
        .items(Joi.number().min(0))
        .length(Joi.ref('codes.length'))
        .sort({ order: 'ascending' }),
      watchedS: Joi.number().min(0),
      table: Joi.string(),
    }),
    ({ table, ...seen }) => {
      const known =
        table === undefined
          ? null
          : tableOf(table, 'table', (rows, columns) => readCodeTable('', rows, columns)).table
      return readCodes(seen, known)
    },
  ),

  'triage.swaps': operation<{ what: SwapPart; swaps: Omit<Swap, 'what'>[] }>(
    'What a grid of trials says, part by place: which is to blame, and which empty cell to try next.',
    Joi.object({
      what: Joi.valid(...swapParts).required(),
      swaps: Joi.array()
        .items(
          Joi.object({
            part: Joi.string().max(60).required(),
            place: Joi.string().max(60).required(),
            knownGood: Joi.boolean().default(false),
            outcome: Joi.valid(...startOutcomes, ...Object.keys(openOutcomes)).required(),
            listed: Joi.valid('yes', 'no', 'not known'),
          }),
        )
        .max(500)
        .required(),
    }),
    ({ what, swaps }) =>
      readGrid(
        what,
        swaps.map((s) => ({ what, ...s })),
      ),
  ),

  'triage.cell': operation<CellSeen>(
    'Why settings are lost, or whether they will be: cell, holder, board, and what to measure next.',
    Joi.object({
      aloneV: Joi.number().min(0).max(5).allow(null).default(null),
      atBoardV: Joi.number().min(0).max(5).allow(null).default(null),
      settings: Joi.valid('kept', 'lost', null).default(null),
      isNew: Joi.boolean().default(false),
    }),
    (seen) => {
      const reading = readCell(seen)
      return { ...reading, odds: reading.odds.map((o) => ({ ...o, say: cellWords[o.cause] })) }
    },
  ),

  'triage.runs': operation<
    Bodies['runs'] & { usualStartS: number; release: { now: string; newer: string[] } | null }
  >(
    'It runs, but does it run right: memory speed, start time, settings.',
    Joi.object({
      ratedMTs: Joi.number().integer().min(100).max(20_000).allow(null).default(null),
      seenMTs: Joi.number().integer().min(100).max(20_000).allow(null).default(null),
      startS: Joi.number().min(0).max(3600).allow(null).default(null),
      settingsKept: Joi.boolean().allow(null).default(null),
      usualStartS: Joi.number().greater(0).default(25),
      release: Joi.object({
        now: Joi.string().max(60).required(),
        newer: Joi.array().items(Joi.string().max(60)).max(400).required(),
      })
        .allow(null)
        .default(null),
    }),
    ({ usualStartS, release, ...runs }) => ({ lines: runsRight(runs, usualStartS, release) }),
  ),

  'power.trace': operation<{ trace: string; reference?: string }>(
    'Reads a current trace (CSV with s and a, by path): stretches, cycling, and beside a good board’s trace.',
    Joi.object({ trace: Joi.string().required(), reference: Joi.string() }),
    ({ trace, reference }) => {
      const read = tableOf(trace, 'trace', readTrace)
      const here = readCurrent(read.trace!)
      const good =
        reference === undefined ? null : readCurrent(tableOf(reference, 'reference', readTrace).trace!)
      return { ...here, findings: read.findings, differences: good ? compareTraces(here, good) : [] }
    },
  ),

  'power.rails': operation<{
    ohms: { rail: Rail; ohms: number; cpu: 'in' | 'out' }[]
    volts: Partial<Record<Rail, number>>
    reference?: string
  }>(
    'Each rail’s ohms and volts against a good board (CSV by path) or the usual limits.',
    Joi.object({
      ohms: Joi.array()
        .items(
          Joi.object({
            rail: anyRail.required(),
            ohms: Joi.number().min(0).required(),
            cpu: Joi.valid('in', 'out').required(),
          }),
        )
        .unique('rail')
        .default([]),
      volts: Joi.object().pattern(anyRail, Joi.number().min(-60).max(60)).default({}),
      reference: Joi.string(),
    }),
    ({ ohms, volts, reference }) => {
      const good =
        reference === undefined
          ? null
          : tableOf(reference, 'reference', (rows, columns) => readRailTable('', rows, columns)).reference
      return { rails: judgeRails({ ohms: Object.fromEntries(ohms.map((r) => [r.rail, r])), volts }, good) }
    },
  ),

  'practice.score': operation<Practice>(
    'Scores a practice board, step by step, beside the reasoner’s own policy on the same board.',
    Joi.object({
      history: asked.history,
      truth: Joi.array().items(fault).min(1).max(2).unique().required(),
      seed: Joi.number().integer().default(1),
      draws: Joi.number().integer().min(1).max(50).default(5),
      steps: Joi.array()
        .items(
          Joi.object({
            do: Joi.valid('test').required(),
            test: Joi.valid(...benchTests.map((t) => t.id)).required(),
            outcome: Joi.string().required(),
            along: Joi.boolean(),
            mayPower: Joi.boolean(),
          }),
          Joi.object({ do: Joi.valid('mend').required(), fault: fault.required() }),
        )
        .max(200)
        .required(),
    }),
    (practice) => {
      practice.steps.forEach((step, i) => {
        if (step.do !== 'test') return
        const { outcomes } = testOf(step.test)
        if (!outcomes.includes(step.outcome))
          throw new BadInput(
            `steps.${i}.outcome`,
            `“${step.outcome}” is no outcome of ${step.test}; it gives ${outcomes.join(', ')}`,
          )
      })
      return practiceScore(practice)
    },
  ),
}
