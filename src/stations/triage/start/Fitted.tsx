'use client'
import { useState } from 'react'
import { saysNone } from '@/core/board/commands'
import { cellState } from '@/core/triage/model/stage'
import { readNumber } from '@/core/tables/read-number'
import { useJob } from '@/job/JobProvider'
import { Choice } from '@/ui/Choice'
import { TicketLine } from '@/ui/TicketLine'

/** Coin cell, what is in the board, and the supply's limit. */
export function Fitted() {
  const fitted = useJob((j) => j.state.board.fitted)
  const cell = useJob((j) => j.state.board.cell)
  const told = useJob((j) => j.state.board.told.cells.at(-1))
  const without = useJob((j) => j.state.board.without)
  const limitA = useJob((j) => j.state.board.supplyLimitA)
  const append = useJob((j) => j.append)
  return (
    <section id="fitted" className="ticket border-t border-line pt-2.5 pb-4">
      <h2 className="text-[0.98rem]!">Supply and what is fitted</h2>
      <Reading
        label="Coin cell"
        unit="V"
        shown={
          cell ? `${cell.volts} V, ${cellState(cell.volts).say}` : told?.is ? `said to be ${told.is}` : null
        }
        check={(v) => (v >= 0 && v <= 5 ? null : 'a coin cell reads 0 to 5 V')}
        onKeep={(volts) => append('cell', { volts })}
      />
      <Reading
        label="Supply limit"
        unit="A"
        shown={limitA === null ? 'no limit set' : `${limitA} A`}
        check={(v) => (v > 0 && v <= 60 ? null : 'a limit above 0, up to 60 A')}
        onKeep={(a) => append('supply', { limitA: a })}
      />
      <Words
        label="CPU"
        value={fitted.cpu ?? (without.includes('CPU') ? 'none' : '')}
        placeholder="name, or none"
        onKeep={(text) => append('fitted', { cpu: text || null })}
      />
      <Words
        label="Memory in"
        value={fitted.modules.join(', ') || (without.includes('modules') ? 'none' : '')}
        placeholder="A1, B1, or none"
        onKeep={(text) =>
          append('fitted', {
            modules: text
              .split(',')
              .map((s) => s.trim())
              .filter(Boolean),
          })
        }
      />
      <Words
        label="Card"
        value={fitted.card ?? ''}
        placeholder="none"
        onKeep={(text) => append('fitted', { card: text || null })}
      />
      <Words
        label="Drive"
        value={fitted.drive ?? (without.includes('drive') ? 'none' : '')}
        placeholder="name, or none"
        onKeep={(text) => append('fitted', { drive: text || null })}
      />
      <div className="mt-1.5">
        <Choice
          label="Heatsink"
          value={fitted.heatsink ? 'on' : 'off'}
          options={['on', 'off']}
          onChange={(v) => append('fitted', { heatsink: v === 'on' })}
        />
      </div>
    </section>
  )
}

function Reading({
  label,
  unit,
  shown,
  check,
  onKeep,
}: {
  label: string
  unit: string
  shown: string | null
  check: (v: number) => string | null
  onKeep: (v: number) => void
}) {
  const [text, setText] = useState('')
  const [fault, setFault] = useState<string>()
  function keep() {
    if (text.trim() === '') return
    const value = readNumber(text)
    const wrong = value === null ? `“${text}” is no number` : check(value)
    if (wrong) return setFault(wrong)
    onKeep(value!)
    setText('')
    setFault(undefined)
  }
  return (
    <TicketLine label={label} error={fault} hint={shown ?? undefined}>
      <input
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
        placeholder={unit}
        inputMode="decimal"
        className="num"
      />
    </TicketLine>
  )
}

function Words({
  label,
  value,
  placeholder,
  onKeep,
}: {
  label: string
  value: string
  placeholder: string
  onKeep: (text: string) => void
}) {
  const [text, setText] = useState<string | null>(null)
  const keep = () => {
    if (text !== null && text.trim() !== value) onKeep(saysNone(text.trim()) ? '' : text.trim())
    setText(null)
  }
  return (
    <TicketLine label={label}>
      <input
        value={text ?? value}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
        placeholder={placeholder}
      />
    </TicketLine>
  )
}
