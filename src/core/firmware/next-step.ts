import type { Step } from '../board/step'
import { afterWrite, fittingStep } from './after-write'
import { chipOff } from './chip/refit'
import { needsPower, routeNow, writesNext } from './route/on-route'
import type { RouteLeg } from './route/on-route'
import { oneStartsOneNot } from './route/starts'
import type { Verdict } from './image/same-code'
import { comparedNow, identityNow, inHand, largerThanRelease, lastNoted, writtenNow } from './slice'
import { roundTheChip } from './view'
import type { FirmwareView } from './view'

const MIB = 1024 * 1024

/** Verdicts over which a release may be written: what is known of the chip, and is not the same. */
export const mayBeWritten = (verdict: Verdict): boolean =>
  verdict === 'broken off' || verdict === 'damaged' || verdict === 'another release'

/**
 * First whether it is the firmware at all: the place, the chip, its contents twice, beside the release.
 * @param closed what forbids power; null when nothing does
 */
export function firmwareStep(view: FirmwareView, closed: string | null): Step {
  const { firmware } = view
  const step = (part: string, say: string, why: string, rest: Partial<Step> = {}): Step => ({
    station: 'firmware',
    part,
    say,
    why,
    ...rest,
  })
  const fitting = fittingStep(view)
  if (fitting) return fitting
  const onTheWay = routeStep(view, closed)
  if (onTheWay && onTheWay.part !== 'route-chip' && onTheWay.part !== 'chip-off') return onTheWay
  const both = firmware.route || firmware.images.length > 0 ? null : oneStartsOneNot(view)
  if (both)
    return step(
      'route-plan',
      `The board starts with ${both.runs}, not with ${both.dark}: plan the route to a release that runs it.`,
      'What is in the chip runs; it may only be too old, or too new, for that CPU.',
      { takes: '2 min' },
    )
  const place = roundTheChip(view)
  const { reads, release } = inHand(firmware)
  const compared = comparedNow(firmware)
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
  if (onTheWay?.part === 'chip-off') return onTheWay
  if (writtenNow(firmware) && reads.length === 0 && !onTheWay) return afterWrite(view, closed)
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
  if (first!.file !== second!.file && !release)
    return step(
      'file',
      'The chip answers. Take the maker’s file: its size tells whether the chip is of its kind.',
      'The last two reads differ, and a chip that is too large can do that as well as a clip.',
    )
  const larger = largerThanRelease(firmware)
  if (first!.file !== second!.file && larger)
    return step(
      'chip',
      `The last two reads differ, and the chip says it has ${larger.chip / MIB} MiB, the release ${larger.release / MIB}: look whether it is of another kind.`,
      'If it is, fit one the board is known to take; if the file is only a part of the chip, seat the clip again.',
    )
  if (first!.file !== second!.file)
    return step(
      'images',
      'The last two reads differ: seat the clip again, and read twice more.',
      'Its ID answers: a contact or the supply is not steady.',
      { takes: '6 min' },
    )
  if (onTheWay) return onTheWay
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
  const { leg, atHand } = writesNext(view) ?? {}
  return leg && atHand && mayBeWritten(compared.verdict)
    ? step('verdict', twoOf(leg)[0], [twoOf(leg)[1], `The chip beside it: ${compared.say}`].join(' ').trim())
    : step('verdict', compared.say, compared.why[0] ?? 'As compared.')
}

/** A step of a route as what is done, and that the screen stays dark after it. */
const twoOf = ({ say }: RouteLeg): readonly [todo: string, dark: string] => {
  const at = say.indexOf(' A black screen')
  return at < 0 ? [say, ''] : [say.slice(0, at), say.slice(at + 1)]
}

/** What the chosen route asks for next; before a programmer writes, the place is looked at and the chip read twice. */
function routeStep(view: FirmwareView, closed: string | null): Step | null {
  const { firmware } = view
  const stands = routeNow(view)
  if (!stands) return null
  const step = (say: string, why: string, takes?: string, part = 'route'): Step => ({
    station: 'firmware',
    part,
    say,
    why,
    ...(takes ? { takes } : {}),
  })
  if (stands.is === 'off') {
    const last = firmware.steps.findLast((s) => s.wrote !== undefined)
    const other = last?.version !== undefined && last.version !== last.wrote
    return step(
      `Plan the route again: ${other ? `${last.wrote} was written, ${last.version} is seen` : stands.say}.`,
      'Labels lie, and a release is sometimes not what went in.',
      '1 min',
    )
  }
  const locked = `Do not power yet: ${closed}.`
  if (stands.is === 'there') {
    const after = afterWrite(view, closed)
    const first = after.part === 'after-write' && closed === null
    return first ? { ...after, say: `The route is at its end. ${after.say}` } : after
  }
  const { leg, at } = stands
  if (lastNoted(firmware, 'clipOn') && leg.way !== 'programmer')
    return step('Take the clip off first.', `Then: ${leg.say}`)
  if (needsPower(leg) && closed !== null) return step(locked, `Then: ${leg.say}`)
  if ((leg.by === 'desoldered' || leg.by === 'socket') && !chipOff(firmware))
    return step(
      leg.by === 'socket' ? 'Take the chip out of its socket first.' : 'Take the chip off first.',
      `Then: ${leg.say}`,
      leg.by === 'socket' ? '2 min' : '10 min, hot air',
      'chip-off',
    )
  const nth = `Step ${at + 1} of ${firmware.route!.steps.length}.`
  const takes = `${Math.round(leg.minutes)} min`
  const [todo, dark] = twoOf(leg)
  const why = (text: string) => [nth, dark, text].filter(Boolean).join(' ')
  if (leg.way === 'programmer')
    return step(
      todo,
      why(
        'Both reads are kept: they are the only way back. File name, version inside and hash agree, and the supply is steady.',
      ),
      takes,
      'route-chip',
    )
  return step(
    todo,
    why(
      leg.do === 'fit'
        ? 'Unplugged, and the socket looked at before it goes in.'
        : 'File name, version inside and hash agree, and the supply is steady; then note the version that is seen.',
    ),
    takes,
  )
}
