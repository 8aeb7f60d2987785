import type { FirmwareBodies, ImageRole } from './bodies'
import { identityOf, sayIdRead } from './chip/identity'
import type { Identity } from './chip/identity'
import { sayRefit } from './chip/refit'
import { firmwareCommands } from './commands'
import { sayWay } from './route/way'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export type ImageLine = Noted & FirmwareBodies['image']

export interface FirmwareState {
  readonly steps: readonly (Noted & FirmwareBodies['firmware'])[]
  readonly images: readonly ImageLine[]
  /** Every comparing, whichever chip was on the board. */
  readonly compares: readonly (Noted & FirmwareBodies['compared'])[]
  /** Each time the chip came off the board or was fitted again. */
  readonly moves: readonly (Noted & FirmwareBodies['chip moved'])[]
  readonly refits: readonly (Noted & FirmwareBodies['refit'])[]
  /** Line from which on the chip on the board is the one it is. */
  readonly chipSince: number
  /** Every session that came through, whichever chip was on the board. */
  readonly writes: readonly (Noted & FirmwareBodies['written'])[]
  /** The route that is followed. */
  readonly route: (Noted & FirmwareBodies['route']) | null
}

/** How an image is called. */
export const roleWords: Readonly<Record<ImageRole, string>> = {
  read: 'chip read',
  release: 'release file',
  'older release': 'file of the release before',
}

const kib = (bytes: number) =>
  bytes % 1_048_576 === 0 ? `${bytes / 1_048_576} MiB` : `${Math.ceil(bytes / 1024)} KiB`

/** What was found or done at the chip, as it is read at the bench. */
const sayStep = (b: FirmwareBodies['firmware']): string =>
  [
    b.wrote
      ? `${b.wrote} written${b.wroteBy ? ` by ${sayWay({ kind: 'programmer', by: b.wroteBy })}` : ''}${b.version === undefined ? '' : b.version === b.wrote ? ' and seen' : `, ${b.version} seen`}`
      : b.version && `version ${b.version} seen`,
    b.chip && `chip ${b.chip}`,
    b.chipVolts !== undefined && `${b.chipVolts} V chip`,
    b.programmerVolts !== undefined && `programmer at ${b.programmerVolts} V`,
    b.clipOn !== undefined && `clip ${b.clipOn ? 'on' : 'off'}`,
    b.chipId !== undefined && sayIdRead(b.chipId),
    b.did,
  ]
    .filter(Boolean)
    .join(', ')

const sayImage = ({ role, name, bytes, versions }: FirmwareBodies['image']): string =>
  [`${roleWords[role]}: ${name}`, kib(bytes), ...versions.slice(0, 2).map((v) => `version ${v}`)].join(', ')

const sayRoute = ({ want, steps, minutes }: FirmwareBodies['route']): string =>
  `wanted: ${[want.cpu && `${want.cpu}`, want.release && `release ${want.release}`].filter(Boolean).join(' on ')}; route of ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}, ${Math.round(minutes)} min`

const sayMoved = ({ to, by }: FirmwareBodies['chip moved']): string =>
  `firmware chip ${to === 'off' ? 'off the board' : 'on the board again'}, by ${by}`

const sayWritten = ({ release, erased }: FirmwareBodies['written']): string =>
  `${release === null ? 'backup put back on the chip' : 'chip written'}, every byte read back, ${erased} blocks erased`

export const firmware = slice<FirmwareBodies>().of({
  id: 'firmware',
  commands: firmwareCommands,
  initial: (): FirmwareState => ({
    steps: [],
    images: [],
    compares: [],
    moves: [],
    refits: [],
    chipSince: 0,
    writes: [],
    route: null,
  }),
  kinds: {
    firmware: {
      opens: 'firmware',
      words: ({ body }) => sayStep(body),
      changesBoard: (b) =>
        b.wrote !== undefined
          ? {
              undoes: 'firmware',
              ...(b.wroteBy && { what: `chip written by ${sayWay({ kind: 'programmer', by: b.wroteBy })}` }),
              ...(b.wroteBy === 'desoldered' && { heat: true }),
            }
          : b.did !== undefined || b.programmerVolts !== undefined
            ? { what: 'work on the firmware chip' }
            : null,
    },
    'chip moved': {
      opens: 'firmware',
      words: ({ body }) => sayMoved(body),
      changesBoard: ({ to, by }) => ({
        what: `the firmware chip ${to === 'off' ? 'taken off' : 'fitted again'}`,
        undoes: 'firmware',
        ...(by === 'hand' ? {} : { heat: true as const }),
      }),
    },
    refit: {
      opens: 'firmware',
      words: ({ body }) => sayRefit(body),
      changesBoard: (b) => (b.reflowed ? { what: 'the firmware chip soldered', heat: true } : null),
    },
    route: {
      opens: 'firmware',
      words: ({ body }) => sayRoute(body),
    },
    image: {
      opens: 'firmware',
      words: ({ body }) => sayImage(body),
      files: (b) => [{ field: 'file', sha256: b.file, text: 'the image is not with the job' }],
    },
    written: {
      opens: 'firmware',
      words: ({ body }) => sayWritten(body),
      files: (b) =>
        (['image', 'release', 'backup'] as const).flatMap((field) => {
          const sha256 = b[field]
          return sha256 === null ? [] : [{ field, sha256, text: 'the image is not with the job' }]
        }),
      changesBoard: () => ({ what: 'work on the firmware chip' }),
    },
    compared: {
      opens: 'firmware',
      words: ({ body: b }) => `chip beside the release: ${b.say}`,
      files: (b) =>
        (['original', 'second', 'release', 'older'] as const).flatMap((field) => {
          const sha256 = b[field]
          return sha256 === null ? [] : [{ field, sha256, text: 'the image is not with the job' }]
        }),
    },
  },
  on: {
    'chip moved'(s, line) {
      s.moves.push({ ...notedOf(line), ...line.body } as (typeof s.moves)[number])
    },
    refit(s, line) {
      s.refits.push({ ...notedOf(line), ...line.body })
    },
    written(s, line) {
      s.writes.push({ ...notedOf(line), ...line.body } as (typeof s.writes)[number])
    },
    firmware(s, line) {
      const before = s.steps.findLast((f) => f.chip !== undefined)?.chip
      const { chip } = line.body
      if (chip !== undefined && before !== undefined && chip !== before) s.chipSince = line.seq
      s.steps.push({ ...notedOf(line), ...line.body })
    },
    route(s, line) {
      s.route = { ...notedOf(line), ...line.body } as typeof s.route
    },
    image(s, line) {
      s.images.push({ ...notedOf(line), ...line.body } as (typeof s.images)[number])
    },
    compared(s, line) {
      s.compares.push({ ...notedOf(line), ...line.body } as (typeof s.compares)[number])
    },
  },
})

/** What was last noted of the chip and the programmer. */
export const lastNoted = <K extends keyof FirmwareBodies['firmware']>(
  { steps }: FirmwareState,
  field: K,
): FirmwareBodies['firmware'][K] | undefined => steps.findLast((f) => f[field] !== undefined)?.[field]

/** What the chip that is on the board said of itself; null where nobody has asked it. */
export function identityNow({ steps, chipSince }: FirmwareState): Identity | null {
  const asked = steps.findLast((f) => f.chipId !== undefined && f.seq >= chipSince)
  return asked ? identityOf(asked.chipId!, asked.sfdp) : null
}

/** That the chip says it is twice as large as the release or more: of another kind, or the file is only a part of it. */
export function largerThanRelease(
  firmware: FirmwareState,
): { readonly chip: number; readonly release: number } | null {
  const chip = identityNow(firmware)?.sfdp?.bytes ?? null
  const release = inHand(firmware).release?.bytes ?? null
  return chip !== null && release !== null && chip >= 2 * release ? { chip, release } : null
}

/** The last comparing of the chip that is on the board; null where there is none. */
export const comparedNow = ({
  compares,
  chipSince,
}: FirmwareState): FirmwareState['compares'][number] | null =>
  compares.findLast((c) => c.seq >= chipSince) ?? null

/** The last session that wrote the chip on the board; null where there is none. */
export const writtenNow = ({ writes, chipSince }: FirmwareState): FirmwareState['writes'][number] | null =>
  writes.findLast((w) => w.seq >= chipSince) ?? null

/** Line from which on the chip holds what it holds: another chip, or something written. */
export const contentsSince = ({ chipSince, steps, writes }: FirmwareState): number =>
  Math.max(chipSince, writes.at(-1)?.seq ?? 0, steps.findLast((f) => f.wrote !== undefined)?.seq ?? 0)

/**
 * The images the next comparing takes: the last two reads of the chip on the board, as it was last written, and the last
 * file of each kind.
 */
export function inHand(firmware: FirmwareState): {
  readonly reads: readonly ImageLine[]
  readonly release: ImageLine | null
  readonly older: ImageLine | null
} {
  const { images } = firmware
  const since = contentsSince(firmware)
  return {
    reads: images.filter((i) => i.role === 'read' && i.seq > since).slice(-2),
    release: images.findLast((i) => i.role === 'release') ?? null,
    older: images.findLast((i) => i.role === 'older release') ?? null,
  }
}

/** Found and done at the chip, in order, in words. */
export function doneAtChip({
  steps,
  images,
  writes,
  moves,
  refits,
}: FirmwareState): readonly (Noted & { readonly say: string })[] {
  return [
    ...steps.map((f) => ({ ...f, say: sayStep(f) })),
    ...images.map((i) => ({ ...i, say: sayImage(i) })),
    ...writes.map((w) => ({ ...w, say: sayWritten(w) })),
    ...moves.map((m) => ({ ...m, say: sayMoved(m) })),
    ...refits.map((r) => ({ ...r, say: sayRefit(r) })),
  ].sort((a, b) => a.seq - b.seq)
}
