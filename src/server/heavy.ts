import 'server-only'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import pLimit from 'p-limit'
import type { LimitFunction } from 'p-limit'
import { Piscina } from 'piscina'
import type { Asked, Work } from './heavy-worker'

/** Threads for heavy work: the rest of the server keeps a core to itself. */
const THREADS = 2
/** Work of one account that may wait behind what it has under way. */
const MOST_WAITING = 3
/** Longest that one piece of work may take, ms. */
const LONGEST_MS = 90_000

const held = globalThis as { needleHeavy?: Piscina }

/** What a thread runs: the one file that was built, or while developing the sources. */
function threadFile(): string {
  const built = join(process.cwd(), process.env.NEXT_DIST_DIR ?? '.next', 'heavy-worker.mjs')
  const isBuilt = process.env.NODE_ENV === 'production' && existsSync(built)
  return isBuilt ? built : join(process.cwd(), 'src/server/heavy-thread.mjs')
}

function threads(): Piscina {
  held.needleHeavy ??= new Piscina({
    filename: threadFile(),
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: 120_000,
    maxQueue: 64,
    resourceLimits: { maxOldGenerationSizeMb: 2048 },
  })
  return held.needleHeavy
}

/** The server has as much heavy work as it takes, or this account has. */
export class Occupied extends Error {}
/** It took too long, or whoever asked has gone. */
export class GivenUp extends Error {}

type Done<K extends keyof Work> = Awaited<ReturnType<Work[K]>>

/** The shop's own work, in a thread: it stands in no account's line. */
export async function inThread<K extends keyof Work>(what: K, of: Parameters<Work[K]>[0]): Promise<Done<K>> {
  const asked = { what, of } as Asked
  return (await threads().run(asked, { signal: AbortSignal.timeout(LONGEST_MS) })) as Done<K>
}

/** For each account, the line its work stands in. */
const lines = new Map<string, LimitFunction>()

/**
 * Work that takes seconds, done in a thread of its own: one piece at a time for each account, the others wait their turn.
 * @param signal of the request: who went away needs nothing any more
 * @throws Occupied, GivenUp, or what the work itself throws
 */
export async function heavy<K extends keyof Work>(
  account: string,
  what: K,
  of: Parameters<Work[K]>[0],
  signal?: AbortSignal,
): Promise<Done<K>> {
  const line = lines.get(account) ?? pLimit(1)
  lines.set(account, line)
  if (line.activeCount + line.pendingCount > MOST_WAITING) throw new Occupied('one thing after the other')
  const timeout = AbortSignal.timeout(LONGEST_MS)
  return line(async (): Promise<Done<K>> => {
    if (signal?.aborted) throw new GivenUp('nobody waits for it')
    try {
      const asked = { what, of } as Asked
      return (await threads().run(asked, {
        signal: signal ? AbortSignal.any([signal, timeout]) : timeout,
      })) as Done<K>
    } catch (error) {
      if (error instanceof Error && error.name === 'AbortError')
        throw new GivenUp(timeout.aborted ? 'it took too long' : 'nobody waits for it')
      if (error instanceof Error && /queue/i.test(error.message)) throw new Occupied('too much at once')
      throw error
    }
  })
}
