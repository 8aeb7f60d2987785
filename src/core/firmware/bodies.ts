export interface FirmwareBodies {
  firmware: {
    readonly version?: string
    readonly chip?: string
    readonly chipVolts?: number
    readonly programmerVolts?: number
    readonly clipOn?: boolean
    readonly did?: string
  }
}
