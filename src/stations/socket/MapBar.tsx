'use client'
import { Button } from '@/ui/Button'
import type { Surface } from './use-surface'

const quarter = 90

/** How the map is turned, mirrored and enlarged, always in sight; and what the tints mean. */
export function MapBar({
  surface,
  onFit,
  onZoom,
}: {
  surface: Surface
  onFit: () => void
  onZoom: (factor: number) => void
}) {
  const { view, setView } = surface
  const turn = () => setView({ quarterTurns: ((view.quarterTurns + 1) % 4) as 0 | 1 | 2 | 3 })
  const exaggerate = () => setView({ exaggeration: view.exaggeration >= 4 ? 1 : view.exaggeration * 2 })
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 py-1.5 text-[0.92rem] text-soft">
      <p>
        view: turned {view.quarterTurns * quarter}°, {view.mirrored ? 'mirrored' : 'not mirrored'}; leans
        drawn {view.exaggeration}×
      </p>
      <p className="flex">
        <Button look="bare" className="px-1.5! py-0.5! font-normal!" onClick={turn} keyHint="r">
          turn
        </Button>
        <Button
          look="bare"
          className="px-1.5! py-0.5! font-normal!"
          onClick={() => setView({ mirrored: !view.mirrored })}
          keyHint="m"
        >
          mirror
        </Button>
        <Button look="bare" className="px-1.5! py-0.5! font-normal!" onClick={exaggerate}>
          leans
        </Button>
        <Button look="bare" className="px-1.5! py-0.5! font-normal!" onClick={() => onZoom(1.6)} keyHint="i">
          nearer
        </Button>
        <Button
          look="bare"
          className="px-1.5! py-0.5! font-normal!"
          onClick={() => onZoom(1 / 1.6)}
          keyHint="d"
        >
          farther
        </Button>
        <Button look="bare" className="px-1.5! py-0.5! font-normal!" onClick={onFit} keyHint="f">
          whole field
        </Button>
      </p>
      <p className="flex basis-full flex-wrap gap-x-4">
        {(
          [
            ['zone-power', 'power'],
            ['zone-memory', 'memory'],
            ['zone-lanes', 'lanes, display'],
            ['zone-control', 'clock, reset, control'],
          ] as const
        ).map(([zone, word]) => (
          <span key={zone} className="flex items-center gap-1.5">
            <span
              aria-hidden="true"
              className="inline-block size-3.5 border border-line"
              style={{ background: `var(--${zone})` }}
            />
            {word}
          </span>
        ))}
        <span className="flex items-center gap-1.5">
          <span aria-hidden="true" className="hatched inline-block size-3.5 border border-line" />
          function only guessed
        </span>
        <span>dotted: not looked at in this pass</span>
      </p>
    </div>
  )
}
