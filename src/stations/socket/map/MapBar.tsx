'use client'
import type { ReactNode } from 'react'
import { letGo } from '@/ui/keys'
import type { Surface } from './use-surface'

const zones = [
  ['zone-power', 'power'],
  ['zone-memory', 'memory'],
  ['zone-lanes', 'lanes'],
  ['zone-control', 'control'],
] as const

interface Props {
  readonly surface: Surface
  readonly onFit: () => void
  readonly onPhotos: () => void
  readonly onSweep: () => void
  readonly onZoom: (factor: number) => void
}

/** How the map is turned, mirrored and enlarged, always in sight; and what the tints mean. */
export function MapBar({ surface, onFit, onZoom, onPhotos, onSweep }: Props) {
  const { view, setView } = surface
  const turn = () => setView({ quarterTurns: ((view.quarterTurns + 1) % 4) as 0 | 1 | 2 | 3 })
  const exaggerate = () => setView({ exaggeration: view.exaggeration >= 4 ? 1 : view.exaggeration * 2 })
  return (
    <div className="pt-1 text-[0.84rem] text-soft">
      <p className="flex flex-wrap justify-between gap-x-3">
        <span>
          turned {view.quarterTurns * 90}°, {view.mirrored ? 'mirrored' : 'not mirrored'}, leans{' '}
          {view.exaggeration}×
        </span>
        <span className="flex gap-x-2">
          <Move name="turn" hint="r" onPress={turn} />
          <Move name="mirror" hint="m" onPress={() => setView({ mirrored: !view.mirrored })} />
          <Move name="leans" hint="k" onPress={exaggerate} />
          <Move name="nearer" hint="i" onPress={() => onZoom(1.6)} />
          <Move name="farther" hint="d" onPress={() => onZoom(1 / 1.6)} />
          <Move name="whole" hint="f" onPress={onFit} />
          <Move name="sweep" hint="w" onPress={onSweep} />
          <Move name="map from photos" hint="y" onPress={onPhotos} />
        </span>
      </p>
      <p className="flex flex-wrap gap-x-3.5 pb-1">
        {zones.map(([zone, word]) => (
          <Key
            key={zone}
            swatch={<span className="size-3 border border-line" style={{ background: `var(--${zone})` }} />}
          >
            {word}
          </Key>
        ))}
        <Key swatch={<span className="hatched size-3 border border-line" />}>only guessed</Key>
        <Key swatch={<span className="size-3 rounded-full border border-dotted border-slate" />}>
          not looked at yet
        </Key>
      </p>
    </div>
  )
}

function Move({ name, hint, onPress }: { name: string; hint: string; onPress: () => void }) {
  return (
    <button
      type="button"
      onClick={(event) => {
        letGo(event)
        onPress()
      }}
      className="hover:text-ink"
    >
      {name} <kbd className="num text-[0.82rem]">{hint}</kbd>
    </button>
  )
}

function Key({ swatch, children }: { swatch: ReactNode; children: ReactNode }) {
  return (
    <span className="flex items-center gap-1.5">
      <span aria-hidden="true" className="flex">
        {swatch}
      </span>
      {children}
    </span>
  )
}
