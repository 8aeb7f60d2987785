'use client'
import { useMemo } from 'react'
import type { SheetPart } from '@/core/hand-back/sheet-words'
import type { SheetRead, SheetVersion } from '@/core/job/sheet-versions'
import { displayList } from '@/core/socket/map/display-list'
import type { Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { FieldPaths } from '@/ui/FieldPaths'
import { useReader } from '@/ui/reader'
import { When } from '@/ui/When'

interface Props {
  readonly version: SheetVersion
  readonly read: SheetRead
  readonly forTechnician: boolean
}

/** The hand-back sheet on the screen and on paper; always on the paper ground, as it will be printed. */
export function SheetPage({ version: { version, signed }, read, forTechnician }: Props) {
  const { at, words, technical } = read
  const { maps } = read.sheet
  const { money } = useReader()
  const socket = useJob((j) => j.socket)
  const tag = useJob((j) => j.tag)
  const customer = useJob((j) => j.customer)
  return (
    <article
      data-theme="paper"
      className="border border-line bg-sheet px-8 py-7 text-ink print:border-0 print:bg-white print:p-0"
      aria-label={forTechnician ? 'Technical sheet' : 'Hand-back sheet'}
    >
      <header className="flex items-start justify-between gap-6 border-b-2 border-ink pb-3">
        <div>
          <h2 className="text-2xl!">{words.title || 'no board named yet'}</h2>
          {forTechnician && <p className="font-semibold">technical sheet</p>}
          {words.complaint && <p className="text-soft">brought in because: {words.complaint}</p>}
          {customer?.name && !forTechnician && <p>for {customer.name}</p>}
        </div>
        <p className="shrink-0 text-right leading-snug">
          <span className="num text-xl">{tag}</span>
          <br />
          {version > 1 && (
            <>
              version {version}
              <br />
            </>
          )}
          <When at={at} as="date" />
          <br />
          <b className="font-semibold">{words.outcome}</b>
        </p>
      </header>
      {socket && maps && (
        <div className="mt-4 grid grid-cols-2 gap-6 break-inside-avoid">
          <FieldPicture socket={socket} marks={maps.before} caption="the socket as found" />
          <FieldPicture socket={socket} marks={maps.after} caption="as it is left" />
        </div>
      )}
      <div className={forTechnician ? '' : 'columns-2 gap-8'}>
        {(forTechnician ? technical : words.parts).map((part) => (
          <Part key={part.title} {...part} />
        ))}
      </div>
      <footer className="mt-4 flex justify-between gap-6 border-t border-line pt-2 text-soft">
        <span>{words.minutes} minutes at the bench</span>
        <span>{words.priceMinor === null ? '' : money(words.priceMinor)}</span>
      </footer>
      {!forTechnician && (
        <div className="mt-6 flex items-end justify-between gap-6 break-inside-avoid">
          {signed ? (
            <>
              <p>
                Received, {signed.how}, <When at={signed.at} />
              </p>
              {signed.signature && (
                <img
                  src={`/api/jobs/${tag}/files/${signed.signature}`}
                  alt="The owner’s signature"
                  className="h-14"
                />
              )}
            </>
          ) : (
            <>
              <p>Received, with this sheet:</p>
              <p className="h-8 grow border-b border-ink" />
            </>
          )}
        </div>
      )}
    </article>
  )
}

function Part({ title, lines, none }: SheetPart) {
  return (
    <section className="break-inside-avoid pt-4">
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
