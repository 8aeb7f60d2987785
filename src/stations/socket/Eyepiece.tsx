'use client'
import { useState } from 'react'
import { useJob } from '@/stations/job/JobProvider'
import { TextField } from '@/ui/Field'

/** How one looks while straightening: it stays until it is changed, and goes with each attempt. */
export function useEyepiece() {
  const last = useJob((j) => j.state.strokes.findLast((s) => s.light ?? s.magnification))
  const [light, setLight] = useState<string | null>(null)
  const [magnification, setMagnification] = useState<string | null>(null)
  const [lightNow, times] = [light ?? last?.light ?? '', magnification ?? last?.magnification ?? '']
  return {
    light: lightNow,
    magnification: times,
    setLight,
    setMagnification,
    noted: {
      ...(lightNow.trim() ? { light: lightNow.trim() } : {}),
      ...(times.trim() ? { magnification: times.trim() } : {}),
    },
  }
}

/** Light and magnification, kept with each attempt so that the record can tell what helps. */
export function Eyepiece({ eye }: { eye: ReturnType<typeof useEyepiece> }) {
  return (
    <div className="mt-3 grid max-w-xl grid-cols-2 gap-4 border-t border-line pt-2">
      <TextField
        label="Light"
        value={eye.light}
        placeholder="low from the left, diffused"
        onChange={(e) => eye.setLight(e.target.value)}
      />
      <TextField
        label="Magnification"
        value={eye.magnification}
        placeholder="20×"
        onChange={(e) => eye.setMagnification(e.target.value)}
      />
    </div>
  )
}
