/** What a contact belongs to; each group has a law in `function-law.ts`. */
export const functionGroups = [
  'core power',
  'memory power',
  'io power',
  'ground',
  'memory A',
  'memory B',
  'card lanes',
  'storage lanes',
  'display',
  'clock',
  'reset',
  'sense',
  'control',
  'reserved',
  'unknown',
] as const
export type FunctionGroup = (typeof functionGroups)[number]
