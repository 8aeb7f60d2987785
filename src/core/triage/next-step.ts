import { percent } from '../maths/percent'
import { sentence } from '../sentence'
import { closedBy } from '../board/gate-reason'
import type { PowerGate } from '../board/gate-reason'
import { isUsual, railsOf, sayRail } from '../board/rail'
import type { Rail } from '../board/rail'
import { railState } from '../board/rail-limits'
import type { RailSeen } from '../board/rail-limits'
import { cellRead, notAsItCame, railsRead } from '../board/slice'
import type { BoardState } from '../board/slice'
import type { Step } from '../board/step'
import type { Belief, NextTest } from './reason/belief'
import { WORTH_TRYING, worthTrying } from './reason/next-test'
import { testOf } from './reason/hypotheses'
import { faults } from './model/faults'
import type { FaultId } from './model/faults'
import { stageReached, stages } from './model/stage'

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

/** What a test takes and risks, said. */
export function costOf({
  test,
  riskMinutes = 0,
}: {
  readonly test: NextTest['test']
  readonly riskMinutes?: number
}): Pick<Step, 'takes' | 'risks'> {
  return {
    takes: [`${test.minutes} min`, ...test.needs].join(' · '),
    risks:
      test.lends && riskMinutes >= 1
        ? `may harm the ${test.lends} it lends: counts as ${Math.round(riskMinutes)} min`
        : test.powers
          ? 'powers the board'
          : 'no power, nothing lent',
  }
}

/**
 * What triage does next. Looked at and measured comes before powered, and a closed gate before any start; from the first
 * power-up on it is what the odds say: mend what is settled, else the test that tells most for its minutes.
 * @param belief the odds, or null while they are being computed
 */
export function triageStep(board: BoardState, gate: PowerGate, belief: Belief | null): Step {
  const step = stepToDo(board, gate, belief)
  if (!step.test) return step
  const suggested = belief?.next.find((s) => s.test.id === step.test)
  return { ...costOf(suggested ?? { test: testOf(step.test) }), ...step }
}

/** What runs is proved, unless something is known of it all the same, such as settings that do not stay. */
export function runsAsItIs({ baselines }: BoardState, belief: Belief): boolean {
  const last = baselines.at(-1)
  const known = belief.verdict?.is === 'found' || (belief.faults[0]?.odds ?? 0) >= WORTH_TRYING
  return last !== undefined && stageReached(last).stopsAt === null && !known
}

function stepToDo(board: BoardState, gate: PowerGate, belief: Belief | null): Step {
  const measure = inspectionStep(board, gate)
  if (measure) return measure
  const closed = closedBy(gate)
  if (closed) {
    const { verdict } = belief ?? {}
    const short = closed.code === 'rail short' && belief && !shortFits(belief) && shortReadOnce(board)
    if (short)
      return at(
        `Measure ${sayRail(short)} to ground again: a short does not fit the rest.`,
        `Do not power: ${closed.text}. Probe on the rail, ground on ground?`,
        { part: 'rails', takes: '1 min', ...ohmsTest(short) },
      )
    if (foundByTests.has(closed.code) && verdict?.is === 'found')
      return at(
        `Repair it: ${faults[verdict.fault].say}.`,
        `${percent(verdict.odds)} sure, alone or beside another. Do not power: ${closed.text}. ${closed.at.say} afterwards.`,
        { part: 'belief', repairs: verdict.fault },
      )
    const toTry = foundByTests.has(closed.code) && belief ? toRepairAndSee(belief) : undefined
    if (toTry)
      return at(
        `Repair it and see: ${faults[toTry].say}.`,
        `${percent(oddsOf(belief!, toTry))} likely, and no test left tells much. Do not power: ${closed.text}. ${closed.at.say} afterwards.`,
        { part: 'belief', repairs: toTry },
      )
    const next = foundByTests.has(closed.code) ? belief?.next[0] : undefined
    return next
      ? at(sayNext(next), `Do not power: ${closed.text}. ${confirming(belief!) ?? `${closed.at.say}.`}`, {
          test: next.test.id,
        })
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
  const worse = worseThanBefore(board)
  if (worse)
    return at('It stops earlier than before: the last step first.', worse, { part: 'looks', takes: '2 min' })
  const reached = stageReached(baseline)
  const seen = `It ${reached.say} (${percent(reached.sure)})`
  if (!belief)
    return at('Calculating the likely causes and which test is next.', `${seen}.`, {
      pending: true,
    })
  if (runsAsItIs(board, belief)) return at('It runs: prove it.', `${seen}.`)
  return stepOfBelief(belief, seen, notAsItCame(board))
}

/** Least odds of a short for a reading at ground to be believed at once (bench default). */
const SHORT_FITS = 0.1
const shortFits = (belief: Belief): boolean =>
  belief.faults.some(
    ({ fault, odds }) =>
      odds >= SHORT_FITS &&
      (fault === 'power contacts shorted' ||
        (faults[fault] as { rail?: { is: string } }).rail?.is === 'short'),
  )

/** A rail that was at ground when it was last read, and not the time before. */
const shortReadOnce = ({ railLog, ownRails }: BoardState): Rail | undefined =>
  railLog.find((reading) => {
    const [last, before] = railLog
      .filter((r) => r.rail === reading.rail && r.cpu === reading.cpu)
      .slice(-2)
      .reverse()
    const short = (r?: RailSeen) => r !== undefined && railState(r, ownRails) === 'short'
    return reading === last && short(last) && !short(before)
  })?.rail

/** How sure a stage has to be to be compared with another (bench default). */
const SURE_STAGE = 0.6

/**
 * That a start stopped earlier than the one before it, though something was done in between: what was done last is looked
 * at before a new fault is looked for. Null once anything was looked at since.
 */
function worseThanBefore({ baselines, looks, lastTouched, changed }: BoardState): string | null {
  const [before, now] = baselines.slice(-2)
  if (!before || !now) return null
  const done = Math.max(lastTouched, ...Object.values(changed))
  const lookedSince = (looks.at(-1)?.seq ?? 0) > now.seq
  const [was, is] = [stageReached(before), stageReached(now)]
  const earlier = stages.indexOf(is.likeliest) < stages.indexOf(was.likeliest)
  const sure = Math.min(was.sure, is.sure) >= SURE_STAGE
  return earlier && sure && !lookedSince && done > before.seq && done < now.seq
    ? `It ${was.say} before, and ${is.say} now. Does all sit home that was moved, and is every joint sound? Note a look.`
    : null
}

/** Whether rails are to be measured before any start: of a machine that came up at its last start they are not. */
export const owesRails = (gate: PowerGate): boolean =>
  gate.reasons.some((r) => r.code === 'rail unmeasured' && r.level === 'closed')

/** The test that a rail’s reading is; of the board’s own no single one is. */
const ohmsTest = (rail: Rail): Pick<Step, 'test'> => (isUsual(rail) ? { test: `ohms ${rail}` } : {})

/** Looks and readings that come before everything else, or null when none is due. */
function inspectionStep(board: BoardState, gate: PowerGate): Step | null {
  if (!board.power.lookedOutside)
    return at(
      'Look over the outside of the board, both sides.',
      'Burns, liquid, swollen parts and loose solder are seen before they are powered.',
      { part: 'looks', test: 'outside' },
    )
  const read = railsRead(board)
  const listed = railsOf(board.ownRails)
  const missing = listed.filter((rail) => !read.has(rail))
  if (missing.length > 0 && owesRails(gate))
    return at(
      `Unplug it and measure the ${missing.length === listed.length ? 'rails' : sayRail(missing[0]!)} to ground.`,
      missing.length === listed.length
        ? `${listed.length === 7 ? 'Seven' : listed.length} readings; note whether the CPU is in.`
        : `${missing.length} of ${listed.length} still to do; note whether the CPU is in.`,
      { part: 'rails', ...ohmsTest(missing[0]!) },
    )
  const owed = gate.reasons.find((r) => measuredAgain.has(r.code) && r.level === 'closed')
  if (owed) {
    const rail = owed.code === 'question' ? undefined : railOwed(board)
    const say = rail ? `Measure ${sayRail(rail)} to ground again, unplugged` : owed.at.say
    return at(`${say}.`, `Do not power: ${owed.text}.`, {
      part: 'rails',
      ...(rail ? ohmsTest(rail) : {}),
    })
  }
  if (!cellRead(board) && gate.lamp !== 'do not power')
    return at('Measure the coin cell.', 'A weak cell looks like lost settings.', {
      part: 'cell',
      test: 'cell',
    })
  return null
}

/** The first rail that was measured, and is owed again since the board was changed. */
function railOwed({ ownRails, railLog, told, power }: BoardState): Rail | undefined {
  const readings = [...railLog, ...told.rails]
  const last = (rail: Rail) => Math.max(0, ...readings.filter((r) => r.rail === rail).map((r) => r.seq))
  return railsOf(ownRails).find((rail) => last(rail) > 0 && last(rail) <= power.railsOwedSince)
}

/**
 * A test that was chosen in place of the adviser’s, as a step. One that powers the board is never the thing to do while
 * the gate is closed: what stands against it is said instead, and what has happened already can still be noted.
 */
export function chosenStep(test: NextTest['test'], suggested: NextTest | undefined, gate: PowerGate): Step {
  const closed = closedBy(gate)
  const cost = { ...costOf(suggested ?? { test }), test: test.id }
  return test.powers && closed
    ? at(
        `Do not power yet: ${closed.text}.`,
        `${sentence(closed.at.say)} “${test.say}” waits; note only what has already happened.`,
        cost,
      )
    : at(`${test.say}.`, suggested ? sentence(whyTest(suggested)) : 'Chosen by you.', cost)
}

/** What the odds come to, as one thing to do. */
function stepOfBelief(belief: Belief, seen: string, otherwise: string | null): Step {
  const { verdict, next, notWorthMore, repair } = belief
  if (verdict?.is === 'found')
    return at(
      `Repair it: ${faults[verdict.fault].say}.`,
      `${percent(verdict.odds)} sure, alone or beside another. Then power up again: a second fault often stands behind the first.`,
      { part: 'belief', repairs: verdict.fault },
    )
  if (verdict?.is === 'nothing left')
    return at('Nothing is left that these tests would show: prove it.', `${seen}.`)
  if (verdict?.is === 'nothing known')
    return at(
      `Something in no list stops it at ${belief.unknownAt.stage}.`,
      `${percent(verdict.odds)}: all that is known there was looked for. Take the odd reading again; else another board, a second opinion, or send it out.`,
      { part: 'belief' },
    )
  if (repair)
    return at(
      `Repair it and see: ${faults[repair.fault].say}.`,
      `${percent(repair.odds)} likely: another test would take more minutes than it could save.`,
      { part: 'belief', repairs: repair.fault, takes: `${repair.minutes} min` },
    )
  const test = next[0]?.test
  if (!test || notWorthMore) {
    const likeliest = toRepairAndSee(belief)
    return at(
      likeliest
        ? `No test left tells much. Repair it and see: ${faults[likeliest].say}.`
        : 'No test left tells much: stop, and say what stays open.',
      `${seen}.`,
      { part: 'belief', ...(likeliest ? { repairs: likeliest } : {}) },
    )
  }
  if (test.id === 'as it came' && otherwise !== null)
    return at(
      `Put it back as it came, and note it: ${otherwise}.`,
      `${seen}. A start tells of what is fitted; its own parts have not been started since.`,
      { part: 'fitted', takes: '3 min' },
    )
  return at(sayNext(next[0]!), `${seen}. ${confirming(belief) ?? sentence(whyTest(next[0]!))}`, {
    part: 'next-test',
    test: test.id,
  })
}

/** The fault to repair and see, where no test tells much any more. */
function toRepairAndSee({ faults: [top], somethingElse, notWorthMore, next }: Belief): FaultId | undefined {
  if (!top || (next.length > 0 && !notWorthMore)) return undefined
  return worthTrying(top.odds, somethingElse) ? top.fault : undefined
}
const oddsOf = (belief: Belief, fault: FaultId): number =>
  belief.faults.find((f) => f.fault === fault)?.odds ?? 0

/** A test as the thing to do. A start as it came that tells something follows what was moved since the last. */
const sayNext = ({ test, again, tells }: NextTest): string =>
  test.id === 'as it came' && tells > 0
    ? 'Put it back as it came, then power up.'
    : `${test.say}${again ? ', once more' : ''}.`

/** Why a reading is taken once more before a repair. */
const confirming = ({ confirms }: Belief): string | null =>
  confirms && `One reading in twenty-five is a slip. If it says the same, repair: ${faults[confirms].say}.`

/** What a test would tell, in a few words. */
export function whyTest({ test, outcomes, tells }: NextTest): string {
  if (tells === 0)
    return test.id === 'as it came' ? 'see whether it starts' : 'looked at and measured comes first'
  const points = [
    ...new Set(outcomes.filter((o) => o.odds >= 0.05 && o.points).map((o) => faults[o.points!].say)),
  ].slice(0, 3)
  return points.length > 1
    ? `tells ${points.join(' from ')}`
    : points[0]
      ? `would most likely bear out ${points[0]}`
      : 'shifts the odds'
}
