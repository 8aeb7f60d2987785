'use client'
import { useMemo, useState } from 'react'
import { handBackSheet } from '@/core/job/sheet'
import { displayList } from '@/core/socket/map/display-list'
import type { Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { FieldPaths } from '@/ui/FieldPaths'
import { useReader } from '@/ui/reader'
import { When } from '@/ui/When'

/** The hand-back sheet on the screen and on paper; always on the paper ground, as it will be printed. */
export function SheetPage() {
  const { money } = useReader()
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const tag = useJob((j) => j.tag)
  const customer = useJob((j) => j.customer)
  const [opened] = useState(() => new Date().toISOString())
  const sheet = useMemo(
    () => handBackSheet(state, socket, state.handBack.done?.at ?? opened),
    [state, socket, opened],
  )
  return (
    <article
      data-theme="paper"
      className="border border-line bg-sheet px-8 py-7 text-ink print:border-0 print:bg-white print:p-0"
      aria-label="Hand-back sheet"
    >
      <header className="flex items-start justify-between gap-6 border-b-2 border-ink pb-3">
        <div>
          <h2 className="text-2xl!">{sheet.title || 'no board named yet'}</h2>
          {sheet.complaint && <p className="text-soft">brought in because: {sheet.complaint}</p>}
          {customer?.name && <p>for {customer.name}</p>}
        </div>
        <p className="shrink-0 text-right leading-snug">
          <span className="num text-xl">{tag}</span>
          <br />
          <When at={state.handBack.done?.at ?? opened} as="date" />
          <br />
          <b className="font-semibold">{sheet.outcome}</b>
        </p>
      </header>
      {socket && sheet.maps && (
        <div className="mt-4 grid grid-cols-2 gap-6 break-inside-avoid">
          <FieldPicture socket={socket} marks={sheet.maps.before} caption="the socket as found" />
          <FieldPicture socket={socket} marks={sheet.maps.after} caption="as it is left" />
        </div>
      )}
      <div className="grid grid-cols-2 gap-x-8">
        <Part title="Found" lines={sheet.found} none="nothing noted" />
        <Part title="Done" lines={sheet.done} none="nothing yet" />
        <Part title="Proved" lines={sheet.proved} none="nothing yet" />
        <Part title="Not proved" lines={sheet.notProved} none="nothing is open" />
        <Part title="Advice" lines={sheet.advice} none="none" />
        <Part title="Safety" lines={sheet.safety} none="" />
      </div>
      <footer className="mt-4 flex justify-between border-t border-line pt-2 text-soft">
        <span>{sheet.minutes} minutes at the bench</span>
        <span>{sheet.priceMinor === null ? '' : money(sheet.priceMinor)}</span>
      </footer>
    </article>
  )
}

function Part({ title, lines, none }: { title: string; lines: readonly string[]; none: string }) {
  return (
    <section className="mt-4 break-inside-avoid">
      <h3 className="border-b border-ink font-semibold">{title}</h3>
      {lines.length === 0 ? (
        <p className="text-soft">{none}</p>
      ) : (
        <ul>
          {lines.map((line) => (
            <li key={line} className="border-b border-line py-1 leading-snug first-letter:uppercase">
              {line}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

function FieldPicture({ socket, marks, caption }: { socket: Socket; marks: Marks; caption: string }) {
  const list = useMemo(() => displayList(socket, { marks, looked: null }), [socket, marks])
  return (
    <figure>
      <svg viewBox={list.box.join(' ')} className="w-full border border-line" role="img" aria-label={caption}>
        <FieldPaths
          paths={list.paths.filter((p) => p.ink !== 'pattern')}
          pitchMm={socket.pitchMm}
          theme="paper"
        />
      </svg>
      <figcaption className="text-[0.9rem] text-soft">
        {caption}: {Object.keys(marks).length} marked
      </figcaption>
    </figure>
  )
}
