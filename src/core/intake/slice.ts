import type { Ticket, IntakeBodies } from './bodies'
import { intakeCommands } from './commands'
import { percent } from '../maths/percent'
import { notedOf, onLine } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export const emptyTicket: Ticket = {
  boardModelId: null,
  board: '',
  revision: '',
  serial: '',
  socketId: null,
  rails: [],
  use: '',
  complaint: '',
  cpu: '',
  memory: '',
  history: [],
  valueMinor: null,
  limitMinor: null,
  minutesPromised: null,
  promisedAt: null,
  warranty: 'unknown',
  warrantyDecision: '',
  diskLock: 'unknown',
}

export interface Claim extends Noted {
  readonly text: string
  /** Who says it as a second opinion, and the line that asked; null for the owner’s. */
  readonly opinion: { readonly asked: number; readonly by: string } | null
  readonly checked: IntakeBodies['claim checked'] | null
  readonly weighed: IntakeBodies['claim weighed'] | null
}
export interface Offer extends Noted {
  readonly text: string
  readonly limitMinor: number | null
  readonly minutes: number | null
  readonly approved: boolean | null
}

/** A question to somebody else, with photos. */
export interface Asked extends Noted {
  readonly text: string
  readonly of: string
  readonly photos: readonly string[]
}

/** A time that was promised, and the chance that it is kept, as it was reckoned then; null where it was taken back, or not reckoned. */
export interface PromiseMade extends Noted {
  readonly promisedAt: string | null
  readonly kept: number | null
}

export interface IntakeState {
  readonly ticket: Ticket
  readonly promises: readonly PromiseMade[]
  readonly claims: readonly Claim[]
  readonly asked: readonly Asked[]
  readonly consent: (Noted & IntakeBodies['consent']) | null
  readonly offers: readonly Offer[]
}

export const fieldWords: Readonly<Record<keyof Ticket, string>> = {
  boardModelId: 'board model',
  board: 'board',
  revision: 'revision',
  serial: 'serial',
  socketId: 'socket',
  rails: 'rails of its own',
  use: 'use',
  complaint: 'complaint',
  cpu: 'CPU',
  memory: 'memory',
  history: 'history',
  valueMinor: 'value',
  limitMinor: 'price limit',
  minutesPromised: 'minutes promised',
  promisedAt: 'promised',
  warranty: 'warranty',
  warrantyDecision: 'warranty decision',
  diskLock: 'disk lock',
}

export const intake = slice<IntakeBodies>().of({
  id: 'intake',
  commands: intakeCommands,
  initial: (): IntakeState => ({
    ticket: emptyTicket,
    promises: [],
    claims: [],
    asked: [],
    consent: null,
    offers: [],
  }),
  kinds: {
    ticket: {
      opens: 'intake',
      words: ({ body: { set, kept } }) =>
        (set.complaint
          ? `ticket: ${set.complaint}`
          : `ticket: ${Object.keys(set)
              .map((f) => fieldWords[f as keyof Ticket])
              .join(', ')}`) + (kept === undefined ? '' : `, ${percent(kept)} that it is kept`),
      subjects: ({ set }) => Object.keys(set).map((field) => `ticket ${field}`),
    },
    claim: {
      opens: 'intake',
      words: ({ body: b }) => (b.opinion ? `${b.opinion.by}: ${b.text}` : b.text),
      refers: (b) =>
        b.opinion ? [{ field: 'opinion.asked', seq: b.opinion.asked, to: ['opinion asked'] }] : [],
    },
    'opinion asked': {
      words: ({ body: b }) => `second opinion asked${b.of ? ` of ${b.of}` : ''}: ${b.text}`,
      files: (b) =>
        b.photos.map((sha256) => ({ field: 'photos', sha256, text: 'its photo is not with the job' })),
    },
    'claim weighed': {
      words: ({ body: b }) =>
        `line ${b.claim} means ${b.test}: ${b.outcome}, believed ${percent(b.reliability)}`,
      subjects: (b) => [`claim ${b.claim}`],
      refers: (b) => [{ field: 'claim', seq: b.claim, to: ['claim'] }],
    },
    'claim checked': {
      words: ({ body: b }) => `checked line ${b.claim}: ${b.verdict}${b.how ? `, ${b.how}` : ''}`,
      subjects: (b) => [`claim ${b.claim}`],
      refers: (b) => [{ field: 'claim', seq: b.claim, to: ['claim'] }],
    },
    consent: {
      opens: 'intake',
      words: ({ body: b }) =>
        `owner agreed to ${b.risks.length} ${b.risks.length === 1 ? 'risk' : 'risks'}${b.how ? `, ${b.how}` : ''}`,
      files: (b) =>
        b.signature === null
          ? []
          : [{ field: 'signature', sha256: b.signature, text: 'its signature is not with the job' }],
    },
    offer: { words: ({ body: b }) => `changed offer: ${b.text}` },
    'offer answered': {
      words: ({ body: b }) =>
        `owner ${b.approved ? 'approves' : 'refuses'} the offer${b.how ? ` (${b.how})` : ''}`,
      subjects: (b) => [`offer ${b.offer}`],
      refers: (b) => [{ field: 'offer', seq: b.offer, to: ['offer'] }],
    },
  },
  on: {
    ticket(s, line) {
      const { set, kept = null } = line.body
      Object.assign(s.ticket, set)
      if (set.promisedAt !== undefined)
        s.promises.push({ ...notedOf(line), promisedAt: set.promisedAt, kept })
    },
    claim(s, line) {
      const { text, opinion = null } = line.body
      s.claims.push({ ...notedOf(line), text, opinion, checked: null, weighed: null })
    },
    'opinion asked'(s, line) {
      s.asked.push({ ...notedOf(line), ...line.body, photos: [...line.body.photos] })
    },
    'claim weighed'(s, { body }) {
      const claim = onLine(s.claims, body.claim)
      if (claim) claim.weighed = body
    },
    'claim checked'(s, { body }) {
      const claim = onLine(s.claims, body.claim)
      if (claim) claim.checked = body
    },
    consent(s, line) {
      s.consent = { ...notedOf(line), ...line.body, risks: [...line.body.risks] }
      if (line.body.limitMinor !== null) s.ticket.limitMinor = line.body.limitMinor
    },
    offer(s, line) {
      s.offers.push({ ...notedOf(line), ...line.body, approved: null })
    },
    'offer answered'(s, { body }) {
      const offer = onLine(s.offers, body.offer)
      if (!offer) return
      offer.approved = body.approved
      if (!body.approved) return
      s.ticket.limitMinor = offer.limitMinor ?? s.ticket.limitMinor
      s.ticket.minutesPromised = offer.minutes ?? s.ticket.minutesPromised
    },
  },
})

/** The board by its name and revision; empty while nobody named it. */
export const boardOf = ({ board, revision }: Pick<Ticket, 'board' | 'revision'>): string =>
  [board, revision && `rev ${revision}`].filter(Boolean).join(' ')

/** Changed offers the owner has not answered yet. */
export const openOffers = ({ offers }: IntakeState): readonly Offer[] =>
  offers.filter((o) => o.approved === null)

export const uncheckedClaims = ({ claims }: IntakeState): readonly Claim[] =>
  claims.filter((c) => c.checked === null)
