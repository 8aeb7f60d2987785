import type { Entry, Kind } from './entry'

export interface LineFault {
  readonly field: string
  readonly text: string
}

/** Kinds of line that can leave something loose, and how many items each can. */
const looseOf = (entry: Entry): number => {
  switch (entry.kind) {
    case 'missing':
    case 'stroke':
    case 'part':
    case 'look':
    case 'trial':
      return 1
    case 'mark':
      return entry.body.contacts.length
    case 'replaced':
      return entry.body.pulledOut.length
    default:
      return 0
  }
}

/** The line an entry answers, the field that says so, and the kinds it may be of. */
function answers(
  entry: Entry,
): { readonly field: string; readonly seq: number; readonly kinds: readonly Kind[] } | null {
  switch (entry.kind) {
    case 'claim checked':
    case 'claim weighed':
      return { field: 'claim', seq: entry.body.claim, kinds: ['claim'] }
    case 'offer answered':
      return { field: 'offer', seq: entry.body.offer, kinds: ['offer'] }
    case 'accounted':
      return {
        field: 'item',
        seq: Number.parseInt(String(entry.body.item), 10),
        kinds: ['missing', 'stroke', 'part', 'mark', 'replaced', 'look', 'trial'],
      }
    default:
      return null
  }
}

/**
 * What is wrong between a line and the lines before it: a strike of nothing, an answer to a line that is not there or
 * of another kind, an item that line never had, a picture that is not with the job. One rule for append and import.
 *
 * @param lineAt the line of that number, where it stands before this one
 * @param hasFile whether the job has the picture with this hash
 */
export function lineFault(
  entry: Entry,
  lineAt: (seq: number) => Entry | undefined,
  hasFile: (sha256: string) => boolean,
): LineFault | null {
  if (entry.strikes !== null && !lineAt(entry.strikes))
    return { field: 'strikes', text: `it strikes line ${entry.strikes}, which is not before it` }
  if (entry.kind === 'strike' && entry.strikes === null)
    return { field: 'strikes', text: 'a strike names the line it strikes' }
  const answered = answers(entry)
  if (answered) {
    const { field, seq, kinds } = answered
    const target = lineAt(seq)
    if (!target) return { field, text: `it answers line ${seq}, which is not before it` }
    if (!kinds.includes(target.kind))
      return { field, text: `it answers line ${seq}, which is a ${target.kind}` }
    if (entry.kind === 'accounted' && typeof entry.body.item === 'string') {
      const index = Number(entry.body.item.split('/')[1])
      if (index >= looseOf(target)) return { field, text: `line ${seq} left nothing loose numbered ${index}` }
    }
  }
  if (entry.kind === 'photo' && !hasFile(entry.body.file))
    return { field: 'file', text: 'its picture is not with the job' }
  if (entry.kind === 'consent' && entry.body.signature !== null && !hasFile(entry.body.signature))
    return { field: 'signature', text: 'its signature is not with the job' }
  return null
}
