import type { KeptTemperature } from './temperature'

interface Asked {
  /** How likely its test was to find something, as it was said then, on the line that settles it; where that was known. */
  readonly finds?: number
  /** What spoke against it and was asked about first. */
  readonly despite?: readonly string[]
}

export interface ProofBodies {
  /** A log of temperatures under load, what it comes to, and its curve kept thin. */
  temperature: KeptTemperature & Asked
  /** A start with mains off a minute before it, and whether it reached the picture. */
  'cold start': { readonly came: boolean } & Asked
  proof: {
    readonly test: string
    readonly result: 'pass' | 'fail' | 'cannot run here'
    readonly reading: string
    /** It fails although it had passed, with nothing changed since. */
    readonly afterAll?: true
  } & Asked
}
