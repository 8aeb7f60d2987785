import 'server-only'
import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import { opinionSees, opinionText } from '@/core/job/opinion'
import type { OpinionSees } from '@/core/job/opinion'
import { displayList } from '@/core/socket/map/display-list'
import { toSvg } from '@/core/socket/map/svg'
import type { Account } from '@/data/accounts'
import { fileChunks, findFile } from '@/data/files'
import { foldTape } from '@/data/job-now'
import { openedForOpinion } from '@/data/job-links'
import { jobById } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import { readTape } from '@/data/read-tape'

export interface Question {
  readonly jobId: string
  readonly tag: string
  readonly asked: number
  /** The tape’s last line. */
  readonly seq: number
  readonly sees: OpinionSees
  /** The contact map as it stands, as SVG; null where the job has no socket. */
  readonly map: string | null
}

/** A question of a job; null where none is asked on that line. */
export async function questionOf(job: Pick<Job, 'id' | 'tag'>, asked: number): Promise<Question | null> {
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const sees = opinionSees(entries, state, asked)
  if (!sees) return null
  const pass = state.socket.passes.at(-1) ?? null
  const map = socket && toSvg(displayList(socket, pass), socket.pitchMm, 'paper', `${job.tag} ${socket.name}`)
  return { jobId: job.id, tag: job.tag, asked, seq: state.seq, sees, map }
}

/** What a link opens, and who made it; null for one that opens no question, or a board nobody works on any more. */
export async function openedQuestion(token: string): Promise<(Question & { readonly by: Account }) | null> {
  const link = await openedForOpinion(token)
  const job = link && (await jobById(link.jobId))
  const question = job && (await questionOf(job, link.asked))
  return question && !question.sees.done ? { ...question, by: link.by } : null
}

const endings: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
}

/** The question with its photos and the map as one ZIP, to be sent to somebody who has no link. */
export async function packQuestion({ jobId, tag, sees, map }: Question): Promise<Readable> {
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from(opinionText(sees, tag)), 'question.txt')
  if (map) zip.addBuffer(Buffer.from(map), 'contact-map.svg')
  for (const [i, { file }] of sees.photos.entries()) {
    const stored = await findFile({ jobId }, file)
    if (!stored) continue
    const name = `photos/${String(i + 1).padStart(2, '0')}.${endings[stored.type] ?? 'bin'}`
    zip.addReadStreamLazy(name, { compress: false }, (give) =>
      give(null, Readable.from(fileChunks(stored.id))),
    )
  }
  zip.end()
  return zip.outputStream as Readable
}
