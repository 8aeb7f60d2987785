// Computes every job's state again from its tape, writes it, and says which had differed.
import { canonical } from '@/core/tape/canonical'
import { keptState } from '@/data/job-now'
import { allJobIds } from '@/data/jobs'
import { closePool, transaction } from '@/data/pool'
import { refold } from '@/data/tape'

let differed = 0
const ids = await allJobIds()
for (const id of ids) {
  const before = await keptState(id)
  const after = await transaction((db) => refold(id, db))
  if (before === null || canonical(before) === canonical(JSON.parse(JSON.stringify(after)))) continue
  differed += 1
  console.log(`job ${id}: the state beside the tape had differed and is written anew`)
}
console.log(
  `${ids.length} tapes read, ${differed === 0 ? 'every state was as its tape says' : `${differed} states differed`}`,
)
await closePool()
