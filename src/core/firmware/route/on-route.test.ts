import { describe, expect, it } from 'vitest'
import { firmwareView } from '../../job/firmware-view'
import { jobState } from '../../job/job-state'
import { tape } from '../../job/tape.testing'
import { nothingNoted } from '../../board/baseline'
import { gateOf } from '../../job/gate'
import { seeded } from '@/core/maths/seeded'
import { comparedLine } from '../chip-on-tape.testing'
import { firmwareStep } from '../next-step'
import type { Verdict } from '../image/same-code'
import { preFlight } from '../pre-flight'
import { namedIn, onRoute, releaseNow } from './on-route'
import { routeOf } from './route'
import { routeLine } from './route-line'
import { drawAsk } from './route-judge.testing'
import { release, starts } from './support-table.testing'
import { usualWays } from './way'
import type { RouteAsk } from './route'

const displays: RouteAsk = {
  table: {
    releases: [release('1.40'), release('1.60', { needs: '1.40' }), release('2.04', { needs: '1.60' })],
    support: [starts('Orrin 44', '1.40', '1.60'), starts('Orrin 53', '2.04')],
  },
  ways: [{ ...usualWays.updater, price: 0, from: null, holds: null }],
  start: { release: '1.40', cpu: 'Orrin 44' },
  want: { cpu: 'Orrin 53', release: null },
  cpus: [],
  fit: { minutes: 6, risk: 0.01 },
}
const line = () => {
  const found = routeOf(displays, 'time')
  if (found.is === 'none') throw new Error(found.why)
  return routeLine(displays, found.route, 'time')
}
const begun = () =>
  tape().put('fitted', { cpu: 'bench Orrin 44' }).put('firmware', { version: '1.40' }).put('route', line())
const copyOf = (t: ReturnType<typeof tape>) => {
  const other = tape()
  other.entries.push(...t.entries)
  return other
}
const say = (t: ReturnType<typeof tape>, closed: string | null = null) =>
  firmwareStep(firmwareView(jobState(t.entries)), closed).say
const why = (t: ReturnType<typeof tape>) => firmwareStep(firmwareView(jobState(t.entries)), null).why

describe('following a route on the tape', () => {
  it('goes from step to step by what was written, seen and fitted, to the end', () => {
    let t = begun()
    expect(say(t)).toBe('Write 1.60 from 1.40 by the built-in updater.')
    expect(say(t, 'a rail is unmeasured')).toBe('Do not power yet: a rail is unmeasured.')
    t = t.put('firmware', { wrote: '1.60', version: '1.60' })
    expect(say(t)).toMatch(/^Write 2\.04 from 1\.60 .*\.$/)
    expect(why(t)).toContain('A black screen is expected: 2.04 does not run Orrin 44.')
    t = t.put('firmware', { wrote: '2.04' })
    expect(say(t)).toBe('Fit Orrin 53.')
    // Fitting needs no power.
    expect(say(t, 'a rail is unmeasured')).toBe('Fit Orrin 53.')
    t = t.put('fitted', { cpu: 'Orrin 53' })
    expect(say(t)).toMatch(/^The route is at its end/)
    expect(say(t, 'a rail is unmeasured')).toMatch(/^Do not power yet/)
  })

  it('says so when another release is seen than was written, and when another CPU is in', () => {
    expect(say(begun().put('firmware', { wrote: '1.60', version: '1.52' }))).toBe(
      'Plan the route again: 1.60 was written, 1.52 is seen.',
    )
    expect(say(begun().put('firmware', { version: '1.52' }))).toBe(
      'Plan the route again: 1.52 is in the chip, which the route does not lead over.',
    )
    expect(say(begun().put('fitted', { cpu: 'Orrin 41' }))).toMatch(/Orrin 41 is in the socket/)
  })

  it('is asked for where one CPU starts and another stays dark on what is in the chip', () => {
    const started = (cpu: string, picture: 'none' | 'maker screen') => (t: ReturnType<typeof tape>) =>
      t.put('fitted', { cpu }).put('baseline', { ...nothingNoted, fans: 'on', picture })
    const both = [started('Orrin 53', 'none'), started('bench Orrin 44', 'maker screen')]
    expect(say(both.reduce((t, put) => put(t), tape()))).toMatch(
      /^The board starts with bench Orrin 44, not with Orrin 53: plan the route/,
    )
    expect(say(both[0]!(tape()))).toMatch(/^Look round/)
    // That the chip's marking is noted for the first time changes nothing; another chip does.
    const marked = both.reduce((t, put) => put(t), tape()).put('firmware', { chip: 'LSN-16V' })
    expect(say(marked)).toMatch(/^The board starts with/)
    expect(say(marked.put('firmware', { chip: 'LSN-16M' }))).toMatch(/^Look round/)
    expect(say(both.reduce((t, put) => put(t), tape()).put('firmware', { wrote: '2.04' }))).toMatch(
      /^Look round/,
    )
  })

  it('begins with a CPU in the socket that the table does not know', () => {
    const found = routeOf(
      { ...displays, start: { release: '1.40', cpu: null }, cpus: [{ cpu: 'Orrin 44', price: 0 }] },
      'time',
    )
    if (found.is === 'none') throw new Error(found.why)
    const t = tape()
      .put('fitted', { cpu: 'Orrin 99' })
      .put('firmware', { version: '1.40' })
      .put('route', routeLine(displays, found.route, 'time'))
    expect(say(t)).toBe('Fit Orrin 44.')
  })

  it('is not asked for where a contact was worked on between the two: that may have been what kept it dark', () => {
    const t = tape()
      .put('fitted', { cpu: 'Orrin 53' })
      .put('baseline', { ...nothingNoted, fans: 'on', picture: 'none' })
      .put('replaced', { contact: 'A1', how: 'stub raise', donor: '', holds: true, pulledOut: [] })
      .put('fitted', { cpu: 'bench Orrin 44' })
      .put('baseline', { ...nothingNoted, fans: 'on', picture: 'maker screen' })
    expect(say(t)).toMatch(/^Look round/)
  })

  it('has the chip looked at and read before the programmer writes it, and goes on once it is written', () => {
    const ask = { ...displays, ways: [{ ...usualWays.desoldered, price: 0, from: null, holds: null }] }
    const found = routeOf(ask, 'time')
    if (found.is === 'none') throw new Error(found.why)
    const on = tape()
      .put('fitted', { cpu: 'Orrin 44' })
      .put('firmware', { version: '1.40' })
      .put('route', routeLine(ask, found.route, 'time'))
    expect(say(on)).toMatch(/^Look round the firmware chip first/)
    on.put('look', { what: 'round the firmware chip', seen: 'nothing seen', clear: true })
    expect(say(on)).toMatch(/^Read the chip’s marking/)
    on.put('firmware', { chip: 'LSN-16V', chipVolts: 1.8 })
    expect(say(on)).toBe('Take the chip off first.')
    on.put('chip moved', { to: 'off', by: 'hot air', despite: [] })
    expect(say(on)).toMatch(/^Read the chip, twice/)
    const image = { file: 'a'.repeat(64), name: 'r.bin', bytes: 1, versions: ['1.40'] } as const
    on.put('image', { ...image, role: 'read' })
    expect(say(on)).toBe('Read it once more.')
    on.put('image', { ...image, role: 'read' })
    expect(say(on)).toBe('Write 2.04 by the programmer, chip desoldered.')
    on.put('firmware', { wrote: '2.04', wroteBy: 'desoldered' })
    expect(say(on)).toMatch(/^Fit the chip again/)
    on.put('chip moved', { to: 'on', by: 'hot air', despite: [] })
    expect(say(on)).toMatch(/its dot/)
    on.put('refit', { orientation: 'right', pads: 'whole', joints: 'sound', seated: true })
    expect(say(on)).toMatch(/^Measure each pin/)
    on.put('refit', { lines: { CS: 33, DO: 33, WP: 33, GND: 0, DI: 33, CLK: 33, HOLD: 33, VCC: 0 } })
    expect(say(copyOf(on).put('firmware', { clipOn: true }))).toBe('Take the clip off first.')
    expect(say(on)).toBe('Fit Orrin 53.')
    // Heat was at the board: nothing of it may be powered as before.
    const state = jobState(on.entries)
    expect(state.board.power.railsOwedWhy).toBe('after the firmware chip fitted again')
    expect(gateOf(state, null).lamp).toBe('do not power')
  })

  it('has the release’s file compared and written, though it is another than the chip’s own', () => {
    const ask = { ...displays, ways: [{ ...usualWays.clip, price: 0, from: null, holds: null }] }
    const found = routeOf(ask, 'time')
    if (found.is === 'none') throw new Error(found.why)
    const [a, b] = ['a'.repeat(64), 'b'.repeat(64)]
    const image = (file: string, role: 'read' | 'release', version: string) =>
      ({ file, role, name: `${version}.bin`, bytes: 1, versions: [version] }) as const
    const on = (file = '2.04', verdict: Verdict = 'another release') =>
      tape()
        .put('fitted', { cpu: 'Orrin 44' })
        .put('firmware', { version: '1.40', chip: 'LSN-16V', chipVolts: 1.8 })
        .put('look', { what: 'round the firmware chip', seen: 'nothing seen', clear: true })
        .put('route', routeLine(ask, found.route, 'time'))
        .put('image', image(a, 'read', '1.40'))
        .put('image', image(a, 'read', '1.40'))
        .put('image', image(b, 'release', file))
        .put('compared', comparedLine(a, b, verdict))
    expect(say(on())).toBe('Write 2.04 by the programmer, by clip.')
    const file = (t: ReturnType<typeof tape>) =>
      preFlight(firmwareView(jobState(t.entries)), null).find((p) => p.point === 'file')!.is
    expect(file(on())).toBe('good')
    // What cannot be told, such as a file that is cut off, is not written over.
    expect(say(on('2.04', 'cannot tell'))).not.toMatch(/^Write/)
    // The file of a release that the route does not write is no step of it.
    expect(say(on('1.60'))).not.toMatch(/^Write/)
    expect(file(on('1.60'))).toBe('open')
  })

  it('a release that the board wrote itself owes the proofs of the firmware, and no rails', () => {
    const { board } = jobState(begun().put('firmware', { wrote: '1.60', version: '1.60' }).entries)
    expect([board.changed.firmware, board.power.railsOwedWhy]).toEqual([4, ''])
  })

  it('is left where the chip was compared since, until it is written or seen', () => {
    const read = { file: 'a'.repeat(64), name: 'r.bin', bytes: 1, role: 'read', versions: ['1.40'] } as const
    const t = begun().put('image', read)
    expect(say(t)).toMatch(/^Write 1\.60/)
    t.put('compared', comparedLine(read.file, 'b'.repeat(64), 'damaged'))
    expect(say(t)).not.toMatch(/^Write|^Plan/)
    expect(say(t.put('firmware', { wrote: '1.60', version: '1.60' }))).toMatch(/^Write 2\.04/)
  })

  it('leads over every step of any route, one after the other', () => {
    const draw = seeded(404)
    for (let i = 0; i < 200; i++) {
      const ask = drawAsk(draw)
      const found = routeOf(ask, 'time')
      if (found.is === 'none') continue
      const { steps, want } = routeLine(ask, found.route, 'time')
      steps.forEach((s, at) => expect(onRoute(steps, want, s.before)).toEqual({ is: 'step', at, leg: s }))
      expect(onRoute(steps, want, found.route.ends).is).toBe('there')
    }
  })
})

describe('what the chip holds', () => {
  const now = (t: ReturnType<typeof tape>) => releaseNow(jobState(t.entries).firmware)
  const image = { file: 'a'.repeat(64), name: 'r.bin', bytes: 1, versions: ['1.30'] } as const
  it('is what was last seen, written or read; another chip starts anew', () => {
    expect(now(tape())).toMatchObject({ release: null, by: 'nothing' })
    let t = tape().put('firmware', { version: '1.20' })
    expect(now(t)).toMatchObject({ release: '1.20', by: 'seen' })
    t = t.put('image', { ...image, role: 'read' })
    expect(now(t)).toMatchObject({ release: '1.30', by: 'read' })
    t = t.put('firmware', { chip: 'LSN-16V' }).put('firmware', { wrote: '1.40' })
    expect(now(t)).toMatchObject({ release: '1.40', by: 'written' })
    t = t.put('firmware', { chip: 'FERN-32V' })
    expect(now(t)).toMatchObject({ release: null, by: 'nothing' })
  })
  it('is nothing that starts while its code is broken off', () => {
    const t = tape()
      .put('image', { ...image, role: 'read' })
      .put('compared', comparedLine(image.file, 'b'.repeat(64), 'broken off'))
    expect(now(t)).toMatchObject({ release: null, by: 'broken' })
  })
})

it.each([
  ['bench Orrin 44', 'Orrin 44'],
  ['ORRIN 44 (old)', 'Orrin 44'],
  ['Orrin 445', null],
  ['Orrin 4', 'Orrin 4'],
  ['', null],
])('%j names %j', (text, name) => {
  expect(namedIn(text, ['Orrin 4', 'Orrin 44', 'Orrin 53'])).toBe(name)
})
