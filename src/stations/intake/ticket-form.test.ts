import { jobState } from '@/core/job/job-state'
import { describe, expect, it } from 'vitest'
import { formOf, ticketChanges } from './ticket-form'
import { ticketSchema } from './ticket-rules'

const blank = jobState([]).intake.ticket

describe('the ticket as a form', () => {
  it('changes nothing when nothing was typed', () => {
    const full = {
      ...blank,
      board: 'x',
      history: ['cleaning' as const],
      limitMinor: 45_050,
      minutesPromised: 90,
      promisedAt: '2026-11-24T12:34:56.000Z',
    }
    expect(ticketChanges(formOf(blank), blank, 'kr')).toEqual({})
    expect(ticketChanges(formOf(full), full, 'kr')).toEqual({})
  })
  it('gives just what differs, trimmed and in minor units', () => {
    const typed = {
      ...formOf(blank),
      complaint: ' dark ',
      limit: '450,50 kr',
      minutes: '90',
      history: ['liquid' as const],
    }
    expect(ticketChanges(typed, blank, 'kr')).toEqual({
      complaint: 'dark',
      limitMinor: 45_050,
      minutesPromised: 90,
      history: ['liquid'],
    })
  })
  it('takes a field back to nothing', () => {
    expect(ticketChanges(formOf(blank), { ...blank, boardModelId: 'b', limitMinor: 5 }, 'kr')).toEqual({
      boardModelId: null,
      limitMinor: null,
    })
  })
  it('says what an amount and minutes should look like', () => {
    const fault = (change: object) =>
      ticketSchema('kr').validate({ ...formOf(blank), ...change }).error?.message
    expect(fault({ limit: 'a lot' })).toMatch(/An amount, like 450/)
    expect(fault({ minutes: '1.5' })).toMatch(/Whole minutes/)
    expect(fault({ limit: '600', minutes: '' })).toBeUndefined()
  })
})
