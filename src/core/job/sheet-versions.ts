import type { SheetPart, SheetWords } from '../hand-back/sheet-words'
import type { Socket } from '../socket/model/socket'
import { struckBy } from '../tape/line'
import type { AdviceSetting } from './advice-setting'
import { jobState } from './job-state'
import type { Entry } from './job-state'
import { handBackSheet, sheetWords } from './sheet'
import type { HandBackSheet } from './sheet'
import { technicalParts } from './technical-sheet'

/** A sheet by its number: one that was signed, as it stood then, or the one that stands now. */
export interface SheetVersion {
  readonly version: number
  readonly entries: readonly Entry[]
  /** When and how it was signed; null for one that nobody has signed. */
  readonly signed: { readonly at: string; readonly how: string; readonly signature: string | null } | null
  /** What was signed, word for word; null where nothing was, or it was not kept. */
  readonly kept: SheetWords | null
}

/** A sheet as its version has it. */
export interface SheetRead {
  /** When it was handed back, or signed, or now. */
  readonly at: string
  /** From the tape, as this release reads it. */
  readonly sheet: HandBackSheet
  /** What it says: what was signed, where that was kept. */
  readonly words: SheetWords
  /** Its parts for a technician. */
  readonly technical: readonly SheetPart[]
}

/** What a version says. */
export function readVersion(
  { entries, signed, kept }: Pick<SheetVersion, 'entries' | 'signed' | 'kept'>,
  socket: Socket | null,
  now: string,
  setting: AdviceSetting,
): SheetRead {
  const state = jobState(
    entries,
    socket?.contacts.map((c) => c.name),
  )
  const at = state.handBack.done?.at ?? signed?.at ?? now
  const sheet = handBackSheet(state, socket, at, setting)
  const words = kept ?? sheetWords(sheet)
  const { changes } = sheet
  return {
    at,
    sheet,
    words,
    technical: technicalParts(entries, state, socket, { ...words, changes }, setting),
  }
}

/**
 * The sheets there have been: each that was signed as it stood at its line, whatever was written or struck since; and the one
 * that stands now, where its tape says anything else than that of the last that was signed.
 */
export function sheetVersions(
  entries: readonly Entry[],
  socket: Socket | null,
  setting: AdviceSetting,
): SheetVersion[] {
  const versions: SheetVersion[] = []
  const struck = struckBy(entries)
  entries.forEach((e, i) => {
    if (e.kind === 'sheet signed' && !struck.has(e.seq)) {
      const { how, signature, words } = e.body
      versions.push({
        version: versions.length + 1,
        entries: entries.slice(0, i + 1),
        signed: { at: e.at, how, signature },
        kept: words ?? null,
      })
    }
  })
  const last = versions.at(-1)
  const said = (upTo: readonly Entry[]): string => {
    const { sheet, words } = readVersion({ entries: upTo, signed: null, kept: null }, socket, '', setting)
    return JSON.stringify({ ...words, minutes: null, changes: sheet.changes })
  }
  return last && said(last.entries) === said(entries)
    ? versions
    : [...versions, { version: versions.length + 1, entries, signed: null, kept: null }]
}
