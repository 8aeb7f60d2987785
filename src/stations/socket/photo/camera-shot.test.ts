import { expect, it } from 'vitest'
import { runToEnd } from '@/core/run-to-end'
import { generateField } from '@/core/socket/model/generate'
import { takePhoto } from '@/simulated-bench/microscope-camera'
import { shotOf } from './camera-shot'
import { cameraViews } from './camera-views'

const field = generateField({
  id: 'f',
  name: 'f',
  kind: 'land-grid',
  pitchMm: 1.4,
  rows: 10,
  columns: 12,
  holes: [],
  beamDeg: [45, 225],
  regions: [],
})

it.each(['above', 'near side'] as const)('the picture from %s holds the whole field', (view) => {
  const { tips } = runToEnd(takePhoto(field, {}, shotOf(field, { view }, 3)))
  expect(tips.filter((t) => !t.inside)).toEqual([])
})
it('the four quarters together show every contact', () => {
  const seen = new Set<string>()
  for (const view of cameraViews.slice(2))
    for (const tip of runToEnd(takePhoto(field, {}, shotOf(field, { view }, 3))).tips)
      if (tip.inside) seen.add(tip.name)
  expect(seen.size).toBe(field.contacts.length)
})
it('another line of the tape is another picture', () => {
  expect(shotOf(field, { view: 'above' }, 3).seed).not.toBe(shotOf(field, { view: 'above' }, 4).seed)
})
