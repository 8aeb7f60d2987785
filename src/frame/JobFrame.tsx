'use client'
import { stations } from '@/core/board/station'

import { PanelRightOpen } from 'lucide-react'
import { usePathname } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import type { ReactNode, RefObject } from 'react'
import { Toaster, toast } from 'sonner'
import { useEscapeLeaves } from '@/ui/keys'
import { useKeyHint, useKeys } from './use-keys'
import { useNarrow, useWide } from '@/ui/use-narrow'
import { ThemeSwitch } from '@/ui/ThemeSwitch'
import { stationOfPath } from '@/job/station-path'
import { useClockFollows } from './BenchClock'
import { JobHeader } from './JobHeader'
import { useJob } from '@/job/JobProvider'
import { GlossarySheet } from './GlossarySheet'
import { KeysSheet } from './KeysSheet'
import { PhoneFrame } from './PhoneFrame'
import { useGoTo } from './StationLink'
import { Tape } from './Tape'
import { Progress } from './Progress'

/** Focus never falls to the page: where what had it has gone, the station has it. */
function useFocusKept(surface: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const onOut = (event: FocusEvent) => {
      if (event.relatedTarget !== null) return
      requestAnimationFrame(() => {
        if (document.activeElement === document.body && document.hasFocus())
          surface.current?.focus({ preventScroll: true })
      })
    }
    document.addEventListener('focusout', onOut)
    return () => document.removeEventListener('focusout', onOut)
  }, [surface])
}

/** First in the order of Tab: past the frame to the station, or to the tape. */
function SkipLinks() {
  const skip = 'absolute -top-20 left-2 z-50 rounded-sheet border-2 border-ink bg-sheet px-3 py-1 focus:top-2'
  return (
    <>
      <a href="#station" className={skip}>
        To the station
      </a>
      <a href="#tape" className={skip}>
        To the tape
      </a>
    </>
  )
}

/** Header, stations, surface and tape: the same round every station. */
export function JobFrame({ children }: { children: ReactNode }) {
  const path = usePathname()
  const goTo = useGoTo()
  const undo = useJob((j) => j.undo)
  const redo = useJob((j) => j.redo)
  const wide = useWide()
  const [tapeChosen, setTapeOpen] = useState<boolean | null>(null)
  // Where there is little room the tape folds by itself; what was chosen holds.
  const tapeOpen = tapeChosen ?? wide
  const [help, setHelp] = useState(false)
  const [words, setWords] = useState(false)
  const narrow = useNarrow()
  const station = stationOfPath(path)
  useClockFollows(station)
  const surface = useRef<HTMLElement>(null)
  useEscapeLeaves()
  useFocusKept(surface)
  useEffect(() => {
    if (location.hash === '') surface.current?.scrollTo(0, 0)
  }, [station])
  useKeys({
    ...Object.fromEntries(stations.map((s) => [`go.${s}`, () => goTo(s)])),
    keys: () => setHelp(true),
    glossary: () => setWords(true),
    undo: () => say(undo(), 'undone'),
    redo: () => say(redo(), 'back again'),
  })
  const hint = useKeyHint()
  function say(kind: string | null, done: string) {
    if (kind) toast(`${kind} ${done}`, { duration: 2200 })
    else toast(done === 'undone' ? 'Nothing of yours to undo' : 'Nothing to bring back', { duration: 2200 })
  }
  if (narrow) return <PhoneFrame />
  return (
    <div
      className={`flex min-h-screen flex-col lg:grid lg:h-screen lg:min-h-[560px] lg:grid-rows-[56px_minmax(0,1fr)] lg:overflow-hidden print:block print:h-auto print:overflow-visible ${tapeOpen ? 'lg:grid-cols-[120px_minmax(0,1fr)_240px] 2xl:grid-cols-[150px_minmax(0,1fr)_320px]' : 'lg:grid-cols-[120px_minmax(0,1fr)_44px]'}`}
    >
      <SkipLinks />
      <JobHeader />
      <div className="no-print flex min-h-0 flex-col justify-between max-lg:flex-row max-lg:border-b max-lg:border-line">
        <Progress />
        <div className="flex flex-col items-start gap-1 p-4 text-[0.85rem] text-soft max-lg:shrink-0 max-lg:py-2">
          <button
            type="button"
            className="underline decoration-line underline-offset-4"
            onClick={() => setHelp(true)}
          >
            keys <kbd className="num">{hint('keys') ?? '?'}</kbd>
          </button>
          <button
            type="button"
            className="underline decoration-line underline-offset-4"
            onClick={() => setWords(true)}
          >
            words <kbd className="num">{hint('glossary')}</kbd>
          </button>
          <ThemeSwitch />
        </div>
      </div>
      <main
        id="station"
        ref={surface}
        tabIndex={-1}
        className="relative min-h-0 min-w-0 flex-1 bg-sheet px-4 outline-none lg:overflow-hidden lg:border-x lg:border-line print:overflow-visible print:border-0 print:bg-white"
      >
        {children}
      </main>
      {tapeOpen ? (
        <Tape onFold={() => setTapeOpen(false)} />
      ) : (
        <button
          type="button"
          onClick={() => setTapeOpen(true)}
          aria-label="Open the tape"
          className="no-print flex items-start justify-center pt-3 text-soft max-lg:fixed max-lg:right-2 max-lg:bottom-2 max-lg:border max-lg:border-line max-lg:bg-ground max-lg:p-2"
        >
          <PanelRightOpen size={20} aria-hidden="true" />
        </button>
      )}
      <GlossarySheet open={words} onClose={() => setWords(false)} />
      <KeysSheet open={help} station={station} onClose={() => setHelp(false)} />
      <Toaster
        position="bottom-center"
        toastOptions={{
          className:
            'rounded-sheet! border-2! border-ink! bg-sheet! text-ink! font-sans! text-base! shadow-none!',
        }}
      />
    </div>
  )
}
