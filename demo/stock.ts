import type { StockItem } from '@/core/parts/stock/stock-item'

const small = (
  item: string,
  kind: 'resistor' | 'capacitor' | 'bead',
  value: number,
  more: Partial<StockItem>,
): StockItem => ({ item, kind, value, size: '0402', place: 'drawer 4', count: 40, low: 10, ...more })
const piece = (
  item: string,
  kind: 'chip' | 'CPU' | 'module' | 'consumable' | 'tool',
  place: string,
  count: number,
  low = 0,
): StockItem => ({ item, kind, value: null, place, count, low })

/** What lies in the drawers of Quay Bench. */
export const demoStock: readonly StockItem[] = [
  small('33 Ω 0402', 'resistor', 33, { tolerance: 0.01, watts: 0.0625, count: 60 }),
  small('22 Ω 0402', 'resistor', 22, { tolerance: 0.05, watts: 0.0625 }),
  small('33 Ω 0603', 'resistor', 33, { size: '0603', tolerance: 0.01, watts: 0.1 }),
  small('4.7 kΩ 0402', 'resistor', 4700, { tolerance: 0.01, watts: 0.0625 }),
  small('10 kΩ 0402', 'resistor', 10_000, { tolerance: 0.01, watts: 0.0625, count: 8 }),
  small('0 Ω 0603', 'resistor', 0, { size: '0603' }),
  small('100 nF 0402 X7R 16 V', 'capacitor', 1e-7, {
    tolerance: 0.1,
    volts: 16,
    dielectric: 'X7R',
    count: 100,
  }),
  small('22 µF 0805 X5R 6.3 V', 'capacitor', 2.2e-5, {
    size: '0805',
    volts: 6.3,
    dielectric: 'X5R',
    count: 12,
  }),
  small('10 µF 0603 X5R 10 V', 'capacitor', 1e-5, { size: '0603', volts: 10, dielectric: 'X5R' }),
  small('bead 120 Ω 0603 2 A', 'bead', 120, { size: '0603', amps: 2, count: 9 }),
  piece('Mica M16 16 MB 1.8 V', 'chip', 'drawer 1', 4, 2),
  { ...piece('coin cell CR', 'consumable', 'shelf', 6, 4), serves: 'new coin cell' },
  piece('flux, no-clean', 'consumable', 'shelf', 2, 2),
  piece('solder wick', 'consumable', 'shelf', 3, 1),
  { ...piece('bench module 8 GB', 'module', 'drawer 2', 2), serves: 'known-good module' },
]
