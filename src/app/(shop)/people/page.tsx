import { listAccounts, sessionsOf } from '@/data/accounts'
import { countDue, monthsKept } from '@/data/retention'
import { sessionToken, signedIn } from '@/server/signed-in'
import { People } from '@/shop/People'

/** Months after which it is worth saying that names are still kept. */
const TWO_YEARS = 24

export default async function PeoplePage() {
  const account = await signedIn('/people')
  const [accounts, sessions, months, due] = await Promise.all([
    listAccounts(),
    sessionsOf(account.id, await sessionToken()),
    monthsKept(),
    countDue(TWO_YEARS, new Date().toISOString()),
  ])
  return <People me={account} accounts={accounts} sessions={sessions} owners={{ months, due }} />
}
