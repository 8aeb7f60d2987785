import 'server-only'
import { createHash } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { flashSession } from '@/core/firmware/flash/session'
import type { FlashSession, FlashStage } from '@/core/firmware/flash/session'
import type { SpiBridge } from '@/core/firmware/flash/spi-bridge'
import { opcode } from '@/core/firmware/flash/spi-bridge'
import { SECTOR } from '@/core/firmware/image/image-bytes'
import { lastNoted } from '@/core/firmware/slice'
import type { Account } from '@/data/accounts'
import { attachToJob, fileChunks, findFile, storeImage } from '@/data/files'
import { endSession, keepBlock, layBlocks, noteBackup, noteProgress } from '@/data/flash-sessions'
import { jobNow } from '@/data/job-now'
import { transaction } from '@/data/pool'
import { appendEntry } from '@/data/tape'
import { drawSfdp } from '@/simulated-bench/flash-chips'
import { soldOn } from '@/simulated-bench/chip-on-board'
import type { ChipOnBoard } from '@/simulated-bench/chip-on-board'
import { spiFaults } from '@/simulated-bench/bench-faults'
import type { BenchFault } from '@/simulated-bench/bench-faults'
import { SpiNor } from '@/simulated-bench/spi-nor'
import { adviseSoon } from './advise'
import { heavy } from './heavy'

/** What a command of the stand-in takes, ms: as a real chip would, scaled down. */
const TAKES: Readonly<Record<number, number>> = { [opcode.read]: 12, [opcode.erase4K]: 3 }
/** Progress is noted at most so often, ms. */
const NOTED_EVERY = 250

const sha256Of = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** What is on the simulated chip now: as it was laid, and what has been written since. */
export async function chipContents(
  jobId: string,
  account: string,
  chip: ChipOnBoard,
  line: number,
  signal?: AbortSignal,
): Promise<Uint8Array> {
  return layBlocks(jobId, await heavy(account, 'readChip', { chip, line }, signal))
}

async function imageOf(jobId: string, sha256: string): Promise<Uint8Array> {
  const file = await findFile({ jobId }, sha256)
  if (!file) throw new Error('the image is not with the job')
  const pieces: Buffer[] = []
  for await (const piece of fileChunks(file.id)) pieces.push(piece)
  return new Uint8Array(Buffer.concat(pieces))
}

/** The stand-in at its pace; each block that was changed is kept, so that what is on the chip outlasts the server. */
class KeptBridge implements SpiBridge {
  private dirty: number | null = null
  constructor(
    private readonly chip: SpiNor,
    private readonly jobId: string,
  ) {}
  get volts(): number {
    return this.chip.volts
  }
  async transfer(out: Uint8Array, wanted: number): Promise<Uint8Array> {
    const code = out[0]!
    if (code === opcode.erase4K || code === opcode.program) {
      const block = Math.floor(((out[1]! << 16) + (out[2]! << 8) + out[3]!) / SECTOR)
      if (this.dirty !== null && this.dirty !== block) await this.keep()
      this.dirty = block
    } else if (code === opcode.read) await this.keep()
    const takes = TAKES[code]
    if (takes !== undefined) await pause(takes)
    return this.chip.transfer(out, wanted)
  }
  async keep(): Promise<void> {
    if (this.dirty === null) return
    const from = this.dirty * SECTOR
    await keepBlock(this.jobId, this.dirty, this.chip.contents.subarray(from, from + SECTOR))
    this.dirty = null
  }
}

/**
 * Runs a session to its end, whoever looks on. What came of it is noted with the session, and on the tape once every
 * byte was read back; the line has the session’s id, so it stands there once.
 */
export async function runSession(
  job: { readonly id: string },
  account: Account,
  session: Pick<FlashSession, 'id' | 'image' | 'release' | 'despite' | 'backup'>,
  chip: ChipOnBoard,
  fault: BenchFault,
): Promise<void> {
  let backup = session.backup
  try {
    const { state } = await jobNow(job.id)
    const sold = soldOn(chip)
    const contents = await chipContents(job.id, account.id, chip, state.seq)
    const bridge = new KeptBridge(
      new SpiNor(
        { contents, volts: sold.volts, id: sold.id, sfdp: drawSfdp(sold), seed: chip.seed },
        lastNoted(state.firmware, 'programmerVolts') ?? 0,
        spiFaults(fault, contents.length),
      ),
      job.id,
    )
    // It may have waited so long that it was given up for gone, and another begun.
    const gone = await noteProgress(session.id, 'voltage', 0)
    const noted = { at: 0, stage: null as FlashStage | null, stop: gone }
    const report = await flashSession(
      bridge,
      {
        image: await imageOf(job.id, session.image),
        chipVolts: lastNoted(state.firmware, 'chipVolts') ?? null,
        id: null,
        kept: backup !== null,
        withoutBackup: null,
      },
      async (was) => {
        backup = await transaction(async (db) => {
          const { sha256 } = await storeImage(db, was)
          if (sha256 !== sha256Of(was)) throw new Error('the backup was not kept as it was read')
          await attachToJob(db, job.id, sha256, 'image')
          await noteBackup(session.id, sha256, db)
          return sha256
        })
      },
      ({ stage, share }) => {
        if (stage === noted.stage && Date.now() - noted.at < NOTED_EVERY) return
        noted.at = Date.now()
        noted.stage = stage
        void noteProgress(session.id, stage, share).then(
          (stop) => (noted.stop ||= stop),
          () => undefined,
        )
      },
      () => noted.stop,
    )
    await bridge.keep()
    if (report.ended === 'verified') {
      const { image, release, despite } = session
      const { id, erased, programmed } = report
      const done = await appendEntry(job.id, account, {
        id: session.id,
        kind: 'written',
        body: { image, release, backup, id: id ?? '', erased, programmed, despite },
        strikes: null,
        at: new Date().toISOString(),
        basis: (await jobNow(job.id)).state.seq,
      })
      if (done.result !== 'saved') throw new Error('it could not be put on the tape')
      adviseSoon(job.id)
    }
    await endSession(session.id, report.ended, report.say)
  } catch (error) {
    const why = error instanceof Error ? error.message : 'something went wrong'
    await endSession(session.id, 'failed', `It did not go on: ${why}.`).catch(() => undefined)
  }
}
