// Boards of a second simulator worked by the product and by the checklist on the wall: what the reasoner does not assume,
// arm by arm, and all of it together.
import { seeded } from '@/core/maths/seeded'
import { faultIds, faults } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import { priorOdds } from '@/core/triage/reason/odds'
import { policies } from '@/core/triage/reason/policies'
import { workBoard } from '@/core/triage/reason/work-board'
import type { Policy } from '@/core/triage/reason/work-board'
import { decileFigures, line, mean, percent } from './figure'
import { SecondBoard } from './second-board'
import type { World } from './second-board'

const plain: World = {
  likeness: 0,
  lampError: 0,
  curesLast: true,
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
  'cures do not last': { ...plain, curesLast: false },
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

/** Boards that come over one bench: what comes over another comes as often as it does there. */
const BOARDS_A_BENCH = 30

/** One fault, or now and then two, as often as they come over this bench. */
function drawFaults(world: World, bench: number, seed: number): readonly FaultId[] {
  const often = seeded(bench * 7919 + 1)
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

export const WHOLE = 'all together'
/** Boards of all arms together are more: the targets are theirs. */
const LEAST_WHOLE = 300

/** Figures of triage on boards of the second simulator, arm by arm. */
export function secondJudge(boards: number): void {
  for (const name of Object.keys(arms))
    judgeArm(name, name === WHOLE ? Math.max(LEAST_WHOLE, boards) : boards)
}

/** One board of an arm. */
export function secondBoard(name: string, i: number, from = 5_000_000): SecondBoard {
  const world = arms[name]!
  const arm = Object.keys(arms).indexOf(name)
  const seed = from + arm * 100_000 + i
  const bench = arm + 100 * Math.floor(i / BOARDS_A_BENCH)
  return new SecondBoard(world, seeded(seed * 3 + 1), drawFaults(world, bench, seed))
}

/** One arm by itself. */
export function judgeArm(name: string, boards: number): void {
  const prior = priorOdds([])
  const run = (policy: Policy) =>
    Array.from({ length: boards }, (_, i) => {
      const board = secondBoard(name, i)
      return { ...workBoard(policy, prior, board), unlisted: board.unlisted }
    })
  const ours = run(policies.suggested)
  const share = (of: (w: (typeof ours)[number]) => boolean, all = ours) =>
    all.filter(of).length / Math.max(1, all.length)
  const wrong = share((w) => w.end === 'wrong' || w.end === 'missed one')
  const whole = name === WHOLE
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
  decileFigures(ours.flatMap((w) => w.guesses))
  const unlisted = ours.filter((w) => w.unlisted)
  const needless = share((w) => w.needless, unlisted)
  line(
    `  needless repairs on ${unlisted.length} boards in no list`,
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
