import { castDraft } from 'immer'
import type { PartsBodies } from './bodies'
import { sayCount, shortOf, uncounted } from './count'
import { noPulls } from './heat/pulls'
import type { Pulls } from './heat/pulls'
import { sayRecipe } from './heat/timed-list'
import { readingsOf } from './missing/pad'
import { notedOf, onLine } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface PartsState {
  readonly noted: readonly (Noted & PartsBodies['part'])[]
  /** What was last read of the pads of each part, by its name. */
  readonly pads: Readonly<Record<string, Noted & PartsBodies['pads']>>
  readonly counts: readonly (Noted & PartsBodies['parts counted'])[]
  /** Heat recipes as they were kept, each with what a thermocouple read while it ran. */
  readonly recipes: readonly KeptRecipe[]
  /** Work left for later, and how it was settled. */
  readonly deferred: readonly Deferred[]
  readonly awaited: readonly Awaited[]
  /** Contacts pulled from donors for practice, by what they came as. */
  readonly pulls: Pulls
  /** What this job holds and has used of the shelf, pieces. */
  readonly stock: Readonly<Record<string, { readonly held: number; readonly used: number }>>
}
export interface Deferred extends Noted {
  readonly text: string
  readonly settled: { readonly how: 'done' | 'signed off'; readonly why: string; readonly by: string } | null
}
export interface Awaited extends Noted {
  readonly what: string
  readonly expectedOn: string | null
  readonly settled: PartsBodies['awaited settled']['how'] | null
}
export type KeptRecipe = Noted &
  PartsBodies['recipe'] & { readonly readings: readonly (Noted & PartsBodies['thermocouple'])[] }

/** Work left for later that nobody has done or answered for. */
export const openDeferred = ({ deferred }: Pick<PartsState, 'deferred'>): readonly Deferred[] =>
  deferred.filter((d) => d.settled === null)

/** What a job waits for: all of it, and the day the last of it is expected; null while it is not known of some. */
export function waitsFor({ awaited }: Pick<PartsState, 'awaited'>): WaitsFor | null {
  const open = awaited.filter((a) => a.settled === null)
  if (open.length === 0) return null
  const days = open.map((a) => a.expectedOn)
  const last = days.reduce((a, b) => (a === null || b === null ? null : a > b ? a : b))
  return { what: open.map((a) => a.what).join(', '), expectedOn: last ?? null }
}
export interface WaitsFor {
  readonly what: string
  readonly expectedOn: string | null
}

/** One piece moved: what is used was held until then, where anything was. */
function moved(
  stock: Record<string, { held: number; used: number }>,
  item: string,
  did: PartsBodies['stock']['did'],
): void {
  const { held, used } = stock[item] ?? { held: 0, used: 0 }
  stock[item] = {
    held: did === 'reserved' ? held + 1 : Math.max(0, held - 1),
    used: used + (did === 'used' ? 1 : 0),
  }
}

export const parts = slice<PartsBodies>().of({
  id: 'parts',
  initial: (): PartsState => ({
    noted: [],
    pads: {},
    counts: [],
    recipes: [],
    stock: {},
    pulls: noPulls,
    deferred: [],
    awaited: [],
  }),
  kinds: {
    pads: {
      opens: 'parts',
      subjects: ({ ref }) => [`pads ${ref}`],
      words: ({ body: b }) => {
        const read = (['a', 'b'] as const).map((pad) => readingsOf(b[pad]).map((r) => r.what))
        const said = read.map((r, i) => `pad ${i === 0 ? 'A' : 'B'} ${r.join(', ') || 'not read'}`)
        return `${b.ref}: ${said.join('; ')}`
      },
    },
    'parts counted': {
      opens: 'parts',
      words: ({ body: b }) => sayCount(b),
      loose: (b) => (shortOf(b) > 0 ? [{ what: `part ${uncounted(b.place)}`, from: 'board' }] : []),
      settlesLoose: (b) =>
        b.of === undefined || shortOf(b) > 0
          ? []
          : [{ refit: uncounted(b.place), where: 'all there, counted again' }],
    },
    recipe: { opens: 'parts', words: ({ body }) => `heat recipe, ${sayRecipe(body)}` },
    awaited: {
      opens: 'parts',
      words: ({ body: b }) =>
        `awaited: ${b.what}${b.expectedOn === null ? '' : `, expected on ${b.expectedOn}`}`,
    },
    'awaited settled': {
      words: ({ body: b }) => `line ${b.awaited}: ${b.how}`,
      subjects: (b) => [`awaited ${b.awaited}`],
      refers: (b) => [{ field: 'awaited', seq: b.awaited, to: ['awaited'] }],
    },
    deferred: { opens: 'parts', words: ({ body: b }) => `left for later: ${b.text}` },
    'deferred settled': {
      words: ({ body: b }) => `line ${b.deferred} ${b.how}${b.why ? `: ${b.why}` : ''}`,
      subjects: (b) => [`deferred ${b.deferred}`],
      refers: (b) => [{ field: 'deferred', seq: b.deferred, to: ['deferred'] }],
    },
    pull: {
      opens: 'parts',
      words: ({ body: b }) => `practice pull${b.donor ? ` from ${b.donor}` : ''}: came ${b.came}`,
    },
    stock: {
      opens: 'parts',
      words: ({ body: b }) => `shelf: ${b.item} ${b.did}`,
    },
    thermocouple: {
      opens: 'parts',
      words: ({ body: b }) => `thermocouple at the ${b.at}: ${b.c} °C at ${b.s} s`,
    },
    part: {
      opens: 'parts',
      words: ({ body: b }) =>
        [
          `${b.ref} ${b.did}`,
          b.how,
          b.place,
          b.net && `net ${b.net}`,
          b.value,
          b.stock && 'from the shelf',
          b.text,
        ]
          .filter(Boolean)
          .join(', '),
      changesBoard: ({ ref, did }) =>
        did === 'taken off' || did === 'fitted'
          ? { what: `${ref} ${did}`, heat: true, putsRight: true, undoes: 'all' }
          : null,
      loose: ({ ref, did }) =>
        did === 'taken off'
          ? [{ what: `part ${ref}`, from: 'board' }]
          : did === 'found missing'
            ? [{ what: `${ref} (found missing)`, from: 'board' }]
            : [],
      settlesLoose: ({ ref, did }) => (did === 'fitted' ? [{ refit: ref }] : []),
    },
  },
  on: {
    pads(s, line) {
      s.pads[line.body.ref] = castDraft({ ...notedOf(line), ...line.body })
    },
    'parts counted'(s, line) {
      s.counts.push({ ...notedOf(line), ...line.body })
    },
    recipe(s, line) {
      s.recipes.push(castDraft({ ...notedOf(line), ...line.body, readings: [] }))
    },
    thermocouple(s, line) {
      s.recipes.at(-1)?.readings.push({ ...notedOf(line), ...line.body })
    },
    awaited(s, line) {
      s.awaited.push({ ...notedOf(line), ...line.body, settled: null })
    },
    'awaited settled'(s, { body }) {
      const of = onLine(s.awaited, body.awaited)
      if (of) of.settled = body.how
    },
    deferred(s, line) {
      s.deferred.push({ ...notedOf(line), text: line.body.text, settled: null })
    },
    'deferred settled'(s, line) {
      const { deferred, how, why } = line.body
      const of = onLine(s.deferred, deferred)
      if (of) of.settled = { how, why, by: line.by }
    },
    pull(s, { body: { came } }) {
      s.pulls[came]++
    },
    stock(s, { body: { item, did } }) {
      moved(s.stock, item, did)
    },
    part(s, line) {
      const { did, stock } = line.body
      if (did === 'fitted' && stock !== undefined) moved(s.stock, stock, 'used')
      s.noted.push({ ...notedOf(line), ...line.body })
    },
  },
})
