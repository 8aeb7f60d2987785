import { nothingRound } from './advice-setting'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import type { Socket } from '../socket/model/socket'
import { smallField } from '../socket/model/field.testing'
import { anyTape } from './any-tape.testing'
import { readVersion, sheetVersions } from './sheet-versions'
import { measured, tape } from './tape.testing'

const socket = smallField()
const now = '2026-11-24T12:00:00.000Z'
const signed = { signature: null, how: 'on paper' } as const
const linesOf = (t: ReturnType<typeof tape>, of: number, field: Socket | null = socket) => {
  const version = sheetVersions(t.entries, field, nothingRound).find((v) => v.version === of)!
  return Object.fromEntries(
    readVersion(version, field, now, nothingRound).words.parts.map((p) => [p.title, p.lines]),
  )
}

describe('sheets', () => {
  it('are one until one was signed, and one still when nothing was changed since', () => {
    const t = tape().put('look', { what: 'chip', seen: 'flux', clear: false })
    expect(sheetVersions(t.entries, socket, nothingRound)).toMatchObject([{ version: 1, signed: null }])
    t.put('sheet signed', signed)
    t.put('note', { text: 'put on the shelf' })
    expect(sheetVersions(t.entries, socket, nothingRound)).toMatchObject([
      { version: 1, signed: { how: 'on paper' } },
    ])
  })
  it('signed and changed since are two: the old one stays as it was, even where a line of it is struck', () => {
    const t = tape()
      .put('look', { what: 'chip', seen: 'flux', clear: false })
      .put('sheet signed', signed)
      .put('strike', { why: '' }, 1)
      .put('hand-back', { outcome: 'fixed', priceMinor: 100, text: '', warrantyMonths: 3 })
    expect(sheetVersions(t.entries, socket, nothingRound)).toMatchObject([
      { version: 1 },
      { version: 2, signed: null },
    ])
    expect(linesOf(t, 1)).toMatchObject({ Found: ['chip: flux'], Warranty: [] })
    expect(linesOf(t, 2)).toMatchObject({
      Found: [],
      Warranty: [
        '3 months on what stands under Repaired',
        expect.stringContaining('none on what was not tested'),
      ],
    })
    t.put('sheet signed', signed)
    expect(sheetVersions(t.entries, socket, nothingRound).map((v) => v.signed !== null)).toEqual([true, true])
  })
  it('signed by mistake and undone was not signed', () => {
    const t = tape().put('sheet signed', signed).put('strike', { why: 'undo' }, 1)
    expect(sheetVersions(t.entries, socket, nothingRound)).toMatchObject([{ version: 1, signed: null }])
  })
  it('signed says what it said then, also where its tape would be read otherwise by now', () => {
    const t = tape().put('look', { what: 'chip', seen: 'flux', clear: false })
    const { words } = readVersion(
      sheetVersions(t.entries, socket, nothingRound)[0]!,
      socket,
      now,
      nothingRound,
    )
    const then = {
      ...words,
      minutes: 7,
      parts: words.parts.map((p) => (p.title === 'Found' ? { ...p, lines: ['flux round the chip'] } : p)),
    }
    t.put('sheet signed', { ...signed, words: then })
    const [first, ...others] = sheetVersions(t.entries, socket, nothingRound)
    expect(others).toEqual([])
    const read = readVersion(first!, socket, now, nothingRound)
    expect(read.words).toEqual(then)
    expect(read.technical.find((p) => p.title === 'Found')?.lines).toEqual(['flux round the chip'])
    t.put('advice', { text: 'keep it dry' })
    expect(sheetVersions(t.entries, socket, nothingRound)).toHaveLength(2)
    expect(linesOf(t, 1).Found).toEqual(['flux round the chip'])
    expect(linesOf(t, 2).Found).toEqual(['chip: flux'])
  })
  it('of any tape: every one that was signed reads the same whatever comes after it', () => {
    fc.assert(
      fc.property(anyTape(), (entries) => {
        const at = entries.findIndex((e) => e.kind === 'sheet signed')
        if (at < 0 || entries.some((e) => e.strikes === entries[at]!.seq)) return
        const [then] = sheetVersions(entries.slice(0, at + 1), socket, nothingRound)
        const [later] = sheetVersions(entries, socket, nothingRound)
        expect(readVersion(later!, socket, now, nothingRound)).toEqual(
          readVersion(then!, socket, now, nothingRound),
        )
      }),
      { numRuns: 60 },
    )
  })
})

describe('the technical sheet', () => {
  const technical = (t: ReturnType<typeof tape>) =>
    Object.fromEntries(
      readVersion({ entries: t.entries, signed: null, kept: null }, socket, now, nothingRound).technical.map(
        (p) => [p.title, p.lines],
      ),
    )
  it('has each contact before and after, each test with its limit, each reading and step by its line', () => {
    const t = tape()
      .put('mark', { contacts: ['A5'], mark: { kind: 'low' } })
      .put('rail', { rail: '12v', ohms: 480, cpu: 'out' })
      .put('rail', { rail: '12v', ohms: 4, cpu: 'out' })
      .put('strike', { why: '' }, 3)
      .put('proof', { test: 'system', result: 'pass', reading: 'log-in' })
    const parts = technical(t)
    expect(parts['Each contact, as found → as it is left']).toEqual([
      expect.stringMatching(/^A5: low.* → low/),
    ])
    expect(parts['Readings, looks and starts']).toEqual(['2  12 V rail to ground 480 Ω, CPU out'])
    expect(parts['Every test of the proof']).toContain(
      'An operating system loads (the owner needs more than a POST; passes when: desktop or log-in appears): pass, log-in',
    )
    expect(parts.Advice).toBeUndefined()
  })
})

describe('the owner’s sheet', () => {
  it('says the cause, and what to do so that it does not happen again; own advice first, each once', () => {
    const t = tape()
      .put('ticket', { set: { history: ['liquid'] } })
      .put('advice', { text: 'bring it in sooner' })
      .put('mended', { fault: 'cell weak' })
      .put('mended', { fault: 'cell weak' })
    const { Cause, Advice } = linesOf(t, 1)
    expect(Cause).toHaveLength(1)
    expect(Advice).toEqual([
      'bring it in sooner',
      expect.stringContaining('five years'),
      expect.stringContaining('After liquid'),
    ])
  })
  it('knows no odds of a board that has not come up, and says what may be bad of one that has', () => {
    const t = measured()
    const odds = () => linesOf(t, 1, null)['Could still be wrong']!
    expect(odds()).toEqual(['not known: it has not come up since it was last changed'])
    t.put('baseline', { ...nothingNoted, picture: 'system loads' })
    expect(odds()[0]).toMatch(/^\d+ % that something is wrong that was not found here$/)
  })
  it('says of its machine what is in order, what is not and what nobody looked at; nothing where none came', () => {
    const t = tape().put('machine', { came: false })
    expect(linesOf(t, 1)['Not tested']!.filter((l) => l.includes('not looked at'))).toEqual([])
    t.put('machine', { came: true })
      .put('reassembled', { check: 'front wiring', ok: false, note: 'reset pinched' })
      .put('reassembled', { check: 'standoffs', ok: true, note: '' })
    expect(linesOf(t, 1).Failed).toEqual(['Front-panel wiring: reset pinched'])
    expect(linesOf(t, 1).Verified).toEqual(['Standoffs: in order'])
    expect(linesOf(t, 1)['Not tested']).toContain('It starts in its machine: not looked at')
    t.put('reassembled', { check: 'front wiring', ok: true, note: '' })
    expect(linesOf(t, 1).Failed).toEqual([])
  })
})
