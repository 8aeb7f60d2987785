import { struckBy } from '../tape/line'
import { boardOf } from '../intake/slice'
import { sayEntry } from './job-state'
import type { Entry, JobState } from './job-state'
import { slices } from '../slices'

/** What whoever is asked for a second opinion sees: the question, the photos and what was noted here. Never what we think it is. */
export interface OpinionSees {
  readonly board: string
  readonly theirWords: string
  readonly question: string
  /** Who is asked, where one person is. */
  readonly of: string
  readonly photos: readonly { readonly file: string; readonly caption: string }[]
  /** Measured, seen and done on this board, in the order of the tape. */
  readonly noted: readonly string[]
  /** What was answered already, by whom. */
  readonly answers: readonly { readonly by: string; readonly text: string }[]
  /** Whether the job is done: nobody waits for an answer. */
  readonly done: boolean
}

/** Slices whose lines say what the board showed; intake and the work as such are between the shop and the owner. */
const shows = new Set(['board', 'triage', 'socket', 'firmware', 'parts', 'proof'])
/** What somebody here thinks, which would lead whoever is asked; and each look of a sweep, which the map shows. */
const leftOut = new Set(['odds said', 'mended', 'route', 'looked'])
const shownKinds = new Set(
  slices
    .filter((s) => shows.has(s.id))
    .flatMap((s) => Object.keys(s.kinds))
    .filter((kind) => !leftOut.has(kind)),
)

/** What a question shows; null where no standing line asks one there. */
export function opinionSees(entries: readonly Entry[], state: JobState, asked: number): OpinionSees | null {
  const question = state.intake.asked.find((a) => a.seq === asked)
  if (!question) return null
  const struck = struckBy(entries)
  const captions = new Map(state.work.photos.map((p) => [p.file, p.caption || p.name]))
  return {
    board: boardOf(state.intake.ticket),
    theirWords: state.intake.ticket.complaint,
    question: question.text,
    of: question.of,
    photos: question.photos.map((file) => ({ file, caption: captions.get(file) ?? '' })),
    noted: entries.filter((e) => shownKinds.has(e.kind) && !struck.has(e.seq)).map(sayEntry),
    answers: state.intake.claims.flatMap(({ opinion, text }) =>
      opinion?.asked === asked ? [{ by: opinion.by, text }] : [],
    ),
    done: state.handBack.done !== null && state.handBack.done.outcome !== 'parked',
  }
}

/** The question as a page of plain text, to be sent with its photos. */
export function opinionText(sees: OpinionSees, tag: string): string {
  const { board, theirWords, question, photos, noted } = sees
  return [
    `${tag}${board ? `, ${board}` : ''}`,
    ...(theirWords ? [`Owner: “${theirWords}”`] : []),
    '',
    question,
    '',
    ...(photos.length > 0
      ? ['Photos', ...photos.map((p, i) => `${i + 1}. ${p.caption || 'without a caption'}`), '']
      : []),
    noted.length > 0 ? 'What was noted here' : 'Nothing was measured or seen yet.',
    ...noted.map((line) => `- ${line}`),
    '',
    'What we think it is stands nowhere here: it shall not lead you.',
    '',
  ].join('\n')
}
