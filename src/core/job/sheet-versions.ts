import type { Socket } from '../socket/model/socket'
import { struckBy } from '../tape/line'
import { jobState } from './job-state'
import type { Entry } from './job-state'
import { handBackSheet, sheetParts } from './sheet'
import type { HandBackSheet, SheetPart } from './sheet'
import { technicalParts } from './technical-sheet'

/** A sheet by its number: one that was signed, as it stood then, or the one that stands now. */
export interface SheetVersion {
  readonly version: number
  readonly entries: readonly Entry[]
  /** When and how it was signed; null for one that nobody has signed. */
  readonly signed: { readonly at: string; readonly how: string; readonly signature: string | null } | null
}

const content = (sheet: HandBackSheet): string =>
  JSON.stringify([
    sheet.title,
    sheet.complaint,
    sheet.outcome,
    sheet.priceMinor,
    sheetParts(sheet),
    sheet.changes,
  ])

/** A sheet as its version has it. */
export interface SheetRead {
  /** When it was handed back, or signed, or now. */
  readonly at: string
  readonly sheet: HandBackSheet
  /** Its parts for a technician. */
  readonly technical: readonly SheetPart[]
}

/** What a version says. */
export function readVersion(
  { entries, signed }: Pick<SheetVersion, 'entries' | 'signed'>,
  socket: Socket | null,
  now: string,
): SheetRead {
  const state = jobState(
    entries,
    socket?.contacts.map((c) => c.name),
  )
  const at = state.handBack.done?.at ?? signed?.at ?? now
  const sheet = handBackSheet(state, socket, at)
  return { at, sheet, technical: technicalParts(entries, state, socket, sheet) }
}

/**
 * The sheets there have been: each that was signed as it stood at its line, whatever was written or struck since; and the one
 * that stands now, where it says anything else than the last that was signed.
 */
export function sheetVersions(entries: readonly Entry[], socket: Socket | null): SheetVersion[] {
  const versions: SheetVersion[] = []
  const struck = struckBy(entries)
  entries.forEach((e, i) => {
    if (e.kind === 'sheet signed' && !struck.has(e.seq))
      versions.push({
        version: versions.length + 1,
        entries: entries.slice(0, i + 1),
        signed: { at: e.at, how: e.body.how, signature: e.body.signature },
      })
  })
  const last = versions.at(-1)
  const now = { version: versions.length + 1, entries, signed: null }
  const said = (version: SheetVersion) => content(readVersion(version, socket, '').sheet)
  return last && said(last) === said(now) ? versions : [...versions, now]
}
