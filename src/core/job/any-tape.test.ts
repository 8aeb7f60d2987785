import { nothingRound } from './advice-setting'
import { unaccounted } from '../board/slice'
import { openOffers } from '../intake/slice'
import { openDeferred } from '../parts/slice'
import { benchSeconds } from '../work/slice'
import { foldOn, jobState, sayEntry } from './job-state'
import type { JobState } from './job-state'
import { struckBy } from '../tape/line'
import { stations } from '../board/station'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { handBackBlockers, progress, proofStanding } from './stations-say'
import { handBackSheet } from './sheet'
import { readVersion } from './sheet-versions'
import { smallField } from '../socket/model/field.testing'
import { anyTape } from './any-tape.testing'
import { canonical } from '../tape/canonical'
import { gateOf } from './gate'
import { nextStep, stepAt } from './next-step'
import { clusters } from '../socket/damage/cluster'
import { plan } from '../socket/straighten/plan'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)
const runs = { numRuns: 60 }
const end = '2026-11-24T23:00:00.000Z'

describe('any tape the edge would let in', () => {
  it('has a state that JSON keeps, so that what is stored is what was computed', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const state = jobState(tape, names)
        expect(canonical(JSON.parse(JSON.stringify(state)))).toBe(canonical(state))
      }),
      runs,
    )
  })
  it('says the same folded on from any line, also out of what was kept of it', () => {
    fc.assert(
      fc.property(anyTape(), fc.nat(40), (tape, at) => {
        const entries = tape.filter(
          (e) => e.strikes === null && !(e.kind === 'ticket' && 'socketId' in e.body.set),
        )
        const whole = jobState(entries, names)
        const kept = JSON.parse(JSON.stringify(jobState(entries.slice(0, at), names))) as JobState
        expect(foldOn(kept, entries.slice(at), names)).toEqual(whole)
      }),
      runs,
    )
  })
  it('is judged line by line as it is as a whole: nothing that bears on power is missed on the way', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const entries = tape.filter((e) => e.strikes === null && e.kind !== 'ticket')
        let state = jobState([], names)
        entries.forEach((entry, i) => {
          state = foldOn(state, [entry], names)!
          expect(gateOf(state, socket)).toEqual(gateOf(jobState(entries.slice(0, i + 1), names), socket))
        })
      }),
      { numRuns: 30 },
    )
  })
  it('has words for every line, a gate, a way and a next step at every station', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        for (const entry of tape) expect(sayEntry(entry).length).toBeGreaterThan(0)
        const state = jobState(tape, names)
        for (const field of [socket, null]) {
          const gate = gateOf(state, field)
          expect(gate.lamp === 'clear').toBe(gate.reasons.length === 0)
          expect(progress(state, field, nothingRound)).toHaveLength(7)
          const marks = state.socket.passes.at(-1)?.marks ?? {}
          const work = field && {
            planned: plan(field, marks, state.socket.school),
            clusters: clusters(field, marks),
          }
          const advised = { state, field, gate, setting: nothingRound, belief: null, work }
          expect(stations).toContain(nextStep(advised).station)
          for (const station of stations) {
            const { say, why } = stepAt(station, advised)
            expect(say.length * why.length).toBeGreaterThan(0)
            expect(`${say} ${why}`).not.toMatch(/undefined|NaN|null/)
            if (gate.lamp === 'do not power') expect(say).not.toMatch(/power up|prove it|and try\./i)
          }
        }
      }),
      runs,
    )
  })
  it('has a sheet that claims no more than was read', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const state = jobState(tape, names)
        const sheet = handBackSheet(state, socket, end, nothingRound)
        const standing = proofStanding(state, socket, nothingRound)
        const ended = (as: string | null) => standing.tests.filter((t) => t.result === as).map((t) => t.test)
        const said = (lines: readonly string[]) =>
          standing.tests.filter((t) => lines.some((l) => l.startsWith(`${t.test}:`))).map((t) => t.test)
        expect(said(sheet.verified)).toEqual(ended('pass'))
        expect(said(sheet.failed)).toEqual(ended('fail'))
        expect(said(sheet.notTested)).toEqual(
          standing.tests.filter((t) => t.result !== 'pass' && t.result !== 'fail').map((t) => t.test),
        )
        expect(sheet.oddsLeft[0]).toMatch(
          standing.failed > 0 ? /^not known: a test has failed/ : /^not known|that something is wrong/,
        )
        expect(sheet.holds).toEqual(handBackBlockers(state).map((h) => h.text))
        for (const { lines } of readVersion(
          { entries: tape, signed: null, kept: null },
          socket,
          end,
          nothingRound,
        ).technical)
          for (const text of lines) expect(text).not.toMatch(/undefined|NaN/)
      }),
      runs,
    )
  })
  it('holds the hand-back just while an offer is open, a piece is lost, work is left for later or nobody has agreed', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const state = jobState(tape, names)
        const held =
          openOffers(state.intake).length > 0 ||
          unaccounted(state.board).length > 0 ||
          openDeferred(state.parts).length > 0 ||
          state.intake.consent === null
        expect(handBackBlockers(state).length > 0).toBe(held)
      }),
      runs,
    )
  })
  it('has a clock that never runs backwards and adds up', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const clock = benchSeconds(jobState(tape, names).work, end)
        const sum = stations.reduce((all, s) => all + clock.station(s), 0)
        expect(clock.all).toBe(sum)
        for (const s of stations) expect(clock.station(s)).toBeGreaterThanOrEqual(0)
      }),
      runs,
    )
  })
  it('says the same with its struck lines taken out', () => {
    fc.assert(
      fc.property(anyTape(), (tape) => {
        const struck = struckBy(tape)
        const kept = tape.filter((e) => !struck.has(e.seq)).map((e) => ({ ...e, strikes: null }))
        const { seq: _, ...whole } = jobState(tape, names)
        const { seq: __, ...plain } = jobState(kept, names)
        expect(whole).toEqual(plain)
      }),
      runs,
    )
  })
})
