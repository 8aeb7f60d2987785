'use client'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useMemo, useState } from 'react'
import {
  drawHeatPractice,
  liftNow,
  practiceTargets,
  readsBeside,
  reckonedHeat,
  secondsOf,
  touch,
  trulyHeated,
} from '@/core/parts/heat/practice-heat'
import type { HeatPracticeResult, Touch } from '@/core/parts/heat/practice-heat'
import type { HeatStep } from '@/core/parts/heat/set-up'
import { liquidusC, RAMP_KS } from '@/core/parts/heat/set-up'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { letGo } from '@/ui/keys'
import { typedNumber } from '@/ui/typed-number'
import { meanOf, PracticeFigures } from './PracticeFigures'

const PracticeHeatChart = dynamic(() => import('./PracticeHeatChart').then((m) => m.PracticeHeatChart), {
  ssr: false,
  loading: () => <div className="h-[19rem]" />,
})

type Target = (typeof practiceTargets)[number]
const FIRST_SEED = 1
const anySeed = () => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 8

/** What the hand is set to: field, its words, and what may be typed. */
const settings = {
  nozzle: ['Nozzle, mm', 2, 40],
  distance: ['Distance, mm', 1, 60],
  air: ['Air, °C', 30, 600],
  flow: ['Flow, l/min', 1, 200],
  preheat: ['Preheat, W/cm²', 0, 2],
} as const
type Setting = keyof typeof settings
const fields = Object.keys(settings) as Setting[]
const asSet: Readonly<Record<Setting, string>> = {
  nozzle: '14',
  distance: '8',
  air: '',
  flow: '40',
  preheat: '0.3',
}

/** The longest a board is kept under heat here, s. */
const LONGEST_S = 900

const touchSays: Readonly<Record<Touch, string>> = {
  'stands firm': 'It stands firm.',
  'gives a little': 'It gives a little: some of it is liquid.',
  floats: 'It floats.',
}

/** A simulated board that takes more or less heat than reckoned: warmed, touched, lifted when it floats. */
export function HotAirPractice() {
  const [target, setTarget] = useState<Target>('firmware chip')
  const [seed, setSeed] = useState(FIRST_SEED)
  const [typed, setTyped] = useState(asSet)
  const [steps, setSteps] = useState<readonly HeatStep[]>([])
  const [touched, setTouched] = useState<readonly { s: number; felt: Touch }[]>([])
  const [result, setResult] = useState<HeatPracticeResult | null>(null)
  const [scores, setScores] = useState<readonly number[]>([])
  const practice = useMemo(() => drawHeatPractice(seed, target), [seed, target])
  const hint = useKeyHint()

  const errors = Object.fromEntries(
    fields.flatMap((field) => {
      const [, least, most] = settings[field]
      if (field === 'air' && typed.air.trim() === '') return []
      const is = typedNumber(typed[field])
      return is >= least && is <= most ? [] : [[field, `${least} to ${most}`]]
    }),
  ) as Partial<Record<Setting, string>>
  const clear = Object.keys(errors).length === 0
  const set = (field: Setting) => typedNumber(typed[field])
  const hand = useMemo(
    () => ({ nozzleMm: typedNumber(typed.nozzle), distanceMm: typedNumber(typed.distance), steps }),
    [typed.nozzle, typed.distance, steps],
  )
  const run = useMemo(() => (clear ? trulyHeated(practice, hand) : null), [practice, hand, clear])
  const reads = useMemo(() => readsBeside(practice, run), [practice, run])
  const reckoned = useMemo(
    () => (result && clear ? reckonedHeat(practice, hand) : null),
    [result, practice, hand, clear],
  )
  const elapsed = secondsOf(hand)

  const begin = (next: Target, nextSeed: number) => {
    setTarget(next)
    setSeed(nextSeed)
    setSteps([])
    setTouched([])
    setResult(null)
  }
  const another = () => begin(target, anySeed())
  const on = (seconds: number) => {
    if (result || !clear || elapsed + seconds > LONGEST_S) return
    const airC = typed.air.trim() === '' ? null : set('air')
    const step = { airC, flow: airC === null ? 0 : set('flow'), preheatWm2: 10_000 * set('preheat') }
    const last = steps.at(-1)
    const same =
      last && last.airC === step.airC && last.flow === step.flow && last.preheatWm2 === step.preheatWm2
    setSteps(
      same
        ? [...steps.slice(0, -1), { ...step, seconds: last.seconds + seconds }]
        : [...steps, { ...step, seconds }],
    )
  }
  const touchIt = () => {
    if (!result && clear) setTouched([...touched, { s: elapsed, felt: touch(practice, run) }])
  }
  const lift = () => {
    if (result || !clear) return
    const firm = touched.filter((t) => t.felt === 'stands firm').length
    const is = liftNow(practice, run, firm)
    setResult(is)
    setScores([...scores, is.score])
  }
  useKeys({
    heatOn: () => on(5),
    heatFarOn: () => on(20),
    touchIt,
    liftIt: lift,
    anotherBoard: another,
    sameBoard: () => begin(target, seed),
  })
  const { told, truly } = practice
  const last = touched.at(-1)
  const now = reads.at(-1)?.c ?? told.roomC
  const pressed = (then: () => void) => (event: { detail: number; currentTarget: EventTarget }) => {
    letGo(event)
    then()
  }
  return (
    <>
      <h1>Hot air practice</h1>
      <p className="mt-0.5 max-w-[46rem] text-soft">
        Warm it, feel it with the tweezers, lift it when it floats. No two boards take the heat alike, and the
        thermocouple beside the joint is all that is seen. Nothing here touches the record.{' '}
        <Link href="/practice" className="underline">
          Boards to practise on
        </Link>
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-8">
        <div>
          <PracticeHeatChart
            reads={reads}
            truly={result ? run : null}
            reckoned={reckoned}
            meltsC={liquidusC[told.solder]}
          />
          <p
            role="status"
            className={`mt-3 text-lg ${result ? (result.wrong.length === 0 ? 'text-verd' : 'font-semibold text-ember') : ''}`}
          >
            {result
              ? result.wrong.length === 0
                ? 'Lifted clean: every joint was liquid, and nothing was harmed.'
                : `${result.wrong.map((w) => w.charAt(0).toUpperCase() + w.slice(1)).join('. ')}.`
              : last?.s === elapsed
                ? touchSays[last.felt]
                : elapsed === 0
                  ? 'Cold. Set the air or the preheater, and go on by five seconds.'
                  : `${now} °C beside it after ${elapsed} s.`}
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            {result ? (
              <>
                <Button look="first" keyHint={hint('anotherBoard')} onClick={pressed(another)}>
                  Another
                </Button>
                <Button keyHint={hint('sameBoard')} onClick={pressed(() => begin(target, seed))}>
                  The same again
                </Button>
              </>
            ) : (
              <>
                <Button
                  look="first"
                  keyHint={hint('heatOn')}
                  disabled={!clear}
                  onClick={pressed(() => on(5))}
                >
                  5 s on
                </Button>
                <Button keyHint={hint('heatFarOn')} disabled={!clear} onClick={pressed(() => on(20))}>
                  20 s on
                </Button>
                <Button keyHint={hint('touchIt')} disabled={!clear} onClick={pressed(touchIt)}>
                  Touch it
                </Button>
                <Button keyHint={hint('liftIt')} disabled={!clear} onClick={pressed(lift)}>
                  Lift it
                </Button>
              </>
            )}
          </div>
        </div>
        <div>
          <Choice
            label="Lifted"
            value={target}
            options={[...practiceTargets]}
            onChange={(t) => begin(t, anySeed())}
          />
          <p className="mt-2">
            {told.solder === 'leaded' ? 'Leaded' : 'Lead-free'} solder, liquid from {liquidusC[told.solder]}{' '}
            °C. {told.spared[0]!.atMm} mm away: {told.spared[0]!.what}, it bears {told.spared[0]!.bearsC} °C.
            At most {RAMP_KS} K a second.
          </p>
          <div className="mt-3 grid grid-cols-2 gap-3">
            {fields.map((field) => (
              <TextField
                key={field}
                label={settings[field][0]}
                className="num"
                inputMode="decimal"
                value={typed[field]}
                placeholder={field === 'air' ? 'off' : ''}
                error={errors[field]}
                disabled={result !== null || ((field === 'nozzle' || field === 'distance') && elapsed > 0)}
                onChange={(e) => setTyped({ ...typed, [field]: e.target.value })}
              />
            ))}
          </div>
          <PracticeFigures
            figures={[
              ['under heat', `${elapsed} s`],
              ['thermocouple beside it', `${now} °C`],
              ['touched', touched.length === 0 ? '–' : touched.map((t) => `${t.s} s ${t.felt}`).join(', ')],
              ...(result
                ? ([
                    ['joint at the end', `${Math.round(run?.jointC.at(-1) ?? told.roomC)} °C`],
                    ['this board took of the air', `${Math.round(100 * truly.air)} %`],
                    ['and of the preheater', `${Math.round(100 * truly.preheater)} %`],
                    ['layers of copper', String(truly.layers)],
                  ] as const)
                : []),
              ['score', result ? String(result.score) : '–'],
              ['mean of this sitting', meanOf(scores, ['lifted', 'lifted'])],
            ]}
          />
        </div>
      </div>
      <div className="mt-4">
        <Caution>
          At the bench: fume extraction, eye protection, nothing flammable near; hot boards burn. Your own
          rules come first.
        </Caution>
      </div>
    </>
  )
}
