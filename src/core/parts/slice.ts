import type { PartsBodies } from './bodies'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface PartsState {
  readonly noted: readonly (Noted & PartsBodies['part'])[]
}

export const parts = slice<PartsBodies>().of({
  id: 'parts',
  initial: (): PartsState => ({ noted: [] }),
  kinds: {
    part: {
      opens: 'parts',
      words: ({ body: b }) =>
        [`${b.ref} ${b.did}`, b.how, b.place, b.net && `net ${b.net}`, b.value, b.text]
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
    part(s, line) {
      s.noted.push({ ...notedOf(line), ...line.body })
    },
  },
})
