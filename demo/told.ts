import { ownersKnow } from '@/core/intake/known-by'
import { normalDraw } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import type { TapeWriter } from './tape-writer'

/** How often what owners say is so, by how they know, and how far it was believed. */
const sorts: Readonly<
  Record<(typeof ownersKnow)[number], { readonly holds: number; readonly believed: number }>
> = {
  'heard of it': { holds: 0.3, believed: 0.25 },
  'saw it': { holds: 0.42, believed: 0.5 },
  'did it, knows how': { holds: 0.6, believed: 0.75 },
}

/** An owner’s claim on one board in two, weighed and then checked here. */
export function claimed(tape: TapeWriter, draw: Uniform): void {
  const knows = ownersKnow[Math.floor(draw() * ownersKnow.length)]!
  const { holds, believed } = sorts[knows]
  const so = draw() < holds
  if (draw() < 0.5) return
  tape.put('claim', { text: 'the fans came on and settled' })
  const claim = tape.last
  tape
    .put('claim weighed', { claim, test: 'fans settle', outcome: 'settle', reliability: believed, knows })
    .put('claim checked', { claim, verdict: so ? 'holds' : 'wrong', how: 'seen here' })
}

const limited = (odds: number) => Math.min(0.97, Math.max(0.03, odds))

/** Odds before a start that shows a picture with odds p: said aloud too surely, in twentieths; reckoned nearly right. */
export const saidBefore = (
  p: number,
  draw: Uniform,
): { readonly odds: number; readonly reckoned: number } => ({
  odds: limited(Math.round(20 * (0.5 + 1.3 * (p - 0.5) + 0.12 * normalDraw(draw))) / 20),
  reckoned: limited(p + 0.04 * normalDraw(draw)),
})

/** Waits until the job has taken about a quarter longer than agreed, one more and another less. */
export function takesItsTime(tape: TapeWriter, minutesPromised: number, draw: Uniform): void {
  const began = tape.entries.find((e) => e.kind === 'clock')!
  const sofar = (Date.parse(tape.entries.at(-1)!.at) - Date.parse(began.at)) / 60_000
  tape.wait(Math.max(0, minutesPromised * 1.25 * Math.exp(0.35 * normalDraw(draw)) - sofar))
}

/** A promise of three days with its odds, a little too sure, and how long the board then waits for its turn, days. */
export function promiseOf(draw: Uniform): { readonly kept: number; readonly waitsDays: number } {
  const kept = Math.round(50 * limited(1 - 0.6 * draw() ** 2)) / 50
  return { kept, waitsDays: draw() < 0.95 * kept ? 2 * draw() : 3 + draw() }
}

/**
 * A test of the proof with how likely it was to find something, a little too low; where it does, that is put right and the test
 * made again.
 */
export function tested(
  tape: TapeWriter,
  draw: Uniform,
  [test, reading, failing]: readonly [test: string, reading: string, failing: string],
): void {
  const finds = Math.round(100 * (0.01 + 0.3 * draw() ** 2)) / 100
  if (draw() < 1.25 * finds)
    tape
      .put('proof', { test, result: 'fail', reading: failing, finds })
      .put('note', { text: 'a module sat half: seated again' })
  tape.put('proof', { test, result: 'pass', reading, finds })
}

/** What is left open of a board that goes back, in hundredths. */
export const leftOpen = (draw: Uniform): number => Math.round(3 + 9 * draw()) / 100
