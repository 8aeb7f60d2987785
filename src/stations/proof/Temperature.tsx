'use client'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { BEARS_C, BELOW_K, sayTemperature, verdictOf } from '@/core/proof/temperature'
import type { KeptTemperature } from '@/core/proof/temperature'
import type { Finding } from '@/core/tables/finding'
import { useJob } from '@/job/JobProvider'
import { useSimulated } from '@/stations/triage/simulated/use-simulated'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { FileButton } from '@/ui/FileButton'
import { Findings } from '@/ui/Findings'
import { typedNumber } from '@/ui/typed-number'
import { useWorker } from '@/ui/use-worker'
import type { TemperatureWorker } from './temperature.worker'

const TemperatureCurve = dynamic(() => import('./TemperatureCurve').then((m) => m.TemperatureCurve), {
  ssr: false,
  loading: () => <div className="h-56" />,
})

const MAX_CSV_BYTES = 8 * 1024 * 1024
const startWorker = () => new Worker(new URL('./temperature.worker.ts', import.meta.url), { type: 'module' })

const tones = { 'levels off': 'text-verd', 'too hot': 'font-semibold text-ember', 'not yet': '' }

/** A log of temperatures under load: where it levels off, said before it has. */
export function Temperature({ onKept }: { onKept: (body: KeptTemperature) => void }) {
  const kept = useJob((j) => j.state.proof.temperatures.at(-1))
  const simulated = useSimulated()
  const remote = useWorker<TemperatureWorker>(startWorker)
  const [bears, setBears] = useState(String(BEARS_C))
  const [findings, setFindings] = useState<readonly Finding[]>([])
  const [say, setSay] = useState('')
  const bearsC = typedNumber(bears)
  const clear = bearsC >= 50 && bearsC <= 150
  const take = async (file: File) => {
    setSay('')
    setFindings([])
    if (!clear) return setSay('What does the CPU bear? 50 to 150 °C.')
    if (file.size > MAX_CSV_BYTES)
      return setSay(`${file.name} is over 8 MB: no log of a quarter of an hour is.`)
    try {
      const { body, findings: found } = await remote().read(file.name, await file.text(), bearsC)
      setFindings(found)
      if (body) onKept(body)
    } catch {
      setSay(`${file.name} was not read. Pick it again.`)
    }
  }
  return (
    <section id="temperature" aria-label="Temperature under load" className="mt-4 border-t border-line pt-3">
      <h2>Temperature under load</h2>
      {kept ? (
        <>
          <p className={`mt-1 ${tones[verdictOf(kept)]}`}>
            {kept.name}: {sayTemperature(kept)}.
          </p>
          <TemperatureCurve kept={kept} />
        </>
      ) : (
        <p className="mt-1 text-soft">
          A log as CSV with the columns s and c says where it levels off, mostly before it has: {BELOW_K} K
          below what the CPU bears, or not.
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <div className="w-44">
          <TextField
            label="The CPU bears, °C"
            className="num"
            inputMode="decimal"
            value={bears}
            error={clear ? undefined : '50 to 150 °C'}
            onChange={(e) => setBears(e.target.value)}
          />
        </div>
        <FileButton
          label="Temperature log as CSV"
          accept=".csv,text/csv,text/plain"
          onFile={(f) => void take(f)}
        >
          Pick a log
        </FileButton>
        {simulated.there && (
          <Button disabled={simulated.busy} onClick={() => void simulated.ask({ ask: 'temperature' })}>
            {simulated.busy ? 'reading it…' : 'A quarter of an hour (simulated)'}
          </Button>
        )}
      </div>
      {(say || simulated.say) && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {say || simulated.say}
        </p>
      )}
      <Findings findings={findings} />
    </section>
  )
}
