'use client'
import { stations } from '@/core/board/station'

import { PanelRightOpen } from 'lucide-react'
import { usePathname } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { Toaster, toast } from 'sonner'
import { useEscapeLeaves, useKeys } from '@/ui/keys'
import { useNarrow } from '@/ui/use-narrow'
import { ThemeSwitch } from '@/ui/ThemeSwitch'
import { stationOfPath, useClockFollows } from './BenchClock'
import { JobHeader } from './JobHeader'
import { useJob } from '@/job/JobProvider'
import { KeysSheet } from './KeysSheet'
import { PhoneFrame } from './PhoneFrame'
import { useGoTo } from './StationLink'
import { Tape } from './Tape'
import { Progress } from './Progress'

/** Header, way, surface and tape: the same round every station. */
export function JobFrame({ children }: { children: ReactNode }) {
  const path = usePathname()
  const goTo = useGoTo()
  const undo = useJob((j) => j.undo)
  const redo = useJob((j) => j.redo)
  const [tapeOpen, setTapeOpen] = useState(true)
  const [help, setHelp] = useState(false)
  const narrow = useNarrow()
  const station = stationOfPath(path)
  useClockFollows(station)
  useEscapeLeaves()
  const surface = useRef<HTMLElement>(null)
  useEffect(() => {
    if (location.hash === '') surface.current?.scrollTo(0, 0)
  }, [station])
  useKeys({
    ...Object.fromEntries(stations.map((s, i) => [`g ${i + 1}`, () => goTo(s)])),
    '?': () => setHelp(true),
    z: () => say(undo(), 'undone'),
    'shift+z': () => say(redo(), 'back again'),
  })
  function say(kind: string | null, done: string) {
    if (kind) toast(`${kind} ${done}`, { duration: 2200 })
    else toast(done === 'undone' ? 'Nothing of yours to undo' : 'Nothing to bring back', { duration: 2200 })
  }
  if (narrow) return <PhoneFrame />
  return (
    <div
      className={`grid h-screen min-h-[600px] grid-rows-[64px_1fr] overflow-hidden print:block print:h-auto print:overflow-visible ${tapeOpen ? 'grid-cols-[148px_minmax(0,1fr)_260px] xl:grid-cols-[148px_minmax(0,1fr)_292px]' : 'grid-cols-[148px_minmax(0,1fr)_44px]'}`}
    >
      <JobHeader />
      <div className="no-print flex min-h-0 flex-col justify-between">
        <Progress />
        <div className="flex flex-col items-start gap-1.5 p-5 text-[0.88rem] text-soft">
          <button
            type="button"
            className="underline decoration-line underline-offset-4"
            onClick={() => setHelp(true)}
          >
            keys <kbd className="num">?</kbd>
          </button>
          <ThemeSwitch />
        </div>
      </div>
      <main
        ref={surface}
        className="relative min-h-0 min-w-0 overflow-y-auto border-x border-line bg-sheet px-[22px] py-4 print:border-0 print:bg-white"
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
          className="no-print flex items-start justify-center pt-3 text-soft"
        >
          <PanelRightOpen size={20} aria-hidden="true" />
        </button>
      )}
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
