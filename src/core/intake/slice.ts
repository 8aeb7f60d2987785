import { intakeCommands } from './commands'
import type { HistoryItem } from '../board/history-item'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

/** What the ticket says; every field may be unknown. Money in minor units, minutes of bench time. */
export interface Ticket {
  readonly boardModelId: string | null
  readonly board: string
  readonly revision: string
  readonly serial: string
  readonly socketId: string | null
  readonly use: string
  readonly complaint: string
  readonly cpu: string
  readonly memory: string
  readonly history: readonly HistoryItem[]
  readonly valueMinor: number | null
  readonly limitMinor: number | null
  readonly minutesPromised: number | null
  readonly promisedAt: string | null
  readonly warranty: 'unknown' | 'none' | 'in warranty' | 'paid repair offered'
  readonly warrantyDecision: string
  readonly diskLock: 'unknown' | 'no' | 'yes, owner told'
}

export const emptyTicket: Ticket = {
  boardModelId: null,
  board: '',
  revision: '',
  serial: '',
  socketId: null,
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

export interface IntakeBodies {
  ticket: { readonly set: Partial<Ticket> }
  claim: { readonly text: string }
  /** What a claim says in the words of a test, and how far it is believed. */
  'claim weighed': {
    readonly claim: number
    readonly test: string
    readonly outcome: string
    readonly reliability: number
  }
  'claim checked': {
    readonly claim: number
    readonly verdict: 'holds' | 'wrong' | 'cannot tell'
    readonly how: string
  }
  consent: {
    readonly risks: readonly string[]
    readonly limitMinor: number | null
    readonly signature: string | null
    /** How they agreed: signed here, on paper, by telephone. */
    readonly how: string
  }
  offer: { readonly text: string; readonly limitMinor: number | null; readonly minutes: number | null }
  'offer answered': { readonly offer: number; readonly approved: boolean; readonly how: string }
}

export interface Claim extends Noted {
  readonly text: string
  readonly checked: IntakeBodies['claim checked'] | null
  readonly weighed: IntakeBodies['claim weighed'] | null
}
export interface Offer extends Noted {
  readonly text: string
  readonly limitMinor: number | null
  readonly minutes: number | null
  readonly approved: boolean | null
}

export interface IntakeState {
  readonly ticket: Ticket
  readonly claims: readonly Claim[]
  readonly consent: (Noted & IntakeBodies['consent']) | null
  readonly offers: readonly Offer[]
}

export const fieldWords: Readonly<Record<keyof Ticket, string>> = {
  boardModelId: 'board model',
  board: 'board',
  revision: 'revision',
  serial: 'serial',
  socketId: 'socket',
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

/** The item that stands on a line; lists stand in the order of the tape. */
function onLine<T extends Noted>(list: T[], seq: number): T | null {
  let [low, high] = [0, list.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (list[middle]!.seq < seq) low = middle + 1
    else high = middle
  }
  return list[low]?.seq === seq ? list[low]! : null
}

export const intake = slice<IntakeBodies>().of({
  id: 'intake',
  commands: intakeCommands,
  initial: (): IntakeState => ({ ticket: emptyTicket, claims: [], consent: null, offers: [] }),
  kinds: {
    ticket: {
      opens: 'intake',
      words: ({ body: { set } }) =>
        set.complaint
          ? `ticket: ${set.complaint}`
          : `ticket: ${Object.keys(set)
              .map((f) => fieldWords[f as keyof Ticket])
              .join(', ')}`,
      subjects: ({ set }) => Object.keys(set).map((field) => `ticket ${field}`),
    },
    claim: { opens: 'intake', words: ({ body: b }) => b.text },
    'claim weighed': {
      words: ({ body: b }) =>
        `line ${b.claim} means ${b.test}: ${b.outcome}, believed ${Math.round(b.reliability * 100)} in a hundred`,
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
    ticket(s, { body }) {
      Object.assign(s.ticket, body.set)
    },
    claim(s, line) {
      s.claims.push({ ...notedOf(line), text: line.body.text, checked: null, weighed: null })
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

/** Changed offers the owner has not answered yet. */
export const openOffers = ({ offers }: IntakeState): readonly Offer[] =>
  offers.filter((o) => o.approved === null)

export const uncheckedClaims = ({ claims }: IntakeState): readonly Claim[] =>
  claims.filter((c) => c.checked === null)
