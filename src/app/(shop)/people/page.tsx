import { listAccounts, sessionsOf } from '@/data/accounts'
import { sessionToken, signedIn } from '@/server/signed-in'
import { People } from '@/shop/People'

export default async function PeoplePage() {
  const account = await signedIn('/people')
  const [accounts, sessions] = await Promise.all([
    listAccounts(),
    sessionsOf(account.id, await sessionToken()),
  ])
  return <People me={account} accounts={accounts} sessions={sessions} />
}
