import { comparedNow, inHand, writtenNow } from '../slice'
import type { FirmwareState } from '../slice'
import type { FirmwareView } from '../view'
import type { Pair } from './route'
import type { ProgrammerBy, WayKind } from './way'

/** A step of a route as the tape keeps it. */
export interface RouteLeg {
  readonly say: string
  readonly do: 'fit' | 'write' | 'switch'
  readonly cpu: string | null
  readonly release: string | null
  readonly before: Pair
  readonly after: Pair
  /** The screen stays dark after it, and that is expected. */
  readonly dark: boolean
  /** By which way a release is written; null where a CPU is fitted. */
  readonly way: WayKind | null
  readonly by: ProgrammerBy | null
  readonly minutes: number
}

/** The longest of some names that stands in a text, such as “Orrin 44” in “bench Orrin 44”. */
export const namedIn = (text: string, names: readonly string[]): string | null =>
  names
    .filter((n) => new RegExp(`(^|[^\\w])${escaped(n)}($|[^\\w])`, 'i').test(text))
    .reduce<string | null>((best, n) => (best && best.length >= n.length ? best : n), null)
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** What the chip holds as far as the tape tells, and how that is known. */
export interface ReleaseNow {
  readonly release: string | null
  readonly by: 'seen' | 'written' | 'read' | 'broken' | 'nothing'
  readonly seq: number
  /** It came in by writing, rather than that it was found there. */
  readonly wrote: boolean
}

/** The release in the chip by the newest that was seen, written or read. */
export const releaseNow = (firmware: FirmwareState): ReleaseNow =>
  releasesKnown(firmware).at(-1) ?? { release: null, by: 'nothing', seq: 0, wrote: false }

/**
 * What the chip on the board held, one after the other. One whose code is broken off or damaged starts nothing, until it
 * is written.
 */
export function releasesKnown(firmware: FirmwareState): readonly ReleaseNow[] {
  const { steps, images, chipSince } = firmware
  const compared = comparedNow(firmware)
  const written = writtenNow(firmware)
  const known: ReleaseNow[] = []
  for (const s of steps) {
    if (s.seq < chipSince) continue
    const { seq, version, wrote } = s
    if (version !== undefined) known.push({ release: version, by: 'seen', seq, wrote: wrote !== undefined })
    else if (wrote !== undefined) known.push({ release: wrote, by: 'written', seq, wrote: true })
  }
  const read = images.findLast((i) => i.role === 'read' && i.seq >= chipSince)
  if (read?.versions[0]) known.push({ release: read.versions[0], by: 'read', seq: read.seq, wrote: false })
  if (compared && (compared.verdict === 'broken off' || compared.verdict === 'damaged'))
    known.push({ release: null, by: 'broken', seq: compared.seq, wrote: false })
  const file = written && images.findLast((i) => i.file === written.release)
  if (written && file?.versions[0])
    known.push({ release: file.versions[0], by: 'written', seq: written.seq, wrote: true })
  return known.sort((a, b) => a.seq - b.seq)
}

export type OnRoute =
  | { readonly is: 'step'; readonly at: number; readonly leg: RouteLeg }
  | { readonly is: 'there' }
  /** What was seen is not what the route leads over. */
  | { readonly is: 'off'; readonly say: string }

/** Where a job stands on its route: which step is next, or what is otherwise than it should be. */
export function onRoute(steps: readonly RouteLeg[], want: Pair, now: Pair): OnRoute {
  // A CPU that the route does not name stands there as none: it is taken out like any other.
  const named = [want.cpu, ...steps.flatMap((s) => [s.before.cpu, s.after.cpu])].filter((n) => n !== null)
  const cpu = now.cpu === null ? null : namedIn(now.cpu, named)
  const same = (p: Pair) => p.release === now.release && p.cpu === cpu
  const at = steps.findLastIndex((s) => same(s.before))
  const last = steps.at(-1)
  if (last ? same(last.after) : isThere(want, { ...now, cpu })) return { is: 'there' }
  if (at >= 0) return { is: 'step', at, leg: steps[at]! }
  const onIt = steps.some((s) => s.before.release === now.release || s.after.release === now.release)
  return {
    is: 'off',
    say: onIt
      ? `${now.cpu ?? 'no CPU'} is in the socket, which the route does not lead over here`
      : `${now.release ?? 'nothing that starts'} is in the chip, which the route does not lead over`,
  }
}

const isThere = (want: Pair, now: Pair) =>
  (want.release === null || want.release === now.release) && (want.cpu === null || want.cpu === now.cpu)

/** That the board itself does it, and has to be powered for it. */
export const needsPower = ({ way }: RouteLeg): boolean => way === 'updater' || way === 'recovery'

/**
 * What the route that is followed has a programmer write next, whatever the chip was compared with meanwhile, and whether
 * that release’s file is in hand; null where it has nothing written.
 */
export function writesNext({
  firmware,
  board,
}: Pick<FirmwareView, 'firmware' | 'board'>): { readonly leg: RouteLeg; readonly atHand: boolean } | null {
  const { route } = firmware
  if (!route) return null
  const { leg } = {
    leg: null,
    ...onRoute(route.steps, route.want, { release: releaseNow(firmware).release, cpu: board.fitted.cpu }),
  }
  return leg?.way === 'programmer' && leg.after.release !== null
    ? { leg, atHand: inHand(firmware).release?.versions.includes(leg.after.release) === true }
    : null
}

/**
 * Where a job stands on the route that it follows; null where it follows none, or where the chip was compared since: then
 * what it holds comes first, until it is written or seen.
 */
export function routeNow({ firmware, board }: Pick<FirmwareView, 'firmware' | 'board'>): OnRoute | null {
  const { route } = firmware
  const compared = comparedNow(firmware)
  if (!route) return null
  const { release, by, seq } = releaseNow(firmware)
  const settled = (by === 'seen' || by === 'written') && seq > (compared?.seq ?? 0)
  if (compared && compared.seq > route.seq && !settled) return null
  return onRoute(route.steps, route.want, { release, cpu: board.fitted.cpu })
}
