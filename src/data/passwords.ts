import 'server-only'
import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'

export const SHORTEST_PASSWORD = 12
/** Of 0 to 4, how hard to guess a password must be at least. */
const LEAST_SCORE = 2

const strength = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })

/** Why a password is not taken, or null. */
export function passwordFault(password: string, own: readonly string[] = []): string | null {
  if (password.length < SHORTEST_PASSWORD)
    return `At least ${SHORTEST_PASSWORD} characters; a short sentence is easiest.`
  if (password.length > 200) return 'At most 200 characters.'
  const names = own.filter((name) => name.length > 2)
  if (strength.check(password, names).score < LEAST_SCORE)
    return 'This one is guessed early: it is common, repeats itself or is made of your name. Take a short sentence.'
  return null
}

/** Hashes at once, and waiting for their turn: each takes a core and 19 MB for a while. */
const AT_ONCE = 2
const MOST_WAITING = 24
const turns = pLimit(AT_ONCE)

/** More sign in at once than the server can check. */
export class TooBusy extends Error {}

async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (turns.pendingCount >= MOST_WAITING) throw new TooBusy('too many sign in at once')
  return turns(work)
}

/** @throws TooBusy */
export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password))
/** @throws TooBusy */
export const isPassword = (hashed: string, password: string): Promise<boolean> =>
  inTurn(() => verify(hashed, password))
