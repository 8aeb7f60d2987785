'use client'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import type { CSSProperties, ReactNode } from 'react'
import { useKeyHint } from '@/frame/use-keys'
import { MapMove } from '@/ui/MapMove'
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
  const hint = useKeyHint()
  const exaggerate = () => setView({ exaggeration: view.exaggeration >= 4 ? 1 : view.exaggeration * 2 })
  return (
    <div className="flex h-[26px] shrink-0 items-center justify-between gap-x-3 overflow-hidden text-[0.8rem] whitespace-nowrap text-soft max-lg:h-auto max-lg:flex-wrap">
      <span className="flex gap-x-2.5">
        <MapMove name={`turn ${view.quarterTurns * 90}°`} hint={hint('turn')} onPress={turn} />
        <MapMove
          name={view.mirrored ? 'mirrored' : 'mirror'}
          on={view.mirrored}
          hint={hint('mirror')}
          onPress={() => setView({ mirrored: !view.mirrored })}
        />
        <MapMove name={`leans ${view.exaggeration}×`} hint={hint('leans')} onPress={exaggerate} />
        <MapMove name="+" says="nearer" hint={hint('nearer')} onPress={() => onZoom(1.6)} />
        <MapMove name="−" says="farther" hint={hint('farther')} onPress={() => onZoom(1 / 1.6)} />
        <MapMove name="whole" hint={hint('whole')} onPress={onFit} />
        <MapMove name="inspect" hint={hint('sweep')} onPress={onSweep} />
        <MapMove name="photo" hint={hint('fromPhotos')} onPress={onPhotos} />
      </span>
      <Popover className="relative">
        <PopoverButton className="underline decoration-line underline-offset-4">legend</PopoverButton>
        <PopoverPanel
          anchor="top end"
          className="z-40 grid grid-cols-2 gap-x-5 gap-y-1 rounded-sheet border-2 border-ink bg-sheet p-4 text-[0.88rem] text-ink"
        >
          {zones.map(([zone, word]) => (
            <Key
              key={zone}
              swatch={<Swatch className={`pattern-${word}`} style={{ backgroundColor: `var(--${zone})` }} />}
            >
              {word}
            </Key>
          ))}
          <Key swatch={<Swatch />}>ground</Key>
          <Key swatch={<Swatch className="hatched" />}>only guessed</Key>
          {dotKeys.map(([word, dot]) => (
            <Key key={word} swatch={dot}>
              {word}
            </Key>
          ))}
        </PopoverPanel>
      </Popover>
    </div>
  )
}

function Swatch({ className = '', style }: { className?: string; style?: CSSProperties }) {
  return <span className={`size-4 border border-line ${className}`} style={style} />
}

const dot = (shape: ReactNode) => (
  <svg viewBox="0 0 16 16" className="size-4">
    {shape}
  </svg>
)
const dotKeys = [
  [
    'not inspected',
    dot(
      <circle
        cx="8"
        cy="8"
        r="5"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeDasharray="2 2"
      />,
    ),
  ],
  ['inspected', dot(<circle cx="8" cy="8" r="3" fill="var(--slate)" />)],
  ['marked sound', dot(<circle cx="8" cy="8" r="5" fill="var(--verd)" />)],
] as const

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
