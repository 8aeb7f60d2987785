'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { ImageRole } from '@/core/firmware/bodies'
import type { ChipPin } from '@/core/firmware/chip/refit'
import { writesNext } from '@/core/firmware/route/on-route'
import { inHand, lastNoted } from '@/core/firmware/slice'
import { useJob } from '@/job/JobProvider'
import { upload } from '@/job/upload'
import { useWorker } from '@/ui/use-worker'
import type { ImageWorker } from '@/workers/image.worker'

interface Under {
  readonly what: string
  readonly share: number | null
}

const startWorker = () =>
  new Worker(new URL('../../../workers/image.worker.ts', import.meta.url), { type: 'module' })

/** Images of the job: read, opened, inspected and compared in a worker, each kept with the job under its hash. */
export function useImages() {
  const tag = useJob((j) => j.tag)
  const firmware = useJob((j) => j.state.firmware)
  const append = useJob((j) => j.append)
  const ask = useJob((j) => j.ask)
  const forRoute = useJob((j) => writesNext(j.state)?.atHand === true)
  const [under, setUnder] = useState<Under | null>(null)
  const [say, setSay] = useState('')
  const stop = useRef<AbortController | null>(null)
  const busy = useRef(false)
  const remote = useWorker<ImageWorker>(startWorker)
  useEffect(
    () => () => {
      stop.current?.abort()
    },
    [],
  )
  const urlOf = useCallback((sha: string) => `/api/jobs/${tag}/files/${sha}`, [tag])

  /**
   * One piece of work at a time; what goes wrong is said, and nothing is noted. What comes of it goes on the tape once
   * the hand is free again, so that no press is lost that follows at once.
   */
  async function run(what: string, work: (signal: AbortSignal) => Promise<() => void>): Promise<void> {
    if (busy.current) return
    busy.current = true
    const control = new AbortController()
    stop.current = control
    setSay('')
    setUnder({ what, share: null })
    let note: (() => void) | null = null
    try {
      note = await work(control.signal)
    } catch (error) {
      if (!control.signal.aborted)
        setSay(
          error instanceof Error && error.message ? error.message : 'It did not come through. Try again.',
        )
    }
    busy.current = false
    setUnder(null)
    if (!control.signal.aborted) note?.()
  }

  async function keep(role: ImageRole, name: string, sha: string, bytes: number, source?: 'maker') {
    const { versions } = await remote().see(urlOf(sha))
    return () =>
      append('image', {
        file: sha,
        name,
        bytes,
        role,
        versions: versions.slice(0, 20),
        ...(source && { source }),
      })
  }

  /** The simulated programmer's answer. */
  async function asked(of: object, signal: AbortSignal): Promise<unknown> {
    const answer = await ask('programmer', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(of),
      signal,
    })
    return answer.json()
  }

  const fromBench = (what: string, of: object, role: ImageRole) =>
    run(what, async (signal) => {
      const reply = (await asked(of, signal)) as {
        file?: { sha256: string; bytes: number }
        name?: string
        error?: { text: string }
      }
      if (!reply.file) throw new Error(reply.error?.text ?? 'The simulated programmer does not answer.')
      return keep(
        role,
        reply.name ?? 'image',
        reply.file.sha256,
        reply.file.bytes,
        role === 'read' ? undefined : 'maker',
      )
    })

  return {
    remote,
    urlOf,
    under,
    say,
    stop: () => stop.current?.abort(),
    readId: () =>
      run('Reading the ID…', async (signal) => {
        const reply = (await asked({ take: 'id' }, signal)) as {
          chipId?: string
          sfdp?: string
          error?: { text: string }
        }
        if (!reply.chipId) throw new Error(reply.error?.text ?? 'The simulated programmer does not answer.')
        const noted = { chipId: reply.chipId, ...(reply.sfdp ? { sfdp: reply.sfdp } : {}) }
        return () => append('firmware', noted)
      }),
    /** Each pin of the fitted chip to the far end of its line, by the simulated meter. */
    measureLines: () =>
      run('Measuring the lines…', async (signal) => {
        const reply = (await asked({ take: 'lines' }, signal)) as {
          lines?: Readonly<Partial<Record<ChipPin, number | null>>>
          error?: { text: string }
        }
        if (!reply.lines) throw new Error(reply.error?.text ?? 'The simulated meter does not answer.')
        const { lines } = reply
        return () => append('refit', { lines })
      }),
    readChip: () => fromBench('Reading the chip…', { take: 'read' }, 'read'),
    takeRelease: (version: string, role: ImageRole = 'release') =>
      fromBench(`Fetching ${version}…`, { take: 'release', version }, role),
    open: (file: File, role: ImageRole) =>
      run(`Sending ${file.name}…`, async (signal) => {
        const decoded = await remote().decode(file)
        if ('fault' in decoded) throw new Error(decoded.fault)
        const { status, answer } = await upload(
          `/api/jobs/${tag}/images`,
          new Blob([decoded.bytes as Uint8Array<ArrayBuffer>]),
          (share) => setUnder((u) => u && { ...u, share }),
          (request) => signal.addEventListener('abort', () => request.abort()),
        )
        if (!answer.file)
          throw new Error(answer.error?.text ?? `The server did not take it (${status}). Send it again.`)
        return keep(role, file.name, answer.file.sha256, answer.file.bytes)
      }),
    compare: () =>
      run('Comparing…', async () => {
        const { reads, release, older } = inHand(firmware)
        const [first, second] = reads.length === 2 ? reads : [reads[0], null]
        if (!first || !release) throw new Error('A read of the chip and a release’s file are needed first.')
        const of = {
          original: first.file,
          second: second?.file ?? null,
          release: release.file,
          older: older?.file ?? null,
        }
        // Where the route has another release written, the chip is not asked to be that of its label.
        const label = forRoute ? null : (lastNoted(firmware, 'version') ?? null)
        const {
          verdict,
          say: sentence,
          why,
          at,
        } = await remote().judge({
          original: urlOf(of.original),
          second: of.second && urlOf(of.second),
          release: urlOf(of.release),
          older: of.older && urlOf(of.older),
          label,
        })
        return () =>
          append('compared', {
            ...of,
            label,
            verdict,
            say: sentence,
            why: why.slice(0, 20).map((w) => w.slice(0, 500)),
            places: at.slice(0, 100),
          })
      }),
  }
}

export type Images = ReturnType<typeof useImages>
