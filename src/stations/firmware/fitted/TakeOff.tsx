'use client'
import { useState } from 'react'
import { movedBy } from '@/core/firmware/bodies'
import { ironPoints } from '@/core/firmware/pre-flight'
import { StationLink } from '@/frame/StationLink'
import { firmwareView } from '@/core/job/firmware-view'
import { usePhotos } from '@/job/use-photos'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { FileButton } from '@/ui/FileButton'
import { Sheet } from '@/ui/Sheet'
import { despite, Points, ready } from '../write/Points'

/** Before the firmware chip comes off the board. */
export function TakeOff({ byHand, onClose }: { byHand: boolean; onClose: () => void }) {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const [by, setBy] = useState<(typeof movedBy)[number]>(byHand ? 'hand' : 'hot air')
  const { waiting, add } = usePhotos()
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const points = ironPoints(firmwareView(state)).filter((p) => by !== 'hand' || p.point !== 'shield')
  return (
    <Sheet open title="Before the chip comes off" onClose={onClose} wide>
      <div className="flex flex-col gap-3">
        <Choice
          label="By"
          value={by}
          options={[...movedBy]}
          words={{ hand: 'hand, out of its socket' }}
          onChange={setBy}
        />
        <Points label="Before it comes off" points={points} ticked={ticked} onTick={setTicked} />
        {waiting.map((p) => (
          <p key={p.id} role="status" className={p.refused ? 'font-semibold text-ember' : 'text-soft'}>
            {p.refused ?? `${p.name} is on its way…`}
          </p>
        ))}
        <FileButton
          label="A photo of the place"
          accept="image/*"
          onFile={(file) => add([file], 'round the firmware chip, before it came off')}
        >
          Add a photo of the place…
        </FileButton>
        {by === 'hot air' && (
          <p>
            <StationLink to="parts" part="heat" className="underline">
              A heat recipe for it
            </StationLink>
            : what spares the parts round it, and when it floats. Count those parts there as well.
          </p>
        )}
        <Caution>
          Fumes and hot tools: extraction on, as your own rules have it. Heat near the socket and its plastic
          ends boards; every rail is measured again before power after it.
        </Caution>
        <Button
          look="first"
          className="self-start"
          disabled={!ready(points, ticked)}
          onClick={() => {
            append('chip moved', { to: 'off', by, despite: despite(points) })
            onClose()
          }}
        >
          The chip is off
        </Button>
      </div>
    </Sheet>
  )
}
