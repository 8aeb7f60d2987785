import type { Noted } from '../tape/line'
import { clipFault } from './clip'
import { inHand, lastNoted } from './slice'
import type { FirmwareState } from './slice'

/** A point that is looked at before a chip is written: `no` forbids it, `open` has to be seen to by a person. */
export interface PreFlightPoint {
  readonly point: 'place' | 'original' | 'file' | 'voltage' | 'disks' | 'CPU' | 'supply' | 'photo'
  readonly is: 'good' | 'open' | 'no'
  readonly say: string
}

interface View {
  readonly firmware: FirmwareState
  /** Whether anybody looked round the chip, and what stands against it there. */
  readonly place: 'not looked' | 'clear' | 'wrong'
  readonly diskLock: 'unknown' | 'no' | 'yes, owner told'
  readonly photos: readonly Noted[]
}

/** What has to be right before a chip is erased: half of the failed flashes were one’s own doing. */
export function preFlight({ firmware, place, diskLock, photos }: View): PreFlightPoint[] {
  const { reads, release } = inHand(firmware)
  const label = lastNoted(firmware, 'version')
  const twice = reads.length === 2 && reads[0]!.file === reads[1]!.file
  const voltage = clipFault(firmware)
  const point = (name: PreFlightPoint['point'], is: PreFlightPoint['is'], say: string): PreFlightPoint => ({
    point: name,
    is,
    say,
  })
  return [
    place === 'clear'
      ? point('place', 'good', 'looked at round the chip: nothing is wrong there')
      : place === 'wrong'
        ? point('place', 'no', 'something is wrong round the chip: put that right first')
        : point('place', 'no', 'nobody has looked round the chip'),
    twice
      ? point('original', 'good', 'read twice, both reads equal, kept with the job')
      : point('original', 'no', 'the chip has to be read twice, and both reads be equal'),
    filePoint(release, label, point),
    voltage === null
      ? point('voltage', 'good', `${lastNoted(firmware, 'chipVolts')} V, as the programmer gives; clip on`)
      : point('voltage', 'no', voltage),
    diskLock === 'no'
      ? point('disks', 'good', 'no disk is locked by a security module')
      : point(
          'disks',
          'open',
          diskLock === 'yes, owner told'
            ? 'a disk is locked by a security module: the owner was told, and has the recovery key at hand'
            : 'whether a disk is locked by a security module is not known: ask the owner',
        ),
    point('CPU', 'open', 'whether this release runs the CPU in the socket: look at the maker’s list'),
    point('supply', 'open', 'mains and programmer stay on for the next minutes'),
    photos.length > 0
      ? point('photo', 'good', 'there are photos of the board as it came')
      : point('photo', 'open', 'no photo of the place yet: one is owed before any iron'),
  ]
}

function filePoint(
  release: ReturnType<typeof inHand>['release'],
  label: string | undefined,
  point: (name: 'file', is: PreFlightPoint['is'], say: string) => PreFlightPoint,
): PreFlightPoint {
  if (!release) return point('file', 'no', 'no file of a release is at hand')
  const { versions, name, file } = release
  const hash = `SHA-256 ${file.slice(0, 12)}…`
  if (versions.length === 0)
    return point(
      'file',
      'open',
      `${name} says no version in plain text; compare its ${hash} with the maker’s`,
    )
  const inside = versions.join(', ')
  if (!versions.some((v) => name.includes(v)))
    return point('file', 'open', `${name} is ${inside} inside: its name says otherwise, or nothing; ${hash}`)
  if (label !== undefined && !versions.includes(label))
    return point('file', 'open', `${name} is ${inside}; the board was said to hold ${label}`)
  return point('file', 'good', `${name} is ${inside} inside as well; ${hash}`)
}
