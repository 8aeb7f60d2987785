import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import type { Bodies } from '../slices'
import { firmwareView } from '../job/firmware-view'
import { Support } from './route/support-table'
import * as table from './route/support-table.testing'
import { a, b, comparedLine } from './chip-on-tape.testing'
import { dataPoint, preFlight } from './pre-flight'

const read = (file: string): Bodies['image'] => ({
  file,
  name: 'r.bin',
  bytes: 1,
  role: 'read',
  versions: ['1.30'],
})
const release = (more: Partial<Bodies['image']> = {}): Bodies['image'] => ({
  file: b,
  name: 'tw-k74 1.40.bin',
  bytes: 1,
  role: 'release',
  versions: ['1.40'],
  ...more,
})
const compared = (verdict: Bodies['compared']['verdict']) => comparedLine(a, b, verdict)
const looked = (seen: Partial<Bodies['look']> = {}) =>
  tape().put('look', { what: 'round the firmware chip', seen: 'nothing', clear: true, ...seen })
const read2 = (t = looked()) =>
  t
    .put('firmware', { chipVolts: 1.8, programmerVolts: 1.8, clipOn: true })
    .put('ticket', { set: { diskLock: 'no' } })
    .put('image', read(a))
    .put('image', read(a))
    .put('image', release())
const good = (t = looked()) => read2(t).put('compared', compared('broken off'))
const points = (t: ReturnType<typeof tape>) =>
  Object.fromEntries(preFlight(firmwareView(jobState(t.entries)), null).map((p) => [p.point, p.is]))

describe('before a chip is written', () => {
  it('what is right is good; what nobody here can know stays open', () => {
    expect(points(good())).toEqual({
      place: 'good',
      original: 'good',
      verdict: 'good',
      file: 'good',
      source: 'open',
      voltage: 'good',
      disks: 'good',
      CPU: 'open',
      supply: 'open',
      photo: 'open',
    })
  })
  it('knows a file that was fetched from the maker from one that was opened', () => {
    expect(points(good().put('image', release({ source: 'maker' }))).source).toBe('good')
    expect(points(good().put('image', release())).source).toBe('open')
    expect(points(tape()).source).toBe('no')
  })
  it.each<[string, ReturnType<typeof tape>, string, string]>([
    ['nobody looked', good(tape()), 'place', 'no'],
    ['a part is gone', good(looked({ clear: false, hazard: 'part gone' })), 'place', 'no'],
    ['two reads differ', good().put('image', read(b)), 'original', 'no'],
    [
      'another chip since',
      good().put('firmware', { chip: 'A' }).put('firmware', { chip: 'B' }),
      'original',
      'no',
    ],
    ['nothing was compared', read2(), 'verdict', 'no'],
    ['an image has come since', good().put('image', release()), 'verdict', 'no'],
    ['it is the same code', read2().put('compared', compared('same code')), 'verdict', 'no'],
    ['it cannot be told', read2().put('compared', compared('cannot tell')), 'verdict', 'open'],
    ['the clip is off', good().put('firmware', { clipOn: false }), 'voltage', 'no'],
    ['3.3 V', good().put('firmware', { programmerVolts: 3.3 }), 'voltage', 'no'],
    [
      'the name says another version',
      good().put('image', release({ name: 'tw-k74 1.52.bin' })),
      'file',
      'open',
    ],
    [
      'the name has only its beginning',
      good().put('image', release({ name: 'a 1.401.bin' })),
      'file',
      'open',
    ],
    ['no version inside', good().put('image', release({ versions: [] })), 'file', 'open'],
    ['the label says another', good().put('firmware', { version: 'V1.30' }), 'file', 'open'],
    ['the label says the same', good().put('firmware', { version: 'V1.40 beta' }), 'file', 'good'],
    ['no file', tape(), 'file', 'no'],
    ['a locked disk', good().put('ticket', { set: { diskLock: 'yes, owner told' } }), 'disks', 'open'],
    ['nobody knows of disks', good().put('ticket', { set: { diskLock: 'unknown' } }), 'disks', 'open'],
    [
      'written since',
      good().put('written', {
        image: a,
        release: b,
        backup: a,
        id: 'x',
        erased: 1,
        programmed: 1,
        despite: [],
      }),
      'original',
      'no',
    ],
  ])('%s', (_, t, point, is) => expect(points(t)[point]).toBe(is))
  it('bytes that might be the board’s own have to be seen to', () => {
    expect(dataPoint(0)).toBeNull()
    expect(dataPoint(12)).toMatchObject({ point: 'data', is: 'open' })
  })
})

describe('whether the release runs the CPU', () => {
  const support = new Support({
    releases: [table.release('1.30'), table.release('1.40')],
    support: [
      table.starts('Orrin 44', '1.30'),
      table.starts('Orrin 41', '1.30', '1.30'),
      table.starts('Orrin 47', '1.40', null, { unstable: true }),
      table.starts('Orrin 55', '1.40', null, { trust: 0.6, source: 'heard' }),
    ],
  })
  const cpu = (fitted: string | null, of: Support | null) => {
    const t = good().put('fitted', { cpu: fitted })
    const point = preFlight(firmwareView(jobState(t.entries)), of).find((p) => p.point === 'CPU')!
    return `${point.is}: ${point.say}`
  }
  it.each([
    ['bench Orrin 44', 'good: 1.40 runs Orrin 44 by the table'],
    ['Orrin 41', 'open: 1.40 does not run Orrin 41 by the table: the screen stays dark after it'],
    ['Orrin 47', 'open: 1.40 runs Orrin 47 by the table, unstable'],
    ['Orrin 55', 'open: 1.40 runs Orrin 55 by the table, which is trusted 60 %: heard'],
    ['Orrin 99', 'open: whether this release runs the CPU in the socket: look at the maker’s list'],
    [null, 'open: whether this release runs the CPU in the socket: look at the maker’s list'],
  ])('%j: %s', (fitted, says) => {
    expect(cpu(fitted, support)).toBe(says)
  })
  it('is asked of a person where the board has no table', () => {
    expect(cpu('Orrin 44', null)).toMatch(/^open: whether/)
  })
})
