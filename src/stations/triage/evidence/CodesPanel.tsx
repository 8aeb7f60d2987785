'use client'
import Link from 'next/link'
import { useEffect, useRef, useState } from 'react'
import { notACode, readCodesTyped } from '@/core/triage/instruments/code'
import { readCodes } from '@/core/triage/instruments/code-tape'
import type { CodesSeen } from '@/core/triage/instruments/code-tape'
import { useJob } from '@/job/JobProvider'
import { readCodeRun } from './read-code-run'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { sentence } from '@/core/sentence'
import { Simulated } from '@/stations/triage/simulated/Simulated'

interface Watch {
  readonly startedAt: number
  readonly codes: readonly string[]
  readonly atS: readonly number[]
}

/** The code tape: codes as they show, against a clock; what they say, and whether to wait. */
export function CodesPanel() {
  const log = useJob((j) => j.state.triage.codeLog)
  const table = useJob((j) => j.setting.references.codes)
  const board = useJob((j) => j.state.intake.ticket.boardModelId)
  const last = log.at(-1)
  return (
    <div className="grid gap-x-8 @3xl:grid-cols-2">
      <CodeClock />
      <div>
        {last ? <CodesSay run={last} /> : <p className="text-soft">No code is noted yet.</p>}
        <p className="mt-2 text-[0.92rem] text-soft">
          {table ? (
            `Read by the table of this board, ${table.codes.length} codes.`
          ) : (
            <>
              There is no code table for this board, so codes are only compared with one another.{' '}
              {board && (
                <Link href={`/library/boards/${board}#references`} className="underline">
                  Import one
                </Link>
              )}
            </>
          )}
        </p>
        <Simulated asks={[['Read the code display', { ask: 'codes' }]]} />
      </div>
    </div>
  )
}

/** What a run of codes says, its round, and codes in no table. */
function CodesSay({ run }: { run: CodesSeen }) {
  const table = useJob((j) => j.setting.references.codes)
  const reading = readCodes(run, table)
  const shown = run.codes.slice(-14)
  const tone = {
    stuck: 'border-ember',
    loops: 'border-ember',
    wait: 'border-brass',
    'came through': 'border-verd',
  }
  return (
    <div>
      <p className="num text-[1.15rem] leading-snug" aria-label="Codes in order">
        {run.codes.length > shown.length && '… '}
        {shown.map((code, i) => (
          <span key={i} className={i === shown.length - 1 ? 'font-bold' : 'text-soft'}>
            {code}{' '}
          </span>
        ))}
      </p>
      <p
        role="status"
        className={`mt-1 border-l-4 pl-3 ${tone[reading.shows as keyof typeof tone] ?? 'border-line'}`}
      >
        {sentence(reading.say)}
      </p>
      {reading.unknown.length > 0 && (
        <p className="mt-1 text-soft">
          In no table: <span className="num">{reading.unknown.join(' ')}</span>. They count for nothing until
          the table knows them.
        </p>
      )}
    </div>
  )
}

/** A clock from power-on; each code typed stands with its second. */
function CodeClock() {
  const append = useJob((j) => j.append)
  const gate = useJob((j) => j.gate)
  const table = useJob((j) => j.setting.references.codes)
  const field = useRef<HTMLInputElement>(null)
  const [watch, setWatch] = useState<Watch | null>(null)
  const [now, setNow] = useState(0)
  const [typed, setTyped] = useState('')
  const [fault, setFault] = useState('')
  const startedAt = watch?.startedAt
  useEffect(() => {
    if (startedAt === undefined) return
    const timer = setInterval(() => setNow((Date.now() - startedAt) / 1000), 500)
    return () => clearInterval(timer)
  }, [startedAt])

  function note(text: string) {
    const { codes, odd } = readCodesTyped(text)
    if (odd) return setFault(notACode(odd))
    setFault('')
    setTyped('')
    const s = watch ? Number(((Date.now() - watch.startedAt) / 1000).toFixed(1)) : 0
    if (watch)
      setWatch({ ...watch, codes: [...watch.codes, ...codes], atS: [...watch.atS, ...codes.map(() => s)] })
    else if (codes.length > 0) append('codes', { codes })
  }
  function stop() {
    if (watch)
      append('codes', {
        codes: watch.codes,
        atS: watch.atS,
        watchedS: Number(((Date.now() - watch.startedAt) / 1000).toFixed(1)),
      })
    setWatch(null)
  }
  async function importRun(file: File) {
    const read = readCodeRun(await file.text())
    if ('fault' in read) return setFault(read.fault)
    setFault('')
    append('codes', read.run)
  }
  const reading = watch && watch.codes.length > 0 ? readCodes({ ...watch, watchedS: now }, table) : null

  return (
    <div>
      <div className="flex items-center gap-3">
        {watch ? (
          <>
            <Button look="first" onClick={stop}>
              Keep these codes
            </Button>
            <Button look="bare" onClick={() => setWatch(null)}>
              Leave it
            </Button>
            <span className="num text-[1.6rem]" role="timer" aria-label="Seconds since power-on">
              {Math.floor(now / 60)}:{String(Math.floor(now % 60)).padStart(2, '0')}
            </span>
          </>
        ) : gate.lamp === 'do not power' ? (
          <p className="text-ember">
            The gate says do not power: {gate.reasons[0]!.text}. Note only codes that have already shown.
          </p>
        ) : (
          <Button
            onClick={() => {
              setNow(0)
              setWatch({ startedAt: Date.now(), codes: [], atS: [] })
              // The button goes; a code typed now must not reach the keys of the station.
              field.current?.focus()
            }}
          >
            Start timing at power-on
          </Button>
        )}
      </div>
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          note(typed)
        }}
      >
        <input
          ref={field}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          aria-label={watch ? 'The code that shows now' : 'Codes in the order they showed'}
          aria-invalid={fault ? true : undefined}
          placeholder={watch ? '4C' : '10 1A 4C 4C'}
          className="num w-full"
        />
        <Button type="submit" className="shrink-0">
          {watch ? 'It shows' : 'Note them'}
        </Button>
      </form>
      {fault && (
        <p role="alert" className="font-semibold text-ember">
          {fault}
        </p>
      )}
      {watch && (
        <div className="mt-2">
          <ol className="num flex flex-wrap gap-x-3">
            {watch.codes.map((code, i) => (
              <li key={i}>
                {code} <span className="text-[0.85rem] text-soft">{watch.atS[i]!.toFixed(0)} s</span>
              </li>
            ))}
          </ol>
          {reading && (
            <p
              className={`mt-1 border-l-4 pl-3 ${reading.shows === 'wait' ? 'border-brass' : 'border-line'}`}
            >
              {sentence(reading.say)}
            </p>
          )}
        </div>
      )}
      <div className="mt-3">
        <FileButton
          label="A recording of codes"
          hint="CSV with s and code"
          onFile={(file) => void importRun(file)}
        >
          Import a recording
        </FileButton>
      </div>
    </div>
  )
}
