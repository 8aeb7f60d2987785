import { nothingRound } from './advice-setting'
import { jobState } from './job-state'
import { describe, expect, it } from 'vitest'
import { tape } from './tape.testing'
import { smallField } from '../socket/model/field.testing'
import { handBackBlockers } from './stations-say'
import { handBackSheet } from './sheet'

const socket = smallField()
const now = '2026-11-24T12:00:00.000Z'
const sheetOf = (t: ReturnType<typeof tape>) =>
  handBackSheet(
    jobState(
      t.entries,
      socket.contacts.map((c) => c.name),
    ),
    socket,
    now,
    nothingRound,
  )
const stroke = { technique: 'lift', tool: 'needle', from: null, strokes: 1, predictedSnaps: null } as const

const worked = () =>
  tape()
    .put('ticket', { set: { board: 'TW-K61', revision: 'B', use: 'kiosk', complaint: 'dark' } })
    .put('claim', { text: 'nobody touched it' })
    .put('claim checked', { claim: 2, verdict: 'wrong', how: 'contacts bent' })
    .put('cell', { volts: 2.4 })
    .put('cell', { volts: 3.1 })
    .put('rail', { rail: 'vmem', ohms: 2, cpu: 'out' })
    .put('rail', { rail: 'vmem', ohms: 220, cpu: 'out' })
    .put('mark', { contacts: ['A5'], mark: { kind: 'low', heightMm: -0.12 } })
    .put('mark', { contacts: ['D1'], mark: { kind: 'low', heightMm: -0.1 } })
    .put('stroke', { ...stroke, contact: 'A5', result: 'there' })
    .put('stroke', { ...stroke, contact: 'D1', result: 'snapped' })
    .put('left', { contact: 'D1', why: 'one of many grounds' })
    .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })

describe('handBackSheet', () => {
  it('says what was found, though it is mended by now', () => {
    expect(sheetOf(worked()).found).toEqual([
      'memory rail at 2 Ω to ground: shorted',
      'coin cell at 2.4 V',
      '2 damaged contacts in the CPU socket: A5 low by 0.12 mm; D1 low by 0.10 mm',
      '“nobody touched it” did not hold: contacts bent',
    ])
  })
  it('says what was told in a word, where no figure says it', () => {
    const told = tape()
      .put('rail', { rail: '12v', ohms: null, is: 'short', cpu: 'out' })
      .put('rail', { rail: '5v', ohms: null, is: 'good', cpu: 'out' })
      .put('rail', { rail: 'standby', ohms: 3, cpu: 'out' })
      .put('rail', { rail: 'standby', ohms: null, is: 'short', cpu: 'out' })
      .put('cell', { volts: null, is: 'low' })
    expect(sheetOf(told).found).toEqual([
      'standby rail at 3 Ω to ground: shorted',
      '12 V rail shorted to ground, without a figure',
      'coin cell low, without a figure',
    ])
  })
  it('says what was done', () => {
    expect(sheetOf(worked()).repaired).toEqual([
      '1 contact straightened',
      'D1, found low by 0.10 mm, snapped while being straightened',
      'D1 left as it is: one of many grounds',
      'CPU seated: Orrin 41, fell flat by itself',
    ])
  })
  it('claims nothing proved without a reading of its own, and names the rest', () => {
    const sheet = sheetOf(
      worked()
        .put('proof', { test: 'system', result: 'pass', reading: 'log-in' })
        .put('proof', { test: 'temperature', result: 'cannot run here', reading: 'no probe' }),
    )
    expect(sheet.verified).toEqual(['An operating system loads: log-in'])
    const starting = (text: string) => expect.arrayContaining([expect.stringContaining(text)])
    expect(sheet.notTested).toEqual(
      starting('Temperature under load for 15 minutes: cannot be run here, no probe'),
    )
    expect(sheet.notTested).toEqual(starting('A module in each slot of channel B: not done'))
    expect(sheet.leftAsItIs).toContain(
      'D1 stays snapped off (found low by 0.10 mm; snapped while straightening; one of many grounds)',
    )
    expect(sheet.leftAsItIs).toContain('fragment of D1 was not found')
  })
  it('says what the owner has instead, and what becomes of the board that came; what a second opinion got wrong is not the owner’s', () => {
    const asked = worked().entries.length + 1
    const ended = worked()
      .put('opinion asked', { text: 'is it the light?', of: 'Maren', photos: [] })
      .put('claim', { text: 'it is the light', opinion: { asked, by: 'Maren' } })
      .put('claim checked', { claim: asked + 1, verdict: 'wrong', how: 'seen from the side' })
      .put('hand-back', {
        outcome: 'exchanged',
        priceMinor: null,
        text: '',
        fate: 'donor',
        exchangedFor: 'Q-0353',
      })
    const sheet = sheetOf(ended)
    expect(sheet.outcome).toBe('exchanged for Q-0353, of verified stock; the board that came: donor')
    expect(sheet.found.join()).toContain('nobody touched it')
    expect(sheet.found.join()).not.toContain('it is the light')
  })
  it('shows the field before and after', () => {
    const sheet = sheetOf(worked())
    expect(Object.keys(sheet.maps!.before)).toEqual(['A5', 'D1'])
    expect(sheet.maps!.after).toEqual({ D1: { kind: 'snapped' } })
    expect(sheet.changes.map((c) => c.change)).toEqual(['mended', 'other'])
    expect(sheetOf(tape()).maps).toBeNull()
  })
  it('is headed by the board and carries the safety notes', () => {
    const sheet = sheetOf(worked())
    expect(sheet).toMatchObject({
      title: 'TW-K61, rev B, kiosk',
      complaint: 'dark',
      outcome: 'in work',
      priceMinor: null,
    })
    expect(sheet.safety.join(' ')).toMatch(/licensed person/)
  })
})

it('holds the hand-back for an open offer, a lost fragment and a missing consent', () => {
  const t = worked().put('offer', { text: 'more', limitMinor: null, minutes: null })
  expect(handBackBlockers(jobState(t.entries)).map((h) => h.text)).toEqual([
    'The owner has not answered the changed offer: more',
    'The owner has not signed',
    'fragment of D1 is not accounted for',
  ])
  t.put('offer answered', { offer: t.entries.length, approved: false, how: '' })
    .put('accounted', { item: 11, where: 'in the dish' })
    .put('consent', { risks: [], limitMinor: null, signature: null, how: 'by telephone' })
  expect(handBackBlockers(jobState(t.entries))).toEqual([])
})

it('holds the hand-back for work left for later until it is done or signed off; the sheet says what was left', () => {
  const t = worked()
    .put('consent', { risks: [], limitMinor: null, signature: null, how: 'by telephone' })
    .put('accounted', { item: 11, where: 'in the dish' })
    .put('deferred', { text: 'second header burnt' })
  const line = t.entries.length
  const held = () => handBackBlockers(jobState(t.entries)).map((h) => h.text)
  const left = () => sheetOf(t).leftAsItIs.filter((l) => l.startsWith('not repaired'))
  expect(held().at(-1)).toBe('Left for later, neither done nor signed off: second header burnt')
  expect(left()).toEqual(['not repaired: second header burnt'])
  t.put('deferred settled', { deferred: line, how: 'signed off', why: 'the owner does without' })
  expect(held().filter((h) => h.startsWith('Left'))).toEqual([])
  expect(left()).toEqual(['not repaired: second header burnt, the owner does without'])
  t.put('deferred settled', { deferred: line, how: 'done', why: '' })
  expect(left()).toEqual([])
})
