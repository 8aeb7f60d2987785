import type { PowerGate } from '../board/gate-reason'
import { rails, railWords } from '../board/rail'
import { cellRead, railsRead } from '../board/slice'
import type { BoardState } from '../board/slice'
import type { Step } from '../board/step'
import { inHundred } from '../maths/in-hundred'
import type { Belief } from './reason/belief'
import { faults } from './model/fault'
import { stageReached } from './model/stage'

/** What closes the gate and is found by looking and measuring on. */
const foundByTests: ReadonlySet<string> = new Set(['rail short', 'volts high', 'hazard'])
/** What has to be measured again before anything else. */
const measuredAgain: ReadonlySet<string> = new Set(['rail owed', 'question', 'supply trips'])

const at = (say: string, why: string, more: Partial<Step> = {}): Step => ({
  station: 'triage',
  say,
  why,
  ...more,
})

/**
 * What triage does next. Looked at and measured comes before powered, and a closed gate before any start; from the first
 * power-up on it is what the odds say: mend what is settled, else the test that tells most for its minutes.
 * @param belief the odds, or null while they are being computed
 */
export function triageStep(board: BoardState, gate: PowerGate, belief: Belief | null): Step {
  const measure = inspectionStep(board, gate)
  if (measure) return measure
  const closed = gate.reasons.find((r) => r.level === 'closed')
  if (closed) {
    const test = foundByTests.has(closed.code) ? belief?.next[0]?.test : undefined
    return test
      ? at(`${test.say}.`, `Do not power: ${closed.text}. ${closed.at.say}.`, { test: test.id })
      : at(`Do not power yet: ${closed.text}.`, `${closed.at.say}.`)
  }
  const baseline = board.baselines.at(-1)
  if (!baseline || board.lastPowered < board.lastTouched)
    return at(
      board.supplyLimitA === null
        ? 'Set a current limit, then power up with as little fitted as possible.'
        : `Power up under ${board.supplyLimitA} A and note what it does.`,
      'CPU, one module, no card. Without a baseline no progress can be seen.',
      { part: 'baseline', test: 'as it came' },
    )
  const reached = stageReached(baseline)
  const seen = `It ${reached.say}, ${Math.round(reached.sure * 100)} in 100`
  if (reached.stopsAt === null)
    return at('It runs: prove it.', `It got there with ${Math.round(reached.sure * 100)} in 100.`)
  if (!belief)
    return at('Weighing what it may be and which test is next.', `${seen}; the odds are being computed.`, {
      pending: true,
    })
  return stepOfBelief(belief, seen)
}

/** Looks and readings that come before everything else, or null when none is due. */
function inspectionStep(board: BoardState, gate: PowerGate): Step | null {
  if (!board.power.lookedOutside)
    return at(
      'Look over the outside of the board, both sides.',
      'Burns, liquid, swollen parts and loose solder are seen before they are powered.',
      { part: 'looks', test: 'outside' },
    )
  const read = railsRead(board)
  const missing = rails.filter((rail) => !read.has(rail))
  if (missing.length > 0)
    return at(
      `Unplug it and measure the ${missing.length === rails.length ? 'rails' : railWords[missing[0]!]} to ground.`,
      missing.length === rails.length
        ? 'Seven readings; note whether the CPU is in.'
        : `${missing.length} of ${rails.length} still to do; note whether the CPU is in.`,
      { part: 'rails', test: `ohms ${missing[0]!}` },
    )
  const owed = gate.reasons.find((r) => measuredAgain.has(r.code))
  if (owed) return at(`${owed.at.say}.`, `Do not power: ${owed.text}.`, { part: 'rails' })
  if (!cellRead(board) && gate.lamp !== 'do not power')
    return at('Measure the coin cell.', 'A weak cell looks like lost settings.', {
      part: 'cell',
      test: 'cell',
    })
  return null
}

/** What the odds come to, as one thing to do. */
function stepOfBelief(belief: Belief, seen: string): Step {
  const { verdict, next, notWorthMore } = belief
  if (verdict?.is === 'found')
    return at(
      `Mend it: ${faults[verdict.fault].say}.`,
      `${inHundred(verdict.odds)} in 100. Then power up again: a second fault often stands behind the first.`,
      { part: 'belief' },
    )
  if (verdict?.is === 'nothing left')
    return at('Nothing is left that these tests would show: prove it.', `${seen}.`)
  if (verdict?.is === 'nothing known')
    return at(
      'Nothing known explains this: take the odd reading again.',
      `${inHundred(verdict.odds)} in 100 that it is something in no list, or that a reading slipped.`,
      { part: 'belief' },
    )
  const test = next[0]?.test
  if (!test || notWorthMore)
    return at(
      'No test left tells much: mend the likeliest and see, or stop and say what stays open.',
      `${seen}.`,
      { part: 'belief' },
    )
  return at(
    `${test.say}.`,
    `${seen}. It tells most for its ${test.minutes} minutes; the outcome is one key below.`,
    { part: 'next-test', test: test.id },
  )
}
