import { describe, expect, it } from 'vitest'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { tape } from '../job/tape.testing'
import { evidenceOf } from '../job/evidence'
import { stepAt } from '../job/next-step'
import { gateOf } from '../job/gate'
import { jobState } from '../job/job-state'
import type { Bodies } from '../slices'
import { clipFault } from './clip'
import { inHand } from './slice'

const [a, b, c] = ['a', 'b', 'c'].map((letter) => letter.repeat(64)) as [string, string, string]
const image = (file: string, role: Bodies['image']['role'] = 'read') => ({
  file,
  name: 'x.bin',
  bytes: 2_097_152,
  role,
  versions: [],
})
const compared = (verdict: Bodies['compared']['verdict'], second: string | null = a): Bodies['compared'] => ({
  original: a,
  second,
  release: c,
  older: null,
  label: null,
  verdict,
  say: `It is ${verdict}.`,
  why: ['two reads of the chip are equal'],
  places: [],
})
type Tape = ReturnType<typeof tape>
const stateOf = (t: Tape) => jobState(t.entries)
/** The same tape, to go on from. */
const copy = (t: Tape) => {
  const other = tape()
  other.entries.push(...t.entries)
  return other
}
const step = (t: Tape) => {
  const state = stateOf(t)
  return stepAt('firmware', { state, field: null, gate: gateOf(state, null), belief: null, work: null })
}
const looked = () =>
  tape().put('look', { what: 'round the firmware chip', seen: 'nothing seen', clear: true })
const ready = () => looked().put('firmware', { chip: 'LSN-16V', chipVolts: 1.8 })

describe('the next step at the chip', () => {
  it('goes from the place to the chip, to two equal reads, to the release, to the verdict', () => {
    let t = tape()
    expect(step(t).say).toContain('Look round the firmware chip')
    t = looked()
    expect(step(t).say).toContain('marking')
    t = ready()
    expect(step(t).say).toContain('twice')
    t = t.put('image', image(a))
    expect(step(t).say).toBe('Read it once more.')
    expect(step(copy(t).put('image', image(b))).say).toContain('read the chip’s ID')
    t = t.put('image', image(a))
    expect(step(t).say).toContain('maker’s file')
    t = t.put('image', image(c, 'release'))
    expect(step(t).say).toContain('Compare')
    t = t.put('compared', compared('same code'))
    expect(step(t)).toMatchObject({ say: 'It is same code.', why: 'two reads of the chip are equal' })
    expect(step(t.put('image', image(c, 'release'))).say).toContain('Compare')
  })
  it('does not blame the firmware while a part is gone beside it, and goes on once one is fitted', () => {
    const gone = tape().put('look', {
      what: 'round the chip',
      seen: 'green beside it',
      clear: false,
      hazard: 'corroded',
    })
    expect(step(gone).say).toContain('put that right')
    expect(step(gone.put('part', { ref: 'R1', did: 'fitted' })).say).toContain('marking')
  })
  it('another chip on the board is not the one that was read', () => {
    const t = ready().put('image', image(a)).put('image', image(a)).put('compared', compared('damaged'))
    const other = t.put('firmware', { chip: 'FERN-32V', chipVolts: 1.8 })
    expect(inHand(stateOf(other).firmware).reads).toEqual([])
    expect(stateOf(other).firmware.compared).toBeNull()
    expect(step(other).say).toContain('twice')
  })
})

describe('after a write', () => {
  const written = { image: a, release: c, backup: b, id: '33 60 15', erased: 1, programmed: 2, despite: [] }
  it('asks for the clip, then for what forbids power, and only then for starts', () => {
    const t = ready()
      .put('image', image(a))
      .put('image', image(a))
      .put('image', image(c, 'release'))
      .put('firmware', { clipOn: true })
      .put('written', written)
    expect(step(t).say).toMatch(/^Clip off/)
    const off = copy(t).put('firmware', { clipOn: false })
    // Nothing was measured on this board yet.
    expect(step(off).say).toMatch(/^Do not power yet: /)
  })
  it('a written release mends corrupt firmware, a backup put back does not', () => {
    const mended = (release: string | null) =>
      evidenceOf(stateOf(tape().put('written', { ...written, release })), null).mended
    expect(mended(c)).toEqual(['firmware corrupt'])
    expect(mended(null)).toEqual([])
  })
  it('is read anew when somebody wants to see what the chip holds', () => {
    const t = ready().put('written', written).put('image', image(a))
    expect(step(t).say).toBe('Read it once more.')
  })
})

describe('a chip of another kind', () => {
  const fern = soldChips.find((c) => c.marking === 'FERN-32V')!
  const hex = (bytes: Iterable<number>) => Buffer.from(Uint8Array.from(bytes)).toString('hex').toUpperCase()
  const differ = () => ready().put('image', image(a)).put('image', image(b))
  const asked = (t: Tape) => t.put('firmware', { chipId: hex(fern.id), sfdp: hex(drawSfdp(fern)) })
  it('is found by its ID and its size beside the release, when two reads differ', () => {
    const t = asked(differ())
    expect(step(t).say).toContain('its size tells')
    t.put('image', image(c, 'release'))
    expect(step(t).say).toContain('4 MiB, the release has 2')
    expect(evidenceOf(stateOf(t), null).evidence.find((e) => e.test === 'chip id')?.outcome).toBe(
      'wrong or none',
    )
  })
  it('one of the right size that answers sends back to the clip; one that does not answer is no chip', () => {
    const right = soldChips[1]!
    const t = differ()
      .put('firmware', { chipId: hex(right.id), sfdp: hex(drawSfdp(right)) })
      .put('image', image(c, 'release'))
    expect(step(t).say).toContain('seat the clip again')
    const outcome = (of: Tape) => evidenceOf(stateOf(of), null).evidence.find((e) => e.test === 'chip id')
    expect(outcome(t)).toMatchObject({ outcome: 'right', reliability: 0.9 })
    expect(outcome(ready().put('firmware', { chipId: 'FFFFFF' }))?.outcome).toBe('wrong or none')
    // Another chip since: what the old one said does not count.
    expect(outcome(asked(ready()).put('firmware', { chip: 'X' }))).toBeUndefined()
  })
})

describe('the clip', () => {
  it.each<[string, Bodies['firmware'], RegExp | null]>([
    ['no voltage of the chip', { programmerVolts: 3.3, clipOn: true }, /which voltage the chip/],
    ['none of the programmer', { chipVolts: 1.8, clipOn: true }, /which voltage the programmer/],
    ['3.3 V on 1.8 V', { chipVolts: 1.8, programmerVolts: 3.3, clipOn: true }, /adapter/],
    ['1.8 V on 3.3 V', { chipVolts: 3.3, programmerVolts: 1.8, clipOn: true }, /not be read rightly/],
    ['the clip off', { chipVolts: 1.8, programmerVolts: 1.8 }, /coin cell out/],
    ['all as it should be', { chipVolts: 1.8, programmerVolts: 1.8, clipOn: true }, null],
  ])('with %s', (_, noted, fault) => {
    const say = clipFault(stateOf(tape().put('firmware', noted)).firmware)
    if (fault) expect(say).toMatch(fault)
    else expect(say).toBeNull()
  })
})

describe('the verdict as evidence of triage', () => {
  const contents = (t: Tape) =>
    evidenceOf(stateOf(t), null).evidence.find((e) => e.test === 'chip contents') ?? null
  it.each<[Bodies['compared']['verdict'], string | null]>([
    ['same code', 'alike'],
    ['another release', 'alike'],
    ['damaged', 'differ'],
    ['broken off', 'differ'],
    ['cannot tell', null],
  ])('%s is said as %s', (verdict, outcome) => {
    expect(contents(tape().put('compared', compared(verdict)))?.outcome ?? null).toBe(outcome)
  })
  it('counts for less when the chip was read once, and not at all when the line is struck', () => {
    const t = tape().put('compared', compared('damaged', null))
    expect(contents(t)?.reliability).toBeLessThan(1)
    expect(contents(tape().put('compared', compared('damaged')))?.reliability).toBeUndefined()
    expect(contents(t.put('strike', { why: 'undo' }, 1))).toBeNull()
  })
})
