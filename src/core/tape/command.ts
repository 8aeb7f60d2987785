/** A typed line, understood: what to put on the tape. */
export interface TypedLine {
  readonly kind: string
  readonly body: object
  /** The line it strikes. */
  readonly strikes: number | null
}

/** What is known of the board while a line is typed. */
export interface Bench {
  /** Whether a CPU is in, by what was fitted; null while nobody has said. */
  readonly cpu: 'in' | 'out' | null
  /** Rails of the board’s own. */
  readonly rails?: readonly string[]
}

/** A word a typed line begins with. */
export interface Command {
  readonly word: string
  readonly form: string
  readonly example: string
  readonly say: string
  /** What it says, as a line; or a sentence about what makes no sense. */
  readonly read: (rest: readonly string[], text: string, bench: Bench) => TypedLine | string
  /** The whole line in this word’s form, for a line that begins with what is measured; a sentence when it may mean two things; null when it is none. */
  readonly understands?: (line: readonly string[]) => string | { readonly say: string } | null
  /** What the second or third word may be, by its place from 1. */
  readonly choices?: Readonly<Record<number, readonly string[]>>
}

/** Lines of some kinds, made with the type of their bodies. */
export const lineOf =
  <Bodies>() =>
  <K extends keyof Bodies & string>(kind: K, body: Bodies[K], strikes: number | null = null): TypedLine => ({
    kind,
    body: body as object,
    strikes,
  })

/** A sentence about words that are left over, or null. */
export const leftOver = (rest: readonly string[], used: number): string | null =>
  rest.length > used ? `“${rest.slice(used).join(' ')}” is not understood` : null
