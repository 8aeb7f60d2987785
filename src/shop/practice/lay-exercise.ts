import 'server-only'
import type { Entry } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { randomUUID } from 'node:crypto'
import type { Account } from '@/data/accounts'
import { hideBoard } from '@/data/hidden-boards'
import { createJob, jobById } from '@/data/jobs'
import { transaction } from '@/data/pool'
import { boardWithCodes } from '@/data/references'
import { readTape } from '@/data/read-tape'
import { layTape } from '@/data/tape'
import { heavy } from '@/server/heavy'
import { minutesFor, practiceTicket } from './exercises'
import type { Exercise } from './exercises'

/** Lays an exercise as a practice job with its hidden board. The client's id makes a retry harmless. */
export async function layExercise(
  id: string,
  exercise: Exercise,
  seed: number,
  by: Account,
): Promise<string> {
  const laid = await jobById(id)
  if (laid && (await readTape(id)).length > 0) return laid.tag
  // On a board whose codes are known they can be read.
  const board = await boardWithCodes()
  const model = board
    ? { boardModelId: board.id, board: `${board.maker} ${board.name}`, revision: board.revision }
    : { board: 'practice board' }
  const { history, faults } = exercise
  const best = await heavy(by.id, 'bestPolicy', { history, truth: faults, seed })
  return transaction(async (db) => {
    const tag = await createJob(id, by.id, db, null, true)
    if ((await readTape(id, 0, db)).length > 0) return tag
    const entries: Entry[] = []
    const put = <K extends Kind>(kind: K, body: Bodies[K]) =>
      entries.push({
        id: randomUUID(),
        seq: entries.length + 1,
        at: new Date().toISOString(),
        by: by.name,
        kind,
        v: 1,
        body,
        strikes: null,
      } as unknown as Entry)
    // The socket is left out on purpose: what is wrong in it is found by the tests, not on the map.
    put('ticket', { set: { ...practiceTicket(exercise, minutesFor(exercise, best.minutes)), ...model } })
    put('fitted', { cpu: 'Orrin 51', heatsink: true, modules: ['A1', 'B1'] })
    put('supply', { limitA: 4 })
    await layTape(id, entries, by.id, db)
    await hideBoard(id, { faults: exercise.faults, seed, best }, db)
    return tag
  })
}
