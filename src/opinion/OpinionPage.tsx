'use client'
import { useActionState } from 'react'
import type { OpinionSees } from '@/core/job/opinion'
import { Button } from '@/ui/Button'
import { TextArea, TextField } from '@/ui/Field'
import { giveOpinionAction } from './opinion-actions'
import type { OpinionGiven } from './opinion-actions'

/** One question about one board, as whoever is asked sees it. */
export function OpinionPage({
  token,
  tag,
  sees: { board, theirWords, question, of, photos, noted, answers },
  map,
}: {
  token: string
  tag: string
  sees: OpinionSees
  /** The contact map as SVG; null where there is none. */
  map: string | null
}) {
  const nothing: OpinionGiven = { say: '', fault: '', text: '', by: of }
  const [{ say, fault, text, by }, act, busy] = useActionState(giveOpinionAction, nothing)
  return (
    <main className="mx-auto max-w-4xl p-6 pt-[6vh]">
      <p className="num inline-block rounded-[3px_11px_11px_3px] border-[1.5px] border-ink py-px pr-3 pl-2">
        {tag}
      </p>
      <h1 className="mt-3 text-2xl whitespace-pre-line">{question}</h1>
      <p className="mt-1 text-soft">
        {[board, theirWords && `the owner says “${theirWords}”`].filter(Boolean).join('; ') ||
          'Nothing is known of the board.'}
      </p>
      {photos.length > 0 && (
        <section aria-label="Photos" className="mt-5 grid gap-4 md:grid-cols-2">
          {photos.map(({ file, caption }, i) => (
            <figure key={file}>
              <a href={`/opinion/${token}/photos/${file}`} target="_blank" rel="noreferrer">
                <img
                  src={`/opinion/${token}/photos/${file}`}
                  alt={caption || `photo ${i + 1}`}
                  className="max-h-[60vh] w-full border border-line object-contain"
                />
              </a>
              <figcaption className="text-soft">{caption || `photo ${i + 1}`}, opens in full</figcaption>
            </figure>
          ))}
        </section>
      )}
      {map !== null && (
        <section aria-label="Contact map" className="mt-6">
          <h2>Contacts of the CPU socket as they were mapped</h2>
          <img
            src={`data:image/svg+xml;utf8,${encodeURIComponent(map)}`}
            alt="Contact map; what is marked is said in the lines below"
            className="mt-1 max-h-[70vh] w-full object-contain"
          />
        </section>
      )}
      <section aria-label="What was noted" className="mt-6">
        <h2>What was noted here</h2>
        {noted.length === 0 ? (
          <p className="text-soft">Nothing was measured or seen yet.</p>
        ) : (
          <ol className="mt-1 list-decimal pl-6">
            {noted.map((line, i) => (
              <li key={i} className="border-b border-line py-1 leading-snug">
                {line}
              </li>
            ))}
          </ol>
        )}
        <p className="mt-1 text-soft">
          What the workshop thinks it is stands nowhere here: it shall not lead you.
        </p>
      </section>
      {answers.length > 0 && (
        <section aria-label="Answers" className="mt-6">
          <h2>Answered</h2>
          <p className="text-soft">
            {answers.length === 1 ? 'One answer is' : `${answers.length} answers are`} with the workshop.
          </p>
        </section>
      )}
      <form action={act} className="mt-6 border-t-2 border-brass pt-4">
        <input type="hidden" name="token" value={token} />
        <TextArea
          key={`text ${text}`}
          label="What do you see, and what would you do next?"
          name="text"
          rows={4}
          maxLength={2000}
          defaultValue={text}
        />
        <div className="mt-2 flex flex-wrap items-end gap-3">
          <div className="w-64">
            <TextField key={`by ${by}`} label="Your name" name="by" maxLength={80} defaultValue={by} />
          </div>
          <Button type="submit" look="first" disabled={busy}>
            Answer
          </Button>
        </div>
        <p role="status" className={`mt-2 min-h-[1.4em] ${fault ? 'font-semibold text-ember' : 'text-verd'}`}>
          {fault || say}
        </p>
      </form>
    </main>
  )
}
