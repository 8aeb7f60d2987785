/** The files a board’s map is read from. */
export const mapFiles = ['netlist', 'placements'] as const
export type MapFile = (typeof mapFiles)[number]
