import { namedIn } from '../firmware/route/on-route'
import type { Support } from '../firmware/route/support-table'
import type { Ticket } from '../intake/bodies'
import { fitsFor } from './build'
import type { Build, Fits } from './build'

/** What has to be matched: a board, and what goes onto it. */
export interface Wanted extends Pick<
  Ticket,
  'boardModelId' | 'revision' | 'socketId' | 'cpu' | 'memory' | 'diskLock'
> {
  /** Name of its model without the revision; null where the library has none. */
  readonly name: string | null
  /** What its model is built for. */
  readonly build: Build
}

/** A model of the library, and which CPUs its releases start. */
export interface Model {
  readonly id: string
  /** Its maker and name, the same for all its revisions. */
  readonly name: string
  /** As it is called, with its revision. */
  readonly board: string
  readonly socketId: string | null
  readonly support: Support | null
  readonly build: Build
}

/** A board that was kept as verified stock. */
export interface Kept {
  readonly tag: string
  readonly model: Model
  readonly revision: string
  /** The release in its chip, where it is known. */
  readonly release: string | null
  /** What speaks against calling it proved; nothing where it is. */
  readonly unproved: readonly string[]
}

export const fits = ['same model and revision', 'same model, another revision', 'another model'] as const
export type FitsAs = (typeof fits)[number]

/** Best first. By its release: its list names the CPU, and which release is in the chip is not known. */
const cpuIs = ['starts', 'after a write', 'by its release', 'not known', 'never'] as const

/** Whether the owner's CPU starts on a board, and what is done for it first. */
export interface CpuThere {
  readonly is: (typeof cpuIs)[number]
  readonly say: string
}

export interface Match {
  readonly tag: string
  readonly board: string
  readonly fitsAs: FitsAs
  readonly cpu: CpuThere
  /** What has to be looked at before it is promised. */
  readonly check: readonly string[]
  /** Why it is not offered; empty where it is. */
  readonly not: readonly string[]
}

/** The owner's CPU on a model whose chip holds a release: by its list; what the list does not name is not known, never taken to start. */
export function cpuOn(support: Support | null, release: string | null, cpuWords: string): CpuThere {
  if (!support)
    return { is: 'not known', say: 'no list of its CPUs is here: look up whether it takes the owner’s' }
  const cpu = namedIn(
    cpuWords,
    support.cpus.map((c) => c.cpu),
  )
  if (cpu === null)
    return {
      is: 'not known',
      say:
        cpuWords.trim() === ''
          ? 'the owner’s CPU is not on the ticket'
          : `its list does not name ${cpuWords}`,
    }
  const { releases } = support.table
  const good = releases.flatMap((r, v) => (!r.withdrawn && support.cell(v, cpu) === 'starts' ? [v] : []))
  const last = good.at(-1)
  if (last === undefined) return { is: 'never', say: `no stable release of it starts ${cpu}` }
  const at = release === null ? undefined : support.releaseAt.get(release)
  if (at === undefined)
    return releases.every((_, v) => support.cell(v, cpu) === 'starts')
      ? { is: 'starts', say: `${cpu} starts on every release of it` }
      : {
          is: 'by its release',
          say: `read which release it holds: ${cpu} starts on ${named(good.map((v) => releases[v]!.name))}`,
        }
  const cell = support.cell(at, cpu)
  if (cell === 'starts') return { is: 'starts', say: `${cpu} starts on ${release}, which it holds` }
  // A later release may have dropped the CPU: one that starts it is named, never “or later”.
  return {
    is: 'after a write',
    say: `it holds ${release}${cell === 'unstable' ? ', which is not stable' : ''}: write ${releases[last]!.name} before ${cpu} goes in`,
  }
}

/** Names one after the other; of many the first and the last few. */
const named = (names: readonly string[]): string =>
  names.length <= 4 ? names.join(', ') : `${names[0]}, …, ${names.slice(-2).join(', ')}`

const ofRevision = 'what the revision changed: memory list, kind of firmware chip, headers'
const disks: Readonly<Record<Ticket['diskLock'], string | null>> = {
  unknown: 'whether the disks are locked to the board that came: the recovery key is needed first',
  'yes, owner told': 'the recovery key of the disks is here before the boards are changed',
  no: null,
}

/** How a model and revision stand to what is wanted; null where its socket is another, or nobody knows which. */
function fitOf(wanted: Wanted, model: Model, revision: string): FitsAs | null {
  if (wanted.socketId !== null && model.socketId !== null && model.socketId !== wanted.socketId) return null
  if (model.id === wanted.boardModelId)
    return revision.trim().toUpperCase() === wanted.revision.trim().toUpperCase() ? fits[0] : fits[1]
  if (wanted.socketId === null || model.socketId === null) return null
  return model.name === wanted.name ? fits[1] : fits[2]
}

/** What the owner has, on a board that fits so: of its own model and revision all of it goes on. */
function goesOver(wanted: Wanted, fitsAs: FitsAs, build: Build): Fits {
  if (fitsAs === fits[0]) return { never: [], look: [] }
  const over = fitsFor(wanted.build, wanted.memory, build)
  return fitsAs === fits[2] ? over : { ...over, look: [ofRevision] }
}

const better = (a: Pick<ToBuy, 'fitsAs' | 'cpu'>, b: Pick<ToBuy, 'fitsAs' | 'cpu'>) =>
  fits.indexOf(a.fitsAs) - fits.indexOf(b.fitsAs) || cpuIs.indexOf(a.cpu.is) - cpuIs.indexOf(b.cpu.is)

/**
 * Boards of verified stock that could stand in for one that came, best first: model and revision before CPU. One that is not
 * proved, or whose releases start no such CPU, is shown with why and not offered; one of another socket is left out.
 */
export function matches(wanted: Wanted, kept: readonly Kept[]): Match[] {
  return kept
    .flatMap(({ tag, model, revision, release, unproved }): Match[] => {
      const fitsAs = fitOf(wanted, model, revision)
      if (fitsAs === null) return []
      const cpu = cpuOn(model.support, release, wanted.cpu)
      const over = goesOver(wanted, fitsAs, model.build)
      const disk = disks[wanted.diskLock]
      return [
        {
          tag,
          board: model.board,
          fitsAs,
          cpu,
          check: [...over.look, ...(disk === null ? [] : [disk])],
          not: [...unproved, ...(cpu.is === 'never' ? [cpu.say] : []), ...over.never],
        },
      ]
    })
    .sort(
      (a, b) =>
        Math.min(1, a.not.length) - Math.min(1, b.not.length) || better(a, b) || (a.tag < b.tag ? -1 : 1),
    )
}

/** What to buy where nothing on the shelf fits: the model that came, then those of its socket whose list has the CPU. */
export interface ToBuy {
  readonly board: string
  readonly fitsAs: FitsAs
  readonly cpu: CpuThere
  readonly check: readonly string[]
}

export function toBuy(wanted: Wanted, models: readonly Model[]): ToBuy[] {
  return models
    .flatMap((model): ToBuy[] => {
      const fitsAs = fitOf(wanted, model, wanted.revision)
      const cpu = cpuOn(model.support, null, wanted.cpu)
      const listed = fitsAs === fits[0] || cpu.is !== 'not known'
      if (fitsAs === null || cpu.is === 'never' || !listed) return []
      const { never, look } = goesOver(wanted, fitsAs, model.build)
      return never.length > 0 ? [] : [{ board: model.board, fitsAs, cpu, check: look }]
    })
    .sort((a, b) => better(a, b) || (a.board < b.board ? -1 : 1))
}

/** What stands in for a board: out of verified stock, and what could be bought instead. */
export interface Exchange {
  readonly matches: readonly Match[]
  readonly toBuy: readonly ToBuy[]
}
