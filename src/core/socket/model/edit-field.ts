import { micrometre } from '../../maths/units'
import { smallestSpacing } from '../table/contact-table'
import { isRail } from '../contact/function-law'
import { MAX_CONTACTS } from './socket'
import { functionGroups } from '../../board/function-group'
import type { Contact, Socket, Trust } from './socket'
import type { FunctionGroup } from '../../board/function-group'

/** One change to a field of the library. */
export type FieldEdit =
  | { readonly edit: 'gap' | 'fill'; readonly contacts: readonly string[] }
  | { readonly edit: 'beams'; readonly contacts: readonly string[]; readonly beamDeg: number }
  | {
      readonly edit: 'function'
      readonly contacts: readonly string[]
      readonly group: FunctionGroup
      readonly trust: Trust
    }
  | {
      readonly edit: 'move'
      readonly contacts: readonly string[]
      readonly byMm: readonly [x: number, y: number]
    }
  | { readonly edit: 'rename'; readonly contact: string; readonly as: string }
  | { readonly edit: 'add'; readonly contact: string; readonly atMm: readonly [x: number, y: number] }

/** A field with its changes done: the contacts that stand, and the gaps that may be filled again. */
export interface EditedField {
  readonly contacts: readonly Contact[]
  readonly gaps: readonly Contact[]
}

/** Places nearer than this are one and the same, mm. */
const SAME_PLACE_MM = 0.05
/** Fewest contacts of a field: four are clicked to read a photo. */
const FEWEST = 4
const FARTHEST_MM = 100
const contactName = /^[A-Z]{1,3}\d{1,3}$/

/**
 * Does one change.
 * @returns the field with it, or a sentence that says why it cannot be done; then nothing is changed
 */
export function editField(field: EditedField, edit: FieldEdit): EditedField | string {
  const { contacts, gaps } = field
  switch (edit.edit) {
    case 'gap': {
      const out = new Set(edit.contacts)
      const left = contacts.filter((c) => !out.has(c.name))
      if (left.length < FEWEST) return `a field keeps ${FEWEST} contacts at least`
      return { contacts: left, gaps: [...gaps, ...contacts.filter((c) => out.has(c.name))] }
    }
    case 'fill': {
      const back = new Set(edit.contacts)
      return grown({ contacts, gaps: gaps.filter((g) => !back.has(g.name)) }, [
        ...gaps.filter((g) => back.has(g.name)),
      ])
    }
    case 'add': {
      const [xMm, yMm] = edit.atMm
      const name = edit.contact.trim().toUpperCase()
      const near = [...contacts].sort((a, b) => far(a, xMm, yMm) - far(b, xMm, yMm))[0]
      return grown({ contacts, gaps: gaps.filter((g) => g.name !== name) }, [
        {
          name,
          xMm: micrometre(xMm),
          yMm: micrometre(yMm),
          group: 'unknown',
          net: name,
          beamDeg: near?.beamDeg ?? 0,
          trust: 'none',
        },
      ])
    }
    case 'rename': {
      const as = edit.as.trim().toUpperCase()
      const here = contacts.find((c) => c.name === edit.contact)
      if (!here) return `there is no contact ${edit.contact}`
      const rest = { contacts: contacts.filter((c) => c !== here), gaps: gaps.filter((g) => g.name !== as) }
      const done = grown(rest, [{ ...here, name: as, net: here.net === here.name ? as : here.net }])
      // It keeps its place in the table.
      return typeof done === 'string'
        ? done
        : { ...done, contacts: contacts.map((c) => (c === here ? done.contacts.at(-1)! : c)) }
    }
    case 'beams':
      if (!Number.isFinite(edit.beamDeg)) return 'a direction is a number of degrees, 0 to the right'
      return changed(field, edit.contacts, (c) => ({ ...c, beamDeg: ((edit.beamDeg % 360) + 360) % 360 }))
    case 'function': {
      const { group, trust } = edit
      const rail = contacts.find((c) => c.group === group)?.net ?? group.replace(/\W/g, '_').toUpperCase()
      return changed(field, edit.contacts, (c) => ({
        ...c,
        group,
        trust,
        // Power and ground share one net; a signal keeps its own, and one that had none gets its name.
        net: shares(group) ? (group === 'ground' ? 'GND' : rail) : shares(c.group) ? c.name : c.net,
      }))
    }
    case 'move': {
      const [dx, dy] = edit.byMm
      if (!Number.isFinite(dx) || !Number.isFinite(dy)) return 'a move is two numbers of millimetres'
      const on = new Set(edit.contacts)
      const moved = contacts.map((c) =>
        on.has(c.name) ? { ...c, xMm: micrometre(c.xMm + dx), yMm: micrometre(c.yMm + dy) } : c,
      )
      return placesFault(moved) ?? { contacts: moved, gaps }
    }
  }
}

/** A field with contacts added, or why they cannot be. */
function grown({ contacts, gaps }: EditedField, more: readonly Contact[]): EditedField | string {
  if (contacts.length + more.length > MAX_CONTACTS)
    return `a field has at most ${MAX_CONTACTS.toLocaleString('en')} contacts`
  for (const c of more) {
    if (!contactName.test(c.name)) return `“${c.name}” is not a contact name: letters then a number, like M31`
    if (contacts.some((o) => o.name === c.name)) return `there is a contact ${c.name} already`
  }
  const all = [...contacts, ...more]
  return placesFault(all) ?? { contacts: all, gaps }
}

const shares = (group: FunctionGroup) => group === 'ground' || isRail(group)
const far = (c: Contact, xMm: number, yMm: number) => Math.hypot(c.xMm - xMm, c.yMm - yMm)

function changed(field: EditedField, names: readonly string[], to: (c: Contact) => Contact): EditedField {
  const on = new Set(names)
  return { ...field, contacts: field.contacts.map((c) => (on.has(c.name) ? to(c) : c)) }
}

/** Two contacts in one place, or one far off; null when all stand well. */
function placesFault(contacts: readonly Contact[]): string | null {
  const away = contacts.find((c) => !(Math.abs(c.xMm) <= FARTHEST_MM && Math.abs(c.yMm) <= FARTHEST_MM))
  if (away) return `${away.name} would lie more than ${FARTHEST_MM} mm from the centre`
  const sorted = [...contacts].sort((a, b) => a.xMm - b.xMm)
  for (let i = 0; i < sorted.length; i++)
    for (let j = i + 1; j < sorted.length && sorted[j]!.xMm - sorted[i]!.xMm < SAME_PLACE_MM; j++)
      if (Math.abs(sorted[j]!.yMm - sorted[i]!.yMm) < SAME_PLACE_MM)
        return `${sorted[i]!.name} and ${sorted[j]!.name} would stand in one place`
  return null
}

/** All changes in order, from the field they began with; those that cannot be done (any more) are left out. */
export function editedField(
  socket: Socket,
  edits: readonly FieldEdit[],
): EditedField & { readonly pitchMm: number } {
  let field: EditedField = { contacts: socket.contacts, gaps: [] }
  for (const edit of edits) {
    const next = editField(field, edit)
    if (typeof next !== 'string') field = next
  }
  return { ...field, pitchMm: smallestSpacing(field.contacts) ?? socket.pitchMm }
}

/** What a change is, in a few words. */
export function sayEdit(edit: FieldEdit): string {
  if (edit.edit === 'rename') return `${edit.contact} is called ${edit.as.toUpperCase()}`
  if (edit.edit === 'add') return `${edit.contact.toUpperCase()} added at ${edit.atMm.join(', ')} mm`
  const who = some(edit.contacts)
  switch (edit.edit) {
    case 'gap':
      return `${who} taken out`
    case 'fill':
      return `${who} put back`
    case 'beams':
      return `${who}: beams run to ${edit.beamDeg}°`
    case 'function':
      return `${who}: ${edit.group}, ${edit.trust}`
    case 'move':
      return `${who} moved by ${edit.byMm.join(', ')} mm`
  }
}

/** “A1”, “A1 and A2”, “A1 … H12, 96 contacts”. */
export const some = (names: readonly string[]): string =>
  names.length <= 2
    ? names.join(' and ')
    : `${names[0]} … ${names.at(-1)}, ${names.length.toLocaleString('en')} contacts`

const halves: Readonly<Record<string, (c: Contact) => boolean>> = {
  all: () => true,
  left: (c) => c.xMm < 0,
  right: (c) => c.xMm > 0,
  far: (c) => c.yMm > 0,
  near: (c) => c.yMm < 0,
}

/**
 * Contacts said in words: two corners of a rectangle (`A1 H12`), a list (`A1, B7`), `row C`, `column 12`, a function
 * (`memory A`), a half (`left`, `far`…), or `all`.
 * @returns names in the order of the table, or a sentence that says what is meant to be typed
 */
export function chosenBy(contacts: readonly Contact[], words: string): readonly string[] | string {
  const said = words.trim().replace(/\s+/g, ' ')
  const names = (of: (c: Contact) => boolean) => contacts.filter(of).map((c) => c.name)
  const half = halves[said.toLowerCase()]
  if (half) return names(half)
  const group = functionGroups.find((g) => g.toLowerCase() === said.toLowerCase())
  if (group) return names((c) => c.group === group)
  const line = /^(row|column) ([a-z]{1,3}|\d{1,3})$/i.exec(said)
  if (line) {
    const wanted = line[2]!.toUpperCase()
    return names((c) => /^([A-Z]+)(\d+)$/.exec(c.name)?.[line[1]!.toLowerCase() === 'row' ? 1 : 2] === wanted)
  }
  const listed = said
    .toUpperCase()
    .split(/[\s,;:–-]+/)
    .filter(Boolean)
  const known = new Map(contacts.map((c) => [c.name, c]))
  const stranger = listed.find((name) => !known.has(name))
  if (listed.length === 0 || stranger)
    return `${stranger ? `there is no contact ${stranger}; say` : 'say'} two corners (A1 H12), a list (A1, B7), row C, column 12, a function, a half or all`
  if (listed.length === 2 && !/[,;]/.test(said)) {
    const [a, b] = listed.map((name) => known.get(name)!) as [Contact, Contact]
    const between = (v: number, p: number, q: number) =>
      v >= Math.min(p, q) - 1e-6 && v <= Math.max(p, q) + 1e-6
    return names((c) => between(c.xMm, a.xMm, b.xMm) && between(c.yMm, a.yMm, b.yMm))
  }
  const wanted = new Set(listed)
  return names((c) => wanted.has(c.name))
}
