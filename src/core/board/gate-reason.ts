import type { Station } from './station'

export interface GateReason {
  readonly level: 'closed' | 'limit'
  readonly code: string
  readonly text: string
  /** Where on screen it can be cleared. */
  readonly at: { readonly station: Station; readonly part: string; readonly say: string }
}

export interface PowerGate {
  readonly lamp: 'clear' | 'limit the current' | 'do not power'
  readonly reasons: readonly GateReason[]
}

/** What forbids power, the most serious of it; nothing where power is not forbidden. */
export const closedBy = ({ reasons }: PowerGate): GateReason | undefined =>
  reasons.find((r) => r.level === 'closed')
