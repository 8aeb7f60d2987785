import type { Ticket } from '@/core/intake/bodies'
import type { Baseline } from '@/core/board/baseline'
import { nothingNoted } from '@/core/board/baseline'
import type { TapeWriter } from '../tape-writer'
import { demoBoards } from '../boards'

/** One demo job: its tape, whose it is, and the pictures that hang on it. */
export interface DemoJob {
  readonly tape: TapeWriter
  readonly owner: { readonly name: string; readonly contact: string }
  /** Made-up photos, each for a `photo` line of the tape. */
  readonly pictures: readonly { readonly line: number; readonly png: () => Promise<Uint8Array> }[]
}

/** Clock of the demo: moments are told from when it is loaded. */
export interface DemoNow {
  readonly hoursAgo: (hours: number) => string
  readonly inHours: (hours: number) => string
}

export const demoNow = (now: Date): DemoNow => ({
  hoursAgo: (hours) => new Date(now.getTime() - hours * 3_600_000).toISOString(),
  inHours: (hours) =>
    new Date(Math.ceil((now.getTime() + hours * 3_600_000) / 900_000) * 900_000).toISOString(),
})

/** What a board model puts on the ticket. */
export function onBoard(id: string): Pick<Ticket, 'boardModelId' | 'board' | 'revision' | 'socketId'> {
  const model = demoBoards.find((b) => b.id === id)!
  return {
    boardModelId: id,
    board: `${model.maker} ${model.name}`,
    revision: model.revision,
    socketId: model.socketId,
  }
}

export const baseline = (seen: Partial<Baseline>): Baseline => ({
  ...nothingNoted,
  picture: 'none',
  ...seen,
})

export const goodRails = {
  '12v': 480,
  '5v': 310,
  '3v3': 265,
  standby: 720,
  vcore: 6.4,
  vmem: 221,
  vsys: 38,
} as const
export const railsWithCpu = { ...goodRails, vcore: 1.1, vsys: 9 } as const
