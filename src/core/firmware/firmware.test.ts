import { describe, expect, it } from 'vitest'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { tape } from '../job/tape.testing'
import { evidenceOf } from '../job/evidence'
import type { Bodies } from '../slices'
import { clipFault } from './clip'
import { a, b, c, comparedLine, image, stateOf, step } from './chip-on-tape.testing'
import type { Tape } from './chip-on-tape.testing'
import { comparedNow, inHand } from './slice'

const compared = (verdict: Bodies['compared']['verdict'], second: string | null = a) =>
  comparedLine(a, c, verdict, { second, why: ['two reads of the chip are equal'] })
/** The same tape, to go on from. */
const copy = (t: Tape) => {
  const other = tape()
  other.entries.push(...t.entries)
  return other
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
    expect(comparedNow(stateOf(other).firmware)).toBeNull()
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
  it('a release written over what was broken mends it; over what was sound, or a backup put back, does not', () => {
    const mended = (release: string | null, verdict: Bodies['compared']['verdict'] = 'broken off') =>
      evidenceOf(
        stateOf(
          tape()
            .put('compared', compared(verdict))
            .put('written', { ...written, release }),
        ),
        null,
      ).mended
    expect(mended(c)).toEqual(['firmware corrupt'])
    expect(mended(c, 'another release')).toEqual([])
    expect(mended(null)).toEqual([])
  })
  it('what was read before it is not what the chip holds', () => {
    const t = ready()
      .put('image', image(a))
      .put('image', image(a))
      .put('written', written)
      .put('image', image(b))
    expect(step(t).say).toBe('Read it once more.')
    expect(step(t.put('image', image(b))).say).toContain('maker’s file')
  })
})

describe('a chip of another kind', () => {
  const fern = soldChips.find((c) => c.marking === 'FERN-32V')!
  const hex = (bytes: Iterable<number>) => Buffer.from(Uint8Array.from(bytes)).toString('hex').toUpperCase()
  const differ = () => ready().put('image', image(a)).put('image', image(b))
  const asked = (t: Tape, of = fern) => t.put('firmware', { chipId: hex(of.id), sfdp: hex(drawSfdp(of)) })
  const said = (of: Tape) => evidenceOf(stateOf(of), null).evidence.find((e) => e.test === 'chip id')
  it('is suspected by its size beside the release when two reads differ, and nothing more', () => {
    const t = asked(differ())
    expect(step(t).say).toContain('its size tells')
    t.put('image', image(c, 'release'))
    expect(step(t).say).toContain('4 MiB, the release 2: look whether')
    // The file may be a part of the chip: that is no evidence yet.
    expect(said(t)).toBeUndefined()
  })
  it('a file that is only a part of the chip does not stop equal reads from being compared', () => {
    const t = asked(ready().put('image', image(a)).put('image', image(a))).put('image', image(c, 'release'))
    expect(step(t).say).toContain('Compare')
  })
  it('one of the right size sends back to the clip; an ID that is none is evidence, one that answers is not', () => {
    const t = asked(differ(), soldChips[1]).put('image', image(c, 'release'))
    expect(step(t).say).toContain('seat the clip again')
    expect(said(t)).toBeUndefined()
    const silent = ready().put('firmware', { chipId: 'FFFFFF' })
    expect(said(silent)?.outcome).toBe('none')
    // Another chip since: what the old one said does not count.
    expect(said(silent.put('firmware', { chip: 'X' }))).toBeUndefined()
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
    // Sound by its own sums, and not compared with its own release.
    expect(contents(tape().put('compared', compared('another release')))?.reliability).toBe(0.6)
    expect(contents(t.put('strike', { why: 'undo' }, 1))).toBeNull()
  })
})
