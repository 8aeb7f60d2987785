'use client'
import type { Baseline } from '@/core/board/baseline'
import { nothingNoted } from '@/core/board/baseline'

import { useRef, useState } from 'react'
import { showsCodes } from '@/core/triage/model/shows'
import { notACode, readCodesTyped } from '@/core/triage/instruments/code'
import { readNumber } from '@/core/tables/read-number'
import { useJob } from '@/job/JobProvider'
import { useShown } from '@/job/use-shown'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { SaidBefore } from './SaidBefore'
import { WhatItShows } from './WhatItShows'
import { Simulated } from '@/stations/triage/simulated/Simulated'

/** One power-up noted while it is looked at: a press for each sense, nothing obliged. */
export function PowerUp() {
  const gate = useJob((j) => j.gate)
  const append = useJob((j) => j.append)
  const shown = useShown()
  const [b, setB] = useState<Baseline>(nothingNoted)
  const [amps, setAmps] = useState('')
  const [codes, setCodes] = useState('')
  const [faults, setFaults] = useState<{ amps?: string; codes?: string; all?: string }>({})
  const top = useRef<HTMLElement>(null)
  const hint = useKeyHint()
  useKeys({ powerUp: () => top.current?.querySelector<HTMLElement>('[role="radio"]')?.focus() })
  const set =
    <K extends keyof Baseline>(field: K) =>
    (value: Baseline[K]) =>
      setB({ ...b, [field]: value })

  function keep() {
    const { codes: seen, odd } = readCodesTyped(codes)
    const a = amps.trim() === '' ? null : readNumber(amps)
    const wrong = {
      amps:
        amps.trim() !== '' && (a === null || a < 0 || a > 100) ? `“${amps}” is no current in A` : undefined,
      codes: odd ? notACode(odd) : undefined,
    }
    const nothing = JSON.stringify(b) === JSON.stringify(nothingNoted) && seen.length === 0 && a === null
    setFaults({ ...wrong, all: nothing ? 'Nothing is noted yet: at least what the fans did.' : undefined })
    if (wrong.amps || wrong.codes || nothing) return
    append('baseline', { ...b, amps: a, codes: seen })
    setB(nothingNoted)
    setAmps('')
    setCodes('')
  }

  return (
    <section ref={top} id="baseline" className="pb-4">
      <h2 className="mb-1.5">
        Power-up <kbd className="num text-sm text-soft">{hint('powerUp')}</kbd>
      </h2>
      <WhatItShows />
      {gate.lamp !== 'do not power' && <SaidBefore />}
      <div className="flex flex-col gap-1">
        <Choice
          label="Fans"
          value={b.fans}
          options={['off', 'twitch', 'restarts', 'on']}
          none="not noted"
          onChange={set('fans')}
        />
        <Choice
          label="Fan speed"
          value={b.fanSpeed ?? 'not noted'}
          options={['settle', 'full speed']}
          none="not noted"
          onChange={(speed) => setB({ ...b, fanSpeed: speed === 'not noted' ? undefined : speed })}
        />
        <Choice
          label="Current"
          value={b.current}
          options={['none', 'standby', 'steady', 'cycling', 'trips']}
          none="not noted"
          onChange={set('current')}
        />
        {shown['debug LEDs'] !== false && (
          <Choice
            label="Debug LED"
            value={b.lamp}
            options={['none', 'cpu', 'memory', 'graphics', 'boot', 'in turn', 'flashing']}
            words={{ cpu: 'CPU' }}
            none="not noted"
            onChange={set('lamp')}
          />
        )}
        <Choice
          label="CPU feels"
          value={b.cpuHeat}
          options={['cold', 'warm', 'hot']}
          none="not noted"
          onChange={set('cpuHeat')}
        />
        <Choice
          label="Picture"
          value={b.picture}
          options={['none', 'maker screen', 'settings screen', 'system loads']}
          words={{ 'maker screen': 'start screen' }}
          none="not noted"
          onChange={set('picture')}
        />
      </div>
      <div className="mt-2 grid grid-cols-[5rem_1fr_7rem] gap-3">
        <TextField
          label="Amps"
          value={amps}
          onChange={(e) => setAmps(e.target.value)}
          error={faults.amps}
          inputMode="decimal"
          className="num"
        />
        {showsCodes(shown) && (
          <TextField
            label="POST codes, in order"
            value={codes}
            onChange={(e) => setCodes(e.target.value)}
            error={faults.codes}
            placeholder="4C 4C 31"
            className="num"
          />
        )}
        {shown.beeper !== false && (
          <TextField
            label="Beeps"
            value={b.beeps}
            onChange={(e) => set('beeps')(e.target.value)}
            placeholder="1 long 2 short"
          />
        )}
      </div>
      {faults.all && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {faults.all}
        </p>
      )}
      <Button look="first" className="mt-3" onClick={keep}>
        Note this power-up
      </Button>
      <Simulated asks={[['Power up and look', { ask: 'power-up' }]]} />
      <div className="mt-3">
        {gate.lamp === 'do not power' ? (
          <Caution>
            The gate says do not power: {gate.reasons[0]!.text}. Note only a power-up that has already
            happened.
          </Caution>
        ) : (
          <Caution>
            Heatsink on, current limited, nothing loose on the board. Never open the supply; new platforms may
            train memory for minutes, so wait before you judge.
          </Caution>
        )}
      </div>
    </section>
  )
}
