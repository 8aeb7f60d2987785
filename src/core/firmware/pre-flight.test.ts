import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import type { Bodies } from '../slices'
import { preFlight } from './pre-flight'

const [a, b] = ['a', 'b'].map((letter) => letter.repeat(64)) as [string, string]
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
const good = () =>
  tape()
    .put('firmware', { chipVolts: 1.8, programmerVolts: 1.8, clipOn: true })
    .put('image', read(a))
    .put('image', read(a))
    .put('image', release())
const points = (t: ReturnType<typeof tape>, more: Partial<Parameters<typeof preFlight>[0]> = {}) => {
  const all = preFlight({
    firmware: jobState(t.entries).firmware,
    place: 'clear',
    diskLock: 'no',
    photos: [],
    ...more,
  })
  return Object.fromEntries(all.map((p) => [p.point, p.is]))
}

describe('before a chip is written', () => {
  it('what is right is good; what nobody here can know stays open', () => {
    expect(points(good())).toEqual({
      place: 'good',
      original: 'good',
      file: 'good',
      voltage: 'good',
      disks: 'good',
      CPU: 'open',
      supply: 'open',
      photo: 'open',
    })
  })
  it.each<[string, Parameters<typeof points>, string, string]>([
    ['nobody looked', [good(), { place: 'not looked' }], 'place', 'no'],
    ['a part is gone', [good(), { place: 'wrong' }], 'place', 'no'],
    ['two reads differ', [good().put('image', read(b))], 'original', 'no'],
    [
      'another chip since',
      [good().put('firmware', { chip: 'A' }).put('firmware', { chip: 'B' })],
      'original',
      'no',
    ],
    ['the clip is off', [good().put('firmware', { clipOn: false })], 'voltage', 'no'],
    ['3.3 V', [good().put('firmware', { programmerVolts: 3.3 })], 'voltage', 'no'],
    [
      'the name says another version',
      [good().put('image', release({ name: 'tw-k74 1.52.bin' }))],
      'file',
      'open',
    ],
    ['no version inside', [good().put('image', release({ versions: [] }))], 'file', 'open'],
    ['the label says another', [good().put('firmware', { version: '1.30' })], 'file', 'open'],
    ['no file', [tape()], 'file', 'no'],
    ['a locked disk', [good(), { diskLock: 'yes, owner told' }], 'disks', 'open'],
    ['nobody knows of disks', [good(), { diskLock: 'unknown' }], 'disks', 'open'],
  ])('%s', (_, asked, point, is) => expect(points(...asked)[point]).toBe(is))
})
