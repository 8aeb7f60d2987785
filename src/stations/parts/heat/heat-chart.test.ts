import { Chart } from 'chart.js'
import { expect, it } from 'vitest'
import { HeatChart } from './HeatChart'

it('the handles are for this chart alone: no other curve of the application can be dragged', () => {
  expect(HeatChart).toBeTypeOf('function')
  expect(() => Chart.registry.getPlugin('dragdata')).toThrow(/not a registered plugin/)
  expect(() => Chart.registry.getPlugin('filler')).not.toThrow()
})
