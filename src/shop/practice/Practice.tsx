'use client'
import type { HistoryItem } from '@/core/board/history-item'
import { historyItems } from '@/core/board/history-item'

import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { PracticeBoard } from '@/data/jobs'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { SelectField } from '@/ui/Field'
import { When } from '@/ui/When'
import { exercises } from './exercises'

/** Boards with hidden faults, worked with the same stations: pick one, or draw one. */
export function Practice({ boards }: { boards: readonly PracticeBoard[] }) {
  const router = useRouter()
  const [busy, setBusy] = useState('')
  const [say, setSay] = useState('')
  const [history, setHistory] = useState<HistoryItem | ''>('')
  const [howMany, setHowMany] = useState<'one' | 'two' | 'any'>('any')

  async function lay(exercise: string) {
    setBusy(exercise)
    setSay('')
    try {
      const seed = crypto.getRandomValues(new Uint32Array(1))[0]! >>> 1
      const answer = await fetch('/api/practice', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          id: crypto.randomUUID(),
          exercise,
          history: history ? [history] : [],
          howMany,
          seed,
        }),
      })
      const said = (await answer.json()) as { tag?: string; error?: { text: string } }
      if (said.tag) return router.push(`/jobs/${said.tag}/triage`)
      setSay(said.error?.text ?? 'The server refused it.')
    } catch {
      setSay('The server does not answer. No board was laid; try again in a moment.')
    }
    setBusy('')
  }

  return (
    <>
      <h1>Practice on a board whose fault is hidden</h1>
      <p className="mt-0.5 max-w-[46rem] text-soft">
        The same stations, a simulated bench, minutes that are counted. At the end the fault is shown and each
        choice is reviewed beside the best there was. Nothing here touches the record.{' '}
        <Link href="/practice/needle" className="underline">
          Needle practice
        </Link>
        ,{' '}
        <Link href="/practice/hot-air" className="underline">
          hot air practice
        </Link>
        ,{' '}
        <Link href="/practice/what-was-it" className="underline">
          what was it?
        </Link>
      </p>
      {say && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {say}
        </p>
      )}
      <div className="mt-5 grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-10">
        <section>
          <h2 className="border-b-2 border-ink pb-1">Exercises</h2>
          <ul>
            {exercises.map((e) => (
              <li
                key={e.id}
                className="grid grid-cols-[1fr_auto] items-center gap-4 border-b border-line py-2"
              >
                <div>
                  <b className="font-semibold">{e.title}</b>{' '}
                  <span className="num text-[0.92rem] text-soft">about {e.limitMinutes} min</span>
                  <p className="text-soft">
                    “{e.complaint}” Trains {e.trains}.
                  </p>
                </div>
                <Button onClick={() => void lay(e.id)} disabled={busy !== ''}>
                  {busy === e.id ? 'Laying…' : 'Work it'}
                </Button>
              </li>
            ))}
          </ul>
        </section>
        <div>
          <section>
            <h2 className="border-b-2 border-ink pb-1">Draw a board</h2>
            <div className="mt-3 flex flex-col gap-3">
              <SelectField
                label="What happened to it"
                value={history}
                onChange={(e) => setHistory(e.target.value as HistoryItem | '')}
              >
                <option value="">nothing is told</option>
                {historyItems.map((item) => (
                  <option key={item}>{item}</option>
                ))}
              </SelectField>
              <Choice label="Faults" value={howMany} options={['any', 'one', 'two']} onChange={setHowMany} />
              <Button
                look="first"
                className="self-start"
                onClick={() => void lay('drawn')}
                disabled={busy !== ''}
              >
                {busy === 'drawn' ? 'Laying…' : 'Draw and work it'}
              </Button>
            </div>
          </section>
          <section className="mt-8">
            <h2 className="border-b-2 border-ink pb-1">Worked before</h2>
            {boards.length === 0 && <p className="py-2 text-soft">None yet.</p>}
            <ul>
              {boards.map((b) => (
                <li
                  key={b.tag}
                  className="flex items-baseline justify-between gap-3 border-b border-line py-1.5"
                >
                  <Link
                    href={b.over ? `/practice/${b.tag}` : `/jobs/${b.tag}/triage`}
                    className="num underline"
                  >
                    {b.tag}
                  </Link>
                  <span className="min-w-0 flex-1 truncate text-soft">
                    {b.words.replace(/^practice: /, '')}
                  </span>
                  <span className={b.over ? 'text-verd' : 'text-brass'}>{b.over ? 'over' : 'open'}</span>
                  <span className="text-[0.9rem] text-soft">
                    <When at={b.createdAt} as="day" />
                  </span>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </>
  )
}
