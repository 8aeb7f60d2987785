import { clipFault } from './clip'
import { percent } from '../maths/percent'
import { versionsSaid } from './image/version-text'
import { namedIn, writesNext } from './route/on-route'
import type { Support } from './route/support-table'
import { comparedNow, inHand, lastNoted } from './slice'
import { roundTheChip } from './view'
import type { FirmwareView } from './view'

/** A point that is looked at before a chip is written: `no` forbids it, `open` has to be seen to by a person. */
export interface PreFlightPoint {
  readonly point:
    | 'place'
    | 'original'
    | 'verdict'
    | 'file'
    | 'source'
    | 'data'
    | 'voltage'
    | 'disks'
    | 'CPU'
    | 'supply'
    | 'photo'
    | 'count'
    | 'unplugged'
    | 'shield'
  readonly is: 'good' | 'open' | 'no'
  readonly say: string
}

type Judged = Pick<PreFlightPoint, 'is' | 'say'>
const good = (say: string): Judged => ({ is: 'good', say })
const open = (say: string): Judged => ({ is: 'open', say })
const no = (say: string): Judged => ({ is: 'no', say })

/**
 * What has to be right before a chip is erased: half of the failed flashes were one’s own doing. The screen asks it, and
 * the server asks it again before it begins.
 *
 * @param support which release of this board starts which CPU; null where nobody has noted it
 */
export function preFlight(view: FirmwareView, support: Support | null): PreFlightPoint[] {
  const { diskLock, photos } = view
  const judged = {
    place: placePoint(view),
    original: originalPoint(view),
    verdict: verdictPoint(view),
    file: filePoint(view),
    source: sourcePoint(view),
    voltage: voltagePoint(view),
    disks:
      diskLock === 'no'
        ? good('no disk is locked by a security module')
        : diskLock === 'yes, owner told'
          ? open(
              'a disk is locked by a security module: the owner was told, and has the recovery key at hand',
            )
          : open('whether a disk is locked by a security module is not known: ask the owner'),
    CPU: cpuPoint(view, support),
    supply: open('mains and programmer stay on for the next minutes'),
    photo:
      photos.length > 0
        ? good('there are photos of the board as it came')
        : open('no photo of the place yet: one is owed before any iron'),
  } as const satisfies Partial<Record<PreFlightPoint['point'], Judged>>
  return (Object.keys(judged) as (keyof typeof judged)[]).map((point) => ({ point, ...judged[point] }))
}

/**
 * What has to be right before an iron comes near the firmware chip: heat undoes what it comes near, and what was not
 * looked at before it cannot be told from what it did.
 */
export function ironPoints(view: FirmwareView): PreFlightPoint[] {
  const { photos, iron, counted } = view
  const place = roundTheChip(view)
  const original = originalPoint(view)
  return [
    {
      point: 'photo',
      ...(photos.some((seq) => seq > iron)
        ? open('the photo shows the place: every part round the chip, its dot, the mark of pin 1')
        : no(
            'take a photo of the place first: it alone tells afterwards how the chip stood, and what was there',
          )),
    },
    {
      point: 'place',
      ...(place === 'not looked'
        ? no('nobody has looked round the chip')
        : place === 'wrong'
          ? open(
              'something is wrong round the chip: what is loose there is noted, so that nothing is lost to the heat',
            )
          : good('looked at round the chip: nothing is wrong there')),
    },
    {
      point: 'original',
      ...(original.is === 'good'
        ? original
        : open(
            'it was not read twice where it stands: read it twice in the holder before anything is erased',
          )),
    },
    {
      point: 'count',
      ...(counted !== null && counted.seq > iron && counted.count >= (counted.of ?? 0)
        ? good(`small parts round it counted: ${counted.count}`)
        : open('the small parts round it are counted, or on the photo one by one: hot air carries them off')),
    },
    { point: 'unplugged', ...open('unplugged, coin cell out, standby gone') },
    { point: 'shield', ...open('plastic and the small parts round it are shielded; flux is at hand') },
  ]
}

/** Bytes taken from the release that might be the board’s own; null where there are none. */
export const dataPoint = (doubtful: number): PreFlightPoint | null =>
  doubtful === 0
    ? null
    : {
        point: 'data',
        ...open(
          `${doubtful} bytes that differ are neither code nor known to be the board’s own: they will be the release’s, and stay in the backup`,
        ),
      }

function placePoint(view: FirmwareView): Judged {
  switch (roundTheChip(view)) {
    case 'clear':
      return good('looked at round the chip: nothing is wrong there')
    case 'wrong':
      return no('something is wrong round the chip: put that right first')
    case 'not looked':
      return no('nobody has looked round the chip')
  }
}

function originalPoint({ firmware }: FirmwareView): Judged {
  const [first, second] = inHand(firmware).reads
  return first && first.file === second?.file
    ? good('read twice, both reads equal, kept with the job')
    : no('the chip has to be read twice, and both reads be equal')
}

function verdictPoint({ firmware }: FirmwareView): Judged {
  const compared = comparedNow(firmware)
  const { reads, release, older } = inHand(firmware)
  if (!compared || [...reads, release, older].some((i) => i && i.seq > compared.seq))
    return no('compare the chip with the release first')
  if (compared.verdict === 'same code') return no('it is the same code: writing it puts nothing right')
  return compared.verdict === 'cannot tell'
    ? open('what the chip holds could not be told: is it sure that it has to be written?')
    : good(compared.say)
}

function voltagePoint({ firmware }: FirmwareView): Judged {
  const fault = clipFault(firmware)
  return fault === null
    ? good(`${lastNoted(firmware, 'chipVolts')} V, as the programmer gives; clip on`)
    : no(fault)
}

function cpuPoint({ firmware, board }: FirmwareView, support: Support | null): Judged {
  const asked = 'whether this release runs the CPU in the socket: look at the maker’s list'
  const { cpu } = board.fitted
  const release = inHand(firmware).release?.versions.find((v) => support?.releaseAt.has(v))
  const named = cpu === null ? null : namedIn(cpu, support?.cpus.map((c) => c.cpu) ?? [])
  if (!support || release === undefined || named === null) return open(asked)
  const at = support.releaseAt.get(release)!
  const row = support.rowOf(at, named)
  if (!row) return open(`${release} does not run ${named} by the table: the screen stays dark after it`)
  return support.cell(at, named) === 'unstable'
    ? open(`${release} runs ${named} by the table, unstable`)
    : row.trust < 0.9
      ? open(
          `${release} runs ${named} by the table, which is trusted ${percent(row.trust)}: ${row.source || 'no source'}`,
        )
      : good(`${release} runs ${named} by the table`)
}

function sourcePoint({ firmware }: FirmwareView): Judged {
  const { release } = inHand(firmware)
  if (!release) return no('no file of a release is at hand')
  return release.source === 'maker'
    ? good('fetched from the maker')
    : open(
        `opened from the disk: it comes from the maker’s own page, and the hash that stands there is ${release.file.slice(0, 12)}…`,
      )
}

function filePoint(view: FirmwareView): Judged {
  const { firmware } = view
  const { release } = inHand(firmware)
  if (!release) return no('no file of a release is at hand')
  const { versions, name, file } = release
  const hash = `SHA-256 ${file.slice(0, 12)}…`
  if (versions.length === 0)
    return open(`${name} says no version in plain text; compare its ${hash} with the maker’s`)
  const inside = versions.join(', ')
  if (!versionsSaid(name).some((v) => versions.includes(v)))
    return open(`${name} is ${inside} inside: its name says otherwise, or nothing; ${hash}`)
  if (writesNext(view)?.atHand)
    return good(`${name} is ${inside} inside as well, as the route has it; ${hash}`)
  const said = versionsSaid(lastNoted(firmware, 'version') ?? '')[0]
  if (said !== undefined && !versions.includes(said))
    return open(`${name} is ${inside}; the board was said to hold ${said}`)
  return good(`${name} is ${inside} inside as well; ${hash}`)
}
