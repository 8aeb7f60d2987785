'use client'
import { Count } from '@/ui/reader'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Finding } from '@/core/tables/finding'
import { tableUnits } from '@/core/socket/table/table-columns'
import type { TableUnit } from '@/core/socket/table/table-columns'
import type { Socket, SocketKind } from '@/core/socket/model/socket'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { TextArea, TextField } from '@/ui/Field'
import { Findings } from '@/ui/Findings'
import { SocketPicture } from './SocketPicture'

interface Answer {
  readonly kept: string | null
  readonly socket: Socket | null
  readonly findings: readonly Finding[]
  readonly table?: { readonly unit: TableUnit; readonly odd: string | null }
  readonly error?: { readonly field: string; readonly text: string }
}

const grid = { rows: '', columns: '', pitchMm: '', hole: '', regions: '', left: '45', right: '225' }
const MAX_CSV_BYTES = 4 * 1024 * 1024

/** A socket from a table or from rows and columns: looked at first, kept when it is right. */
export function AddSocket() {
  const router = useRouter()
  const [name, setName] = useState('')
  const [kind, setKind] = useState<SocketKind>('land-grid')
  const [from, setFrom] = useState<'table' | 'grid'>('table')
  const [csv, setCsv] = useState<{ readonly text: string; readonly name: string } | null>(null)
  const [typed, setTyped] = useState(grid)
  const [unit, setUnit] = useState<TableUnit | 'as it says'>('as it says')
  const [lies, setLies] = useState<'as it stands' | 'put right' | ''>('')
  const [answer, setAnswer] = useState<Answer | null>(null)
  const [busy, setBusy] = useState(false)
  const fault = (field: string) => (answer?.error?.field === field ? answer.error.text : undefined)
  const changed = () => setAnswer(null)

  async function ask(look: boolean) {
    setBusy(true)
    const asked =
      from === 'table'
        ? {
            csv: csv?.text ?? '',
            ...(unit === 'as it says' ? {} : { unit }),
            ...(lies === 'put right' ? { putRight: true } : {}),
          }
        : {
            grid: {
              hole: typed.hole,
              regions: typed.regions,
              beamDeg: [Number(typed.left.replace(',', '.')), Number(typed.right.replace(',', '.'))],
              rows: Number(typed.rows),
              columns: Number(typed.columns),
              pitchMm: Number(typed.pitchMm.replace(',', '.')),
            },
          }
    try {
      const response = await fetch('/api/sockets', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name, kind, look, ...asked }),
      })
      const said = (await response.json()) as Answer
      setAnswer({ ...said, findings: said.findings ?? [] })
      if (said.kept) {
        setName('')
        setCsv(null)
        setTyped(grid)
        router.refresh()
      }
    } catch {
      setAnswer({
        kept: null,
        socket: null,
        findings: [],
        error: {
          field: '',
          text: 'The server does not answer. What you entered stays here; try again in a moment.',
        },
      })
    }
    setBusy(false)
  }

  return (
    <details className="mt-4">
      <summary className="font-semibold">Import a socket</summary>
      <div className="mt-3 flex flex-col gap-3">
        <TextField
          label="Name"
          value={name}
          onChange={(e) => {
            setName(e.target.value)
            changed()
          }}
          error={fault('name')}
        />
        <Choice label="Kind" value={kind} options={['land-grid', 'pin-grid']} onChange={setKind} />
        <Choice
          label="From"
          value={from}
          options={['table', 'grid']}
          words={{ table: 'a CSV table', grid: 'rows and columns' }}
          onChange={setFrom}
        />
        {from === 'table' ? (
          <>
            <label className="flex flex-col gap-1">
              <span className="text-soft">
                Table: name, x, y, and if known group, net, beam_deg, trust, in any order and under their
                common names; places in mm, mil, µm or inches
              </span>
              <input
                type="file"
                accept=".csv,text/csv,text/plain"
                onChange={(event) => {
                  const file = event.target.files?.[0]
                  setLies('')
                  changed()
                  if (!file) return setCsv(null)
                  if (file.size > MAX_CSV_BYTES)
                    return setAnswer({
                      kept: null,
                      socket: null,
                      findings: [],
                      error: {
                        field: 'csv',
                        text: `${file.name} has ${Math.round(file.size / 1_048_576)} MB; a contact table has at most 4 MB.`,
                      },
                    })
                  void file.text().then((text) => setCsv({ text, name: file.name }))
                }}
              />
            </label>
            <Choice
              label="Places in"
              value={unit}
              options={['as it says', ...(Object.keys(tableUnits) as TableUnit[])]}
              words={{ um: 'µm' }}
              onChange={(u) => {
                setUnit(u)
                changed()
              }}
            />
          </>
        ) : (
          <GridFields
            typed={typed}
            fault={fault}
            onChange={(next) => {
              setTyped(next)
              changed()
            }}
          />
        )}
        {answer?.error && !['name', 'rows', 'columns', 'pitchMm'].includes(answer.error.field) && (
          <p role="alert" className="font-semibold text-ember">
            {answer.error.text}
          </p>
        )}
        <Findings findings={answer?.findings ?? []} />
        {answer?.socket && (
          <div className="grid gap-4 md:grid-cols-[13rem_1fr]">
            <SocketPicture socket={answer.socket} />
            <p>
              <Count n={answer.socket.contacts.length} /> contacts, pitch {answer.socket.pitchMm} mm. Is the
              pin-1 mark where it is on the socket, seen from above?
            </p>
          </div>
        )}
        {answer?.table?.odd && (
          <div>
            <p>By its names the table is {answer.table.odd}.</p>
            <Choice
              label="Keep it"
              value={lies}
              options={['as it stands', 'put right']}
              onChange={(as) => {
                setLies(as)
                if (as === 'put right') changed()
              }}
            />
          </div>
        )}
        {answer?.kept && (
          <p role="status" className="text-verd">
            It is in the library.
          </p>
        )}
        <div className="flex gap-2">
          <Button
            look={answer?.socket ? 'quiet' : 'first'}
            onClick={() => void ask(true)}
            disabled={busy || (from === 'table' && !csv)}
          >
            Look at it
          </Button>
          {answer?.socket && (
            <Button
              look="first"
              onClick={() => void ask(false)}
              disabled={busy || (answer.table?.odd != null && lies === '')}
            >
              Keep it
            </Button>
          )}
        </div>
      </div>
    </details>
  )
}

function GridFields({
  typed,
  fault,
  onChange,
}: {
  typed: typeof grid
  fault: (field: string) => string | undefined
  onChange: (next: typeof grid) => void
}) {
  const field = (name: keyof typeof grid) => ({
    value: typed[name],
    error: fault(name),
    onChange: (e: { target: { value: string } }) => onChange({ ...typed, [name]: e.target.value }),
  })
  return (
    <div className="grid grid-cols-2 gap-3">
      <TextField label="Rows" inputMode="numeric" {...field('rows')} />
      <TextField label="Columns" inputMode="numeric" {...field('columns')} />
      <TextField label="Pitch, mm" inputMode="decimal" {...field('pitchMm')} />
      <TextField label="Empty middle" hint="two corners, like M15 Y27" {...field('hole')} />
      <TextField
        label="Beams on the left half run"
        hint="degrees, 0 to the right"
        inputMode="numeric"
        {...field('left')}
      />
      <TextField
        label="and on the right half"
        hint="alike: one direction"
        inputMode="numeric"
        {...field('right')}
      />
      <TextArea
        label="What the regions do, one a line"
        hint="A1 H12 memory A"
        wide
        {...field('regions')}
        rows={3}
      />
    </div>
  )
}
