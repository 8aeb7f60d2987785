'use client'
import { useMemo, useState } from 'react'
import { speaksAgainst } from '@/core/job/asks-first'
import { proofStanding, touchedBy } from '@/core/job/stations-say'
import { sayRail } from '@/core/board/rail'
import { sayStarts } from '@/core/proof/cold-starts'
import type { StandingTest } from '@/core/proof/plan'
import { percent } from '@/core/maths/percent'
import type { Bodies } from '@/core/slices'
import { useJob } from '@/job/JobProvider'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { useStationStep } from '@/frame/use-station-step'
import { StillInDoubt } from './StillInDoubt'
import { Temperature } from './Temperature'
import { useSimulated } from '@/stations/triage/simulated/use-simulated'
import { Against } from '@/ui/Against'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { useKeyHint, useKeys } from '@/frame/use-keys'

type Result = 'pass' | 'fail' | 'cannot run here'
const resultWords: Record<Result, string> = {
  pass: 'passes',
  fail: 'fails',
  'cannot run here': 'cannot be run here',
}
const resultTone: Record<Result, string> = {
  pass: 'text-verd',
  fail: 'text-ember',
  'cannot run here': 'text-brass',
}

/** The proof sheet: what was touched, what proves it, the reading, and whether it passes. */
export function ProofStation() {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const append = useJob((j) => j.append)
  const setting = useJob((j) => j.setting)
  const { tests, owed, left } = useMemo(() => proofStanding(state, socket, setting), [state, socket, setting])
  const { here } = useStationStep('proof', null)
  /** The one the sentence asks for: its answers stand below it. */
  const next = tests.find((t) => t.id === here.proves)
  const touched = useMemo(() => touchedBy(state, socket, setting), [state, socket, setting])
  const [readings, setReadings] = useState<Record<string, string>>({})
  const [asked, setAsked] = useState<{
    what: string
    against: readonly string[]
    note: () => void
  } | null>(null)
  /** Notes a line; what speaks against it is asked about first. */
  const note = <K extends 'proof' | 'cold start' | 'temperature'>(
    kind: K,
    body: Bodies[K],
    what: string,
    onNoted: () => void = () => undefined,
  ) => {
    const against = speaksAgainst(kind, body, state, socket, setting)
    const keep = (despite: readonly string[]) => {
      append(kind, despite.length > 0 ? { ...body, despite } : body)
      setAsked(null)
      onNoted()
    }
    if (against.length > 0) setAsked({ what, against, note: () => keep(against) })
    else keep([])
  }
  const start = (came: boolean) => note('cold start', { came }, 'a cold start that came up')
  const answer = (test: StandingTest, result: Result) => {
    const reading = (readings[test.id] ?? '').trim()
    note('proof', { test: test.id, result, reading }, `“${test.test}” having passed`, () =>
      setReadings({ ...readings, [test.id]: '' }),
    )
  }
  const line = (test: StandingTest): LineProps => ({
    test,
    reading: readings[test.id] ?? '',
    onReading: (text) => setReadings({ ...readings, [test.id]: text }),
    onAnswer: (result) => answer(test, result),
  })
  const why = [
    touched.contacts > 0 &&
      `${touched.contacts} ${touched.contacts === 1 ? 'contact' : 'contacts'} (${touched.groups.join(', ')})`,
    touched.firmware && 'firmware',
    touched.parts && 'small parts',
    ...touched.exchanged.map((thing) => `another ${thing}`),
    ...touched.rails.map(sayRail),
    touched.cell && 'coin cell',
  ].filter(Boolean)
  return (
    <StationSurface
      station="proof"
      answers={() =>
        next === undefined ? null : next.starts === undefined ? (
          <Answers {...line(next)} />
        ) : (
          <StartAnswers test={next} onStart={start} onCannot={() => answer(next, 'cannot run here')} />
        )
      }
      standing={
        owed > 0 && (
          <span>
            about {tests.filter((t) => t.result === null).reduce((sum, t) => sum + t.minutes, 0)} min left
          </span>
        )
      }
    >
      <Pane className="lg:h-full">
        <p className="mt-2 text-soft">
          Touched: {why.length > 0 ? why.join(', ') : 'nothing so far; these tests belong to every board'}.{' '}
          {tests.length - owed} of {tests.length} done.
        </p>
        {touched.suspected.length > 0 && (
          <p className="mt-1 text-soft">
            Suspected and never repaired: {touched.suspected.map(({ say }) => say).join(', ')}.
          </p>
        )}
        {asked && (
          <div className="mt-3 flex flex-col gap-2">
            <Against what={asked.what} against={asked.against} />
            <div className="flex gap-2">
              <Button look="first" autoFocus onClick={() => setAsked(null)}>
                Do not note it
              </Button>
              <Button onClick={asked.note}>Note it all the same</Button>
            </div>
          </div>
        )}
        <ol className="mt-3">
          {tests.map((test) => (
            <TestLine key={test.id} {...line(test)} next={test === next} />
          ))}
        </ol>
        <StillInDoubt left={left} tests={tests} />
        <Temperature onKept={(body) => note('temperature', body, 'a temperature that levels off')} />
        <div className="mt-4">
          <Caution>
            Mains off and a minute’s wait before each cold start. A heatsink is on for every one of these. A
            board left under load is not left alone.
          </Caution>
        </div>
      </Pane>
    </StationSurface>
  )
}

interface LineProps {
  readonly test: StandingTest
  readonly reading: string
  readonly onReading: (text: string) => void
  readonly onAnswer: (result: Result) => void
}

/** Reading and result of the test in hand, one key each. */
function Answers({ test, reading, onReading, onAnswer }: LineProps) {
  const hint = useKeyHint()
  useKeys({
    passes: () => onAnswer('pass'),
    fails: () => onAnswer('fail'),
    cannot: () => onAnswer('cannot run here'),
  })
  return (
    <div role="group" aria-label="Result" className="flex flex-wrap items-center gap-2">
      <Reading test={test} reading={reading} onReading={onReading} />
      {answers.map(([result, word, key]) => (
        <Button
          key={result}
          look={result === 'pass' ? 'first' : 'quiet'}
          className="py-0.5!"
          keyHint={hint(key)}
          onClick={() => onAnswer(result)}
          aria-label={`${test.test}: ${resultWords[result]}`}
        >
          {word}
        </Button>
      ))}
    </div>
  )
}

/** One start after another: came up or stayed dark, one key each; what those made so far prove. */
function StartAnswers({
  test: { counted },
  onStart,
  onCannot,
}: {
  test: StandingTest
  onStart: (came: boolean) => void
  onCannot: () => void
}) {
  const hint = useKeyHint()
  const simulated = useSimulated()
  useKeys({ passes: () => onStart(true), fails: () => onStart(false), cannot: onCannot })
  return (
    <div role="group" aria-label="Result" className="flex flex-wrap items-center gap-2">
      <Button look="first" className="py-0.5!" keyHint={hint('passes')} onClick={() => onStart(true)}>
        It came up
      </Button>
      <Button className="py-0.5!" keyHint={hint('fails')} onClick={() => onStart(false)}>
        It stayed dark
      </Button>
      <Button className="py-0.5!" keyHint={hint('cannot')} onClick={onCannot}>
        Cannot
      </Button>
      {simulated.there && (
        <Button
          className="py-0.5!"
          disabled={simulated.busy}
          onClick={() => void simulated.ask({ ask: 'cold start' })}
        >
          Start it (simulated)
        </Button>
      )}
      {simulated.say && (
        <span role="alert" className="font-semibold text-ember">
          {simulated.say}
        </span>
      )}
      {counted && counted.made > 0 && <span className="text-soft">{sayStarts(counted)}</span>}
    </div>
  )
}

const answers = [
  ['pass', 'Passes', 'passes'],
  ['fail', 'Fails', 'fails'],
  ['cannot run here', 'Cannot', 'cannot'],
] as const

function Reading({ test, reading, onReading }: Pick<LineProps, 'test' | 'reading' | 'onReading'>) {
  return (
    <input
      value={reading}
      onChange={(e) => onReading(e.target.value)}
      aria-label={`Reading for ${test.test}`}
      placeholder="reading"
      className="num w-56 py-1!"
    />
  )
}

function TestLine({ test, next, reading, onReading, onAnswer }: LineProps & { readonly next: boolean }) {
  const { result } = test
  return (
    <li
      className={`grid grid-cols-[1.6rem_minmax(0,1fr)_15.5rem] gap-x-3 py-2.5 ${next ? 'border-t-2 border-brass' : 'border-t border-line'}`}
    >
      <Mark result={result} />
      <div className="leading-snug">
        <p className="font-semibold">{test.test}</p>
        <p className="text-soft">
          {test.why}; passes when: {test.limit}
          {test.again && <b className="font-semibold text-brass"> Again: something was changed since.</b>}
        </p>
        {result !== 'pass' && (
          <p className="text-[0.95rem] text-soft">
            {result === 'fail' ? (
              'Back to triage with what was seen.'
            ) : (
              <>
                {test.minutes} min
                {test.untold === null ? '' : `; ${percent(test.untold)} that it finds something`}
                {test.lacks.length > 0 && (
                  <b className="font-semibold text-brass">. Not at hand: {test.lacks.join(', ')}</b>
                )}
              </>
            )}
          </p>
        )}
      </div>
      {next && <p className="text-right font-semibold text-brass">now</p>}
      {!next && result && (
        <div className="text-right leading-snug">
          <p className={`font-semibold ${resultTone[result]}`}>{resultWords[result]}</p>
          {test.reading && <p className="num text-[0.95rem]">{test.reading}</p>}
          <Button
            look="bare"
            className="py-0! text-[0.9rem]"
            onClick={() => onAnswer(result === 'pass' ? 'fail' : 'pass')}
          >
            {result === 'pass' ? 'It fails after all' : 'It passes now'}
          </Button>
        </div>
      )}
      {!next && !result && (
        <div className="text-right">
          <Reading test={test} reading={reading} onReading={onReading} />
          <p className="mt-1 flex justify-between">
            {answers.map(([answer, word]) => (
              <Button
                key={answer}
                look="bare"
                className="px-0! py-0.5!"
                onClick={() => onAnswer(answer)}
                aria-label={`${test.test}: ${resultWords[answer]}`}
              >
                {word}
              </Button>
            ))}
          </p>
        </div>
      )}
    </li>
  )
}

/** Ring, tick, cross or bar: the result by shape. */
function Mark({ result }: { result: Result | null }) {
  const tone = result ? resultTone[result] : 'text-slate'
  return (
    <svg
      viewBox="0 0 20 20"
      width="20"
      height="20"
      aria-hidden="true"
      className={`mt-0.5 ${tone}`}
      fill="none"
      stroke="currentColor"
      strokeWidth="2.2"
      strokeLinecap="round"
    >
      {result === null && <circle cx="10" cy="10" r="6.5" />}
      {result === 'pass' && <path d="M4 10.5l4 4.5L16.5 5" />}
      {result === 'fail' && <path d="M5 5l10 10M15 5L5 15" />}
      {result === 'cannot run here' && <path d="M4 10h12" />}
    </svg>
  )
}
