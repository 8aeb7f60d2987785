/** What a board model is built for, as far as somebody noted it; null for what nobody did. */
export interface Build {
  /** As it is printed beside the slots or on the modules. */
  readonly memoryKind: string | null
  readonly memorySlots: number | null
  /** Along its rear edge, and away from it, mm. */
  readonly sizeMm: readonly [wide: number, deep: number] | null
  /** Card slots by how many lanes long they are. */
  readonly cardSlots: readonly number[] | null
  /** Supply plugs by their pins. */
  readonly supplyPins: readonly number[] | null
}

export const unknownBuild: Build = {
  memoryKind: null,
  memorySlots: null,
  sizeMm: null,
  cardSlots: null,
  supplyPins: null,
}

/** As it is written by hand: “244 × 305”, “16, 4, 1”. */
export type BuildWords = Readonly<Record<keyof Build, string>>

export const buildWords = (b: Build): BuildWords => ({
  memoryKind: b.memoryKind ?? '',
  memorySlots: b.memorySlots === null ? '' : String(b.memorySlots),
  sizeMm: b.sizeMm === null ? '' : b.sizeMm.join(' × '),
  cardSlots: b.cardSlots === null ? '' : said(b.cardSlots),
  supplyPins: b.supplyPins === null ? '' : said(b.supplyPins),
})

const wants: BuildWords = {
  memoryKind: 'Up to 60 letters, as printed beside the slots.',
  memorySlots: 'A whole number, 0 to 16; empty where nobody counted.',
  sizeMm: 'Along the rear edge × away from it in mm, like 244 × 305.',
  cardSlots: 'Lanes of each slot, like 16, 4, 1; none where there are no slots.',
  supplyPins: 'Pins of each plug, like 24, 8.',
}

/** A build from what was typed; what is wrong with a field, and how it is written. */
export function readBuild(typed: BuildWords): {
  readonly build: Build
  readonly faults: Readonly<Partial<BuildWords>>
} {
  const faults: Partial<Record<keyof Build, string>> = {}
  const read = <K extends keyof Build>(
    key: K,
    of: (words: string) => Build[K] | undefined,
  ): Build[K] | null => {
    const words = typed[key].trim()
    const value = words === '' ? null : of(words)
    if (value !== undefined) return value
    faults[key] = wants[key]
    return null
  }
  const whole = (words: string, from: number, to: number) => {
    const n = Number(words)
    return /^\d+$/.test(words) && n >= from && n <= to ? n : undefined
  }
  const list = (words: string, to: number, many: number) => {
    const all = /^none$/i.test(words) ? [] : words.split(/[\s,;+]+/).map((w) => whole(w, 1, to))
    return all.length <= many && all.every((n) => n !== undefined) ? all : undefined
  }
  const build: Build = {
    memoryKind: read('memoryKind', (words) => (words.length <= 60 ? words : undefined)),
    memorySlots: read('memorySlots', (words) => whole(words, 0, MOST_SLOTS)),
    sizeMm: read('sizeMm', (words) => {
      const [wide, deep, ...more] = words
        .replace(/mm$/i, '')
        .split(/[x×*]/)
        .map((w) => whole(w.trim(), 50, 600))
      return wide !== undefined && deep !== undefined && more.length === 0 ? [wide, deep] : undefined
    }),
    cardSlots: read('cardSlots', (words) => list(words, 32, 12)),
    supplyPins: read('supplyPins', (words) => list(words, 40, 8)),
  }
  return { build, faults }
}

/** Whether what the owner has goes over to another board. */
export interface Fits {
  /** Why it cannot. */
  readonly never: readonly string[]
  /** What has to be looked at, because it differs or because nobody noted it. */
  readonly look: readonly string[]
}

const MOST_SLOTS = 16
const MOST_MODULES = 8

/** How many memory modules a ticket tells, like “2 × 8 GB”; null where it does not say. */
export function modulesIn(words: string): number | null {
  const times = [...words.matchAll(/(\d+)\s*(?:[x×*]\s*\d|modules?\b)/gi)].reduce(
    (n, m) => n + Number(m[1]),
    0,
  )
  const modules = times > 0 ? times : /^\s*(one|single)\b/i.test(words) ? 1 : listed(words)
  return modules > 0 && modules <= MOST_MODULES ? modules : null
}

/** Sizes one after the other, like “8 GB, 8 GB”; a single one may be of several modules. */
const listed = (words: string): number => {
  const sizes = words.match(/\d+\s*GB/gi)?.length ?? 0
  return sizes > 1 ? sizes : 0
}

const most = (of: readonly number[]) => [...of].sort((a, b) => b - a)
const sameWords = (a: string, b: string) =>
  a.trim().replace(/\s+/g, ' ').toLowerCase() === b.trim().replace(/\s+/g, ' ').toLowerCase()

/**
 * Whether memory, cards, supply and case of one board take another: what was in the one that came goes onto the other, where both
 * are noted. What either does not tell is to be looked at, never taken to fit.
 * @param memory the owner’s modules, in the ticket’s words
 */
export function fitsFor(came: Build, memory: string, other: Build): Fits {
  const never: string[] = []
  const look = [caseOf(came.sizeMm, other.sizeMm)]
  const kinds = came.memoryKind !== null && other.memoryKind !== null
  if (kinds && !sameWords(came.memoryKind, other.memoryKind))
    never.push(`it takes memory “${other.memoryKind}”, the one that came “${came.memoryKind}”`)
  const modules = modulesIn(memory)
  const slots = other.memorySlots
  const open = [
    ...(kinds ? [] : ['its kind']),
    ...(slots === null ? ['as many slots as there are modules'] : []),
    ...(slots !== null && modules === null && (came.memorySlots ?? Infinity) > slots
      ? [
          `${slots} ${slots === 1 ? 'slot' : 'slots'}${came.memorySlots === null ? '' : ` where there were ${came.memorySlots}`}, so count the owner’s modules`,
        ]
      : []),
  ]
  if (open.length > 0) look.push(`memory: ${open.join(', and ')}`)
  if (slots !== null && modules !== null && slots < modules)
    never.push(`it has ${slots} memory ${slots === 1 ? 'slot' : 'slots'}, the owner ${modules} modules`)
  if (came.cardSlots === null || other.cardSlots === null)
    look.push('card slots: as many, as long, where the cards need them')
  else {
    const [had, has] = [most(came.cardSlots), most(other.cardSlots)]
    if (!had.every((lanes, i) => (has[i] ?? 0) >= lanes))
      look.push(`card slots: ${said(has)}; the one that came had ${said(had)}: which cards go in`)
  }
  if (came.supplyPins === null || other.supplyPins === null)
    look.push('supply plugs: whether the supply has them all')
  else {
    const left = [...came.supplyPins]
    const there = other.supplyPins.every((pins) => {
      const at = left.indexOf(pins)
      if (at >= 0) left.splice(at, 1)
      return at >= 0
    })
    if (!there)
      look.push(
        `supply plugs: ${said(most(other.supplyPins))} pins; the one that came had ${said(most(came.supplyPins))}: whether the supply has them`,
      )
  }
  return { never, look }
}

const said = (of: readonly number[]) => (of.length === 0 ? 'none' : of.join(', '))

function caseOf(came: Build['sizeMm'], other: Build['sizeMm']): string {
  const always = 'rear openings, room round the cooler, front headers'
  if (!came || !other) return `the case: holes, ${always}`
  const [wide, deep] = other
  const size = `${wide} × ${deep} mm`
  if (wide > came[0] || deep > came[1])
    return `the case: it is ${size}, the one that came ${came[0]} × ${came[1]}: whether it goes in; ${always}`
  return wide === came[0] && deep === came[1]
    ? `the case: ${always}`
    : `the case: it is smaller, ${size}: holes; ${always}`
}
