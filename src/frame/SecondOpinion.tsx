'use client'
import { useState } from 'react'
import { MOST_PHOTOS } from '@/core/intake/bodies'
import type { Asked } from '@/core/intake/slice'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextArea, TextField } from '@/ui/Field'
import { Sheet } from '@/ui/Sheet'
import { When } from '@/ui/When'
import { JobLinks } from './JobLinks'

/** Days a link opens for whoever is asked, unless told otherwise (bench default). */
const DAYS = '7'

/** A second opinion: a question with photos, by a link or as a file, and the answers, which are claims. */
export function SecondOpinion({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} title="A second opinion" onClose={onClose} wide>
      {open && <Asking />}
    </Sheet>
  )
}

function Asking() {
  const asked = useJob((j) => j.state.intake.asked)
  return (
    <div>
      <p className="text-soft">
        Whoever is asked sees the photos, the contact map and what was noted here, not what we think it is,
        nor whose it is. The answer is a claim: it weighs once it is weighed in triage, and is checked like
        any other.
      </p>
      <NewQuestion />
      {asked.length > 0 && (
        <ol className="mt-5 border-t-2 border-line">
          {asked.toReversed().map((question) => (
            <Question key={question.seq} question={question} />
          ))}
        </ol>
      )}
    </div>
  )
}

function NewQuestion() {
  const tag = useJob((j) => j.tag)
  const photos = useJob((j) => j.state.work.photos)
  const append = useJob((j) => j.append)
  const [text, setText] = useState('')
  const [of, setOf] = useState('')
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [fault, setFault] = useState('')
  const files = [...new Map(photos.map((p) => [p.file, p])).values()]
  const chosen = files.filter((p) => !left.has(p.file)).slice(-MOST_PHOTOS)
  function ask() {
    if (!text.trim()) return setFault('What do you want to know? One question is answered sooner than three.')
    append('opinion asked', { text: text.trim(), of: of.trim(), photos: chosen.map((p) => p.file) })
    setText('')
    setFault('')
  }
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault()
        ask()
      }}
    >
      <TextArea
        label="The question"
        rows={2}
        maxLength={2000}
        placeholder="Is the contact at D4 bent under its neighbour, or is that the light?"
        value={text}
        error={fault || undefined}
        onChange={(e) => {
          setText(e.target.value)
          setFault('')
        }}
      />
      <fieldset className="mt-2">
        <legend className="text-[0.94rem] text-soft">
          {files.length === 0
            ? 'There is no photo yet; the question goes with the map and what was noted.'
            : `Photos that go with it, ${MOST_PHOTOS} at most`}
        </legend>
        <div className="mt-1 flex max-h-44 flex-wrap gap-3 overflow-y-auto">
          {files.map((photo) => (
            <label key={photo.file} className="block max-w-28 text-[0.85rem] text-soft">
              <img
                src={`/api/jobs/${tag}/files/${photo.file}`}
                alt=""
                className="h-20 w-28 border border-line object-cover"
                loading="lazy"
              />
              <span className="flex items-baseline gap-1.5">
                <input
                  type="checkbox"
                  checked={chosen.includes(photo)}
                  onChange={(e) => {
                    const now = new Set(left)
                    if (e.target.checked) now.delete(photo.file)
                    else now.add(photo.file)
                    setLeft(now)
                  }}
                />
                <span className="truncate">{photo.caption || photo.name}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-2 flex items-end gap-3">
        <div className="w-64">
          <TextField
            label="Who is asked"
            maxLength={80}
            placeholder="whoever has the link"
            value={of}
            onChange={(e) => setOf(e.target.value)}
          />
        </div>
        <Button type="submit" look="first">
          Ask
        </Button>
      </div>
    </form>
  )
}

function Question({ question: { seq, text, of, photos, by, at } }: { question: Asked }) {
  const tag = useJob((j) => j.tag)
  const claims = useJob((j) => j.state.intake.claims)
  const answers = claims.filter((c) => c.opinion?.asked === seq)
  return (
    <li className="border-b border-line py-3">
      <p className="text-lg leading-snug">{text}</p>
      <p className="text-soft">
        {by}, <When at={at} />, of {of || 'whoever has the link'};{' '}
        {photos.length === 0 ? 'no photo' : photos.length === 1 ? '1 photo' : `${photos.length} photos`}
      </p>
      {answers.map((c) => (
        <p key={c.seq} className="mt-1 border-l-4 border-verd pl-3">
          <b className="font-semibold">{c.opinion!.by}</b>: {c.text}{' '}
          <span className="text-soft">
            {c.checked
              ? c.checked.verdict
              : c.weighed
                ? 'weighed in triage, to check'
                : 'counts for nothing yet'}
          </span>
        </p>
      ))}
      <details className="mt-2">
        <summary className="cursor-pointer underline decoration-line underline-offset-4">
          {answers.length === 0
            ? 'Send it, or write down the answer'
            : 'Send it again, or write down another answer'}
        </summary>
        <p className="mt-2">
          <a
            href={`/api/jobs/${tag}/opinion?asked=${seq}`}
            download
            className="underline decoration-line underline-offset-4"
          >
            Question, photos and map as ZIP
          </a>
        </p>
        <JobLinks asked={seq} usually={DAYS} />
        <Answer asked={seq} of={of} />
      </details>
    </li>
  )
}

/** What came by another way than the link: by telephone, by mail. */
function Answer({ asked, of }: { asked: number; of: string }) {
  const append = useJob((j) => j.append)
  const [by, setBy] = useState(of)
  const [text, setText] = useState('')
  const [fault, setFault] = useState('')
  return (
    <form
      className="mt-3 grid grid-cols-[12rem_1fr_auto] items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!by.trim() || !text.trim()) return setFault('Who says it, and what?')
        append('claim', { text: text.trim(), opinion: { asked, by: by.trim() } })
        setText('')
        setFault('')
      }}
    >
      <TextField label="Says" maxLength={80} value={by} onChange={(e) => setBy(e.target.value)} />
      <TextField
        label="Their answer"
        maxLength={2000}
        value={text}
        error={fault || undefined}
        onChange={(e) => setText(e.target.value)}
      />
      <Button type="submit">Note it</Button>
    </form>
  )
}
