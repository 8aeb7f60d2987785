import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { evidenceOf } from '../job/evidence'
import { firmwareView } from '../job/firmware-view'
import { tape } from '../job/tape.testing'
import type { Bodies } from '../slices'
import { faultIds } from '../triage/model/faults'
import { believe } from '../triage/reason/belief'
import { startsSince } from './after-write'
import { a, b, comparedLine, image, stateOf, step } from './chip-on-tape.testing'
import type { Tape } from './chip-on-tape.testing'
import { ironPoints } from './pre-flight'

const start = (t: Tape, picture: 'none' | 'maker screen') =>
  t.put('baseline', { ...nothingNoted, fans: 'on', lamp: 'cpu', picture })
const written = (verdict: Bodies['compared']['verdict'], release: string | null = b): Tape =>
  tape()
    .put('look', { what: 'round the firmware chip', seen: 'nothing', clear: true })
    .put('firmware', { chip: 'LSN-16M', chipVolts: 3.3, programmerVolts: 3.3, clipOn: true })
    .put('image', image(a))
    .put('image', image(a))
    .put('image', image(b, 'release'))
    .put('compared', comparedLine(a, b, verdict))
    .put('written', {
      image: b,
      release,
      backup: a,
      id: '7F 7F 33 40 15',
      erased: 1,
      programmed: 1,
      despite: [],
    })
    .put('firmware', { clipOn: false })
const twice = (t: Tape) => start(start(t, 'none'), 'none')

describe('after a write', () => {
  it('concludes nothing from one start, and sends on what comes up', () => {
    expect(step(written('damaged')).part).toBe('after-write')
    expect(step(start(written('damaged'), 'none')).say).not.toMatch(/Put|triage/)
    const up = start(start(written('damaged'), 'maker screen'), 'maker screen')
    expect(step(up)).toMatchObject({ part: 'to-proof' })
    expect(step(start(twice(written('damaged')), 'maker screen'))).toMatchObject({
      part: 'to-triage',
      say: expect.stringContaining('1 of 3') as unknown,
    })
  })
  it('dark, looks at the last step first: what was moved, the ID, then the original', () => {
    const t = twice(written('another release'))
    expect(step(t).part).toBe('seated')
    t.put('refit', { seated: true })
    expect(step(t).part).toBe('id')
    t.put('firmware', { chipId: '7F7F334015' })
    expect(step(t)).toMatchObject({
      part: 'put-back',
      say: expect.stringContaining('it was sound') as unknown,
    })
    t.put('written', { image: a, release: null, backup: a, id: 'x', erased: 1, programmed: 1, despite: [] })
    expect(step(t).part).toBe('after-write')
    twice(t).put('refit', { seated: true }).put('firmware', { chipId: '7F7F334015' })
    expect(step(t).say).toContain('it is not the firmware')
  })
  it('does not put back what was damaged, and blames no release for a chip that does not answer', () => {
    const t = twice(written('damaged')).put('refit', { seated: true })
    expect(step(t.put('firmware', { chipId: '7F7F334015' })).part).toBe('to-triage')
    const silent = twice(written('another release')).put('refit', { seated: true })
    expect(step(silent.put('firmware', { chipId: 'FFFFFF' }))).toMatchObject({ part: 'chip' })
  })
  it('counts starts since anything was changed, and only those with a picture noted', () => {
    const counted = (t: Tape) => startsSince(firmwareView(stateOf(t)))
    expect(counted(twice(written('damaged')))).toEqual({ came: 0, dark: 2 })
    expect(counted(twice(written('damaged')).put('fitted', { cpu: 'Orrin 44' }))).toEqual({
      came: 0,
      dark: 0,
    })
    expect(counted(written('damaged').put('baseline', { ...nothingNoted, fans: 'on' }))).toEqual({
      came: 0,
      dark: 0,
    })
  })
})

describe('a chip off the board', () => {
  const off = (t: Tape) => t.put('chip moved', { to: 'off', by: 'iron', despite: [] })
  it('is read in the holder, fitted once it is written, then looked at point by point', () => {
    const t = off(
      tape()
        .put('look', { what: 'round the firmware chip', seen: 'nothing', clear: true })
        .put('firmware', { chip: 'LSN-16M', chipVolts: 3.3, programmerVolts: 3.3 }),
    )
    expect(step(t).say).toContain('twice')
    t.put('firmware', { wrote: '1.52', wroteBy: 'desoldered' })
    expect(step(t).part).toBe('chip-fit')
    t.put('chip moved', { to: 'on', by: 'iron', despite: [] })
    const asked: string[] = []
    for (const refit of [
      { orientation: 'right' },
      { pads: 'whole' },
      { joints: 'sound' },
      { lines: { CS: 33, DO: 33, WP: 1, GND: 0, DI: 33, CLK: 33, HOLD: 1, VCC: 0 } },
      { seated: true },
    ] satisfies Bodies['refit'][]) {
      asked.push(step(t).part === 'refit' ? step(t).say : '')
      t.put('refit', refit)
    }
    expect(asked.every((say) => say.length > 10)).toBe(true)
    expect(new Set(asked).size).toBe(5)
    expect(step(t).part).not.toBe('refit')
  })
  it('turned it is said so before anything else', () => {
    const t = off(tape()).put('chip moved', { to: 'on', by: 'iron', despite: [] })
    t.put('refit', { pads: 'lifted' }).put('refit', { orientation: 'turned' })
    expect(step(t).say).toContain('turned')
  })
})

describe('before an iron', () => {
  const points = (t: Tape) =>
    Object.fromEntries(ironPoints(firmwareView(stateOf(t))).map((p) => [p.point, p.is]))
  const photo = { file: '', name: 'a.png', type: 'image/png', bytes: 1, caption: '' }
  it('wants a photo and a look, and the photo anew after each heat', () => {
    expect(points(tape())).toMatchObject({ photo: 'no', place: 'no', original: 'open', unplugged: 'open' })
    const ready = () =>
      tape().put('photo', photo).put('look', { what: 'round the chip', seen: 'nothing', clear: true })
    expect(points(ready())).toMatchObject({ photo: 'open', place: 'good' })
    const again = ready()
      .put('chip moved', { to: 'off', by: 'iron', despite: [] })
      .put('chip moved', { to: 'on', by: 'iron', despite: [] })
    expect(points(again).photo).toBe('no')
    expect(points(again.put('photo', photo)).photo).toBe('open')
  })
  it('wants the small parts counted, and anew after each heat', () => {
    const counted = (t: Tape) => t.put('parts counted', { place: 'at the firmware chip', count: 14 })
    expect(points(tape()).count).toBe('open')
    expect(points(tape().put('parts counted', { place: 'at memory', count: 4 })).count).toBe('open')
    const t = counted(tape())
    expect(points(t).count).toBe('good')
    expect(points(t.put('chip moved', { to: 'off', by: 'iron', despite: [] })).count).toBe('open')
    expect(points(counted(t)).count).toBe('good')
    // A part that was soldered meanwhile is heat as well; a count that fell short is not a good one.
    expect(points(t.put('part', { ref: 'R9', did: 'fitted' })).count).toBe('open')
    t.put('parts counted', { place: 'at the firmware chip', count: 13, of: 14 })
    expect(points(t).count).toBe('open')
  })
  it('may be done where something is wrong round the chip: it is how that is put right', () => {
    const gone = tape()
      .put('photo', photo)
      .put('look', { what: 'round the chip', seen: 'R214', clear: false, hazard: 'part gone' })
    expect(points(gone).place).toBe('open')
  })
})

describe('what a failed start says of the write', () => {
  const odds = (t: Tape, fault: (typeof faultIds)[number]) => {
    const { evidence, changes } = evidenceOf(stateOf(t), null)
    const { faults } = believe({ history: [], evidence, changes, mayPower: true })
    return faults.find((f) => f.fault === fault)?.odds ?? 0
  }
  it('opens the fault again that it was meant to mend, and a start that comes up closes it', () => {
    const before = odds(written('damaged'), 'firmware corrupt')
    expect(before).toBeGreaterThan(0.05)
    expect(odds(twice(written('damaged')), 'firmware corrupt')).toBeGreaterThan(before)
    expect(odds(start(written('damaged'), 'maker screen'), 'firmware corrupt')).toBeLessThan(before / 2)
  })
  it('keeps the repair where the chip is compared once more', () => {
    const t = written('damaged')
      .put('image', image(b))
      .put('compared', comparedLine(b, b, 'same code'))
    expect(evidenceOf(stateOf(t), null).changes).toEqual([{ is: 'mended', fault: 'firmware corrupt' }])
    expect(evidenceOf(stateOf(t), null).evidence.filter((e) => e.test === 'chip contents')).toMatchObject([
      { outcome: 'differ' },
      { outcome: 'alike', after: 1 },
    ])
  })
  it('counts each write by what it was written over, and none that was taken back', () => {
    const mends = (t: Tape) => evidenceOf(stateOf(t), null).changes
    const again = (t: Tape, release: string | null) =>
      t.put('written', { image: a, release, backup: a, id: 'x', erased: 1, programmed: 1, despite: [] })
    expect(mends(again(written('damaged'), b))).toEqual([{ is: 'mended', fault: 'firmware corrupt' }])
    expect(mends(again(written('damaged'), null))).toEqual([])
    expect(mends(again(written('another release'), b))).toEqual([])
  })
  it('a chip soldered on again raises its joints, where it stays dark', () => {
    const on = (by: 'iron' | 'hand') =>
      start(
        written('same code')
          .put('chip moved', { to: 'off', by, despite: [] })
          .put('chip moved', { to: 'on', by, despite: [] }),
        'none',
      )
    expect(odds(on('iron'), 'chip joint')).toBeGreaterThan(5 * odds(on('hand'), 'chip joint'))
  })
})
