import { nothingRound } from '@/core/job/advice-setting'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { toBelieve } from '@/core/job/advise'
import { gateOf } from '@/core/job/gate'
import { jobState } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import { nextStep, stepAt } from '@/core/job/next-step'
import type { FaultId } from '@/core/triage/model/faults'
import { believe } from '@/core/triage/reason/belief'
import { demoSockets } from './sockets'

const folder = 'docs/examples/repairs'
const field = demoSockets.lg1284

/** A tape up to a line, and what is said of it. */
function upTo(entries: readonly Entry[], seq: number) {
  const state = jobState(
    entries.slice(0, seq),
    field.contacts.map((c) => c.name),
  )
  const gate = gateOf(state, field)
  const belief = believe(toBelieve(state, field, gate, nothingRound))
  const advised = { state, field, gate, setting: nothingRound, belief, work: null }
  return { belief, gate, step: stepAt('triage', advised), first: nextStep(advised) }
}

interface Repair {
  /** What it was in the end; null where a test had put it right. */
  readonly truth: FaultId | null
  /** The line after which it is first or second. */
  readonly decisive: number
  /** What a wise technician does after a line: one of these tests, a repair, or these words. */
  readonly wise: Readonly<Record<number, RegExp>>
}

/** Twelve repairs, each a tape. Lines 1 to 11 are the ticket, the looks and the rails; 12 and 13 seat and supply. */
const repairs: Readonly<Record<string, Repair>> = {
  'another-chip': {
    truth: 'firmware chip',
    decisive: 16,
    wise: {
      14: /^Look round the firmware chip|^Read the codes/,
      16: /ID|^Repair it and see: firmware chip of another/,
      17: /^Repair it: firmware chip of another/,
    },
  },
  'boot-block-alive': {
    truth: 'firmware partly corrupt',
    decisive: 18,
    wise: {
      14: /module|settings/i,
      18: /memory rail|training|compare/,
      // At 95 % the volts are read in the two minutes that a start takes, or it is repaired.
      20: /^(Repair it( and see)?: firmware corrupt in part|Measure the volts of memory rail)/,
    },
  },
  'dropped-by-the-release': {
    truth: 'CPU unsupported',
    decisive: 14,
    wise: { 14: /^Find which version/, 17: /^Repair it: this version does not run this CPU/ },
  },
  holder: {
    truth: 'cell holder',
    decisive: 15,
    wise: { 14: /^It runs/, 15: /new cell/i, 16: /^Repair it: coin cell holder/ },
  },
  'not-home': {
    truth: null,
    decisive: 16,
    wise: { 14: /module|slots/i, 15: /slots|modules|^Put it back/, 17: /^It runs/ },
  },
  'regulator-resistor': {
    truth: 'core regulator part',
    decisive: 15,
    wise: { 15: /core (regulator|rail)/, 17: /^Repair it( and see)?: part broken at the core regulator/ },
  },
  'slot-b': {
    truth: 'slot B',
    decisive: 17,
    wise: { 14: /module/, 16: /^Look (into the memory slots|round the socket)/, 17: /^(Repair|Probe)/ },
  },
  'soldered-back': {
    truth: 'chip joint',
    decisive: 27,
    wise: {
      16: /^Measure 12 V rail to ground again/,
      27: /^Do not power yet: The fitted firmware chip, lines/,
    },
  },
  'strip-off': {
    truth: 'strip off',
    decisive: 14,
    wise: { 14: /^Check the strip/, 16: /^Repair it: mains strip/ },
  },
  'twelve-dark-starts': {
    truth: 'firmware corrupt',
    decisive: 14,
    wise: { 25: /codes|chip/, 27: /codes|chip/, 28: /^Repair it( and see)?: firmware corrupt/ },
  },
  'waited-out': {
    truth: null,
    decisive: 16,
    wise: { 14: /module|Wait|settings|codes/, 16: /^It runs/, 17: /^It runs/ },
  },
  'weak-cell': { truth: 'cell weak', decisive: 12, wise: { 14: /^Repair it( and see)?: coin cell weak/ } },
}

describe('twelve repairs, line by line', () => {
  it('are twelve tapes, each with its end', () => {
    expect(readdirSync(folder).sort()).toEqual(
      Object.keys(repairs)
        .map((name) => `${name}.jsonl`)
        .sort(),
    )
  })
  it.each(Object.entries(repairs))('%s', (name, { truth, decisive, wise }) => {
    const entries = readFileSync(`${folder}/${name}.jsonl`, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Entry)
    for (let seq = 1; seq <= entries.length; seq++) {
      const { belief, gate, step, first } = upTo(entries, seq)
      const { verdict, faults } = belief
      const at = `${name}, line ${seq}: ${step.say}`
      const wanted = wise[seq]
      if (wanted) expect(step.say, at).toMatch(wanted)
      if (seq >= decisive) {
        const two = faults.slice(0, 2).map((f) => f.fault)
        if (truth) expect(two, at).toContain(truth)
        // What was put right by a test brings nothing else up.
        else for (const { odds } of faults) expect(odds, at).toBeLessThan(0.2)
      }
      // No sentence contradicts another.
      expect(verdict?.is, at).not.toBe('nothing known')
      if (first.station === 'triage') expect(first.say, at).toBe(step.say)
      if (gate.lamp === 'do not power' && !/^Repair/.test(step.say))
        expect(step.say, at).not.toMatch(/^(Power up|Put it back|It runs|A known-good|Reseat)/)
      if (step.say.startsWith('It runs')) expect(verdict?.is === 'found', at).toBe(false)
      if (step.repairs && verdict?.is === 'found') expect(step.repairs, at).toBe(verdict.fault)
      if (step.repairs) expect(faults[0]!.fault, at).toBe(step.repairs)
    }
  })
})
