import { expect, it } from 'vitest'
import { wantedOf } from './wanted'

it('what is wanted for a part follows from its pads; what is never guessed has no value', () => {
  expect(wantedOf(null)).toMatchObject({ kind: 'resistor', value: '', use: 'other' })
  expect(wantedOf('C5')).toMatchObject({ kind: 'capacitor', value: '' })
  const line = {
    a: { net: 'SPI_MISO' },
    b: { net: 'PCH_MISO' },
    padsMm: 1,
    supplyV: 1.8,
    twins: [{ ref: 'R213', value: 33 }],
  }
  expect(wantedOf('R214', line)).toEqual({
    kind: 'resistor',
    value: '33 Ω',
    use: 'series',
    size: '0402',
    workingV: '1.8',
    amps: '',
  })
  const feedback = { a: { net: 'VCORE' }, b: { net: 'VR_FB' }, twins: [] }
  expect(wantedOf('R303', feedback)).toMatchObject({ value: '', use: 'other' })
})
