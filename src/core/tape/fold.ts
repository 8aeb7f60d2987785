import { createDraft, finishDraft } from 'immer'
import type { Draft, Objectish } from 'immer'
import { struckBy } from './line'
import type { Line } from './line'
import { asReadToday } from './upcast'
import type { Effects, FoldContext, KindSpec, Slice } from './slice'

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a list of slices of different kinds
export type AnySlice = Slice<string, any, any, any>

/** Slices by their ids, each with the state it makes. */
export type StateOf<Slices extends readonly AnySlice[]> = {
  readonly [P in Slices[number] as P['id']]: ReturnType<P['initial']>
} & { readonly seq: number }

const noEffects: Effects = { opens: null, change: null, loose: [], settled: [] }

const effectsOf = (spec: KindSpec<unknown> | undefined, body: unknown): Effects =>
  spec
    ? {
        opens: spec.opens ?? null,
        change: spec.changesBoard?.(body) ?? null,
        loose: spec.loose?.(body) ?? [],
        settled: spec.settlesLoose?.(body) ?? [],
      }
    : noEffects

/** What is known of each kind, over all slices. */
export const specsOf = (slices: readonly AnySlice[]): ReadonlyMap<string, KindSpec<unknown>> =>
  new Map(slices.flatMap((s) => Object.entries(s.kinds as Record<string, KindSpec<unknown>>)))

/**
 * A fold over slices. Lines are heard into private drafts that are frozen at the end; a slice's state stays the same
 * object (`===`) when nothing in the lines changed it.
 */
export function folder<const Slices extends readonly AnySlice[]>(slices: Slices) {
  type State = StateOf<Slices>
  const specs = specsOf(slices)
  const empty = {
    seq: 0,
    ...Object.fromEntries(slices.map((s) => [s.id, s.initial() as unknown])),
  } as unknown as State

  const hear = (from: State, lines: readonly Line[], context: FoldContext): State => {
    if (lines.length === 0) return from
    const states = from as unknown as Readonly<Record<string, Objectish>>
    const drafts = slices.map((s) => createDraft(states[s.id]!))
    let { seq } = from
    for (const line of lines) {
      const today = asReadToday(specs, line)
      const heard = today.seq > 0 ? today : { ...today, seq: seq + 1 }
      seq = Math.max(seq, line.seq)
      const effects = effectsOf(specs.get(heard.kind), heard.body)
      for (let i = 0; i < slices.length; i++) {
        const state = drafts[i] as Draft<unknown>
        slices[i]!.each?.(state, heard, effects)
        ;(slices[i]!.on as Record<string, ((s: unknown, l: Line, c: FoldContext) => void) | undefined>)[
          heard.kind
        ]?.(state, heard, context)
      }
    }
    return {
      seq,
      ...Object.fromEntries(slices.map((s, i) => [s.id, finishDraft(drafts[i]!)])),
    } as unknown as State
  }

  return {
    empty,
    /**
     * Folds a tape into what it says now. Struck lines do not count; unsaved ones (seq 0) count last.
     * @param lines in order of seq
     */
    fold(lines: readonly Line[], context: FoldContext): State {
      const struck = struckBy(lines)
      const standing = lines.filter((l) => l.seq === 0 || !struck.has(l.seq))
      const state = hear(empty, standing, context)
      const last = lines.reduce((most, l) => Math.max(most, l.seq), 0)
      return last > state.seq ? { ...state, seq: last } : state
    },
    /** Folds further lines on; null when one of them strikes, which is a matter of the whole tape. */
    foldOn(from: State, lines: readonly Line[], context: FoldContext): State | null {
      return lines.some((l) => l.strikes !== null) ? null : hear(from, lines, context)
    },
  }
}
