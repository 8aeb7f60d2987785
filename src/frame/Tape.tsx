'use client'
import { sayEntry } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import { struckBy } from '@/core/tape/line'

import { PanelRightClose } from 'lucide-react'
import { memo, useEffect, useMemo, useRef, useState } from 'react'
import { Button } from '@/ui/Button'
import { Sheet } from '@/ui/Sheet'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'
import { useReader } from '@/ui/reader'
import { useJob } from '@/job/JobProvider'
import { QuickEntry } from './QuickEntry'
import { shownLines, wordsOf } from './shown-lines'

/** The job's paper tape, newest at the bottom; struck lines stay readable. */
export function Tape({ onFold }: { onFold?: () => void }) {
  const lines = useJob((j) => j.lines)
  const saved = useJob((j) => j.entries.length)
  const unsent = useJob((j) => j.unsent)
  const [striking, setStriking] = useState<Entry | null>(null)
  const list = useRef<HTMLOListElement>(null)
  const [numbered, setNumbered] = useState(false)
  const struck = useMemo(() => struckBy(lines), [lines])
  const shown = useMemo(() => shownLines(lines, struck), [lines, struck])
  const reader = useReader()
  const dayOf = (entry: Entry) => reader.moment(entry.at, 'date')
  useEffect(() => {
    list.current?.scrollTo(0, list.current.scrollHeight)
  }, [lines.length, unsent.length])
  return (
    <section
      aria-label="Tape"
      className="no-print flex min-h-0 flex-col pl-3 text-[0.88rem] max-lg:max-h-[60vh] max-lg:border-t-2 max-lg:border-ink"
      id="tape"
      tabIndex={-1}
    >
      <div className="flex items-center justify-between border-b border-line pr-2 text-[0.88rem] text-soft">
        <span>
          tape, {lines.length} {lines.length === 1 ? 'line' : 'lines'}
        </span>
        {onFold && (
          <button type="button" onClick={onFold} aria-label="Fold the tape away" className="p-1.5">
            <PanelRightClose size={17} aria-hidden="true" />
          </button>
        )}
      </div>
      <ol
        ref={list}
        className="flex min-h-0 flex-1 flex-col overflow-y-auto pr-3"
        tabIndex={0}
        aria-label="Lines of the tape"
      >
        {lines.length === 0 && (
          <li className="mt-auto py-3 text-soft">
            The tape is empty. Type the first reading below, like vbat 2.9.
          </li>
        )}
        {shown.map(({ entry, count, index }, i) => (
          <TapeLine
            key={entry.id}
            entry={entry}
            count={count}
            first={i === 0}
            day={i === 0 || dayOf(entry) !== dayOf(shown[i - 1]!.entry)}
            numbered={numbered}
            struck={struck.has(entry.seq)}
            saved={index < saved}
            onOpen={setStriking}
          />
        ))}
        {unsent
          .filter((u) => u.trouble)
          .map((u) => (
            <Trouble key={u.id} id={u.id} />
          ))}
      </ol>
      <LineState />
      <QuickEntry onNumbers={setNumbered} />
      {striking && (
        <StrikeSheet
          entry={striking}
          struckAlready={struck.has(striking.seq)}
          onClose={() => setStriking(null)}
        />
      )}
    </section>
  )
}

interface LineProps {
  readonly entry: Entry
  /** Contacts of an inspection that this line stands for. */
  readonly count: number | 'all' | null
  readonly first: boolean
  /** It is the first of its day. */
  readonly day: boolean
  /** A command being typed asks for a line’s number. */
  readonly numbered: boolean
  readonly struck: boolean
  readonly saved: boolean
  readonly onOpen: (entry: Entry) => void
}

const TapeLine = memo(function TapeLine({
  entry,
  count,
  first,
  day,
  numbered,
  struck,
  saved,
  onOpen,
}: LineProps) {
  return (
    <li className={`leading-snug ${first ? 'mt-auto' : ''}`}>
      {day && (
        <p className="py-1 text-center text-[0.8rem] text-soft">
          <When at={entry.at} as="day" />
        </p>
      )}
      <div className="border-b border-dashed border-line py-1">
        <button
          type="button"
          className="text-left"
          onClick={() => onOpen(entry)}
          disabled={!saved}
          title={entry.by}
          aria-label={`Line ${entry.seq}: ${wordsOf(entry, count)}. Open`}
        >
          <span className="mr-1.5 text-[0.82rem] text-soft">
            {numbered ? <b className="num text-brass">{entry.seq}</b> : <When at={entry.at} as="time" />}
          </span>
          <Words entry={entry} count={count} struck={struck} />
        </button>
        {!saved && <em className="block text-[0.85rem] text-brass not-italic">not saved yet, kept here</em>}
      </div>
    </li>
  )
})

function Words({ entry, count, struck }: { entry: Entry; count: number | 'all' | null; struck: boolean }) {
  const whole = wordsOf(entry, count)
  const soft =
    entry.kind === 'claim' || entry.kind === 'clock' || entry.kind === 'strike' || entry.kind === 'station'
  const words = entry.kind === 'claim' ? `says: ${whole}` : whole
  return struck ? (
    <s className="text-soft">{words}</s>
  ) : (
    <span className={`break-words ${soft ? 'text-soft' : ''}`}>{words}</span>
  )
}

/** A line the server would not take: what was entered, why, and the two ways on. */
function Trouble({ id }: { id: string }) {
  const u = useJob((j) => j.unsent.find((x) => x.id === id))
  const discard = useJob((j) => j.discard)
  const retryAnyway = useJob((j) => j.retryAnyway)
  if (!u?.trouble) return null
  const entry = { ...u, seq: 0, by: '', v: 1, strikes: null } as unknown as Entry
  return (
    <li role="alert" className="my-2 border-l-4 border-ember py-1 pl-3">
      <p className="font-semibold">{sayEntry(entry)}</p>
      <p className="text-ember">{u.trouble.say}</p>
      <p className="text-soft">What you entered is kept.</p>
      <p className="mt-1 flex flex-wrap gap-3">
        <Button look="bare" onClick={() => retryAnyway(id)}>
          {u.trouble.kind === 'conflict' ? 'Enter mine after it' : 'Try again'}
        </Button>
        <Button look="bare" onClick={() => discard(id)}>
          Drop mine
        </Button>
      </p>
    </li>
  )
}

function LineState() {
  const line = useJob((j) => j.line)
  const waiting = useJob((j) => j.unsent.filter((u) => u.trouble === null).length)
  const tag = useJob((j) => j.tag)
  const send = useJob((j) => j.send)
  if (line === 'open') return null
  return (
    <div role="status" className="mr-4 mb-2 border-l-4 border-brass py-1 pl-3 leading-snug">
      {line === 'signed out' ? (
        <>
          <b className="font-semibold">Your sign-in has run out.</b>{' '}
          {waiting > 0
            ? `${waiting} ${waiting === 1 ? 'line is' : 'lines are'} kept here. `
            : 'Nothing is lost. '}
          <a
            className="underline"
            href={`/sign-in?back=${encodeURIComponent(`/jobs/${tag}`)}`}
            target="_blank"
            rel="noreferrer"
          >
            Sign in in a new tab
          </a>
          , then{' '}
          <button type="button" className="underline" onClick={() => void send()}>
            send
          </button>
          .
        </>
      ) : (
        <>
          <b className="font-semibold">The server does not answer.</b>{' '}
          {waiting > 0
            ? `${waiting} ${waiting === 1 ? 'line is' : 'lines are'} kept here and sent again by themselves.`
            : 'What you enter is kept here.'}
        </>
      )}
    </div>
  )
}

function StrikeSheet({
  entry,
  struckAlready,
  onClose,
}: {
  entry: Entry
  struckAlready: boolean
  onClose: () => void
}) {
  const append = useJob((j) => j.append)
  const [why, setWhy] = useState('')
  const [missing, setMissing] = useState(false)
  return (
    <Sheet open title={`Line ${entry.seq}`} onClose={onClose}>
      <p className="text-lg">{sayEntry(entry)}</p>
      <p className="mt-1 text-soft">
        {entry.by}, <When at={entry.at} />
      </p>
      {struckAlready ? (
        <p className="mt-4">This line is struck and does not count any more.</p>
      ) : (
        <form
          className="mt-4 flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            if (!why.trim()) return setMissing(true)
            append('strike', { why: why.trim() }, entry.seq)
            onClose()
          }}
        >
          <TextField
            label="Strike it because"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            error={missing ? 'Why is it struck? One word is enough.' : undefined}
            hint="The line stays readable; it only stops counting. Enter the right value as a new line."
            autoFocus
          />
          <Button type="submit" look="danger" className="self-start">
            Strike the line
          </Button>
        </form>
      )}
    </Sheet>
  )
}
