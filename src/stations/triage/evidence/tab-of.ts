/** The tabs of evidence, in the order they are gone through. */
export const evidenceTabs = [
  'Rails',
  'Inspection',
  'Power-up',
  'POST codes',
  'Current',
  'Battery',
  'Swaps',
  'Runs',
  'Claims',
] as const
export type EvidenceTab = (typeof evidenceTabs)[number]

const inspections: ReadonlySet<string> = new Set([
  'outside',
  'front wiring',
  'round the chip',
  'CPU proud',
  'seat gauged',
  'slots',
])

/** The tab where what a test gives is entered or read. */
export function tabOf(test: { readonly id: string; readonly powers: boolean }): EvidenceTab | null {
  const { id, powers } = test
  if (/^(ohms|volts) /.test(id)) return 'Rails'
  if (inspections.has(id)) return 'Inspection'
  if (id === 'codes') return 'POST codes'
  if (/current$/.test(id) || id === 'standby heat') return 'Current'
  if (id === 'cell' || id === 'cell under load') return 'Battery'
  if (powers) return 'Power-up'
  return null
}
