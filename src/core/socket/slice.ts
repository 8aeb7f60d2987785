import { lowerFirst } from '../sentence'
import { strokeWords } from './bodies'
import type { SocketBodies } from './bodies'
import { socketCommands } from './commands'
import { castDraft } from 'immer'
import type { Draft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'
import type { Loose, LooseSettled } from '../tape/slice'
import { afterStroke, isDamage, sayMark } from './damage/mark'
import type { Mark, Marks } from './damage/mark'
import type { Pass } from './damage/pass'
import type { School } from './straighten/plan'

export type StrokeDone = Noted & SocketBodies['stroke'] & { readonly school: School }

export interface SocketState {
  readonly passes: readonly Pass[]
  /** Each contact as it was found damaged, before anybody here worked on it. */
  readonly asFound: Marks
  /** Contacts that were worked on here, or came out with another: what is seen of them now is not how they were found. */
  readonly worked: Readonly<Record<string, true>>
  readonly strokes: readonly StrokeDone[]
  readonly left: Readonly<Record<string, string>>
  readonly replaced: readonly (Noted & SocketBodies['replaced'])[]
  readonly school: School
  readonly seats: readonly (Noted & SocketBodies['seat'])[]
  /** Line at which the map last changed. */
  readonly lastMapped: number
  /** The socket the map is of, by the ticket. */
  readonly socketId: string | null
}

type Open = Draft<SocketState>

/** The pass in hand; a first mark without one opens “before”. */
function passInHand(s: Open, at: string) {
  if (s.passes.length === 0) s.passes.push({ name: 'before', at, marks: {}, found: {}, looked: {} })
  return s.passes.at(-1)!
}

/** What was seen of the field in this pass says nothing of it as it is now. */
function lookAgain(s: Open): void {
  const pass = s.passes.at(-1)
  if (pass) pass.looked = {}
}

const mayBe = (mark: Mark, kind: Mark['kind']) => mark.kind === kind || mark.maybe === kind

/** What is not all there of a marked contact, or null. */
const brokenOff = (mark: Mark) =>
  mayBe(mark, 'snapped') ? 'fragment' : mayBe(mark, 'tip gone') ? 'tip' : null

export const socket = slice<
  SocketBodies,
  { ticket: { readonly set: { readonly socketId?: string | null } } }
>().of({
  id: 'socket',
  commands: socketCommands,
  initial: (): SocketState => ({
    passes: [],
    asFound: {},
    worked: {},
    strokes: [],
    left: {},
    replaced: [],
    school: 'A',
    seats: [],
    lastMapped: 0,
    socketId: null,
  }),
  kinds: {
    pass: { opens: 'socket', words: ({ body: b }) => `inspection: ${b.name}`, subjects: () => ['pass'] },
    looked: {
      opens: 'socket',
      words: ({ body: b }) =>
        b.contacts === 'all' ? 'whole field inspected' : `${b.contacts.length} contacts inspected`,
      contacts: (b) => (b.contacts === 'all' ? [] : b.contacts),
    },
    mark: {
      opens: 'socket',
      words: ({ body: b }) =>
        b.contacts.length === 1
          ? `${b.contacts[0]} ${sayMark(b.mark)}`
          : `${b.contacts.length} contacts ${sayMark(b.mark)}`,
      subjects: (b) => b.contacts.map((c) => `contact ${c}`),
      contacts: (b) => (b.mark.touches ? [...b.contacts, b.mark.touches] : b.contacts),
      // A contact that is found not to be all there: what broke off is asked for, once.
      loose: ({ contacts, mark }) => {
        const off = brokenOff(mark)
        return off === null
          ? []
          : contacts.map((contact): Loose => ({
              what: `${off} of ${contact}`,
              from: 'socket',
              contact,
              found: true,
            }))
      },
      settlesLoose: ({ contacts, mark }) =>
        brokenOff(mark) === null ? contacts.map((contact): LooseSettled => ({ withdraw: contact })) : [],
    },
    stroke: {
      opens: 'socket',
      words: ({ body: b }) =>
        `${b.contact} ${b.technique}, ${b.strokes} ${b.strokes === 1 ? 'stroke' : 'strokes'}, ${lowerFirst(strokeWords[b.result])}`,
      subjects: (b) => [`contact ${b.contact}`],
      contacts: (b) => [b.contact],
      changesBoard: () => ({ what: 'work on the socket', undoes: 'all' }),
      loose: (b) =>
        b.result === 'snapped'
          ? [{ what: `fragment of ${b.contact}`, from: 'socket', contact: b.contact }]
          : [],
    },
    left: {
      opens: 'socket',
      words: ({ body: b }) => `${b.contact} left as it is: ${b.why}`,
      subjects: (b) => [`contact ${b.contact}`],
      contacts: (b) => [b.contact],
    },
    replaced: {
      opens: 'socket',
      words: ({ body: b }) => {
        const out = b.pulledOut.length > 0 ? `; ${b.pulledOut.join(', ')} came out with it` : ''
        return b.how === 'whole socket'
          ? `whole socket changed${b.holds ? '' : ', it does not hold'}`
          : `${b.contact}: ${b.how}${b.donor ? ` from ${b.donor}` : ''}, ${b.holds ? 'it holds' : 'it does not hold'}${out}`
      },
      subjects: (b) => [b.contact, ...b.pulledOut].map((c) => `contact ${c}`),
      contacts: (b) => [b.contact, ...b.pulledOut],
      changesBoard: (b) =>
        b.how === 'stub raise'
          ? { what: `${b.contact} raised`, undoes: 'all' }
          : {
              what: b.how === 'whole socket' ? 'a new socket' : `the transplant of ${b.contact}`,
              heat: true,
              undoes: 'all',
            },
      settlesLoose: (b) => [{ renew: b.how === 'whole socket' ? 'all' : b.contact }],
      // What came out is gone from the field; it lies on the bench and stays to be accounted for.
      loose: (b) =>
        b.pulledOut.map((contact) => ({ what: `contact ${contact}, pulled out`, from: 'socket', contact })),
    },
    school: {
      words: ({ body: b }) => (b.school === 'A' ? 'order: easy ones first' : 'order: worst first'),
    },
    seat: {
      opens: 'socket',
      words: ({ body: b }) =>
        `seated ${b.cpu}: ${b.drop}${b.corner ? ` at the ${b.corner} corner` : ''}${b.turned ? ', turned' : ''}`,
      changesBoard: () => ({ what: 'the CPU seated', undoes: 'all' }),
    },
  },
  on: {
    ticket(s, { body: { set } }) {
      if (set.socketId === undefined) return
      // What was looked at on the map of one socket says nothing of another.
      if (s.socketId && set.socketId !== s.socketId) lookAgain(s)
      s.socketId = set.socketId
    },
    pass(s, line) {
      const marks = s.passes.at(-1)?.marks ?? {}
      s.passes.push({
        name: line.body.name,
        at: line.at,
        marks: { ...marks },
        found: { ...marks },
        looked: {},
      })
    },
    looked(s, line, { contactNames }) {
      s.lastMapped = line.seq
      const { looked } = passInHand(s, line.at)
      for (const name of line.body.contacts === 'all' ? contactNames : line.body.contacts) looked[name] = true
    },
    mark(s, line) {
      s.lastMapped = line.seq
      const pass = passInHand(s, line.at)
      const { contacts } = line.body
      const mark = castDraft(line.body.mark)
      const damaged = isDamage(mark)
      for (const name of contacts) {
        pass.looked[name] = true
        if (!s.worked[name]) {
          if (damaged) s.asFound[name] = mark
          else delete s.asFound[name]
        }
        if (damaged) pass.marks[name] = pass.found[name] = mark
        else {
          delete pass.marks[name]
          delete pass.found[name]
        }
      }
    },
    stroke(s, line) {
      const pass = passInHand(s, line.at)
      const { contact } = line.body
      s.strokes.push({ ...notedOf(line), ...line.body, school: s.school })
      pass.looked[contact] = true
      s.worked[contact] = true
      const now = afterStroke(pass.marks[contact], line.body)
      if (now) pass.marks[contact] = castDraft(now)
      else delete pass.marks[contact]
    },
    left(s, { body }) {
      s.left[body.contact] = body.why
    },
    replaced(s, line) {
      const pass = passInHand(s, line.at)
      const { contact, how, holds, pulledOut } = line.body
      s.replaced.push(castDraft({ ...notedOf(line), ...line.body }))
      if (holds && how === 'whole socket') {
        pass.marks = {}
        pass.looked = {} // nobody has looked at the new one
      } else if (holds) delete pass.marks[contact]
      s.worked[contact] = true
      for (const name of pulledOut) {
        s.worked[name] = true
        pass.marks[name] = pass.found[name] = { kind: 'snapped' }
      }
    },
    school(s, { body }) {
      s.school = body.school
    },
    seat(s, line) {
      s.seats.push({ ...notedOf(line), ...line.body })
      // A CPU that did not fall flat may have bent what it pressed on: the field is to be looked at again.
      const { drop, corner, turned } = line.body
      if (drop !== 'light push' && (drop !== 'flat' || corner || turned)) lookAgain(s)
    },
  },
})

/** The pass in hand, or null before the socket was looked at. */
export const currentPass = ({ passes }: SocketState): Pass | null => passes.at(-1) ?? null
