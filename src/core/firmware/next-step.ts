import { placeOf } from '../board/hazard'
import type { BoardState } from '../board/slice'
import type { Step } from '../board/step'
import { identityNow, inHand, lastNoted, sizesDiffer } from './slice'
import type { FirmwareState } from './slice'

const MIB = 1024 * 1024

interface View {
  readonly firmware: FirmwareState
  readonly board: BoardState
  /** What forbids power; null when nothing does. */
  readonly closed: string | null
  /** Line on which a part was last fitted; 0 where none was. */
  readonly partFitted: number
}

/** Whether anybody looked round the chip, and what stands against it there. */
export function roundTheChip({
  board,
  partFitted,
}: Pick<View, 'board' | 'partFitted'>): 'not looked' | 'clear' | 'wrong' {
  const looks = board.looks.filter((l) => placeOf(l.what) === 'round the firmware chip')
  const last = looks.at(-1)
  if (!last) return 'not looked'
  return last.clear || partFitted > last.seq ? 'clear' : 'wrong'
}

/** First whether it is the firmware at all: the place, the chip, its contents twice, beside the release. */
export function firmwareStep(view: View): Step {
  const { firmware } = view
  const step = (part: string, say: string, why: string, rest: Partial<Step> = {}): Step => ({
    station: 'firmware',
    part,
    say,
    why,
    ...rest,
  })
  const place = roundTheChip(view)
  const { reads, release } = inHand(firmware)
  const { compared } = firmware
  if (place === 'not looked')
    return step(
      'chip-look',
      'Look round the firmware chip first: every part there, nothing green, no flux.',
      'A missing resistor looks just like dead firmware.',
      { takes: '3 min' },
    )
  if (place === 'wrong' && reads.length === 0)
    return step(
      'chip-look',
      'Something is wrong round the chip: put that right before the firmware is blamed.',
      'What is missing or corroded there keeps the chip from being read by the board.',
    )
  if (lastNoted(firmware, 'chip') === undefined || lastNoted(firmware, 'chipVolts') === undefined)
    return step(
      'chip',
      'Read the chip’s marking, and note which voltage it works at.',
      'Some work at 1.8 V: 3.3 V from a programmer destroys them.',
      { takes: '2 min' },
    )
  const { written } = firmware
  if (written && reads.every((r) => r.seq < written.seq) && (compared?.seq ?? 0) < written.seq)
    return step(
      'after-write',
      lastNoted(firmware, 'clipOn')
        ? 'Clip off, then start it two or three times before you judge.'
        : view.closed !== null
          ? `Do not power yet: ${view.closed}.`
          : 'Start it two or three times before you judge.',
      'A settings screen, a key asked for, a restart or two by itself are normal now.',
      { takes: '6 min' },
    )
  if (reads.length === 0)
    return step(
      'images',
      'Read the chip, twice, before anything is erased.',
      'What it holds says whether it is the firmware at all, and it is the only way back.',
      { takes: '6 min, a programmer' },
    )
  if (reads.length === 1)
    return step(
      'images',
      'Read it once more.',
      'Two equal reads are a good connection; one proves nothing.',
      {
        takes: '3 min',
      },
    )
  const [first, second] = reads
  if (first!.file !== second!.file && identityNow(firmware) === null)
    return step(
      'id',
      'The last two reads differ: read the chip’s ID.',
      'A contact or the supply is not steady, or the chip is not the one it is taken for.',
      { takes: '1 min' },
    )
  const other = sizesDiffer(firmware)
  if (other)
    return step(
      'chip',
      `The chip says it has ${other.chip / MIB} MiB, the release has ${other.release / MIB}: it is of another kind.`,
      'Fit one the board is known to take, and write it with the board’s own data.',
    )
  if (first!.file !== second!.file && !release)
    return step(
      'file',
      'The chip answers. Take the maker’s file: its size tells whether the chip is of its kind.',
      'The last two reads differ, and a chip that is too large can do that as well as a clip.',
    )
  if (first!.file !== second!.file)
    return step(
      'images',
      'The last two reads differ: seat the clip again, and read twice more.',
      'Its ID answers: a contact or the supply is not steady.',
      { takes: '6 min' },
    )
  if (!release)
    return step(
      'file',
      'Take the maker’s file of the release the chip should hold.',
      'Only beside it can be told what is code and what the board wrote itself.',
    )
  const last = Math.max(second!.seq, release.seq)
  if (!compared || compared.seq < last)
    return step(
      'images',
      'Compare the chip with the release.',
      'Settings, keys and serial are left out of it.',
    )
  return step('verdict', compared.say, compared.why[0] ?? 'As compared.')
}
