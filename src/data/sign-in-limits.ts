import 'server-only'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { pool } from './pool'

const MINUTES = 10
/** Attempts that may fail in ten minutes: for one account from one address, from one address, for one account in all. */
const most = { pair: 5, address: 30, account: 60 } as const
type Kind = keyof typeof most

const held = new Map<Kind, RateLimiterPostgres>()

function limiter(kind: Kind): RateLimiterPostgres {
  const known = held.get(kind)
  if (known) return known
  const made = new RateLimiterPostgres({
    storeClient: pool(),
    storeType: 'pool',
    tableName: 'sign_in_limit',
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: kind,
    points: most[kind],
    duration: MINUTES * 60,
  })
  held.set(kind, made)
  return made
}

/** Counts one attempt, in one statement, before anything is hashed; false when there have been too many. */
async function counts(kind: Kind, key: string): Promise<boolean> {
  try {
    await limiter(kind).consume(key)
    return true
  } catch (refused) {
    if (refused instanceof RateLimiterRes) return false
    throw refused
  }
}

/**
 * Whether an attempt may be made: by account and address together, by address, and by account over all addresses. The
 * last does not hold for an address the account has signed in from before, so that a stranger elsewhere locks nobody out.
 */
export async function mayTry(login: string, address: string, knownHere: boolean): Promise<boolean> {
  if (!(await counts('address', address))) return false
  if (!(await counts('pair', `${login}|${address}`))) return false
  return knownHere || counts('account', login)
}

/** A right password takes its own attempt back and forgets those of this account from this address. */
export async function wentWell(login: string, address: string): Promise<void> {
  await limiter('pair').delete(`${login}|${address}`)
  await limiter('address').reward(address, 1)
  await limiter('account').reward(login, 1)
  await pool().query('delete from sign_in_limit where expire < $1', [Date.now()])
}

/** The limiters hold the pool they were made with. */
export const forgetLimiters = (): void => held.clear()
