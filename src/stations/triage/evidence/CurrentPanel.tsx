'use client'
import type { Bodies } from '@/core/slices'

import dynamic from 'next/dynamic'
import { useEffect, useRef, useState } from 'react'
import type { Finding } from '@/core/tables/finding'
import { cutText } from '@/core/tables/plain-text'
import { compareTraces } from '@/core/triage/instruments/current-trace'
import { useJob } from '@/job/JobProvider'
import { Findings } from '@/ui/Findings'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { remoteOf } from '@/ui/remote'
import { Simulated } from '@/stations/triage/simulated/Simulated'
import type { TraceWorker } from './trace.worker'

const CurrentCurve = dynamic(() => import('./CurrentCurve').then((m) => m.CurrentCurve), {
  ssr: false,
  loading: () => <div className="h-56" />,
})

const MAX_CSV_BYTES = 32 * 1024 * 1024

/** A recorded supply current: its stretches named, and how it differs from that of a good board. */
export function CurrentPanel() {
  const currents = useJob((j) => j.state.board.currents)
  const reference = useJob((j) => j.setting.references.current)
  const limitA = useJob((j) => j.state.board.supplyLimitA)
  const [chosen, setChosen] = useState<number | null>(null)
  const shown = currents.find((c) => c.seq === chosen) ?? currents.at(-1)
  const limited = shown !== undefined && limitA !== null && shown.peakA >= 0.97 * limitA
  const differences = (shown && reference ? compareTraces(shown, reference.reading) : []).filter(
    (d) => !(limited && d.what === 'peak'),
  )
  return (
    <div>
      {shown ? (
        <>
          <CurrentCurve current={shown} good={reference?.curve ?? null} />
          {limited && (
            <p className="border-l-4 border-brass pl-3">
              It ran into the limit of <span className="num">{limitA} A</span>: what stands above it is cut
              off.
            </p>
          )}
          <div className="mt-2 grid gap-x-8 @3xl:grid-cols-2">
            <Stretches segments={shown.segments} />
            <div>
              <h3 className="font-semibold">Beside a good board</h3>
              {!reference && (
                <p className="text-soft">None is recorded for this board model; the library takes one.</p>
              )}
              <ul>
                {differences.map((d) => (
                  <li key={d.what} className={d.differs ? '' : 'text-soft'}>
                    {d.what}: <span className="num">{d.here}</span>
                    {d.differs ? (
                      <>
                        , good <span className="num">{d.there}</span>.{' '}
                        <b className="font-semibold">{d.say}</b>
                      </>
                    ) : (
                      ', alike'
                    )}
                  </li>
                ))}
              </ul>
            </div>
          </div>
          {currents.length > 1 && (
            <p className="mt-2 flex flex-wrap gap-x-3">
              <span className="text-soft">recorded:</span>
              {currents.map((c, i) => (
                <button
                  key={c.seq}
                  type="button"
                  aria-pressed={c === shown}
                  className={c === shown ? 'border-b-2 border-brass font-semibold' : 'underline'}
                  onClick={() => setChosen(c.seq)}
                >
                  {i + 1}, {c.pattern}
                </button>
              ))}
            </p>
          )}
        </>
      ) : (
        <p className="text-soft">
          No current is recorded yet. Record from mains on, through the button, until it settles or cycles
          three times.
        </p>
      )}
      <ReadCurrent />
      <Simulated asks={[['Record the current', { ask: 'current' }]]} />
    </div>
  )
}

/** The curve in words, stretch by stretch. */
function Stretches({ segments }: Pick<Bodies['current'], 'segments'>) {
  return (
    <table className="w-full self-start text-[0.96rem]">
      <caption className="text-left font-semibold">Stretches</caption>
      <thead className="sr-only">
        <tr>
          <th>Kind</th>
          <th>From, to</th>
          <th>Current</th>
        </tr>
      </thead>
      <tbody>
        {segments.slice(0, 8).map((s) => (
          <tr key={s.fromS} className="border-b border-dashed border-line">
            <td>{s.kind}</td>
            <td className="num text-soft">
              {s.fromS.toFixed(1)}–{s.toS.toFixed(1)} s
            </td>
            <td className="num text-right">
              {s.periodS === null
                ? `${s.amps.toFixed(s.amps < 0.1 ? 3 : 2)} A`
                : `every ${s.periodS.toFixed(1)} s`}
            </td>
          </tr>
        ))}
      </tbody>
      {segments.length > 8 && (
        <tfoot>
          <tr>
            <td colSpan={3} className="text-soft">
              and {segments.length - 8} more
            </td>
          </tr>
        </tfoot>
      )}
    </table>
  )
}

/** Reads a recording from CSV in a worker; it can be left off. */
function ReadCurrent() {
  const append = useJob((j) => j.append)
  const worker = useRef<Worker | null>(null)
  const [reading, setReading] = useState<string | null>(null)
  const [findings, setFindings] = useState<readonly Finding[]>([])
  const stop = () => {
    worker.current?.terminate()
    worker.current = null
    setReading(null)
  }
  useEffect(() => () => worker.current?.terminate(), [])
  async function read(file: File) {
    if (file.size > MAX_CSV_BYTES)
      return setFindings([
        {
          level: 'error',
          line: 0,
          field: 'file',
          text: `${file.name} has ${Math.round(file.size / 1_048_576)} MB; at most 32 MB are read: record slower, or keep a shorter stretch`,
        },
      ])
    stop()
    setFindings([])
    setReading(file.name)
    const thread = new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' })
    worker.current = thread
    try {
      const { body, findings } = await remoteOf<TraceWorker>(thread).read(
        cutText(file.name, 120),
        await file.text(),
      )
      setFindings(findings)
      if (body) append('current', body)
    } catch {
      if (worker.current !== thread) return
      setFindings([
        { level: 'error', line: 0, field: 'file', text: `${file.name} was not read. Pick it again.` },
      ])
    }
    if (worker.current === thread) stop()
  }
  return (
    <div className="mt-3">
      <FileButton
        label="A recording of the current"
        hint="CSV with s and a: seconds, amperes"
        onFile={(file) => void read(file)}
      >
        Import a recording
      </FileButton>
      {reading && (
        <p role="status" className="flex items-baseline gap-3">
          Reading {reading}…
          <Button look="bare" onClick={stop}>
            Leave it
          </Button>
        </p>
      )}
      <Findings findings={findings} />
    </div>
  )
}
