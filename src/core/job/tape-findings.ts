import type { Entry } from './entry'

export interface TapeFinding {
  readonly line: number
  readonly field: string
  readonly text: string
}

/**
 * What is wrong with a whole tape from outside: numbering, doubled ids, strikes of lines that are not there or are
 * later, answers to lines of another kind. Findings, never an exception; at most 40.
 */
export function tapeFindings(entries: readonly Entry[]): TapeFinding[] {
  const findings: TapeFinding[] = []
  const ids = new Map<string, number>()
  const say = (line: number, field: string, text: string) => findings.push({ line, field, text })
  const refers = (entry: Entry, field: string, to: number, kinds: readonly Entry['kind'][]) => {
    const target = entries[to - 1]
    if (to >= entry.seq || !target) say(entry.seq, field, `it answers line ${to}, which is not before it`)
    else if (!kinds.includes(target.kind))
      say(entry.seq, field, `it answers line ${to}, which is a ${target.kind}`)
  }
  entries.forEach((entry, i) => {
    if (entry.seq !== i + 1) say(entry.seq, 'seq', `line ${i + 1} is numbered ${entry.seq}`)
    const other = ids.get(entry.id)
    if (other !== undefined) say(entry.seq, 'id', `it has the id of line ${other}`)
    ids.set(entry.id, entry.seq)
    if (entry.strikes !== null && !(entry.strikes >= 1 && entry.strikes < entry.seq))
      say(entry.seq, 'strikes', `it strikes line ${entry.strikes}, which is not before it`)
    if (entry.kind === 'claim checked') refers(entry, 'claim', entry.body.claim, ['claim'])
    if (entry.kind === 'claim weighed') refers(entry, 'claim', entry.body.claim, ['claim'])
    if (entry.kind === 'offer answered') refers(entry, 'offer', entry.body.offer, ['offer'])
    if (entry.kind === 'accounted') refers(entry, 'item', entry.body.item, ['missing', 'stroke', 'part'])
  })
  return findings.slice(0, 40)
}
