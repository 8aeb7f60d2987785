import { trackRecord } from '@/core/record/track-record'
import { jobRecords } from '@/data/job-records'
import { signedIn } from '@/server/signed-in'
import { CameTrue } from '@/shop/record/CameTrue'

/** Jobs that are looked back on. */
const MOST = 2000

export default async function CameTruePage() {
  await signedIn('/record/came-true')
  return <CameTrue record={trackRecord(await jobRecords(MOST))} />
}
