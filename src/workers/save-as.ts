/** How an image is saved. */
export const saveAs = ['BIN', 'hex records', 'S-records'] as const
export type SaveAs = (typeof saveAs)[number]
