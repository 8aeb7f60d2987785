import type { Ticket } from '@/core/intake/bodies'
import type { HistoryItem } from '@/core/board/history-item'
import { seeded } from '@/core/maths/seeded'
import type { FaultId } from '@/core/triage/model/faults'
import { hypotheses, UNKNOWN } from '@/core/triage/reason/hypotheses'
import { priorOdds } from '@/core/triage/reason/odds'

/** A board to practise on: what its owner says, and what is hidden behind it. */
export interface Exercise {
  readonly id: string
  readonly title: string
  /** What it trains, without giving it away. */
  readonly trains: string
  readonly complaint: string
  readonly history: readonly HistoryItem[]
  readonly faults: readonly FaultId[]
  /** Minutes it usually takes. */
  readonly limitMinutes: number
}

export const exercises: readonly Exercise[] = [
  {
    id: 'silent-channel',
    title: 'Dark since the memory was changed',
    trains: 'telling a module from its slot and from the socket',
    complaint: 'no picture since more memory was put in',
    history: ['worked on by others'],
    faults: ['slot B'],
    limitMinutes: 130,
  },
  {
    id: 'after-the-storm',
    title: 'After the storm',
    trains: 'measuring before power; a second fault behind the first',
    complaint: 'dead since the thunderstorm on Sunday',
    history: ['lightning or surge'],
    faults: ['memory rail short', 'slot A'],
    limitMinutes: 150,
  },
  {
    id: 'surely-the-firmware',
    title: 'Surely the firmware',
    trains: 'looking before flashing',
    complaint: 'the update must have broken it',
    history: ['firmware update'],
    faults: ['chip resistor'],
    limitMinutes: 100,
  },
  {
    id: 'half-an-update',
    title: 'Half an update',
    trains: 'what the chip holds, beside the release, before anything is erased',
    complaint: 'the mains went while it updated itself',
    history: ['power cut during update'],
    faults: ['firmware corrupt'],
    limitMinutes: 80,
  },
  {
    id: 'a-better-chip',
    title: 'A better chip',
    trains: 'a chip that answers, and is not the one the board takes',
    complaint: 'a friend changed the chip for a better one, now it starts when it likes',
    history: ['firmware update', 'worked on by others'],
    faults: ['firmware chip'],
    limitMinutes: 135,
  },
  {
    id: 'flashed-three-times',
    title: 'Flashed three times',
    trains: 'the same code is not the firmware',
    complaint: 'flashed three times with the newest, it changed nothing',
    history: ['firmware update', 'long unplugged'],
    faults: ['settings'],
    limitMinutes: 60,
  },
  {
    id: 'new-cpu',
    title: 'The new CPU',
    trains: 'a CPU the board does not run yet',
    complaint: 'black with the new CPU, the old one is sold',
    history: ['CPU swap'],
    faults: ['CPU unsupported'],
    limitMinutes: 100,
  },
  {
    id: 'forgets',
    title: 'It forgets',
    trains: 'a good cell in a bad holder',
    complaint: 'wrong time every morning, and then it does not start',
    history: ['long unplugged'],
    faults: ['cell holder'],
    limitMinutes: 70,
  },
  {
    id: 'outside',
    title: 'Nothing at all',
    trains: 'what is outside the board costs a minute',
    complaint: 'nothing happens when the button is pressed',
    history: ['none known'],
    faults: ['front wiring'],
    limitMinutes: 60,
  },
]

/** An exercise drawn from what comes over a bench, told by nothing but its history. */
export function drawExercise(
  history: readonly HistoryItem[],
  howMany: 'one' | 'two' | 'any',
  seed: number,
): Exercise {
  const draw = seeded(seed)
  const prior = priorOdds(history)
  const fits = (h: number) =>
    h < UNKNOWN &&
    (howMany === 'any' ? hypotheses[h]!.length > 0 : hypotheses[h]!.length === (howMany === 'one' ? 1 : 2))
  let left = draw() * prior.reduce((sum, p, h) => (fits(h) ? sum + p : sum), 0)
  let drawn = 0
  for (let h = 0; h < UNKNOWN && left > 0; h++) {
    if (!fits(h)) continue
    left -= prior[h]!
    drawn = h
  }
  return {
    id: 'drawn',
    title: 'A drawn board',
    trains: 'whatever comes over the bench',
    complaint: 'does not start',
    history,
    faults: hypotheses[drawn]!,
    limitMinutes: hypotheses[drawn]!.length > 1 ? 120 : 90,
  }
}

/** Minutes a board is given: what is usual, or what the best policy takes on this very board where that is more. */
export const minutesFor = ({ limitMinutes }: Exercise, bestMinutes: number): number =>
  Math.max(limitMinutes, 5 * Math.ceil(bestMinutes / 5))

/** The ticket of a practice board, without its model. */
export const practiceTicket = (
  { complaint, history, title }: Exercise,
  minutesPromised: number,
): Partial<Ticket> => ({
  use: `practice: ${title.toLowerCase()}`,
  complaint,
  cpu: 'Orrin 51',
  memory: '2 × 8 GB',
  history,
  minutesPromised,
  warranty: 'none',
  diskLock: 'no',
})
