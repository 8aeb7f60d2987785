import { readId, sameId, sayId } from '../chip/jedec-id'
import type { ChipId } from '../chip/jedec-id'
import { readSfdp } from '../chip/sfdp'
import { dumpQuality } from '../image/dump'
import { hex, SECTOR } from '../image/image-bytes'
import { ChipTalk } from './chip-talk'
import { PAGE, status } from './spi-bridge'
import type { SpiBridge } from './spi-bridge'

export const flashStages = ['voltage', 'identify', 'read', 'read again', 'backup', 'write', 'verify'] as const
export type FlashStage = (typeof flashStages)[number]

export interface FlashProgress {
  readonly stage: FlashStage
  /** 0 to 1 of this stage. */
  readonly share: number
}

export interface FlashReport {
  /** `stopped` may be gone on with or rolled back; `refused` has changed nothing on the chip. */
  readonly ended: 'verified' | 'refused' | 'stopped' | 'failed'
  readonly stage: FlashStage
  readonly say: string
  readonly id: string | null
  /** Blocks erased and pages programmed this time. */
  readonly erased: number
  readonly programmed: number
}

/** A session at a chip, as it stands. */
export interface FlashSession {
  readonly id: string
  /** What is written, by its hash. */
  readonly image: string
  /** The file of the release it was built from; null where the backup is put back. */
  readonly release: string | null
  /** What stood open before it, and was seen to. */
  readonly despite: readonly string[]
  /** What was kept before the first erase. */
  readonly backup: string | null
  readonly stage: FlashStage
  readonly share: number
  readonly ended: FlashReport['ended'] | null
  readonly say: string
}

export interface FlashOrder {
  /** What the chip is to hold; as large as the chip. */
  readonly image: Uint8Array
  /** What the chip works at, V; null where nobody has said, and then nothing is sent to it. */
  readonly chipVolts: number | null
  /** The ID it should have; null where that is not known. */
  readonly id: ChipId | null
  /** A backup that was kept before, when the session goes on or rolls back: what is on the chip now is none. */
  readonly kept: boolean
  /** Why there may be no backup; null where there has to be one. */
  readonly withoutBackup: string | null
}

/** Keeps what was read before anything is erased. @throws when it could not be kept */
export type KeepBackup = (contents: Uint8Array) => Promise<void>

/** Tolerance of a supply, as a share. */
const TOLERANCE = 0.1
const ID_BYTES = 12
const SFDP_BYTES = 256

class Refused extends Error {}
class Stopped extends Error {}

/**
 * One session at the chip: voltage before the first command, identify, read twice and compare, backup kept, then block by
 * block what differs, then everything read and compared. Whenever it ends in between, the same order run again goes on
 * where it stopped, because only blocks that are not as they should be are erased; with the backup as its image it rolls
 * back. The backup is made once: what stands on a chip that is half written is none.
 * @param stop asked between commands
 */
export async function flashSession(
  bridge: SpiBridge,
  order: FlashOrder,
  keepBackup: KeepBackup,
  progress: (p: FlashProgress) => void = () => undefined,
  stop: () => boolean = () => false,
): Promise<FlashReport> {
  const { image } = order
  const done = { stage: 'voltage' as FlashStage, id: null as string | null, erased: 0, programmed: 0 }
  const at = (stage: FlashStage, share: number) => {
    done.stage = stage
    progress({ stage, share })
    if (stop()) throw new Stopped('it was stopped')
  }
  const end = (ended: FlashReport['ended'], say: string): FlashReport => ({ ended, say, ...done })
  try {
    at('voltage', 0)
    checkVolts(bridge.volts, order.chipVolts)
    const chip = new ChipTalk(bridge)
    at('identify', 0)
    const known = await identify(chip, order)
    done.id = known.id
    await chip.begin(image.length)
    at('read', 0)
    const now = await chip.read(0, image.length, (to) => at('read', to / image.length))
    if (!order.kept) {
      at('read again', 0)
      const again = await chip.read(0, image.length, (to) => at('read again', to / image.length))
      believe(now, again)
      at('backup', 0)
      if (order.withoutBackup === null) await keepBackup(now)
    }
    await write(chip, known.erase, now, image, at, done)
    at('verify', 0)
    const after = await chip.read(0, image.length, (to) => at('verify', to / image.length))
    const wrong = firstDifference(after, image)
    if (wrong !== null)
      return end(
        'failed',
        `Read back, the chip is not as written from ${hex(wrong)} on: write it again, or roll back to the backup.`,
      )
    return end('verified', `Written and read back: every byte is as it should be.`)
  } catch (error) {
    const why = error instanceof Error ? error.message : 'something went wrong'
    if (error instanceof Refused) return end('refused', why)
    const touched = done.erased + done.programmed > 0
    const on = touched || order.kept ? 'Go on from here, or roll back to the backup.' : 'Nothing was erased.'
    return end(error instanceof Stopped ? 'stopped' : 'failed', `${sentence(why)} ${on}`)
  }
}

const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`

function checkVolts(bridge: number, chip: number | null): void {
  if (chip === null)
    throw new Refused('Which voltage the chip works at is not known: nothing was sent to it. Note it first.')
  if (Math.abs(bridge - chip) > TOLERANCE * chip)
    throw new Refused(
      `The programmer gives ${bridge} V, the chip works at ${chip} V: nothing was sent to it. Put the right adapter between.`,
    )
}

/** Who the chip is, and by which command it erases a sector; what it does not say of itself is not assumed. */
async function identify(
  chip: ChipTalk,
  { image, id: wanted }: FlashOrder,
): Promise<{ readonly id: string; readonly erase: number }> {
  const [first, second] = [readId(await chip.id(ID_BYTES)), readId(await chip.id(ID_BYTES))]
  if (first.is !== 'read') throw new Refused(`The chip gives no ID: ${first.say}.`)
  if (second.is !== 'read' || !sameId(first.id, second.id))
    throw new Refused('Two reads of the ID differ: seat the clip again.')
  if (wanted && !sameId(wanted, first.id))
    throw new Refused(
      `The chip says it is ${sayId(first.id)}, not ${sayId(wanted)}: look at its marking before anything is written.`,
    )
  const { sfdp } = readSfdp(await chip.sfdp(SFDP_BYTES))
  if (!sfdp?.bytes)
    throw new Refused('The chip does not say how large it is: its size cannot be checked against the image.')
  if (sfdp.bytes !== image.length)
    throw new Refused(
      `The chip says it has ${hex(sfdp.bytes)} bytes, the image has ${hex(image.length)}: build the image for this chip.`,
    )
  if (((await chip.status()) & status.protects) !== 0)
    throw new Refused('The chip is write protected: free its pin, or clear the block protection first.')
  const erase = sfdp.erases.find((e) => e.bytes === SECTOR)
  if (!erase)
    throw new Refused(
      'The chip does not say that it erases 4 KiB at a time: this session knows no other way.',
    )
  return { id: sayId(first.id), erase: erase.opcode }
}

function believe(now: Uint8Array, again: Uint8Array): void {
  const differs = firstDifference(now, again)
  if (differs !== null)
    throw new Refused(
      `Two reads of the chip differ, first at ${hex(differs)}: seat the clip again. Nothing was erased.`,
    )
  // A chip that is blank may be written; a line that is stuck spoils whatever is.
  const fault = dumpQuality(now, again).findings.find((f) => f.cause.startsWith('stuck'))
  if (fault) throw new Refused(`The read cannot be believed: ${fault.text}. Nothing was erased.`)
}

function firstDifference(a: Uint8Array, b: Uint8Array): number | null {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return i
  return null
}

/** Erases what has to become one again, and programs what is not as it should be. */
async function write(
  chip: ChipTalk,
  erase: number,
  now: Uint8Array,
  image: Uint8Array,
  at: (stage: FlashStage, share: number) => void,
  done: { erased: number; programmed: number },
): Promise<void> {
  for (let sector = 0; sector < image.length; sector += SECTOR) {
    const to = Math.min(image.length, sector + SECTOR)
    at('write', sector / image.length)
    if (needsErase(now, image, sector, to)) {
      // Counted before: an erase that is broken off has changed the chip as well.
      done.erased++
      await chip.erase(erase, sector)
      now.fill(0xff, sector, to)
    }
    for (let page = sector; page < to; page += PAGE) {
      const end = Math.min(to, page + PAGE)
      if (!differs(now, image, page, end)) continue
      done.programmed++
      await chip.program(page, image.subarray(page, end))
    }
  }
  at('write', 1)
}

function needsErase(now: Uint8Array, image: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if ((now[i]! & image[i]!) !== image[i]!) return true
  return false
}

function differs(now: Uint8Array, image: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (now[i] !== image[i]) return true
  return false
}
