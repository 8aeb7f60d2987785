'use client'
import { useState } from 'react'
import { readNumber } from '@/core/tables/read-number'
import { newerThan } from '@/core/firmware/route/listed'
import { releaseNow } from '@/core/firmware/route/on-route'
import { runsRight } from '@/core/triage/instruments/runs-right'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'

const tone = {
  right: 'border-verd',
  'not right': 'border-ember',
  'not looked at': 'border-line text-soft',
} as const
const nothing = { rated: '', seen: '', start: '' }

/** It runs; but does it run right? Memory speed, start time, settings. */
export function RunsPanel() {
  const runs = useJob((j) => j.state.triage.runs)
  const append = useJob((j) => j.append)
  const firmware = useJob((j) => j.state.firmware)
  const releases = useJob((j) => j.setting.references.releases)
  const release = newerThan(releaseNow(firmware).release, releases)
  const [typed, setTyped] = useState(nothing)
  const [kept, setKept] = useState<'kept' | 'lost' | 'not tried'>('not tried')
  const [faults, setFaults] = useState<Partial<Record<keyof typeof nothing, string>>>({})

  function keep() {
    const figure = (field: keyof typeof nothing, least: number, most: number) => {
      const text = typed[field].trim()
      if (text === '') return { value: null }
      const value = readNumber(text)
      if (value === null || value < least || value > most)
        return { value: null, fault: `“${text}” is not between ${least} and ${most.toLocaleString('en')}` }
      return { value }
    }
    const read = {
      rated: figure('rated', 100, 20_000),
      seen: figure('seen', 100, 20_000),
      start: figure('start', 0, 3600),
    }
    const wrong = Object.fromEntries(
      Object.entries(read).flatMap(([k, v]) => (v.fault ? [[k, v.fault]] : [])),
    )
    setFaults(wrong)
    if (Object.keys(wrong).length > 0) return
    append('runs', {
      ratedMTs: read.rated.value === null ? (runs?.ratedMTs ?? null) : Math.round(read.rated.value),
      seenMTs: read.seen.value === null ? (runs?.seenMTs ?? null) : Math.round(read.seen.value),
      startS: read.start.value ?? runs?.startS ?? null,
      settingsKept: kept === 'not tried' ? (runs?.settingsKept ?? null) : kept === 'kept',
    })
    setTyped(nothing)
    setKept('not tried')
  }
  const field = (name: keyof typeof nothing) => ({
    value: typed[name],
    error: faults[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    inputMode: 'decimal' as const,
    className: 'num',
  })
  return (
    <div className="grid gap-x-8 @3xl:grid-cols-2">
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <div className="grid grid-cols-3 gap-3">
          <TextField label="Rated, MT/s" {...field('rated')} />
          <TextField label="Seen, MT/s" {...field('seen')} />
          <TextField label="Starts in, s" {...field('start')} />
        </div>
        <Choice
          label="Settings"
          value={kept}
          options={['kept', 'lost']}
          none="not tried"
          onChange={setKept}
        />
        <Button type="submit" className="self-start">
          Note how it runs
        </Button>
      </form>
      <ul className="mt-3 flex flex-col gap-1.5">
        {runsRight(runs, undefined, release).map((line) => (
          <li key={line.what} className={`border-l-4 pl-3 ${tone[line.state]}`}>
            <b className="font-semibold">{line.what}</b> {line.state}: {line.say}
          </li>
        ))}
      </ul>
    </div>
  )
}
