'use client'
import Link from 'next/link'
import { useState } from 'react'
import {
  bookPush,
  drawContact,
  practiceKinds,
  practiceResult,
  pushContact,
} from '@/core/socket/straighten/practice-contact'
import type { PracticeContact, PracticeKind } from '@/core/socket/straighten/practice-contact'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { letGo } from '@/ui/keys'
import { meanOf, PracticeFigures } from './PracticeFigures'
import { PracticeView } from './PracticeView'

const STEP_MM = 0.02
const FIRST_SEED = 1
const anySeed = () => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 8

/** A simulated contact that springs back, tires and can snap: taken by keys or by dragging the tip, then let go. */
export function NeedlePractice() {
  const [seed, setSeed] = useState(FIRST_SEED)
  const [kind, setKind] = useState<PracticeKind>('a slight lean')
  const [history, setHistory] = useState<readonly PracticeContact[]>(() => [
    drawContact(FIRST_SEED, 'a slight lean'),
  ])
  const [takenMm, setTaken] = useState(0)
  const [scores, setScores] = useState<readonly number[]>([])
  const contact = history.at(-1)!
  const result = practiceResult(contact)
  const over = contact.snapped || result.done

  const draw = (nextKind: PracticeKind, nextSeed: number) => {
    setKind(nextKind)
    setSeed(nextSeed)
    setHistory([drawContact(nextSeed, nextKind)])
    setTaken(0)
  }
  const another = () => {
    if (contact.pushes.length > 0) setScores((all) => [...all, result.score])
    draw(kind, anySeed())
  }
  const release = () => {
    if (over || takenMm === 0) return
    setHistory((all) => [...all, pushContact(contact, takenMm)])
    setTaken(0)
  }
  const take = (by: number) =>
    !over && setTaken((mm) => Math.round(Math.min(1.4, Math.max(-1.4, mm + by)) * 1000) / 1000)
  useKeys({
    takeLeft: () => take(-STEP_MM),
    takeRight: () => take(STEP_MM),
    farLeft: () => take(-5 * STEP_MM),
    farRight: () => take(5 * STEP_MM),
    letGo: () => (over ? another() : release()),
    another,
    sameAgain: () => draw(kind, seed),
  })
  const hint = useKeyHint()
  return (
    <>
      <h1>Needle practice</h1>
      <p className="mt-0.5 max-w-[46rem] text-soft">
        Take the tip past its mark and let go: it springs back, and each push that stays uses up some of the
        metal. No two are quite alike. Nothing here touches the record.{' '}
        <Link href="/practice" className="underline">
          Boards to practise on
        </Link>
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-8">
        <div>
          <PracticeView
            contact={contact}
            takenMm={takenMm}
            onTake={(mm) => !over && setTaken(mm)}
            onRelease={release}
          />
          <p className="mt-1 text-[0.92rem] text-soft">
            {hint('takeLeft') && (
              <>
                <kbd className="num">
                  {hint('takeLeft')} {hint('takeRight')}
                </kbd>{' '}
                take the tip by 0.02 mm,{' '}
                <kbd className="num">
                  {hint('farLeft')} {hint('farRight')}
                </kbd>{' '}
                by 0.10; <kbd className="num">{hint('letGo')}</kbd> lets go;{' '}
                <kbd className="num">{hint('sameAgain')}</kbd> the same one again;{' '}
                <kbd className="num">{hint('another')}</kbd> another.{' '}
              </>
            )}
            Or drag the tip.
          </p>
          <p
            role="status"
            className={`mt-3 text-lg ${contact.snapped ? 'font-semibold text-ember' : result.done ? 'text-verd' : ''}`}
          >
            {result.say.charAt(0).toUpperCase() + result.say.slice(1)}.
          </p>
          <div className="mt-2 flex gap-2">
            <Button
              look="first"
              keyHint={hint('letGo')}
              onClick={(event) => {
                letGo(event)
                if (over) another()
                else release()
              }}
            >
              {over ? 'Another' : 'Let go'}
            </Button>
            <Button keyHint={hint('sameAgain')} onClick={() => draw(kind, seed)}>
              The same again
            </Button>
          </div>
        </div>
        <div>
          <Choice
            label="Contact"
            value={kind}
            options={[...practiceKinds]}
            onChange={(k) => draw(k, anySeed())}
          />
          <PracticeFigures
            figures={[
              ['off its place', `${contact.offMm.toFixed(2)} mm`],
              ['taken to', `${(contact.offMm + takenMm).toFixed(2)} mm`],
              ['pushes', `${contact.pushes.length}, the book’s hand ${result.fewest}`],
              [
                'what the metal has felt',
                `${(100 * Math.min(1, contact.lifeUsed)).toFixed(1)} % of its life`,
              ],
              ['would have broken by now', `${(100 * result.risked).toFixed(1)} %`],
              ['score', over ? String(result.score) : '–'],
              ['mean of this sitting', meanOf(scores, ['contact', 'contacts'])],
            ]}
          />
          {contact.pushes.length > 0 && (
            <table className="mt-3 w-full">
              <caption className="text-left font-semibold">Push by push</caption>
              <thead>
                <tr>
                  <th>Taken, mm</th>
                  <th>Came to</th>
                  <th>Of its life</th>
                </tr>
              </thead>
              <tbody>
                {contact.pushes.map((p, i) => (
                  <tr key={i}>
                    <td className="num">{p.takenMm.toFixed(2)}</td>
                    <td className="num">{p.toMm.toFixed(2)}</td>
                    <td className="num">{(100 * p.lifeUsed).toFixed(2)} %</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {over && (
            <p className="mt-2 text-soft">
              The book would have taken the first push to{' '}
              <span className="num">
                {(contact.startedMm + bookPush({ ...contact, offMm: contact.startedMm })).toFixed(2)} mm
              </span>
              : past the mark by what springs back.
            </p>
          )}
        </div>
      </div>
      <div className="mt-4">
        <Caution>At the bench: needle away from the hand, eye protection, the board unplugged.</Caution>
      </div>
    </>
  )
}
