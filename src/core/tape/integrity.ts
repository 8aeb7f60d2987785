import type { Line } from './line'
import type { KindSpec } from './slice'
import { asReadToday } from './upcast'

export interface LineFault {
  readonly field: string
  readonly text: string
}
export interface TapeFinding extends LineFault {
  readonly line: number
}

type Specs = ReadonlyMap<string, KindSpec<unknown>>

/** Lines another line names: those it answers and the one it strikes. */
export const namedLines = (
  specs: Specs,
  line: Pick<Line, 'kind' | 'body' | 'strikes'>,
): readonly number[] => [
  ...(line.strikes === null ? [] : [line.strikes]),
  ...(specs.get(line.kind)?.refers?.(line.body) ?? []).map((r) => r.seq),
]

/** What a line is about, with the line it corrects. */
export const subjectsOf = (
  specs: Specs,
  line: Pick<Line, 'kind' | 'body' | 'strikes'>,
): readonly string[] => [
  ...(line.strikes === null ? [] : [`entry ${line.strikes}`]),
  ...(specs.get(line.kind)?.subjects?.(line.body) ?? []),
]

/**
 * What is wrong between a line and the lines before it: a strike of nothing, an answer to a line that is not there or
 * of another kind, an item that line never had, a picture that is not with the job. One rule for append and import.
 *
 * @param lineAt the line of that number, where it stands before this one
 * @param hasFile whether the job has the file with this hash
 */
export function lineFault(
  specs: Specs,
  line: Line,
  lineAt: (seq: number) => Line | undefined,
  hasFile: (sha256: string) => boolean,
): LineFault | null {
  if (line.strikes !== null && !lineAt(line.strikes))
    return { field: 'strikes', text: `it strikes line ${line.strikes}, which is not before it` }
  if (line.kind === 'strike' && line.strikes === null)
    return { field: 'strikes', text: 'a strike names the line it strikes' }
  const spec = specs.get(line.kind)
  for (const { field, seq, to } of spec?.refers?.(line.body) ?? []) {
    const named = lineAt(seq)
    const target = named && asReadToday(specs, named)
    if (!target) return { field, text: `it answers line ${seq}, which is not before it` }
    const left = specs.get(target.kind)?.loose
    if ('loose' in to ? !left : !to.includes(target.kind))
      return { field, text: `it answers line ${seq}, which is a ${target.kind}` }
    if ('loose' in to && to.loose !== null && to.loose >= Math.max(1, left!(target.body).length))
      return { field, text: `line ${seq} left nothing loose numbered ${to.loose}` }
  }
  for (const { field, sha256, text } of spec?.files?.(line.body) ?? [])
    if (!hasFile(sha256)) return { field, text }
  return null
}

/**
 * What is wrong with a whole tape from outside: numbering, doubled ids, and whatever `lineFault` finds of a line.
 * Findings, never an exception; at most 40.
 */
export function tapeFindings(
  specs: Specs,
  lines: readonly Line[],
  hasFile: (sha256: string) => boolean = () => true,
): TapeFinding[] {
  const findings: TapeFinding[] = []
  const ids = new Map<string, number>()
  const say = (line: number, field: string, text: string) => findings.push({ line, field, text })
  lines.forEach((line, i) => {
    if (findings.length >= 40) return
    if (line.seq !== i + 1) say(line.seq, 'seq', `line ${i + 1} is numbered ${line.seq}`)
    const other = ids.get(line.id)
    if (other !== undefined) say(line.seq, 'id', `it has the id of line ${other}`)
    ids.set(line.id, line.seq)
    const fault = lineFault(specs, line, (seq) => (seq < line.seq ? lines[seq - 1] : undefined), hasFile)
    if (fault) say(line.seq, fault.field, fault.text)
  })
  return findings.slice(0, 40)
}
