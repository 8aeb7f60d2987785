/** What may have happened to a board before it came. */
export const historyItems = [
  'cooler swap',
  'CPU swap',
  'firmware update',
  'power cut during update',
  'cleaning',
  'shipped without socket cover',
  'long unplugged',
  'dropped something in',
  'liquid',
  'lightning or surge',
  'worked on by others',
  'none known',
] as const
export type HistoryItem = (typeof historyItems)[number]
