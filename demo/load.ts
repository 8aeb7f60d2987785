import type { Entry } from '@/core/job/job-state'

// Brings the database up to date and, unless there is something in it already, lays the demo shop.
import { addBoard, addLandmark } from '@/data/boards'
import { anyAccount, createAccount, newFirstLeadCode } from '@/data/accounts'
import type { Account } from '@/data/accounts'
import { attachToJob, storeBytes } from '@/data/files'
import { keepDonor } from '@/data/donors'
import { hideBoard } from '@/data/hidden-boards'
import { createJob, saveCustomer } from '@/data/jobs'
import { migrate } from '@/data/migrate'
import { closePool, pool, transaction } from '@/data/pool'
import { keepBenchCpu } from '@/data/bench-cpus'
import { referenceKinds } from '@/core/job/references'
import { keepStock } from '@/data/stock'
import { demoStock } from './stock'
import { keepMapFile } from '@/data/board-maps'
import { mapFiles } from '@/core/parts/board-map/map-files'
import { writeNetlist } from '@/core/parts/board-map/write-netlist'
import { checkMapFile } from '@/tables/read-board-map'
import { keepReference } from '@/data/references'
import { addSocket } from '@/data/sockets'
import { layTape } from '@/data/tape'
import { reckonAdvice } from '@/core/job/advise'
import { adviseJob } from '@/server/advise'
import { madeBoard, madePlacements } from './board-map'
import { demoBoards } from './boards'
import { hiddenContacts } from './hidden-contacts'
import { history } from './history'
import { demoJobs, lighthouseBefore } from './jobs'
import type { DemoJob } from './jobs/job'
import { demoBenchCpus, demoHidden, demoReferences } from './references'
import { demoSockets } from './sockets'
import { steadyId } from './tape-writer'
import type { TapeWriter } from './tape-writer'

const WORD = 'quay-bench-demo'
const FINISHED = 300

const MARK = 'demo'
const flags = new Set(process.argv.slice(2))
const named = [...flags].find((flag) => flag.startsWith('--into='))?.slice('--into='.length)

/** Whether this database is the demo's: marked so before, or named on the command line now. */
async function isOurs(): Promise<boolean> {
  const { rows } = await pool().query<{ name: string; marks: string | null }>(
    "select current_database() as name, to_regclass('shop_mark')::text as marks",
  )
  const { name, marks } = rows[0]!
  if (named === name) return true
  const { rowCount } = marks
    ? await pool().query('select 1 from shop_mark where name = $1', [MARK])
    : { rowCount: 0 }
  if (rowCount) return true
  process.stderr.write(
    `The database ${name} is not the demo's. Nothing was changed in it.\n` +
      `To lay the demo shop into it all the same, say its name:  npm run demo -- --into=${name}\n` +
      'To open an empty shop in it:  npm run demo -- --empty\n',
  )
  return false
}

async function empty(): Promise<void> {
  await pool().query('drop schema public cascade; create schema public')
}

async function layJob(tape: TapeWriter, account: Account, job: DemoJob | null): Promise<void> {
  await transaction(async (db) => {
    const id = steadyId(tape.tag)
    await createJob(id, account.id, db, tape.tag)
    const entries: Entry[] = [...tape.entries]
    for (const picture of job?.pictures ?? []) {
      const file = await storeBytes(db, await picture.png(), 'image/png')
      await attachToJob(db, id, file.sha256, 'photo')
      const taken = entries[picture.line - 1]!
      if (taken.kind === 'photo')
        entries[picture.line - 1] = {
          ...taken,
          body: { ...taken.body, file: file.sha256, bytes: file.bytes },
        }
    }
    await layTape(id, entries, account.id, db)
    if (job) await saveCustomer(id, job.owner.name, job.owner.contact, db)
    const faults = job && demoHidden[tape.tag]
    const seed = Number(tape.tag.slice(2))
    if (faults) await hideBoard(id, { faults, seed, marks: hiddenContacts(entries, seed) }, db)
  })
}

async function layShop(): Promise<void> {
  const ines = await createAccount('ines', 'Ines', 'lead', WORD)
  await createAccount('tolliver', 'Tolliver', 'technician', WORD)
  await createAccount('maren', 'Maren', 'technician', WORD)
  for (const socket of Object.values(demoSockets)) await addSocket(socket, 'demo rules')
  for (const { landmarks, ...board } of demoBoards) {
    await addBoard(board)
    for (const mark of landmarks) await addLandmark(board.id, mark.what, mark.place, mark.blockedBy, null)
  }
  for (const [id, references] of Object.entries(demoReferences))
    for (const kind of referenceKinds) {
      const body = references[kind]
      if (body) await keepReference(id, kind, body)
    }
  // Boards round one socket, each with parts of its own.
  for (const [i, { id }] of demoBoards.filter((b) => b.socketId === demoSockets.lg1284.id).entries()) {
    const points = madeBoard(demoSockets.lg1284, 61 + i)
    const files = { netlist: writeNetlist(points), placements: madePlacements(points) }
    for (const kind of mapFiles) {
      const { say } = checkMapFile(kind, files[kind])
      await keepMapFile(id, kind, {
        name: `${id}.${kind === 'netlist' ? 'ipc' : 'csv'}`,
        say: say!,
        text: files[kind],
      })
    }
  }
  await keepStock(demoStock)
  for (const cpu of demoBenchCpus) await keepBenchCpu(cpu)
  await keepDonor('kiosk board burnt at the rail, drawer 3', demoSockets.lg1284.id, 61)
  const now = new Date()
  for (const tape of history(FINISHED, now)) await layJob(tape, ines, null)
  await layJob(lighthouseBefore(now), ines, null)
  for (const job of demoJobs(now)) await layJob(job.tape, ines, job)
  for (const job of demoJobs(now))
    await adviseJob(steadyId(job.tape.tag), ({ field, asked }) => Promise.resolve(reckonAdvice(field, asked)))
  await pool().query("select setval('job_tag', 418)")
}

try {
  const wanted = flags.has('--reset') || !flags.has('--empty')
  if (wanted && !(await isOurs())) process.exit(1)
  if (flags.has('--reset')) await empty()
  await migrate(process.env.DATABASE_URL!)
  if (!flags.has('--empty') && !(await anyAccount())) {
    process.stdout.write('Laying the demo shop…\n')
    await layShop()
    await pool().query('insert into shop_mark (name) values ($1) on conflict do nothing', [MARK])
  }
  const code = flags.has('--empty') ? await newFirstLeadCode(process.env.FIRST_LEAD_CODE) : null
  if (code !== null) process.stdout.write(`The first lead opens the shop with this code: ${code}\n`)
} finally {
  await closePool()
}
