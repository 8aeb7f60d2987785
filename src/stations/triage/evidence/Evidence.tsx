'use client'
import { swapParts } from '@/core/triage/bodies'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { railsRead } from '@/core/board/slice'
import { railsOf } from '@/core/board/rail'
import { readGrid } from '@/core/triage/instruments/swap-grid'
import type { Swap } from '@/core/triage/instruments/swap-grid'
import { runsRight } from '@/core/triage/instruments/runs-right'
import { usePointed } from '@/frame/point'
import { useJob } from '@/job/JobProvider'
import { useShown } from '@/job/use-shown'
import { showsCodes } from '@/core/triage/model/shows'
import { Tabs } from '@/ui/Tabs'
import { ClaimsPanel } from './ClaimsPanel'
import { CodesPanel } from './CodesPanel'
import { CurrentPanel } from './CurrentPanel'
import { Looks, lookPlaces } from './Looks'
import { RailTable } from './RailTable'
import { RunsPanel } from './RunsPanel'
import { SwapsPanel } from './SwapsPanel'
import { CellPanel } from './CellPanel'
import { Fitted } from '../start/Fitted'
import { SinceLast } from '../start/SinceLast'
import { PowerUp } from '../start/PowerUp'
import { evidenceTabs, tabOfPart } from './tab-of'
import { useListedSwaps } from './use-listed-swaps'
import type { EvidenceTab } from './tab-of'

/** The first part or place that a grid of trials is sure of. */
const blamedIn = (swaps: readonly Swap[]) =>
  swapParts
    .map((what) => readGrid(what, swaps).blame.find((b) => b.what !== 'neither' && b.odds >= 0.8))
    .find((b) => b)

/** Whether something was pressed since the tape last changed: what comes late must not take such a hand away. */
function useMovedOn(line: string | undefined): () => boolean {
  const presses = useRef(0)
  const atLine = useRef(0)
  useEffect(() => {
    const count = (event: Event) => {
      if (!(event instanceof KeyboardEvent && event.repeat)) presses.current++
    }
    addEventListener('keydown', count, true)
    addEventListener('pointerdown', count, true)
    return () => {
      removeEventListener('keydown', count, true)
      removeEventListener('pointerdown', count, true)
    }
  }, [])
  useLayoutEffect(() => {
    atLine.current = presses.current
  }, [line])
  return useCallback(() => presses.current !== atLine.current, [])
}

/** The evidence, one kind in hand at a time; the kind that the next test needs opens itself. */
export function Evidence({ wanted }: { wanted: EvidenceTab | null }) {
  const state = useJob((j) => j.state)
  const shown = useShown()
  const [open, setOpen] = useState<EvidenceTab>(wanted ?? 'Rails')
  const line = useJob((j) => j.lines.at(-1)?.id)
  /** A link led to the kind that is open: it stays open until there is another line. */
  const led = useRef(false)
  const point = useCallback((part: string) => {
    if (!tabOfPart[part]) return
    led.current = true
    setOpen(tabOfPart[part])
  }, [])
  usePointed(point)
  const panes = useRef<HTMLDivElement>(null)
  const hasMovedOn = useMovedOn(line)
  const opened = useRef(wanted)
  useLayoutEffect(() => {
    led.current = false
  }, [line])
  // What opens itself has its field ready, unless the hand is in another or has moved on since the last line.
  useLayoutEffect(() => {
    if (wanted === opened.current) return
    opened.current = wanted
    if (led.current) return
    const field = document.activeElement?.closest('input, textarea, select, [role=radio]')
    const here = field && panes.current?.contains(field)
    if (!wanted || (here && hasMovedOn())) return
    setOpen(wanted)
    if ((field && !here) || hasMovedOn()) return
    const ready = requestAnimationFrame(() => {
      if (hasMovedOn()) return
      ;[...(panes.current?.querySelectorAll<HTMLElement>('[data-first-field]') ?? [])]
        .find((first) => first.offsetParent !== null)
        ?.focus()
    })
    return () => cancelAnimationFrame(ready)
  }, [wanted, hasMovedOn])
  const wrong = state.triage.runs
    ? runsRight(state.triage.runs).filter((l) => l.state === 'not right').length
    : null
  // Every case of every grid is gone through: only when a trial was added.
  const swaps = useListedSwaps()
  const blamed = useMemo(() => blamedIn(swaps), [swaps])
  const claims = state.intake.claims.filter((c) => !c.checked).length
  const looked = lookPlaces.filter((place) => state.board.looks.some((l) => l.what === place)).length
  const counts: Readonly<Record<EvidenceTab, string>> = {
    Rails: `${railsRead(state.board).size}/${railsOf(state.board.ownRails).length}`,
    Inspection: `${looked}/${lookPlaces.length}`,
    'Power-up': state.board.baselines.length ? String(state.board.baselines.length) : '',
    'POST codes': state.triage.codeLog.length ? String(state.triage.codeLog.length) : '',
    Current: state.board.currents.length ? String(state.board.currents.length) : '',
    Battery: state.board.cell ? '✓' : '',
    Swaps: blamed
      ? `${blamed.name} fails`
      : state.triage.swaps.length
        ? String(state.triage.swaps.length)
        : '',
    Runs: wrong === null ? '' : wrong === 0 ? '✓' : `${wrong} ✗`,
    Claims: claims ? String(claims) : '',
  }
  const panels: Readonly<Record<EvidenceTab, ReactNode>> = {
    Rails: <RailTable />,
    Inspection: <Looks />,
    'Power-up': (
      <>
        <SinceLast />
        <PowerUp />
        <Fitted />
      </>
    ),
    'POST codes': <CodesPanel />,
    Current: <CurrentPanel />,
    Battery: <CellPanel />,
    Swaps: <SwapsPanel />,
    Runs: <RunsPanel />,
    Claims: <ClaimsPanel />,
  }
  // A board that cannot show codes has no tab for them, unless some were read all the same.
  const codes = showsCodes(shown) || state.triage.codeLog.length > 0
  const tabs = evidenceTabs.filter((name) => name !== 'POST codes' || codes)
  return (
    <section id="instruments" ref={panes} aria-label="Evidence" className="flex min-h-0 flex-col lg:h-full">
      <Tabs
        open={tabs.includes(open) ? open : 'Rails'}
        onOpen={setOpen}
        tabs={tabs.map((name) => ({
          name,
          label: (
            <>
              {name}{' '}
              {counts[name] && <small className="num text-[0.78rem] font-normal">{counts[name]}</small>}
            </>
          ),
          panel: panels[name],
        }))}
      />
    </section>
  )
}
