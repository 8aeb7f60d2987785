'use client'
import { useState } from 'react'
import type { Step } from '@/core/board/step'
import type { FirmwareBodies } from '@/core/firmware/bodies'
import { refitPoints } from '@/core/firmware/chip/refit'
import type { RefitPoint } from '@/core/firmware/chip/refit'
import { routeNow } from '@/core/firmware/route/on-route'
import { StationLink } from '@/frame/StationLink'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import type { Images } from '../image/use-images'
import { WriteChip } from '../write/WriteChip'
import { BackOn } from './BackOn'
import { TakeOff } from './TakeOff'

const small = 'px-2.5! py-0.5! text-[0.92rem]'

/** A pad or a joint that was found wrong is put right with heat. */
const byHeat = (body: FirmwareBodies['refit']) =>
  body.pads || body.joints ? ({ ...body, reflowed: true } as const) : body

type Answer = readonly [say: string, body: FirmwareBodies['refit']]

/** What can come of each point of a fitted chip: the good answer first. */
const answers: Readonly<Record<Exclude<RefitPoint['point'], 'lines'>, readonly [good: Answer, bad: Answer]>> =
  {
    orientation: [
      ['The right way round', { orientation: 'right' }],
      ['It is turned', { orientation: 'turned' }],
    ],
    pads: [
      ['All pads whole', { pads: 'whole' }],
      ['One is lifted', { pads: 'lifted' }],
    ],
    joints: [
      ['All joints sound', { joints: 'sound' }],
      ['One is open or bridged', { joints: 'open or bridged' }],
    ],
    seated: [
      ['All sits home', { seated: true }],
      ['Something does not', { seated: false }],
    ],
  }

/** Answers to what comes after a chip was taken off, fitted or written. */
export function FittedAnswers({
  step: { part },
  images,
  onChip,
}: {
  step: Step
  images: Images
  onChip: () => void
}) {
  const state = useJob((j) => j.state)
  const simulated = useJob((j) => j.simulated !== 'no')
  const append = useJob((j) => j.append)
  const hint = useKeyHint()
  const [open, setOpen] = useState(false)
  const points = refitPoints(state.firmware)
  const point =
    part === 'seated'
      ? 'seated'
      : part === 'refit'
        ? (points.find((p) => p.is === 'no') ?? points.find((p) => p.is === 'open'))?.point
        : undefined
  const turned = part === 'refit' && points.some((p) => p.point === 'orientation' && p.is === 'no')
  const pair = point && point !== 'lines' && !turned ? answers[point] : null
  const found = points.find((p) => p.point === point)?.is === 'no'
  const isOpen = point === 'lines' && found
  const measures = point === 'lines' && simulated && !isOpen
  const route = routeNow(state)
  const byHand = route?.is === 'step' && route.leg.by === 'socket'
  const moved = state.firmware.moves.at(-1)
  const carryOut = () => {
    if (pair) append('refit', found ? byHeat(pair[0][1]) : pair[0][1])
    else if (isOpen) append('refit', { reflowed: true, joints: 'sound' })
    else if (measures) void images.measureLines().then(onChip)
    else setOpen(true)
  }
  useKeys({ carryOut }, pair !== null || isOpen || measures || part === 'chip-off')
  const first = { look: 'first', className: small, keyHint: hint('carryOut'), onClick: carryOut } as const
  return (
    <>
      {part === 'chip-off' && (
        <Button {...first}>{byHand ? 'Take it out of its socket…' : 'Take it off…'}</Button>
      )}
      {part === 'chip-fit' && <BackOn />}
      {turned && (
        <Button
          look="first"
          className={small}
          onClick={() => append('chip moved', { to: 'off', by: moved!.by, despite: [] })}
        >
          It is off again
        </Button>
      )}
      {pair && (
        <>
          <Button {...first}>{found ? `Put right: ${pair[0][0].toLowerCase()}` : pair[0][0]}</Button>
          <Button className={small} onClick={() => append('refit', pair[1][1])}>
            {pair[1][0]}
          </Button>
        </>
      )}
      {point === 'lines' && (
        <>
          {isOpen && <Button {...first}>Joints reflowed</Button>}
          {measures && <Button {...first}>Measure them (simulated)</Button>}
          <Button look={measures || isOpen ? 'quiet' : 'first'} className={small} onClick={onChip}>
            Type the readings
          </Button>
        </>
      )}
      {part === 'put-back' && (
        <Button look="first" className={small} onClick={() => setOpen(true)}>
          Put the original back…
        </Button>
      )}
      {part === 'to-triage' && (
        <StationLink to="triage" className="underline underline-offset-4">
          go on at triage
        </StationLink>
      )}
      {part === 'to-proof' && (
        <>
          <Button look="first" className={small} onClick={onChip}>
            Note the version
          </Button>
          <StationLink to="proof" className="underline underline-offset-4">
            go on at proof
          </StationLink>
        </>
      )}
      {open && part === 'put-back' && <WriteChip images={images} onClose={() => setOpen(false)} />}
      {open && part === 'chip-off' && <TakeOff byHand={byHand} onClose={() => setOpen(false)} />}
    </>
  )
}
