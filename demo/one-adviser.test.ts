import { nothingRound } from '@/core/job/advice-setting'
import { describe, expect, it } from 'vitest'
import { reckonAdvice, toAdvise } from '@/core/job/advise'
import type { Reckoned, ToAdvise } from '@/core/job/advise'
import { gateOf } from '@/core/job/gate'
import { foldOn, jobState } from '@/core/job/job-state'
import type { JobState } from '@/core/job/job-state'
import { nextStep, stepAt } from '@/core/job/next-step'
import type { Socket } from '@/core/socket/model/socket'
import { testOf } from '@/core/triage/reason/hypotheses'
import { jobOperations } from '../cli/job-operations'
import { demoJobs } from './jobs'
import { demoReferences } from './references'
import { demoSockets } from './sockets'
/** Answers that were worked out, by what was asked: most lines change neither odds nor order. */
const known = new Map<string, Reckoned>()
function reckoned(field: Socket | null, asked: ToAdvise): Reckoned {
  const key = JSON.stringify(asked)
  // The page asks through a worker, the server through a thread: what goes there and back is the same.
  const answer = known.get(key) ?? reckonAdvice(field, JSON.parse(key) as ToAdvise)
  known.set(key, answer)
  return answer
}

it('no power-up of the demo notes what its board cannot show', () => {
  for (const { tape } of demoJobs(new Date('2026-11-24T15:00:00Z'))) {
    const { board, intake } = jobState(tape.entries)
    const shown = demoReferences[intake.ticket.boardModelId ?? '']?.shows?.shown
    if (shown?.['debug LEDs'] !== false) continue
    expect(board.baselines.map((b) => b.lamp)).toEqual(board.baselines.map(() => 'not noted'))
  }
})

describe('one adviser, at every line of every demo job', () => {
  it.each(demoJobs(new Date('2026-11-24T15:00:00Z')).map((j) => j.tape))('$tag', async ({ entries }) => {
    const { socketId } = jobState(entries).intake.ticket
    const field = Object.values(demoSockets).find((s) => s.id === socketId) ?? null
    const names = field?.contacts.map((c) => c.name)
    let state: JobState | null = null
    for (const [i, line] of entries.entries()) {
      state = (state && foldOn(state, [line], names)) ?? jobState(entries.slice(0, i + 1), names)
      const gate = gateOf(state, field)
      const asked = toAdvise(state, field, gate, nothingRound)
      const advised = { state, field, gate, setting: nothingRound, ...reckoned(field, asked) }
      // Bench list and header say the job’s step; the page of its station says the same.
      const step = nextStep(advised)
      expect(stepAt(step.station, advised), `line ${i + 1}`).toEqual(step)
      expect(step.pending, `line ${i + 1}`).toBeUndefined()
      // What triage says on top is first in its list of tests, and needs no power while the gate is closed.
      const { belief } = advised
      const top = stepAt('triage', advised)
      if (top.station === 'triage' && top.test !== undefined && belief)
        expect(belief.next[0]?.test.id, `line ${i + 1}`).toBe(top.test)
      if (top.test !== undefined && gate.lamp === 'do not power') expect(testOf(top.test).powers).toBe(false)
      // A contact that the order begins with is one worth touching, and one advised against is not in it.
      for (const { contact, technique, say } of advised.work?.planned.steps ?? [])
        if (say.startsWith('leave')) expect(technique, contact).toBe('leave')
    }
    // The command line reads the same tape.
    const input = {
      tape: entries,
      ...(field ? { kind: field.kind, contacts: field.contacts, pitchMm: field.pitchMm } : {}),
    }
    const { schema, run } = jobOperations['job.read']!
    const checked: unknown = schema.validate(JSON.parse(JSON.stringify(input))).value
    const read = (await run(checked as never)) as { next: unknown }
    const gate = gateOf(state!, field)
    const last = reckoned(field, toAdvise(state!, field, gate, nothingRound))
    expect(read.next).toEqual(nextStep({ state: state!, field, gate, setting: nothingRound, ...last }))
  })
})
