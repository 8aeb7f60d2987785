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
  'round the socket',
  'strip',
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

/** Where the parts of this station that links lead to stand. */
export const tabOfPart: Readonly<Record<string, EvidenceTab>> = {
  look: 'Inspection',
  looks: 'Inspection',
  rails: 'Rails',
  baseline: 'Power-up',
  fitted: 'Power-up',
  cell: 'Battery',
  claims: 'Claims',
}

/** The tab that a step needs: of its test, else of the part of the station where it is done. */
export function tabOfStep(
  { part }: { readonly part?: string },
  test: { readonly id: string; readonly powers: boolean } | null,
): EvidenceTab | null {
  return (test ? tabOf(test) : null) ?? (part === undefined ? null : (tabOfPart[part] ?? null))
}
