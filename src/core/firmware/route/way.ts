/** By which a release gets into the chip. */
export const wayKinds = ['updater', 'button', 'recovery', 'second chip', 'programmer'] as const
export type WayKind = (typeof wayKinds)[number]

/** How the programmer gets to the chip. */
export const programmerBy = ['header', 'socket', 'clip', 'desoldered'] as const
export type ProgrammerBy = (typeof programmerBy)[number]

/** A way of one board, as it is at hand here. */
export interface Way {
  readonly kind: WayKind
  readonly by: ProgrammerBy | null
  readonly minutes: number
  /** Chance that it goes wrong, 0 ≤ risk < 1. */
  readonly risk: number
  /** What it costs to have it here, once; 0 for what is at hand. */
  readonly price: number
  /** It works from this release in the chip on; null for any, a damaged one too. */
  readonly from: string | null
  /** Whether it writes a release older than the one in the chip. */
  readonly downgrades: boolean
  /** Whether it keeps to the stepping rule. */
  readonly stepping: boolean
  /** `second chip`: the release in it. `recovery`: the release of the boot block that still lives, which must start the CPU. */
  readonly holds: string | null
}

/** What each way takes by itself: minutes with all that belongs to it, and how often it goes wrong. Bench defaults. */
export const usualWays: Readonly<Record<WayKind | ProgrammerBy, Omit<Way, 'price' | 'from' | 'holds'>>> = {
  updater: { kind: 'updater', by: null, minutes: 12, risk: 0.015, downgrades: true, stepping: true },
  button: { kind: 'button', by: null, minutes: 10, risk: 0.02, downgrades: true, stepping: false },
  recovery: { kind: 'recovery', by: null, minutes: 20, risk: 0.05, downgrades: true, stepping: false },
  'second chip': { kind: 'second chip', by: null, minutes: 3, risk: 0.01, downgrades: true, stepping: false },
  programmer: { kind: 'programmer', by: 'clip', minutes: 25, risk: 0.05, downgrades: true, stepping: false },
  header: { kind: 'programmer', by: 'header', minutes: 18, risk: 0.02, downgrades: true, stepping: false },
  socket: { kind: 'programmer', by: 'socket', minutes: 15, risk: 0.02, downgrades: true, stepping: false },
  clip: { kind: 'programmer', by: 'clip', minutes: 25, risk: 0.05, downgrades: true, stepping: false },
  desoldered: {
    kind: 'programmer',
    by: 'desoldered',
    minutes: 50,
    risk: 0.12,
    downgrades: true,
    stepping: false,
  },
}

const reached: Readonly<Record<ProgrammerBy, string>> = {
  header: 'the programmer, on the board’s own header',
  socket: 'the programmer, chip out of its socket',
  clip: 'the programmer, by clip',
  desoldered: 'the programmer, chip desoldered',
}

/** A way as it is said. */
export const sayWay = ({ kind, by }: Pick<Way, 'kind' | 'by'>): string =>
  kind === 'updater'
    ? 'the built-in updater'
    : kind === 'button'
      ? 'the button that needs no CPU'
      : kind === 'recovery'
        ? 'recovery by the boot block'
        : kind === 'second chip'
          ? 'the second chip'
          : reached[by ?? 'clip']
