'use client'
import { useState } from 'react'
import { percent } from '@/core/maths/percent'
import { readNumber } from '@/core/tables/read-number'
import { cellSeen, cellWords, readCell } from '@/core/triage/instruments/coin-cell'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { sentence } from '@/core/sentence'
import { Simulated } from '@/stations/triage/simulated/Simulated'

/** The coin cell by itself and at the board, and whether settings stay: why they are lost, and what to measure next. */
export function CellPanel() {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const [volts, setVolts] = useState('')
  const [where, setWhere] = useState<'by itself' | 'at the board'>('by itself')
  const [cell, setCell] = useState<'the old cell' | 'a new cell'>('the old cell')
  const [fault, setFault] = useState('')
  const seen = cellSeen(state.board, state.triage)
  const reading = readCell(seen)
  const isNew = cell === 'a new cell'

  function keep() {
    const v = readNumber(volts)
    if (v === null || v < 0 || v > 5) return setFault(`a coin cell reads 0 to 5 V; “${volts}” does not`)
    setFault('')
    setVolts('')
    append('cell', { volts: v, where, isNew })
  }
  const nothing = seen.aloneV === null && seen.atBoardV === null && seen.settings === null

  return (
    <div className="grid gap-x-8 @3xl:grid-cols-2">
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <Choice label="Which" value={cell} options={['the old cell', 'a new cell']} onChange={setCell} />
        <Choice label="Measured" value={where} options={['by itself', 'at the board']} onChange={setWhere} />
        <div className="flex items-end gap-2">
          <TextField
            label="Volts"
            value={volts}
            onChange={(e) => setVolts(e.target.value)}
            error={fault || undefined}
            inputMode="decimal"
            className="num w-28!"
            data-first-field
          />
          <Button type="submit">Note it</Button>
        </div>
        <fieldset className="flex items-center gap-2">
          <legend className="float-left mr-2 text-[0.94rem] text-soft">Settings after mains off</legend>
          {(['kept', 'lost'] as const).map((outcome) => (
            <Button
              key={outcome}
              look="bare"
              onClick={() => append('trial', { test: 'settings kept', outcome })}
            >
              {outcome}
            </Button>
          ))}
        </fieldset>
        <Caution>Coin cells: away from children, never short, never solder.</Caution>
        <Simulated
          asks={[
            ['Measure it by itself', { ask: 'cell', where: 'by itself', isNew }],
            ['Measure at the board', { ask: 'cell', where: 'at the board', isNew }],
            ['See if settings stay', { ask: 'test', test: 'settings kept' }],
          ]}
        />
      </form>
      <div>
        <p className="num text-[1.15rem]">
          {seen.aloneV === null ? '–' : `${seen.aloneV} V`}{' '}
          <span className="font-sans text-[0.88rem] text-soft">by itself</span>{' '}
          {seen.atBoardV === null ? '–' : `${seen.atBoardV} V`}{' '}
          <span className="font-sans text-[0.88rem] text-soft">
            at the board; settings {seen.settings ?? 'not tried'}
          </span>
        </p>
        {nothing ? (
          <p className="text-soft">
            Nothing is measured yet. Begin with the cell by itself; it costs a minute.
          </p>
        ) : (
          <>
            <p role="status" className="border-l-4 border-brass pl-3">
              {sentence(reading.say)}
            </p>
            <ul className="mt-2">
              {reading.odds.map(({ cause, odds }) => (
                <li
                  key={cause}
                  className="grid grid-cols-[1fr_4rem_3.6rem] items-center gap-x-2 text-[0.95rem]"
                >
                  <span className={odds < 0.05 ? 'text-soft' : ''}>{cellWords[cause]}</span>
                  <span aria-hidden="true" className="h-2 bg-line/50">
                    <span
                      className="block h-full bg-slate"
                      style={{ width: `${(odds * 100).toFixed(1)}%` }}
                    />
                  </span>
                  <span className="num text-right">{percent(odds)}</span>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  )
}
