'use client'
import { proxy } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { HeatFit } from '@/core/parts/heat/heat-fit'
import type { HeatRun } from '@/core/parts/heat/heat-run'
import type { Sought } from '@/core/parts/heat/heat-search'
import type { HeatStep, SetUp } from '@/core/parts/heat/set-up'
import type { PartsBodies } from '@/core/parts/bodies'
import { useJob } from '@/job/JobProvider'
import { latestOnly } from '@/job/latest-only'
import { useWorker } from '@/ui/use-worker'
import type { HeatWorker } from '@/workers/heat.worker'
import { readHeat, typedHeatOf, typedStep } from './typed-heat'
import type { TypedHeat } from './typed-heat'

const isSame = (a: PartsBodies['recipe'], b: PartsBodies['recipe']) =>
  a.floatsAtS === b.floatsAtS && JSON.stringify(typedHeatOf(a)) === JSON.stringify(typedHeatOf(b))

interface Shown {
  readonly of: string
  readonly setUp: SetUp
  readonly steps: readonly HeatStep[]
  readonly run: HeatRun
}

const startWorker = () =>
  new Worker(new URL('../../../workers/heat.worker.ts', import.meta.url), { type: 'module' })

/** A heat recipe in hand: what is typed, what it comes to, the search for a better one. All of it is reckoned in a worker. */
export function useHeat(isOpen: boolean) {
  const recipes = useJob((j) => j.state.parts.recipes)
  const append = useJob((j) => j.append)
  const [typed, setTyped] = useState<TypedHeat | null>(null)
  const shownTyped = useMemo(() => typed ?? typedHeatOf(recipes.at(-1)), [typed, recipes])
  const read = useMemo(() => readHeat(shownTyped), [shownTyped])
  const [shown, setShown] = useState<Shown | null>(null)
  const [fit, setFit] = useState<{ of: string; is: HeatFit | null }>({ of: '[]', is: null })
  const [share, setShare] = useState<number | null>(null)
  const [sought, setSought] = useState<{ is: Sought; of: string } | null>(null)
  const [say, setSay] = useState('')
  const remote = useWorker<HeatWorker>(startWorker)

  const readings = useMemo(() => JSON.stringify(recipes.filter((r) => r.readings.length > 0)), [recipes])
  const { air, preheater } = (fit.of === readings ? fit.is : null) ?? { air: 1, preheater: 1 }
  const asked = useMemo(
    () =>
      read.setUp && read.steps
        ? JSON.stringify({ setUp: { ...read.setUp, air, preheater }, steps: read.steps })
        : null,
    [read, air, preheater],
  )
  const ask = useRef<((to: string) => void) | null>(null)
  const correct = useRef<((to: string) => void) | null>(null)
  useEffect(() => {
    const failed = 'It was not reckoned. Change something, or open the station again.'
    ask.current = latestOnly(async (to) => {
      try {
        const { setUp, steps } = JSON.parse(to) as { setUp: SetUp; steps: readonly HeatStep[] }
        const run = (await remote().run(setUp, steps)) as HeatRun
        setShown({ of: to, setUp, steps, run })
        setSay('')
      } catch {
        setSay(failed)
      }
    })
    correct.current = latestOnly(async (to) => {
      try {
        setFit({ of: to, is: await remote().correct(JSON.parse(to) as typeof recipes) })
      } catch {
        setSay(failed)
      }
    })
    return () => {
      ask.current = null
      correct.current = null
    }
  }, [remote])
  useEffect(() => {
    if (isOpen && asked !== null) ask.current?.(asked)
  }, [isOpen, asked])
  useEffect(() => {
    if (isOpen && readings !== fit.of) correct.current?.(readings)
  }, [isOpen, readings, fit.of])

  // The nozzle is for the search to choose.
  const wanted = useMemo(
    () =>
      read.setUp && read.atHand
        ? JSON.stringify([{ ...read.setUp, nozzleMm: 0 }, read.atHand, air, preheater])
        : null,
    [read, air, preheater],
  )
  const search = async () => {
    if (!read.setUp || !read.atHand || share !== null || wanted === null) return
    setShare(0)
    setSay('')
    try {
      const found = await remote().search({ ...read.setUp, air, preheater }, read.atHand, proxy(setShare))
      if (found) {
        setSought({ is: found, of: wanted })
        const { best } = found
        if (best)
          setTyped((t) => ({
            ...(t ?? shownTyped),
            nozzleMm: String(best.setUp.nozzleMm),
            steps: best.steps.map(typedStep),
          }))
      }
    } catch {
      setSay('The search did not come to its end. Start it again.')
    }
    setShare(null)
  }
  const fresh = shown !== null && shown.of === asked
  const ref = shownTyped.ref.trim()
  const toKeep =
    fresh && read.setUp && read.steps
      ? {
          ...(ref ? { ref } : {}),
          ...read.setUp,
          steps: read.steps,
          floatsAtS: shown.run.verdict.floatsAtS,
        }
      : null
  const kept = recipes.at(-1) ?? null
  return {
    typed: shownTyped,
    change: (to: Partial<TypedHeat>) => setTyped({ ...shownTyped, ...to }),
    read,
    shown: asked === null ? null : shown,
    fresh,
    fit: fit.of === readings ? fit.is : null,
    /** What the last search found, while it still is what is asked for. */
    sought: sought && sought.of === wanted ? sought.is : null,
    share,
    search: () => void search(),
    stop: () => void remote().stop(),
    keep: () => {
      if (toKeep) append('recipe', toKeep)
    },
    kept,
    /** What is in hand is what was kept last. */
    isKept: toKeep !== null && kept !== null && isSame(toKeep, kept),
    readAt: (reading: { at: 'joint' | 'body' | 'board'; s: number; c: number }) =>
      append('thermocouple', reading),
    say,
  }
}
export type HeatInHand = ReturnType<typeof useHeat>
