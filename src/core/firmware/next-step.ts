import type { Step } from '../board/step'
import { onRoute, releaseNow } from './route/on-route'
import { identityNow, inHand, largerThanRelease, lastNoted } from './slice'
import { roundTheChip } from './view'
import type { FirmwareView } from './view'

const MIB = 1024 * 1024

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
  const onTheWay = routeStep(view, closed)
  if (onTheWay) return step('route', onTheWay.say, onTheWay.why, onTheWay.rest)
  const { starts } = firmware
  const runs = starts.find((s) => s.saw === 'starts')
  const dark = starts.find(
    (s) => s.saw === 'dark' && !starts.some((o) => o.cpu === s.cpu && o.saw === 'starts'),
  )
  if (runs && dark && !firmware.route && firmware.images.length === 0)
    return step(
      'route-plan',
      `The chip starts ${runs.cpu}, not ${dark.cpu}: plan the route to a release that does.`,
      'What is in it runs; it may only be too old, or too new, for that CPU.',
      { takes: '2 min' },
    )
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
  if (written && reads.length === 0)
    return step(
      'after-write',
      lastNoted(firmware, 'clipOn')
        ? 'Clip off, then start it two or three times before you judge.'
        : closed !== null
          ? `Do not power yet: ${closed}.`
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

/** What the chosen route asks for next, unless an image was read or judged since. */
function routeStep(
  { firmware, board }: FirmwareView,
  closed: string | null,
): { say: string; why: string; rest: Partial<Step> } | null {
  const { route, compared, written } = firmware
  if (!route) return null
  const read = firmware.images.findLast((i) => i.role === 'read')?.seq ?? 0
  if (Math.max(read, compared?.seq ?? 0, written?.seq ?? 0) > route.seq) return null
  const now = { release: releaseNow(firmware).release, cpu: board.fitted.cpu }
  const stands = onRoute(route.steps, route.want, now)
  const locked = closed === null ? null : { say: `Do not power yet: ${closed}.`, why: '', rest: {} }
  const last = firmware.steps.findLast((s) => s.wrote !== undefined)
  const other = last?.version !== undefined && last.version !== last.wrote
  if (stands.is === 'off')
    return {
      say: `Plan the route again: ${other ? `${last.wrote} was written, ${last.version} is seen` : stands.say}.`,
      why: 'Labels lie, and a release is sometimes not what went in.',
      rest: { takes: '1 min' },
    }
  if (stands.is === 'there')
    return locked
      ? { ...locked, why: 'The route is at its end; what forbids power is cleared first.' }
      : {
          say: 'The route is at its end: start it two or three times before you judge.',
          why: 'A settings screen, a key asked for, a restart or two by itself are normal now.',
          rest: { takes: '6 min' },
        }
  const { leg, at } = stands
  if (leg.powered && locked) return { ...locked, why: `Then: ${leg.say}` }
  return {
    say: leg.say,
    why: `Step ${at + 1} of ${route.steps.length}. ${
      leg.do === 'fit'
        ? 'Unplugged, and the socket looked at before it goes in.'
        : 'File name, version inside and hash agree, and the supply is steady; then note the version that is seen.'
    }`,
    rest: { takes: `${Math.round(leg.minutes)} min` },
  }
}
