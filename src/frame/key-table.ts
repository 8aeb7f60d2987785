import { keypad } from '@/core/socket/model/walk'
import { damageKinds, damageWords } from '@/core/socket/damage/mark'
import { stations } from '@/core/board/station'

/** Where a key counts. Of two that are live, the narrower has it: a question about a neighbour before the map's marks. */
export const keyScopes = [
  'everywhere in a job',
  'triage',
  'socket',
  'the strokes in hand',
  'which neighbour',
  'photos',
  'the board map',
  'photos compared',
  'proof',
  'the bench list',
  'a socket of your own',
  'needle practice',
  'hot air practice',
] as const
type KeyScope = (typeof keyScopes)[number]

export interface KeyMove {
  readonly scope: KeyScope
  /** As it is unless changed: what the key gives, with `shift+` before letters and named keys; `g 1` is one after the other. */
  readonly key: string
  readonly does: string
  /** A second key beside the usual one, as keyboards differ; it goes when the move is given another. */
  readonly also?: string
  /** It walks and writes nothing, so it may repeat while held. */
  readonly walks?: true
}

const scoped = <Id extends string>(
  scope: KeyScope,
  moves: Readonly<
    Record<Id, readonly [keys: string | readonly [string, string], does: string, walks?: 'walks']>
  >,
) =>
  Object.fromEntries(
    Object.entries<readonly [string | readonly [string, string], string, 'walks'?]>(moves).map(
      ([id, [keys, does, walks]]) => {
        const [key, also] = typeof keys === 'string' ? [keys] : keys
        return [id, { scope, key, does, ...(also ? { also } : {}), ...(walks ? { walks: true } : {}) }]
      },
    ),
  ) as Record<Id, KeyMove>

const each = <T extends string, Id extends string>(
  all: readonly T[],
  of: (one: T, i: number) => readonly [id: Id, key: string, does: string],
) =>
  Object.fromEntries(
    all.map((one, i): [Id, readonly [string, string]] => {
      const [id, key, does] = of(one, i)
      return [id, [key, does]]
    }),
  ) as Record<Id, readonly [string, string]>

const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const
/** What a photo may show instead: everything but that nothing is wrong, which has a key of its own. */
export const suspectKinds = damageKinds.filter((kind) => kind !== 'intact')
const markKeys = [...digits, 'h', 'l', 'p']

/** Every single key of the application: the one place where a key is given to a move. */
export const keyTable = {
  ...scoped('everywhere in a job', {
    ...each(stations, (s, i) => [`go.${s}` as const, `g ${i + 1}`, `go to ${s}`]),
    type: ['t', 'type on the tape'],
    undo: ['z', 'undo'],
    redo: ['shift+z', 'redo'],
    settle: ['e', 'mark the station done; open it again'],
    worthIt: ['$', 'is it worth going on?'],
    secondOpinion: ['&', 'ask for a second opinion'],
    keys: ['?', 'these keys'],
    glossary: ['#', 'the words of the trade'],
  }),
  ...scoped('triage', {
    powerUp: ['b', 'note a power-up'],
    carryOut: ['c', 'run the test on the simulated bench'],
    repaired: ['m', 'it is repaired'],
    otherTest: ['/', 'another test'],
    ...each(digits, (d) => [`outcome.${d}` as const, d, `the test in hand gave its outcome ${d}`]),
  }),
  ...scoped('socket', {
    walkLeft: ['arrowleft', 'walk left, as you see it', 'walks'],
    walkRight: ['arrowright', 'walk right', 'walks'],
    walkUp: ['arrowup', 'walk up', 'walks'],
    walkDown: ['arrowdown', 'walk down', 'walks'],
    nextMarked: ['.', 'next marked contact', 'walks'],
    previousMarked: [',', 'previous marked contact', 'walks'],
    lookedAt: [' ', 'inspected; in an inspection of the field: this stretch is good'],
    lookRow: ['n', 'inspected along the row: this one and the next nine'],
    ...each(damageKinds, (kind, i) => [`mark.${kind}` as const, markKeys[i]!, damageWords[kind].word]),
    markSnapped: ['x', 'snapped'],
    leanLeft: ['shift+arrowleft', 'lean it 0.05 mm left'],
    leanRight: ['shift+arrowright', 'lean it 0.05 mm right'],
    leanUp: ['shift+arrowup', 'lean it 0.05 mm up'],
    leanDown: ['shift+arrowdown', 'lean it 0.05 mm down'],
    raise: [['+', '='], 'raise it by 0.05 mm'],
    lower: ['-', 'lower it by 0.05 mm'],
    unsure: ['u', 'not sure of it'],
    swath: ['s', 'begin or end a range: marks and leans go to all of it'],
    noSwath: ['escape', 'let the range go'],
    sweep: ['w', 'inspect the whole field'],
    drawer: ['q', 'open what lies under the map; put it away'],
    fromPhotos: ['y', 'map from photos, and back'],
    turn: ['r', 'turn the view'],
    mirror: ['m', 'mirror it'],
    leans: ['k', 'exaggerate leans'],
    nearer: ['i', 'nearer'],
    farther: ['d', 'farther'],
    whole: ['f', 'whole field'],
    read: ['v', 'read the contact aloud'],
  }),
  ...scoped('the strokes in hand', {
    there: [' ', 'it is straight'],
    short: ['o', 'short: not straight yet'],
    past: ['b', 'overbent'],
    touching: ['j', 'touching a neighbour'],
    snapped: ['x', 'it snapped'],
    fewer: ['[', 'one stroke fewer'],
    more: [']', 'one stroke more'],
  }),
  ...scoped('which neighbour', {
    ...each(keypad, (k) => [`touches.${k}` as const, k, `the one that lies there on a keypad (${k})`]),
    touchesOpen: ['5', 'leave it open'],
  }),
  ...scoped('photos', {
    readPhoto: ['a', 'read the photo'],
    nextSuspect: ['.', 'next place to look at', 'walks'],
    previousSuspect: [',', 'previous place to look at', 'walks'],
    confirm: [' ', 'it is so'],
    dismiss: ['backspace', 'it is fine'],
    ...each(suspectKinds, (kind, i) => [
      `suspect.${kind}` as const,
      markKeys[i + 1]!,
      `no: ${damageWords[kind].word}`,
    ]),
  }),
  ...scoped('the board map', {
    findOnMap: ['/', 'find a part or a net'],
    flipBoard: ['b', 'the other side of the board'],
    turnBoard: ['r', 'turn it'],
    mirrorBoard: ['m', 'mirror it'],
    nearBoard: ['i', 'nearer'],
    farBoard: ['d', 'farther'],
    wholeBoard: ['f', 'the whole board'],
    boardMissing: ['x', 'the part is missing'],
    boardDamaged: ['c', 'the part is cracked'],
  }),
  ...scoped('photos compared', {
    comparePhotos: ['a', 'compare the two photos'],
    nextPlace: ['.', 'next place that differs', 'walks'],
    previousPlace: [',', 'the place before', 'walks'],
    placeMissing: ['x', 'a part is missing there'],
    placeMoved: ['m', 'a part is off its pads there'],
    placeNothing: ['backspace', 'nothing: light or print'],
  }),
  ...scoped('proof', {
    passes: ['p', 'the next test passes'],
    fails: ['n', 'the next test fails'],
    cannot: ['c', 'it cannot be run here'],
  }),
  ...scoped('the bench list', {
    takeIn: ['n', 'new job'],
    nextJob: ['arrowdown', 'to the next job', 'walks'],
    previousJob: ['arrowup', 'to the job before', 'walks'],
    firstMoves: ['h', 'put away what is worth trying first'],
  }),
  ...scoped('a socket of your own', {
    fieldUndo: ['z', 'undo'],
    fieldRedo: ['shift+z', 'redo'],
    takeOut: [['delete', 'backspace'], 'take the chosen contacts out'],
    chooseNone: ['escape', 'choose none'],
  }),
  ...scoped('needle practice', {
    takeLeft: ['arrowleft', 'take the tip 0.02 mm left', 'walks'],
    takeRight: ['arrowright', 'take the tip 0.02 mm right', 'walks'],
    farLeft: ['shift+arrowleft', 'take the tip 0.10 mm left', 'walks'],
    farRight: ['shift+arrowright', 'take the tip 0.10 mm right', 'walks'],
    letGo: [' ', 'let go; another when it is over'],
    another: ['n', 'another contact'],
    sameAgain: ['a', 'the same one again'],
  }),
  ...scoped('hot air practice', {
    heatOn: ['arrowright', 'five seconds on', 'walks'],
    heatFarOn: ['shift+arrowright', 'twenty seconds on', 'walks'],
    touchIt: ['t', 'touch it with the tweezers'],
    liftIt: ['x', 'lift it now'],
    anotherBoard: ['n', 'another board'],
    sameBoard: ['a', 'the same board again'],
  }),
} as const satisfies Record<string, KeyMove>

export type KeyId = keyof typeof keyTable
export const keyIds = Object.keys(keyTable) as KeyId[]
export const moveOf = (id: KeyId): KeyMove => keyTable[id]

export type GivenKeys = Readonly<Partial<Record<KeyId, string>>>

/** The keys of a move: the one it was given at this bench, or the usual one and what stands beside it. */
export function keysOf(id: KeyId, given: GivenKeys): readonly [string, ...string[]] {
  const { key, also } = moveOf(id)
  if (given[id] !== undefined) return [given[id]]
  return also === undefined ? [key] : [key, also]
}

const shown: Readonly<Record<string, string>> = {
  ' ': 'space',
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  backspace: '⌫',
  delete: 'del',
  escape: 'Esc',
  '-': '−',
}

/** A key as it stands on a button. */
export const sayKey = (key: string): string =>
  key
    .split(/(?<=\w)[+ ]/)
    .map((part) => shown[part] ?? part)
    .join(' ')

export const outsideJobs: readonly KeyScope[] = [
  'the bench list',
  'a socket of your own',
  'needle practice',
  'hot air practice',
]
/** Whether a key of the one would stand in the way of the other. */
const together = (a: KeyScope, b: KeyScope): boolean =>
  a === b ||
  (a === keyScopes[0] && !outsideJobs.includes(b)) ||
  (b === keyScopes[0] && !outsideJobs.includes(a))

/** What keeps a key from being given to a move, said; null when nothing does. Keys of other places do not clash. */
export function keyFault(id: KeyId, key: string, keys: GivenKeys): string | null {
  if (['tab', 'enter', 'shift+tab', 'shift+enter'].includes(key))
    return `${sayKey(key)} goes from field to field and presses buttons; take another`
  const { scope } = moveOf(id)
  const clash = keyIds.find((other) => {
    const move = moveOf(other)
    if (other === id || !together(scope, move.scope)) return false
    return keysOf(other, keys).some((taken) => taken === key || taken.startsWith(`${key} `))
  })
  return clash
    ? `${sayKey(key)} is “${moveOf(clash).does}” in ${moveOf(clash).scope}; give that another key first`
    : null
}
