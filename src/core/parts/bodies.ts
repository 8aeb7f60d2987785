export interface PartsBodies {
  part: {
    readonly ref: string
    readonly did: 'found missing' | 'found damaged' | 'taken off' | 'fitted' | 'measured'
    readonly value?: string
    readonly side?: 'top' | 'bottom'
    readonly text?: string
  }
}
