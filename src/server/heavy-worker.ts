// A worker thread of the server: what takes seconds is done here, so that nothing else waits for it.
import { createHash } from 'node:crypto'
import sharp from 'sharp'
import type { Reader } from '@/core/reader'
import { runToEnd } from '@/core/run-to-end'
import { reckonAdvice } from '@/core/job/advise'
import type { ToAdvise } from '@/core/job/advise'
import { kit } from '@/core/firmware/route/kit'
import type { KitBoard, KitCpu } from '@/core/firmware/route/kit'
import type { ReferenceKind } from '@/core/job/references'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { readStock } from '@/core/parts/stock/stock-item'
import type { Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'
import { bestPolicy } from '@/core/triage/practice/practice-score'
import { readFaultTable } from '@/core/triage/model/fault-table'
import { readChip, releaseFile } from '@/simulated-bench/chip-on-board'
import type { ChipOnBoard } from '@/simulated-bench/chip-on-board'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import { boardPhoto } from '@/simulated-bench/board-photos'
import type { BoardPhotoOf } from '@/simulated-bench/board-photos'
import { takePhoto } from '@/simulated-bench/microscope-camera'
import type { Shot } from '@/simulated-bench/microscope-camera'
import type { Sheet } from '@/server/SheetPdf'
import { unpackJob } from '@/server/job-zip'
import { coverSolver } from '@/server/solve-cover'
import { checkMapFile } from '@/tables/read-board-map'
import { readCsv } from '@/tables/read-csv'
import { readReference } from '@/tables/read-reference'
import { readSocket } from '@/tables/read-socket'
import type { SocketRequest } from '@/tables/read-socket'

const sha256 = (bytes: Uint8Array | string) => createHash('sha256').update(bytes).digest('hex')

/** Each kind of work by its name; what goes in and comes out can be cloned between threads. */
const work = {
  /** A photo by the simulated camera, as JPEG. */
  async camera({ socket, marks, shot }: { socket: Socket; marks: Marks; shot: Shot }): Promise<Uint8Array> {
    const { widthPx: width, heightPx: height, grey } = runToEnd(takePhoto(socket, marks, shot)).image
    return sharp(grey, { raw: { width, height, channels: 1 } })
      .jpeg({ quality: 88 })
      .toBuffer()
  },
  /** A photo of a simulated board, or of a good one of its model, as JPEG. */
  async boardCamera({ seed, of }: { seed: number; of: BoardPhotoOf }): Promise<Uint8Array> {
    const { scene, board, shot } = boardPhoto(seed, of)
    const { widthPx: width, heightPx: height, rgba } = runToEnd(takeBoardPhoto(scene, board, shot)).image
    return sharp(rgba, { raw: { width, height, channels: 4 } })
      .removeAlpha()
      .jpeg({ quality: 88 })
      .toBuffer()
  },
  /** What the best policy takes on a practice board. */
  bestPolicy,
  /** What a programmer reads of a simulated chip, or the maker’s file of a release. */
  readChip: ({ chip, line }: { chip: ChipOnBoard; line: number }) => readChip(chip, line),
  releaseFile: ({ boardModelId, version }: { boardModelId: string; version: string }) =>
    releaseFile(boardModelId, version),
  advise: ({ field, asked }: { field: Socket | null; asked: ToAdvise }) => reckonAdvice(field, asked),
  unpack: ({ zip, keepIn }: { zip: string; keepIn: string }) => unpackJob(zip, keepIn),
  /** The printer is only loaded where something is printed. */
  async pdf(sheet: Sheet): Promise<Uint8Array> {
    const { printSheet } = await import('@/server/SheetPdf')
    return printSheet(sheet)
  },
  /** Has the printer ready before anybody prints: to load it and its faces takes longer than a sheet. */
  async printer({ reader }: { reader: Reader }): Promise<void> {
    const blank = { lines: [], none: '' }
    const parts = [
      { title: 'left', ...blank },
      { title: 'right', ...blank },
    ]
    await work.pdf({
      words: { title: '', complaint: '', outcome: '', parts, minutes: 0, priceMinor: null },
      maps: null,
      technical: null,
      version: 1,
      signed: null,
      tag: '',
      at: new Date().toISOString(),
      reader,
      owner: '',
      socket: null,
    })
  },
  png: ({ svg }: { svg: string }) => sharp(Buffer.from(svg)).resize({ width: 2000 }).png().toBuffer(),
  socket: (request: SocketRequest) => readSocket(request, sha256),
  reference: ({ kind, name, csv }: { kind: ReferenceKind; name: string; csv: string }) =>
    readReference(kind, name, csv),
  mapFile: ({ kind, text }: { kind: MapFile; text: string }) => checkMapFile(kind, text),
  stock: ({ csv }: { csv: string }) => {
    const { rows, columns, uneven } = readCsv(csv)
    return { ...readStock(rows, columns), uneven }
  },
  /** The bench-CPU kit. */
  kit: async ({ boards, cpus, dropped }: { boards: KitBoard[]; cpus: KitCpu[]; dropped: string | null }) =>
    kit(boards, cpus, dropped, await coverSolver()),
  faults: ({ csv }: { csv: string }) => {
    const { rows, columns, uneven } = readCsv(csv)
    return { ...readFaultTable(rows, columns), uneven }
  },
}

export type Work = typeof work
export type Asked = {
  [K in keyof Work]: { readonly what: K; readonly of: Parameters<Work[K]>[0] }
}[keyof Work]

export default async function heavy({ what, of }: Asked): Promise<unknown> {
  const done: unknown = await (work[what] as (of: unknown) => unknown)(of)
  // Bytes leave in a plain array of their own: a Buffer may be a window on memory that is not its own.
  return Buffer.isBuffer(done) ? new Uint8Array(done) : done
}
