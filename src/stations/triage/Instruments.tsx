'use client'
import { swapParts } from '@/core/triage/slice'

import { useMemo } from 'react'
import { readCodes } from '@/core/triage/instruments/code-tape'
import { readGrid } from '@/core/triage/instruments/swap-grid'
import type { Swap } from '@/core/triage/instruments/swap-grid'
import { runsRight } from '@/core/triage/instruments/runs-right'
import { useJob } from '@/job/JobProvider'
import { Tabs } from '@/ui/Tabs'
import { CellPanel } from './CellPanel'
import { ClaimsPanel } from './ClaimsPanel'
import { CodesPanel } from './CodesPanel'
import { CurrentPanel } from './CurrentPanel'
import { RunsPanel } from './RunsPanel'
import { SwapsPanel } from './SwapsPanel'

/** The first part or place that a grid of trials is sure of. */
const blamedIn = (swaps: readonly Swap[]) =>
  swapParts
    .map((what) => readGrid(what, swaps).blame.find((b) => b.what !== 'neither' && b.odds >= 0.8))
    .find((b) => b)

/** The instruments of triage, one in hand at a time; under each name what it last said. */
export function Instruments() {
  const state = useJob((j) => j.state)
  const codes = useJob((j) => j.references.codes)
  const run = state.triage.codeLog.at(-1)
  const current = state.board.currents.at(-1)
  const wrong = state.triage.runs
    ? runsRight(state.triage.runs).filter((l) => l.state === 'not right').length
    : null
  // Every case of every grid is gone through: only when a trial was added.
  const blamed = useMemo(() => blamedIn(state.triage.swaps), [state.triage.swaps])
  const open = state.intake.claims.filter((c) => !c.checked).length
  const tabs = [
    ['Codes', run ? readCodes(run, codes).shows : '', CodesPanel],
    ['Current', current?.pattern ?? '', CurrentPanel],
    ['Coin cell', state.board.cell ? `${state.board.cell.volts} V` : '', CellPanel],
    [
      'Swaps',
      blamed ? `${blamed.name} fails` : state.triage.swaps.length ? `${state.triage.swaps.length} tried` : '',
      SwapsPanel,
    ],
    ['Runs right', wrong === null ? '' : wrong === 0 ? 'right' : `${wrong} not right`, RunsPanel],
    ['Claims', open ? `${open} to check` : '', ClaimsPanel],
  ] as const
  return (
    <section id="instruments" aria-label="Instruments" className="border-t border-line pt-2.5 pb-4">
      <Tabs
        tabs={tabs.map(([name, said, Panel]) => ({
          name,
          label: (
            <>
              {name}
              <span className="num block min-h-[1.1rem] text-[0.82rem] font-normal text-soft">{said}</span>
            </>
          ),
          panel: <Panel />,
        }))}
        list="flex flex-wrap gap-x-1 gap-y-1"
        tab="rounded-t-sheet border-b-[3px] border-transparent px-2.5 py-1 text-left leading-tight text-soft data-selected:border-brass data-selected:font-semibold data-selected:text-ink"
        panels="mt-2"
      />
    </section>
  )
}
