'use client'
import { useEffect, useMemo, useState } from 'react'
import { worthOf } from '@/core/job/advise'
import type { PushAdvice } from '@/core/socket/straighten/push'
import type { Step } from '@/core/socket/straighten/plan'
import type { ToWeigh } from '@/core/socket/straighten/reckon'
import type { SnapFactors } from '@/core/socket/straighten/technique'
import { useJob } from '@/job/JobProvider'
import type { Surface } from '@/stations/socket/map/use-surface'

/** Push once more, stop, or test: for the contact under the needle, reckoned in the worker after each stroke. */
export function usePush(
  surface: Surface,
  step: Step | null,
  weigh: (asked: ToWeigh) => Promise<PushAdvice | null>,
  factors: SnapFactors,
): PushAdvice | null {
  const { cursor, marks } = surface
  const passes = useJob((j) => j.state.socket.passes)
  const strokes = useJob((j) => j.state.socket.strokes)
  const valueMinor = useJob((j) => j.state.intake.ticket.valueMinor)
  const figures = useJob((j) => j.setting.figures)
  const [answer, setAnswer] = useState<{ asked: ToWeigh; advice: PushAdvice | null } | null>(null)
  const works = step !== null && step.strokes > 0
  const technique = step?.technique
  const asked = useMemo((): ToWeigh | null => {
    const mark = marks[cursor]
    if (!works || !technique || !mark) return null
    const first = passes.find((p) => p.found[cursor])?.found[cursor] ?? mark
    const had = strokes.filter((s) => s.contact === cursor).reduce((sum, s) => sum + s.strokes, 0)
    return {
      marks,
      contact: cursor,
      technique,
      first,
      strokes: had,
      ...worthOf(valueMinor, figures),
      factors,
    }
  }, [cursor, marks, passes, strokes, factors, figures, valueMinor, works, technique])
  useEffect(() => {
    if (!asked) return
    let here = true
    void weigh(asked).then((advice) => here && setAnswer({ asked, advice }))
    return () => {
      here = false
    }
  }, [asked, weigh])
  return asked && answer?.asked === asked ? answer.advice : null
}
