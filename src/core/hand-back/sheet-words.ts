/** A part of a sheet: its heading, its lines, and what stands there when there are none. */
export interface SheetPart {
  readonly title: string
  readonly lines: readonly string[]
  readonly none: string
}

/** What a sheet says, word for word. */
export interface SheetWords {
  readonly title: string
  readonly complaint: string
  readonly outcome: string
  readonly parts: readonly SheetPart[]
  readonly minutes: number
  readonly priceMinor: number | null
}
