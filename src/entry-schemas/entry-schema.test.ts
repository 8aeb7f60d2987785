import { describe, expect, it } from 'vitest'
import { checkEntry, checkNewEntry } from './entry-schema'

const outer = { id: '00000000-0000-4000-8000-000000000001', strikes: null, at: '2026-11-24T09:00:00.000Z' }
const check = (kind: string, body: unknown) => checkEntry({ ...outer, kind, body })
const fault = (kind: string, body: unknown) => {
  const read = check(kind, body)
  return read.ok ? 'good' : `${read.fault.field}: ${read.fault.text}`
}

describe('checkEntry', () => {
  it.each([
    ['note', { text: '' }, /^text: /],
    ['note', {}, /^text: text is required/],
    ['note', { text: 'x', colour: 'red' }, /^colour: colour is not allowed/],
    ['rail', { rail: '9v', ohms: 1, cpu: 'out' }, /^rail: rail must be one of \[12v/],
    ['rail', { rail: '12v', ohms: -1, cpu: 'out' }, /^ohms: ohms must be greater than or equal to 0/],
    ['rail', { rail: '12v', ohms: Number.NaN, cpu: 'out' }, /^ohms: /],
    ['mark', { contacts: [], mark: { kind: 'low' } }, /^contacts: /],
    ['mark', { contacts: ['m31'], mark: { kind: 'low' } }, /^contacts\.0: .*a contact name like M31/],
    ['mark', { contacts: ['M31'], mark: { kind: 'sad' } }, /^mark\.kind: /],
    ['mark', { contacts: ['M31'], mark: { kind: 'lean', leanMm: [1] } }, /^mark\.leanMm: /],
    ['codes', { codes: ['4X'] }, /^codes\.0: .*two hex figures/],
    ['rail', { rail: 'constructor', ohms: 1, cpu: 'in' }, /^rail: .*or a rail of its own/],
    ['rail', { rail: '9v', ohms: 1, cpu: 'in' }, /^rail: .*or a rail of its own/],
    ['ticket', { set: {} }, /^set: set must have at least 1 key/],
    ['ticket', { set: { limitMinor: 4.5 } }, /^set\.limitMinor: .*integer/],
    ['hand-back', { outcome: 'sold', priceMinor: null, text: '' }, /^outcome: /],
    ['photo', { file: 'abc', name: '', type: 'image/png', bytes: 1, caption: '' }, /^file: /],
    ['cabbage', {}, /^kind: /],
  ])('refuses %s %j and names the field', (kind, body, wanted) => expect(fault(kind, body)).toMatch(wanted))
  it.each([
    ['a NUL', { kind: 'note', body: { text: 'a\u0000b' } }, 'body.text'],
    ['half a character', { kind: 'note', body: { text: 'a\ud83d' } }, 'body.text'],
    ['a NUL in a list', { kind: 'codes', body: { codes: ['4C', '\u0000'] } }, 'body.codes.1'],
    ['30 February', { kind: 'note', body: { text: 'x' }, at: '2026-02-30T09:00:00.000Z' }, 'at'],
    ['the year 0', { kind: 'note', body: { text: 'x' }, at: '0000-01-01T09:00:00.000Z' }, 'at'],
    [
      'a promise on 31 April',
      { kind: 'ticket', body: { set: { promisedAt: '2026-04-31T09:00:00Z' } } },
      'set.promisedAt',
    ],
    ['a strike of nothing', { kind: 'strike', body: { why: 'x' } }, 'strikes'],
    ['a strike beyond the column', { kind: 'strike', body: { why: 'x' }, strikes: 2 ** 40 }, 'strikes'],
    [
      'an answer beyond the column',
      { kind: 'claim checked', body: { claim: 2 ** 40, verdict: 'holds', how: '' } },
      'claim',
    ],
    [
      'a look that is clear of a burn',
      { kind: 'look', body: { what: 'x', seen: 'y', clear: true, hazard: 'burnt' } },
      'hazard',
    ],
    ['an item of no line', { kind: 'accounted', body: { item: '0/0', where: 'x' } }, 'item'],
  ])('refuses %s by its field', (_, line, field) => {
    expect(checkEntry({ ...outer, ...line })).toMatchObject({ ok: false, fault: { field } })
  })
  it('refuses a basis that no tape has', () => {
    const entry = { ...outer, kind: 'note', body: { text: 'x' } }
    expect(checkNewEntry({ ...entry, basis: 2 ** 50 })).toMatchObject({ fault: { field: 'basis' } })
  })
  it('trims what was typed', () => {
    expect(check('note', { text: '  flux  ' })).toMatchObject({ ok: true, value: { body: { text: 'flux' } } })
  })
  it('wants an id, a time and a place', () => {
    expect(checkEntry({ ...outer, id: 'x', kind: 'note', body: { text: 'x' } })).toMatchObject({
      ok: false,
      fault: { field: 'id' },
    })
    expect(checkEntry({ ...outer, at: 'soon', kind: 'note', body: { text: 'x' } })).toMatchObject({
      ok: false,
      fault: { field: 'at' },
    })
    expect(checkNewEntry({ ...outer, kind: 'note', body: { text: 'x' } })).toMatchObject({
      ok: false,
      fault: { field: 'basis' },
    })
    for (const odd of [null, undefined, 7, 'x', []]) expect(checkNewEntry(odd).ok).toBe(false)
  })
})
