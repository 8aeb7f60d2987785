'use client'
import { useMemo, useState } from 'react'
import { lights, snapFactors } from '@/core/socket/straighten/snap-record'
import { useJob } from '@/job/JobProvider'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'

const isUsual = (light: string) => (lights as readonly string[]).includes(light)

/** How one looks while straightening: it stays until it is changed, goes with each attempt, and counts in the odds. */
export function useEyepiece() {
  const last = useJob((j) => j.state.socket.strokes.findLast((s) => s.light ?? s.magnification))
  const record = useJob((j) => j.setting.record)
  const [typedLight, setLight] = useState<string | null>(null)
  const [typedTimes, setMagnification] = useState<string | null>(null)
  const light = (typedLight ?? last?.light ?? '').trim()
  const magnification = (typedTimes ?? last?.magnification ?? '').trim()
  /** What the shop's record makes of the odds under this light and magnification. */
  const factors = useMemo(() => snapFactors(record, { light, magnification }), [record, light, magnification])
  const shownLight = typedLight ?? last?.light ?? ''
  const shownTimes = typedTimes ?? last?.magnification ?? ''
  return useMemo(
    () => ({
      light: shownLight,
      magnification: shownTimes,
      setLight,
      setMagnification,
      factors,
      noted: { ...(light ? { light } : {}), ...(magnification ? { magnification } : {}) },
    }),
    [shownLight, shownTimes, factors, light, magnification],
  )
}
export type EyepieceNow = ReturnType<typeof useEyepiece>

/** Light and magnification, kept with each attempt so that the record can tell what helps. */
export function Eyepiece({ eye }: { eye: EyepieceNow }) {
  const [other, setOther] = useState(false)
  const own = eye.light !== '' && !isUsual(eye.light)
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-line pb-3">
      <Choice
        label="Light"
        value={own || other ? 'another' : eye.light}
        options={[...lights, 'another']}
        none=""
        onChange={(as) => {
          setOther(as === 'another')
          eye.setLight(as === 'another' ? '' : as)
        }}
      />
      {(own || other) && (
        <TextField
          label="Which light"
          value={eye.light}
          placeholder="torch from the near side"
          onChange={(e) => eye.setLight(e.target.value)}
        />
      )}
      <TextField
        label="Magnification"
        value={eye.magnification}
        placeholder="20×"
        onChange={(e) => eye.setMagnification(e.target.value)}
      />
    </div>
  )
}
