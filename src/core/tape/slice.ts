import type { Draft } from 'immer'
import type { Command } from './command'
import type { Line } from './line'

/** What a line does to the board: everything that it could have undone is owed again. */
export interface BoardChange {
  /** First power is owed again after it; the words say after what. Empty when only proofs are. */
  readonly what?: string
  /** Heat or solder: the rails are measured again before power. */
  readonly heat?: true
  /** Another cell, module or card: it leaves every rail as it was. */
  readonly sparesRails?: true
  /** Another cell, chip or supply, or nothing that was done: it cannot have taken a rail’s short away. */
  readonly liftsNoShort?: true
  /** A repair or another supply: it may have put right what was too high. */
  readonly putsRight?: true
  /** Proofs that it could have undone. */
  readonly undoes?: 'all' | 'firmware' | 'cpu' | 'cell'
}

/** Another coin cell: it touches nothing else, however it was noted. */
export const newCell: BoardChange = {
  what: 'a new cell',
  undoes: 'cell',
  sparesRails: true,
  liftsNoShort: true,
}

/** Something a line leaves loose: a fragment, a part. */
export interface Loose {
  readonly what: string
  readonly from: string
  /** The contact it broke off, where it did. */
  readonly contact?: string
  /** It was found broken, rather than broken here: asked for once a contact. */
  readonly found?: true
}

/** What a line says of loose things that stand already. */
export type LooseSettled =
  /** It is all there after all: what was only found missing of a contact is not asked for any more. */
  | { readonly withdraw: string }
  /** Another contact stands in its place, or in every place: what breaks off that is asked for anew. */
  | { readonly renew: string | 'all' }
  /** A part that was taken off is on the board again; or is there after all, in other words. */
  | { readonly refit: string; readonly where?: string }

/** A line that another answers: the field that names it and the kinds it may be of. */
export interface Reference {
  readonly field: string
  readonly seq: number
  /** Kinds it may be of; `loose` for any that left something loose, by its place among them. */
  readonly to: readonly string[] | { readonly loose: number | null }
}

/** A file a line names, by its hash; it has to hang on the job. */
export interface NamedFile {
  readonly field: string
  readonly sha256: string
  /** What is wrong when it does not. */
  readonly text: string
}

/** Everything the tape knows of one kind of line, beside what the slices hear in it. */
export interface KindSpec<B> {
  /** The line as it is read at the bench. */
  readonly words: (line: Line<string, B>) => string
  /** The station that is begun by it. */
  readonly opens?: string
  /** What it is about, so that two people writing about the same thing at once can be told. */
  readonly subjects?: (body: B) => readonly string[]
  /** Contacts it names; each has to be one of the job's socket. */
  readonly contacts?: (body: B) => readonly string[]
  readonly files?: (body: B) => readonly NamedFile[]
  /** The lines it answers: one rule for append and import. */
  readonly refers?: (body: B) => readonly Reference[]
  readonly changesBoard?: (body: B) => BoardChange | null
  readonly loose?: (body: B) => readonly Loose[]
  readonly settlesLoose?: (body: B) => readonly LooseSettled[]
  /** An older line as it is read today, of this kind or another; null when it stands as it is. */
  readonly upcast?: (body: B, v: number) => { readonly kind: string; readonly body: unknown } | null
}

export type Specs<Bodies> = { readonly [K in keyof Bodies]: KindSpec<Bodies[K]> }

/** What the fold knows beside the lines. */
export interface FoldContext {
  /** Contacts of the job's socket, for “all looked at”. */
  readonly contactNames: readonly string[]
}

/** What the kind of a line says it does, worked out once for every slice. */
export interface Effects {
  readonly opens: string | null
  readonly change: BoardChange | null
  readonly loose: readonly Loose[]
  readonly settled: readonly LooseSettled[]
}

/**
 * One station's share of the tape: its kinds and what it hears in lines, its own and those of others.
 * `Heard` are bodies of other slices' kinds, as far as this one reads them.
 */
export interface Slice<Id extends string, Bodies, S, Heard = unknown> {
  readonly id: Id
  readonly kinds: Specs<Bodies>
  readonly initial: () => S
  /** Words a typed line may begin with. */
  readonly commands?: readonly Command[]
  readonly on: {
    readonly [K in keyof (Bodies & Heard)]?: (
      state: Draft<S>,
      line: Line<string, (Bodies & Heard)[K]>,
      context: FoldContext,
    ) => void
  }
  /** Hears every line by what it does, whatever its kind. Runs before `on`. */
  readonly each?: (state: Draft<S>, line: Line, effects: Effects) => void
}

/** A slice with its types read off. */
export const slice = <Bodies, Heard = unknown>() => ({
  of: <Id extends string, S>(made: Slice<Id, Bodies, S, Heard>): Slice<Id, Bodies, S, Heard> => made,
})
