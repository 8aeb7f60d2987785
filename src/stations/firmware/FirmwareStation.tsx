'use client'
import { useState } from 'react'
import { oneStartsOneNot } from '@/core/firmware/route/starts'
import { inHand } from '@/core/firmware/slice'
import { useJob } from '@/job/JobProvider'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Caution } from '@/ui/Caution'
import { Tabs } from '@/ui/Tabs'
import { ChipFacts } from './ChipFacts'
import { OffAndOn } from './fitted/OffAndOn'
import { FirmwareAnswers } from './FirmwareAnswers'
import { ImageList } from './image/ImageList'
import { ImageView } from './image/ImageView'
import { useImages } from './image/use-images'
import { RoutePanel } from './route/RoutePanel'
import { useRoute } from './route/use-route'
import { StepsTaken } from './StepsTaken'
import { VerdictPanel } from './VerdictPanel'

type Tab = 'contents' | 'chip' | 'route' | 'done'

/** Whether it is the firmware at all: the chip, what was read of it, beside the maker’s release. */
export function FirmwareStation() {
  const { firmware, board } = useJob((j) => j.state)
  const images = useImages()
  const route = useRoute()
  const { reads, release } = inHand(firmware)
  const [tab, setTab] = useState<Tab>(
    reads.length > 0
      ? 'contents'
      : firmware.route !== null || oneStartsOneNot({ board, firmware }) !== null
        ? 'route'
        : 'chip',
  )
  const [chosen, setChosen] = useState<number | null>(null)
  const shown = firmware.images.find((i) => i.seq === chosen) ?? reads.at(-1) ?? firmware.images.at(-1)
  const beside =
    shown && [release, reads.at(-1) ?? null].find((i) => i && i.file !== shown.file && i.role !== shown.role)
  return (
    <StationSurface
      station="firmware"
      answers={(step) => (
        <FirmwareAnswers
          step={step}
          images={images}
          onChip={() => setTab('chip')}
          onRoute={() => setTab('route')}
          onContents={() => setTab('contents')}
        />
      )}
    >
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(0,1.55fr)]">
        <Pane>
          <VerdictPanel />
          <ImageList
            images={images}
            chosen={shown?.seq ?? null}
            onChoose={(seq) => {
              setChosen(seq)
              setTab('contents')
            }}
          />
        </Pane>
        <Tabs<Tab>
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              name: 'contents',
              label: 'Contents',
              panel: shown ? (
                <div className="flex h-full min-h-0 flex-col gap-1.5">
                  <ImageView key={shown.seq} image={shown} beside={beside ?? null} images={images} />
                </div>
              ) : (
                <p className="text-soft">
                  No image yet. Read the chip, or open a read of it or a maker’s file: BIN, hex records or
                  S-records up to 64 MiB.
                </p>
              ),
            },
            {
              name: 'chip',
              label: 'Chip and clip',
              panel: (
                <>
                  {firmware.moves.length > 0 && <OffAndOn />}
                  <ChipFacts />
                  {firmware.moves.length === 0 && <OffAndOn />}
                  <Caution>
                    Before a clip goes on: unplugged, coin cell out. Some chips work at 1.8 V; 3.3 V from a
                    programmer destroys them. Read twice and keep the backup before anything is erased.
                  </Caution>
                </>
              ),
            },
            { name: 'route', label: 'Route', panel: <RoutePanel route={route} /> },
            { name: 'done', label: 'Found and done', panel: <StepsTaken /> },
          ]}
        />
      </div>
    </StationSurface>
  )
}
