export interface ProofBodies {
  proof: {
    readonly test: string
    readonly result: 'pass' | 'fail' | 'cannot run here'
    readonly reading: string
    /** What spoke against it and was asked about first. */
    readonly despite?: readonly string[]
  }
}
