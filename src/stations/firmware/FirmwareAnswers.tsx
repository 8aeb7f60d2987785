'use client'
import { useEffect, useState } from 'react'
import type { Step } from '@/core/board/step'
import { mayBeWritten } from '@/core/firmware/next-step'
import { writesNext } from '@/core/firmware/route/on-route'
import { comparedNow, inHand, lastNoted } from '@/core/firmware/slice'
import { roundTheChip } from '@/core/firmware/view'
import { firmwareView } from '@/core/job/firmware-view'
import { StationLink } from '@/frame/StationLink'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { FittedAnswers } from './fitted/FittedAnswers'
import { IMAGE_FILES } from './image/ImageList'
import type { Images } from './image/use-images'
import { RouteAnswers } from './route/RouteAnswers'
import { WriteChip } from './write/WriteChip'

const small = 'px-2.5! py-0.5! text-[0.92rem]'

/** Verdicts that the release before it could make surer. */
const unsure: ReadonlySet<string> = new Set(['damaged', 'cannot tell'])

/** The answers to what stands in the strip of this station. */
export function FirmwareAnswers({
  step,
  images,
  onChip,
  onRoute,
  onContents,
}: {
  step: Step
  images: Images
  onChip: () => void
  onRoute: () => void
  onContents: () => void
}) {
  const append = useJob((j) => j.append)
  const simulated = useJob((j) => j.simulated !== 'no')
  const state = useJob((j) => j.state)
  const { firmware } = state
  const hint = useKeyHint()
  const [writing, setWriting] = useState(false)
  const { reads, release, older } = inHand(firmware)
  const equal = reads.length === 2 && reads[0]!.file === reads[1]!.file
  const wantsRead = step.part === 'images' && !equal
  // By the programmer a route’s release is written like any other: its file, beside the chip, then the session.
  const route = writesNext(state)
  const wanted = route?.leg.after.release ?? null
  const compared = comparedNow(firmware)
  const wantsFile = step.part === 'file' || (step.part === 'route-chip' && !route?.atHand)
  // What was broken off or damaged is told more surely beside the release before it.
  const wantsOlder = step.part === 'verdict' && older === null && unsure.has(compared?.verdict ?? '')
  const wantsCompare =
    (step.part === 'images' && equal && release !== null) ||
    (step.part === 'route-chip' && equal && route?.atHand === true)
  const read = () => void images.readChip().then(onContents)
  const compare = () => void images.compare()
  useKeys({
    ...(wantsRead && simulated ? { carryOut: read } : {}),
    ...(wantsCompare || step.part === 'verdict' ? { carryOut: compare } : {}),
  })
  if (images.under)
    return (
      <p role="status" className="flex items-center gap-3">
        {images.under.what}
        <progress
          {...(images.under.share === null ? {} : { value: images.under.share })}
          max={1}
          className="h-1.5 w-40"
          aria-label={images.under.what}
        />
        <Button className={small} onClick={images.stop}>
          Stop
        </Button>
      </p>
    )
  return (
    <div role="group" aria-label="Answer" className="flex flex-wrap items-center gap-1.5">
      {step.part === 'route-plan' && (
        <>
          <Button look="first" className={small} onClick={onRoute}>
            Plan the route
          </Button>
          <Button className={small} onClick={onChip}>
            Read the chip instead
          </Button>
        </>
      )}
      {step.part === 'chip-look' && <LookAnswers />}
      {step.part === 'id' && simulated && (
        <Button look="first" className={small} onClick={() => void images.readId().then(onChip)}>
          Read the ID (simulated)
        </Button>
      )}
      {step.part === 'id' && (
        <Button className={small} onClick={onChip}>
          Type its ID
        </Button>
      )}
      {step.part === 'chip' && (
        <Button look="first" className={small} onClick={onChip}>
          Note marking and voltage
        </Button>
      )}
      {wantsRead && simulated && (
        <Button look="first" className={small} keyHint={hint('carryOut')} onClick={read}>
          {reads.length === 0 ? 'Read it (simulated)' : 'Read it again (simulated)'}
        </Button>
      )}
      {wantsRead && (
        <FileButton
          label="A read of the chip"
          accept={IMAGE_FILES}
          onFile={(file) => void images.open(file, 'read')}
        >
          Open a read…
        </FileButton>
      )}
      {wantsFile && <Releases images={images} role="release" wanted={wanted} />}
      {wantsOlder && <Releases images={images} role="older release" wanted={null} />}
      {step.part === 'verdict' && compared && mayBeWritten(compared.verdict) && (
        <Button look="first" className={small} onClick={() => setWriting(true)}>
          Write the chip…
        </Button>
      )}
      {(wantsCompare || step.part === 'verdict') && (
        <Button
          look={wantsCompare ? 'first' : 'quiet'}
          className={small}
          keyHint={hint('carryOut')}
          onClick={compare}
        >
          {wantsCompare ? 'Compare' : 'Compare again'}
        </Button>
      )}
      {(step.part === 'route' || step.part === 'route-chip') && (
        <RouteAnswers onRoute={onRoute} elsewhere={step.part === 'route-chip' && simulated} />
      )}
      {writing && <WriteChip images={images} onClose={() => setWriting(false)} />}
      <FittedAnswers step={step} images={images} onChip={onChip} />
      {step.part === 'after-write' &&
        (lastNoted(firmware, 'clipOn') ? (
          <Button look="first" className={small} onClick={() => append('firmware', { clipOn: false })}>
            Clip is off
          </Button>
        ) : (
          <StationLink to="triage" part="baseline" className="underline underline-offset-4">
            go on at triage
          </StationLink>
        ))}
      {step.part === 'verdict' && compared?.verdict !== 'cannot tell' && (
        <StationLink to="triage" className="underline underline-offset-4">
          go on at triage
        </StationLink>
      )}
      {images.say && (
        <p role="alert" className="font-semibold text-ember">
          {images.say}{' '}
          {/chip|clip|programmer/i.test(images.say) && (
            <Button look="bare" className="py-0!" onClick={onChip}>
              to chip and clip
            </Button>
          )}
        </p>
      )}
    </div>
  )
}

/** What came of the look round the chip; where something is wrong there, that it was put right. */
function LookAnswers() {
  const append = useJob((j) => j.append)
  const wrong = useJob((j) => roundTheChip(firmwareView(j.state)) === 'wrong')
  const clear = (
    <Button
      look={wrong ? 'quiet' : 'first'}
      className={small}
      onClick={() =>
        append('look', {
          what: 'round the firmware chip',
          seen: wrong ? 'put right, nothing seen' : 'nothing seen',
          clear: true,
          hazard: 'harmless',
        })
      }
    >
      {wrong ? 'Put right: nothing is wrong there now' : 'Nothing is wrong there'}
    </Button>
  )
  const parts = (
    <StationLink to="parts" className="underline underline-offset-4">
      {wrong ? 'fit what is missing' : 'a part is gone or damaged: note it'}
    </StationLink>
  )
  return wrong ? (
    <>
      {parts}
      {clear}
    </>
  ) : (
    <>
      {clear}
      {parts}
    </>
  )
}

/** Files of the maker: those of the simulated one, the release that was read first; or one from the disk. */
function Releases({
  images,
  role,
  wanted,
}: {
  images: Images
  role: 'release' | 'older release'
  /** The release that a route has written next. */
  wanted: string | null
}) {
  const tag = useJob((j) => j.tag)
  const simulated = useJob((j) => j.simulated !== 'no')
  const read = useJob((j) => inHand(j.state.firmware).reads.at(-1)?.versions ?? none)
  const taken = useJob((j) => inHand(j.state.firmware).release?.versions ?? none)
  const [versions, setVersions] = useState<readonly string[]>([])
  useEffect(() => {
    if (!simulated) return
    const control = new AbortController()
    void fetch(`/api/jobs/${tag}/programmer`, { signal: control.signal })
      .then(async (answer) => setVersions(((await answer.json()) as { versions?: string[] }).versions ?? []))
      .catch(() => undefined)
    return () => control.abort()
  }, [tag, simulated])
  // Before it stands the one that the list has before it.
  const before = versions
    .slice(
      0,
      Math.max(
        0,
        versions.findIndex((v) => taken.includes(v)),
      ),
    )
    .slice(-1)
  const offered =
    role === 'older release' ? before : wanted === null ? versions : versions.filter((v) => v === wanted)
  return (
    <>
      {offered.map((version) => (
        <Button
          key={version}
          look={role === 'release' && (read.includes(version) || version === wanted) ? 'first' : 'quiet'}
          className={small}
          onClick={() => void images.takeRelease(version, role)}
        >
          {role === 'release'
            ? `${version} of the maker (simulated)`
            : `${version}, the release before it (simulated)`}
        </Button>
      ))}
      <FileButton
        label={role === 'release' ? 'The maker’s file of a release' : 'The file of the release before it'}
        accept={IMAGE_FILES}
        onFile={(file) => void images.open(file, role)}
      >
        {role === 'release' ? 'Open the file…' : 'Open the one before it…'}
      </FileButton>
    </>
  )
}
const none: readonly string[] = []
