import type { HandBackBodies } from './bodies'
import { castDraft } from 'immer'
import { checkWords, notReassembled } from './reassembly'
import type { Reassembly } from './reassembly'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface HandBackState {
  readonly advice: readonly string[]
  readonly done: (Noted & HandBackBodies['hand-back']) | null
  readonly lateOutcomes: readonly (Noted & HandBackBodies['late outcome'])[]
  readonly reassembly: Reassembly
}

export const handBack = slice<HandBackBodies>().of({
  id: 'handBack',
  initial: (): HandBackState => ({
    advice: [],
    done: null,
    lateOutcomes: [],
    reassembly: notReassembled,
  }),
  kinds: {
    advice: { opens: 'hand-back', words: ({ body: b }) => `advice: ${b.text}` },
    'hand-back': {
      opens: 'hand-back',
      words: ({ body: b }) =>
        `${b.outcome === 'withdrawn' ? 'withdrawn: begun by mistake' : `handed back: ${b.outcome}${b.exchangedFor ? ` for ${b.exchangedFor}` : ''}`}${b.despite?.length ? ` (despite: ${b.despite.join('; ')})` : ''}`,
      subjects: () => ['hand-back'],
    },
    'sheet signed': {
      opens: 'hand-back',
      words: ({ body: b }) => `sheet signed, ${b.how}`,
      files: (b) =>
        b.signature === null
          ? []
          : [{ field: 'signature', sha256: b.signature, text: 'its signature is not with the job' }],
    },
    machine: {
      opens: 'hand-back',
      words: ({ body: b }) => (b.came ? 'its machine is here' : 'no machine came with it'),
    },
    reassembled: {
      opens: 'hand-back',
      words: ({ body: b }) =>
        `${checkWords[b.check].say}: ${b.ok ? 'in order' : 'not in order'}${b.note ? `, ${b.note}` : ''}`,
    },
    'late outcome': {
      words: ({ body: b }) => `later: ${b.text}`,
      // It was in other hands since.
      changesBoard: (b) => (b.holds ? null : { what: 'word that it does not hold' }),
    },
  },
  on: {
    advice(s, { body }) {
      s.advice.push(body.text)
    },
    'hand-back'(s, line) {
      s.done = castDraft({ ...notedOf(line), ...line.body })
    },
    machine(s, { body }) {
      s.reassembly.machine = body.came
    },
    reassembled(s, { body: { check, ok, note } }) {
      s.reassembly.machine = true
      s.reassembly.found[check] = { ok, note }
    },
    'late outcome'(s, line) {
      s.lateOutcomes.push({ ...notedOf(line), ...line.body })
    },
  },
})
