import type { PowerGate } from '@/core/board/gate-reason'

type Lamp = PowerGate['lamp']

export const lampWords: Record<Lamp, string> = {
  clear: 'Clear to power',
  'limit the current': 'Limit the current',
  'do not power': 'Do not power',
}

export const lampTone: Record<Lamp, string> = {
  clear: 'bg-verd-bg text-verd',
  'limit the current': 'bg-brass-bg text-brass',
  'do not power': 'bg-ember-bg text-ember',
}

/** The lamp's own shape: triangle with a bar, half-closed ring, full ring; colour only says it again. */
export function GateShape({ lamp, size = 30 }: { lamp: Lamp; size?: number }) {
  return (
    <svg
      viewBox="0 0 30 30"
      width={size}
      height={size}
      aria-hidden="true"
      className="shrink-0"
      fill="none"
      stroke="currentColor"
      strokeWidth="2.6"
      strokeLinejoin="round"
    >
      {lamp === 'do not power' && <path d="M15 2l13 24H2zM10 20h10" />}
      {lamp === 'limit the current' && <path d="M4 26V4h22v22zM4 15h22" />}
      {lamp === 'clear' && <path d="M15 3a12 12 0 1 0 .01 0zM9 15l4.5 4.5L21.5 11" strokeLinecap="round" />}
    </svg>
  )
}
