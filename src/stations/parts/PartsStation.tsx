'use client'
import { useState } from 'react'
import { refsOf } from '@/core/parts/life'
import { partInHand } from '@/core/parts/next-step'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { usePointed } from '@/frame/point'
import { useJob } from '@/job/JobProvider'
import { Ledger } from '@/panels/Ledger'
import { Photos } from '@/panels/Photos'
import { Caution } from '@/ui/Caution'
import { Tabs } from '@/ui/Tabs'
import { ComparePanel } from './compare/ComparePanel'
import { CompareView } from './compare/CompareView'
import { useCompare } from './compare/use-compare'
import { CountParts } from './heat/CountParts'
import { HeatForm } from './heat/HeatForm'
import { HeatWindow } from './heat/HeatWindow'
import { useHeat } from './heat/use-heat'
import { BoardView } from './map/BoardView'
import { MapPanel } from './map/MapPanel'
import { useBoardMap } from './map/use-board-map'
import { Awaited } from './Awaited'
import { Deferred } from './Deferred'
import { Marking } from './Marking'
import { NotePart } from './NotePart'
import { PartLives } from './PartLives'
import { PadReadings } from './PadReadings'
import { FromShelf } from './stock/FromShelf'
import { WhatWasIt } from './WhatWasIt'
import { typedOf } from './typed-pads'
import type { TypedPads } from './typed-pads'

const tabs = ['note', 'map', 'pads', 'marking', 'compare', 'shelf', 'heat', 'photos'] as const
type PartsTab = (typeof tabs)[number]
const tabWords: Readonly<Record<PartsTab, string>> = {
  note: 'Note',
  map: 'Map',
  pads: 'What was it?',
  marking: 'Marking',
  compare: 'Compare',
  shelf: 'Shelf',
  heat: 'Heat',
  photos: 'Photos',
}

/** Small parts one by one: how each was found, what it was, what became of it. */
export function PartsStation() {
  const parts = useJob((j) => j.state.parts)
  const inHand = partInHand(parts)?.ref ?? null
  const [tab, setTab] = useState<PartsTab>(inHand === null ? 'note' : 'pads')
  const [chosen, setChosen] = useState<string | null>(null)
  const refs = refsOf(parts)
  const ref = chosen !== null && refs.includes(chosen) ? chosen : (inHand ?? refs.at(-1) ?? null)
  // What is being typed of a part’s pads; what was kept of it until then.
  const [typing, setTyping] = useState<Readonly<Record<string, TypedPads>>>({})
  const net = parts.noted.findLast((p) => p.ref === ref && p.net !== undefined)?.net
  const map = useBoardMap(tab !== 'note' && tab !== 'photos', ref)
  const typed = ref === null ? null : (typing[ref] ?? typedOf(parts.pads[ref], net, map.pads))
  const heat = useHeat(tab === 'heat')
  const comparing = useCompare()
  usePointed((part) => {
    const wanted = part === 'count' ? 'heat' : tabs.find((t) => t === part)
    if (wanted) setTab(wanted)
  })
  return (
    <StationSurface station="parts">
      <div
        className={`grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] ${tab === 'map' || tab === 'compare' ? 'lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]' : 'lg:grid-cols-[minmax(0,1fr)_minmax(0,1.35fr)]'}`}
      >
        {tab === 'map' && <BoardView map={map} isOpen />}
        <Pane
          label={tab === 'heat' ? 'What the recipe comes to' : tab === 'compare' ? 'The photos' : undefined}
          className={tab === 'map' ? 'hidden' : ''}
        >
          {tab === 'heat' ? (
            <HeatWindow heat={heat} />
          ) : tab === 'compare' ? (
            <CompareView comparing={comparing} />
          ) : (
            <>
              <PartLives
                chosen={ref}
                onChoose={(r) => {
                  setChosen(r)
                  setTab('pads')
                }}
              />
              {tab === 'pads' && ref !== null && <WhatWasIt of={ref} typed={typed!} />}
              <Caution>
                Power, feedback, straps, resets and clocks are never guessed: look them up or measure a twin.
                Hot air burns: fume extraction, eye protection. Lead and flux: wash hands.
              </Caution>
              <div className="mt-3 border-t border-line py-3">
                <Ledger />
              </div>
              <Awaited />
              <Deferred />
            </>
          )}
        </Pane>
        <Tabs<PartsTab>
          open={tab}
          onOpen={setTab}
          tabs={[
            { name: 'note', label: tabWords.note, panel: <NotePart /> },
            {
              name: 'map',
              label: tabWords.map,
              panel: <MapPanel map={map} isOpen={tab === 'map'} onNoted={setChosen} />,
            },
            {
              name: 'pads',
              label: tabWords.pads,
              panel:
                ref === null ? (
                  <p className="text-soft">
                    Note a part that is missing first. Its two pads are then read here, board unplugged, and
                    say what it was.
                  </p>
                ) : (
                  <PadReadings of={ref} typed={typed!} onType={(t) => setTyping({ ...typing, [ref]: t })} />
                ),
            },
            { name: 'marking', label: tabWords.marking, panel: <Marking /> },
            {
              name: 'compare',
              label: tabWords.compare,
              panel: <ComparePanel comparing={comparing} isOpen={tab === 'compare'} onNoted={setChosen} />,
            },
            {
              name: 'shelf',
              label: tabWords.shelf,
              panel: <FromShelf of={ref} isOpen={tab === 'shelf'} />,
            },
            {
              name: 'heat',
              label: tabWords.heat,
              panel: (
                <>
                  <CountParts onMap={map.opened?.smallParts ?? {}} />
                  <HeatForm heat={heat} onPhotos={() => setTab('photos')} />
                </>
              ),
            },
            { name: 'photos', label: tabWords.photos, panel: <Photos /> },
          ]}
        />
      </div>
    </StationSurface>
  )
}
