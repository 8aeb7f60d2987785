// Boards of a second simulator worked by the product and by the checklist on the wall: what the reasoner does not assume,
// arm by arm, and all of it together.
import { seeded } from '@/core/maths/seeded'
import { benchTests } from '@/core/triage/model/bench-tests'
import { faultIds, faults } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import { curedBy } from '@/core/triage/model/repair'
import { riskOf, verdict, WORTH_TRYING, worthMinutes } from '@/core/triage/reason/next-test'
import { faultOdds, posterior, priorOdds, standing } from '@/core/triage/reason/odds'
import type { Change, Evidence } from '@/core/triage/reason/odds'
import { policies } from '@/core/triage/reason/policies'
import { LIMIT_MINUTES, MEND_MINUTES } from '@/core/triage/reason/work-board'
import type { Policy } from '@/core/triage/reason/work-board'
import { line, percent } from './figure'
import { SecondBoard } from './second-board'
import type { World } from './second-board'

const plain: World = {
  likeness: 0,
  lampError: 0,
  curesLast: false,
  repairFails: 0,
  benchMakes: 0,
  outside: 0,
  misread: 0,
  off: 0,
}
const arms: Readonly<Record<string, World>> = {
  'as the reasoner takes it': plain,
  'one lamp error a board, one in five': { ...plain, lampError: 0.2 },
  'starts alike, half': { ...plain, likeness: 0.5 },
  'starts alike, all': { ...plain, likeness: 1 },
  'cures last': { ...plain, curesLast: true },
  'repairs fail, 15 %': { ...plain, repairFails: 0.15 },
  'a bench makes faults': { ...plain, benchMakes: 0.08 },
  'in no list, 10 %': { ...plain, outside: 0.1 },
  'misread, 5 %': { ...plain, misread: 0.05 },
  'log-odds off by up to 1': { ...plain, off: 1 },
  'all together': {
    likeness: 0.6,
    lampError: 0.2,
    curesLast: true,
    repairFails: 0.15,
    benchMakes: 0.08,
    outside: 0.1,
    misread: 0.05,
    off: 1,
  },
}

/** One fault, or now and then two, as often as they come over this world's bench. */
function drawFaults(world: World, arm: number, seed: number): readonly FaultId[] {
  const often = seeded(arm * 7919 + 1)
  const rates = faultIds.map((id) => faults[id].odds * Math.exp(world.off * (2 * often() - 1)))
  const draw = seeded(seed)
  const one = (): FaultId => {
    let u = draw() * rates.reduce((a, b) => a + b, 0)
    return faultIds[rates.findIndex((r) => (u -= r) <= 0)] ?? faultIds[0]!
  }
  const first = one()
  if (draw() >= 0.2) return [first]
  const second = one()
  return second === first ? [first] : [first, second]
}

interface Worked {
  readonly minutes: number
  readonly end: 'right' | 'wrong' | 'missed one' | 'undecided'
  readonly outside: boolean
  readonly needless: boolean
  readonly guesses: readonly { readonly odds: number; readonly right: boolean }[]
}

/** Works one board, as `workBoard` does, but by what the board is and not by what the reasoner takes it for. */
function work(policy: Policy, board: SecondBoard): Worked {
  const prior = priorOdds([])
  const evidence: Evidence[] = []
  const changes: Change[] = []
  const guesses: { odds: number; right: boolean }[] = []
  let done = new Set<string>()
  let minutes = 0
  const outside = board.unknown !== null
  const tried = new Set<FaultId>()
  let needless = false
  const ended = (end: Worked['end'], wrongly = false): Worked => ({
    minutes: end === 'right' ? minutes : LIMIT_MINUTES,
    end,
    outside,
    needless: needless || wrongly,
    guesses,
  })
  const look = (test: (typeof benchTests)[number]) => {
    evidence.push({ test: test.id, outcome: board.see(test), after: changes.length })
    for (const fault of curedBy(test.id)) changes.push({ is: 'cured', fault })
    done.add(test.id)
    minutes += test.minutes
  }
  look(benchTests[0]!)
  while (minutes < LIMIT_MINUTES) {
    const now = standing(posterior(prior, evidence, changes), changes)
    const each = faultOdds(now)
    const top = each.indexOf(Math.max(...each))
    guesses.push({ odds: each[top]!, right: board.wrong.includes(faultIds[top]!) })
    const sure = verdict(now)
    if (sure?.is === 'nothing known') return ended(outside ? 'right' : 'undecided')
    if (sure?.is === 'nothing left') return ended(board.right ? 'right' : 'missed one')
    if (sure?.is === 'found') {
      // What a test has put right already was there, and the technician is right to name it.
      if (!board.mend(sure.fault) && !board.mendedOnce.has(sure.fault)) return ended('wrong', true)
      changes.push({ is: 'mended', fault: sure.fault })
      minutes += MEND_MINUTES
      done = new Set()
      look(benchTests[0]!)
      continue
    }
    const test = policy(now, done)
    if (!test) {
      const fault = faultIds[top]!
      if (each[top]! < WORTH_TRYING || tried.has(fault)) return ended('undecided')
      tried.add(fault)
      if (!board.mend(fault) && !board.mendedOnce.has(fault)) needless = true
      changes.push({ is: 'mended', fault })
      minutes += MEND_MINUTES
      done = new Set()
      look(benchTests[0]!)
      continue
    }
    if (test.lends) minutes += riskOf(now) * worthMinutes[test.lends]
    look(test)
  }
  return ended('undecided')
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

/** Figures of triage on boards of the second simulator, arm by arm. */
export function secondJudge(boards: number): void {
  for (const name of Object.keys(arms)) judgeArm(name, boards)
}

/** One arm by itself. */
export function judgeArm(name: string, boards: number): void {
  const world = arms[name]!
  const arm = Object.keys(arms).indexOf(name)
  const run = (policy: Policy) =>
    Array.from({ length: boards }, (_, i) => {
      const seed = 5_000_000 + arm * 100_000 + i
      return work(policy, new SecondBoard(world, seeded(seed * 3 + 1), drawFaults(world, arm, seed)))
    })
  const ours = run(policies.suggested)
  const share = (of: (w: Worked) => boolean, all = ours) => all.filter(of).length / Math.max(1, all.length)
  const wrong = share((w) => w.end === 'wrong' || w.end === 'missed one')
  const whole = name === 'all together'
  line(
    `second judge, ${name}, ${boards} boards: wrong verdicts`,
    percent(wrong),
    whole ? `≤ 5 %: ${wrong <= 0.05 ? 'met' : 'MISSED'}` : '',
  )
  line(
    '  undecided; mean minutes',
    `${percent(share((w) => w.end === 'undecided'))}; ${mean(ours.map((w) => w.minutes)).toFixed(0)}`,
  )
  const guesses = ours.flatMap((w) => w.guesses).filter((g) => g.odds >= 0.9)
  line(
    `  likeliest fault said to be ${percent(mean(guesses.map((g) => g.odds)))}, came true`,
    percent(mean(guesses.map((g) => Number(g.right)))),
  )
  if (!whole) return
  const all = ours.flatMap((w) => w.guesses)
  for (let d = 0; d < 10; d++) {
    const some = all.filter((g) => Math.min(9, Math.floor(g.odds * 10)) === d)
    if (some.length < 30) continue
    const [said, was] = [mean(some.map((g) => g.odds)), mean(some.map((g) => Number(g.right)))]
    line(
      `  said to be ${percent(said)}, of ${some.length}`,
      percent(was),
      `± 5 points: ${Math.abs(said - was) <= 0.05 ? 'met' : 'MISSED'}`,
    )
  }
  const outside = ours.filter((w) => w.outside)
  const needless = share((w) => w.needless, outside)
  line(
    `  needless repairs on ${outside.length} boards in no list`,
    percent(needless),
    `≤ 10 %: ${needless <= 0.1 ? 'met' : 'MISSED'}`,
  )
  const other = mean(run(policies.checklist).map((w) => w.minutes))
  const less = 1 - mean(ours.map((w) => w.minutes)) / other
  line(
    `  less minutes than by checklist (${other.toFixed(0)})`,
    percent(less),
    `≥ 35 %: ${less >= 0.35 ? 'met' : 'MISSED'}`,
  )
}
