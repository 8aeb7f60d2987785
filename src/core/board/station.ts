/** The seven stations in the order of work. */
export const stations = ['intake', 'triage', 'socket', 'firmware', 'parts', 'proof', 'hand-back'] as const
export type Station = (typeof stations)[number]
