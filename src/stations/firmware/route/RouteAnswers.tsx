'use client'
import { useState } from 'react'
import { needsPower, routeNow } from '@/core/firmware/route/on-route'
import { lastNoted } from '@/core/firmware/slice'
import { StationLink } from '@/frame/StationLink'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

const small = 'px-2.5! py-0.5! text-[0.92rem]'

/** What came of the step of the route that stands in the strip. */
export function RouteAnswers({
  onRoute: open,
  elsewhere,
}: {
  onRoute: () => void
  /** It can be written from here; that it was done elsewhere comes second. */
  elsewhere: boolean
}) {
  const state = useJob((j) => j.state)
  const clipOn = useJob((j) => lastNoted(j.state.firmware, 'clipOn') === true)
  const closed = useJob((j) => j.gate.lamp === 'do not power')
  const append = useJob((j) => j.append)
  const hint = useKeyHint()
  const [other, setOther] = useState<string | null>(null)
  const stands = routeNow(state)
  const leg = stands?.is === 'step' && !(needsPower(stands.leg) && closed) ? stands.leg : null
  const clipFirst = clipOn && leg !== null && leg.way !== 'programmer'
  const wrote = (version?: string) =>
    append('firmware', {
      wrote: leg!.after.release!,
      ...(version === undefined ? {} : { version }),
      ...(leg!.way === 'programmer' ? { wroteBy: leg!.by ?? 'clip' } : {}),
    })
  const done = () => {
    if (!leg) return
    if (leg.do === 'fit') append('fitted', { cpu: leg.cpu })
    else wrote(leg.dark || leg.do === 'switch' ? undefined : leg.after.release!)
  }
  useKeys({ carryOut: done }, leg !== null && !clipFirst && !elsewhere)
  if (!stands) return null
  if (stands.is === 'off')
    return (
      <Button look="first" className={small} onClick={open}>
        Plan again
      </Button>
    )
  if (clipFirst)
    return (
      <Button look="first" className={small} onClick={() => append('firmware', { clipOn: false })}>
        Clip is off
      </Button>
    )
  if (!leg)
    return (
      <StationLink to="triage" part="baseline" className="underline underline-offset-4">
        go on at triage
      </StationLink>
    )
  return (
    <>
      <Button
        look={elsewhere ? 'quiet' : 'first'}
        className={small}
        keyHint={elsewhere ? undefined : hint('carryOut')}
        onClick={done}
      >
        {leg.do === 'fit'
          ? `${leg.cpu} is in`
          : leg.do === 'switch'
            ? 'Switched'
            : leg.dark
              ? 'Written; dark, as expected'
              : `Written; ${leg.after.release} is seen`}
      </Button>
      {leg.do === 'write' &&
        (other === null ? (
          <Button className={small} onClick={() => setOther('')}>
            Another version is seen…
          </Button>
        ) : (
          <form
            className="flex items-center gap-1.5"
            onSubmit={(e) => {
              e.preventDefault()
              const version = other.trim()
              if (version === '') return
              wrote(version)
              setOther(null)
            }}
          >
            <input
              aria-label="Version that is seen"
              placeholder="version"
              value={other}
              autoFocus
              maxLength={60}
              onChange={(e) => setOther(e.target.value)}
              onKeyDown={(e) => e.key === 'Escape' && setOther(null)}
              className="num w-28 py-0.5!"
            />
            <Button type="submit" className={small} disabled={other.trim() === ''}>
              Note it
            </Button>
          </form>
        ))}
      <Button look="bare" className={small} onClick={open}>
        the whole route
      </Button>
    </>
  )
}
