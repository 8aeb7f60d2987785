'use client'
import { useEffect, useMemo, useState } from 'react'
import { flashStages } from '@/core/firmware/flash/session'
import type { FlashSession } from '@/core/firmware/flash/session'
import { hex } from '@/core/firmware/image/image-bytes'
import type { Built } from '@/core/firmware/image/build'
import { dataPoint, preFlight } from '@/core/firmware/pre-flight'
import { supportOf } from '@/core/firmware/route/support-table'
import { inHand } from '@/core/firmware/slice'
import { useJob } from '@/job/JobProvider'
import { upload } from '@/job/upload'
import { firmwareView } from '@/core/job/firmware-view'
import { benchFaults } from '@/simulated-bench/bench-faults'
import type { BenchFault } from '@/simulated-bench/bench-faults'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { SelectField } from '@/ui/Field'
import { saveFile } from '@/ui/save-file'
import { Sheet } from '@/ui/Sheet'
import type { Images } from '../image/use-images'
import { despite, Points, ready } from './Points'
import { useFlash } from './use-flash'

/** Before the chip is written, while it is, and what came of it. */
export function WriteChip({ images, onClose }: { images: Images; onClose: () => void }) {
  const flash = useFlash()
  const { session } = flash
  const [again, setAgain] = useState(false)
  return (
    <Sheet open title="Write the chip" onClose={onClose} wide>
      {session === undefined && !flash.say && <p role="status">Asking how the chip stands…</p>}
      {flash.say && (
        <p role="alert" className="mb-2 font-semibold text-ember">
          {flash.say}
        </p>
      )}
      {flash.running && <Running session={session!} onStop={() => void flash.stop()} />}
      {session?.ended != null && !again && (
        <Ended
          session={session}
          onGoOn={() =>
            void flash.begin({
              image: session.image,
              release: session.release,
              despite: session.despite,
              fault: 'none',
            })
          }
          onRollBack={() =>
            void flash.begin({
              image: session.backup!,
              release: null,
              despite: session.despite,
              fault: 'none',
            })
          }
          onAgain={() => setAgain(true)}
          onClose={onClose}
        />
      )}
      {(session === null || again) && !flash.running && (
        <Before
          images={images}
          onBegin={(of) => {
            setAgain(false)
            void flash.begin(of)
          }}
        />
      )}
    </Sheet>
  )
}

function Running({ session, onStop }: { session: FlashSession; onStop: () => void }) {
  const at = flashStages.indexOf(session.stage)
  return (
    <div role="status" className="flex flex-col gap-2">
      <ol className="flex flex-wrap gap-x-4">
        {flashStages.map((stage, i) => (
          <li key={stage} className={i === at ? 'font-semibold' : 'text-soft'}>
            {i < at ? '✓ ' : ''}
            {stage}
          </li>
        ))}
      </ol>
      <progress value={session.share} max={1} aria-label={session.stage} className="h-2.5 w-full" />
      <p className="text-soft">It goes on by itself when this is put away. Do not touch clip or supply.</p>
      <Button look="danger" className="self-start" onClick={onStop}>
        Stop
      </Button>
    </div>
  )
}

function Ended({
  session,
  onGoOn,
  onRollBack,
  onAgain,
  onClose,
}: {
  session: FlashSession
  onGoOn: () => void
  onRollBack: () => void
  onAgain: () => void
  onClose: () => void
}) {
  const { ended, backup } = session
  return (
    <div className="flex flex-col gap-3">
      <p role="status" className={`font-semibold ${ended === 'verified' ? 'text-verd' : 'text-ember'}`}>
        {session.say}
      </p>
      {backup && <p className="num text-[0.85rem] break-all text-soft">backup kept, SHA-256 {backup}</p>}
      <div className="flex flex-wrap gap-2">
        {ended === 'verified' && (
          <Button look="first" onClick={onClose}>
            Put it away
          </Button>
        )}
        {ended === 'verified' && backup && session.release !== null && (
          <Button onClick={onRollBack}>Put the original back</Button>
        )}
        {ended !== 'verified' && backup && (
          <>
            <Button look="first" onClick={onGoOn}>
              Go on from here
            </Button>
            <Button onClick={onRollBack}>Roll back to the backup</Button>
          </>
        )}
        {(ended === 'verified' || !backup) && <Button onClick={onAgain}>Begin anew</Button>}
      </div>
    </div>
  )
}

function Before({
  images,
  onBegin,
}: {
  images: Images
  onBegin: (of: { image: string; release: string; despite: readonly string[]; fault: BenchFault }) => void
}) {
  const tag = useJob((j) => j.tag)
  const simulated = useJob((j) => j.simulated !== 'no')
  const state = useJob((j) => j.state)
  const { reads, release } = inHand(state.firmware)
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const [fault, setFault] = useState<BenchFault>('none')
  const [built, setBuilt] = useState<Built | string | null>(null)
  const [sending, setSending] = useState(false)
  const [say, setSay] = useState('')
  const references = useJob((j) => j.setting.references)
  const support = useMemo(() => supportOf(references), [references])
  const original = reads.at(-1)
  const { remote, urlOf } = images
  useEffect(() => {
    let here = true
    if (original && release)
      void remote()
        .build(urlOf(original.file), urlOf(release.file))
        .then((is) => here && setBuilt(is))
        .catch(() => here && setBuilt('The images do not come from the server. Open this again.'))
    return () => {
      here = false
    }
  }, [remote, urlOf, original, release])
  const data = built !== null && typeof built !== 'string' ? dataPoint(built.doubtful) : null
  const points = [...preFlight(firmwareView(state), support), ...(data ? [data] : [])]
  const mayWrite = ready(points, ticked) && built !== null && typeof built !== 'string'
  const blob = () => new Blob([(built as Built).image as Uint8Array<ArrayBuffer>])
  async function begin() {
    setSending(true)
    const { status, answer } = await upload(
      `/api/jobs/${tag}/images`,
      blob(),
      () => undefined,
      () => undefined,
    )
    setSending(false)
    if (!answer.file)
      return setSay(answer.error?.text ?? `The server did not take the image (${status}). Try again.`)
    onBegin({
      image: answer.file.sha256,
      release: release!.file,
      despite: despite(points),
      fault,
    })
  }
  return (
    <div className="flex flex-col gap-3">
      <Points label="Before it is written" points={points} ticked={ticked} onTick={setTicked} />
      {built === null && <p role="status">Building the image…</p>}
      {typeof built === 'string' && (
        <p role="alert" className="font-semibold text-ember">
          {built}
        </p>
      )}
      {built !== null && typeof built !== 'string' && <Ranges built={built} />}
      <Caution>
        Mains and programmer stay on, clip and wires stay as they are. The backup is kept before the first
        erase: whatever happens in between, the session goes on or rolls back.
      </Caution>
      {say && (
        <p role="alert" className="font-semibold text-ember">
          {say}
        </p>
      )}
      <div className="flex flex-wrap items-end gap-2">
        {simulated && (
          <Button look="first" disabled={!mayWrite || sending} onClick={() => void begin()}>
            {sending ? 'Sending the image…' : 'Write it (simulated)'}
          </Button>
        )}
        <Button
          disabled={built === null || typeof built === 'string'}
          onClick={() => saveFile(blob(), `${tag}-to-write.bin`)}
        >
          Save the image
        </Button>
        {simulated && (
          <div className="ml-auto">
            <SelectField
              label="Fault of the simulated programmer"
              value={fault}
              onChange={(e) => setFault(e.target.value as BenchFault)}
            >
              {benchFaults.map((f) => (
                <option key={f}>{f}</option>
              ))}
            </SelectField>
          </div>
        )}
      </div>
    </div>
  )
}

/** Every byte of the image to write, and where it comes from. */
function Ranges({ built }: { built: Built }) {
  return (
    <div
      className="max-h-40 overflow-y-auto"
      tabIndex={0}
      role="region"
      aria-label="Where its bytes come from"
    >
      <table className="w-full text-[0.85rem] leading-snug [&_td]:py-0.5">
        <tbody>
          {built.ranges.map((r) => (
            <tr key={r.from} className="border-b border-line">
              <td className="num">
                {hex(r.from)} to {hex(r.to)}
              </td>
              <td className={r.source === 'original' ? 'font-semibold' : ''}>from the {r.source}</td>
              <td className="text-soft">{r.why}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
