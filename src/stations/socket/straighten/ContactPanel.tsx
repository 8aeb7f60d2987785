'use client'
import type { StrokeResult } from '@/core/socket/slice'

import { inHundred } from '@/core/maths/in-hundred'
import { useState } from 'react'
import { contactVerdict } from '@/core/socket/contact/contact-force'
import { damageKinds, damageWords, isDamage, usualHeightMm, usualLeanMm } from '@/core/socket/damage/mark'
import type { DamageKind } from '@/core/socket/damage/mark'
import type { Step } from '@/core/socket/straighten/plan'
import type { PushAdvice } from '@/core/socket/straighten/push'
import { fieldOf } from '@/core/socket/model/socket'
import { neighboursByKey } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { adviceWords } from './StopOrPush'
import { asksNeighbour } from '@/stations/socket/map/use-surface'
import type { Surface } from '@/stations/socket/map/use-surface'

export const kindKeys: readonly (readonly [string, DamageKind])[] = [
  ...damageKinds.slice(0, 9).map((kind, i) => [String(i + 1), kind] as const),
  ['h', 'scuffed'],
  ['l', 'lodged'],
  ['p', 'paste'],
]

/** The contact under the needle: what it does, what is wrong with it, what to do, and what came of it. */
export function ContactPanel({
  surface,
  step,
  strokes,
  advice,
  onTried,
}: {
  surface: Surface
  step: Step | null
  strokes: number
  advice: PushAdvice | null
  onTried: (result: StrokeResult) => void
}) {
  const { socket, cursor, marks, swath } = surface
  const [marking, setMarking] = useState(false)
  const contact = fieldOf(socket).named.get(cursor)
  const put = useJob((j) => j.put)
  if (!contact) return null
  const mark = marks[cursor]
  const damaged = isDamage(mark)
  const verdict = mark && damaged ? contactVerdict(mark, socket.kind) : null
  const lean = mark ? Math.hypot(...usualLeanMm(mark)) : 0
  const about = (measured: unknown) => (measured === undefined || mark?.about ? 'about ' : '')
  const height = mark ? usualHeightMm(mark) : 0
  const work = step && step.technique !== 'leave' && step.technique !== 'replace' && step.technique !== 'look'
  return (
    <aside aria-label="Contact under the needle" className="min-w-0">
      <h2 className="num text-2xl leading-none font-medium!">{cursor}</h2>
      <p className="mt-1 leading-snug text-soft">
        {contact.group}, {contact.net}
        <br />
        table: {contact.trust}
        {swath.length > 0 && (
          <b className="block font-semibold text-brass">swath of {swath.length}: marks go to all of it</b>
        )}
      </p>
      {verdict && (
        <dl className="mt-2.5 border-t border-line">
          <Figure name="seen" value={damageWords[mark!.kind].word + (mark!.unsure ? '?' : '')} plain />
          {mark!.touches && <Figure name={mark!.kind === 'folded' ? 'over' : 'on'} value={mark!.touches} />}
          {lean > 0 && <Figure name="lean" value={`${about(mark!.leanMm)}${lean.toFixed(2)} mm`} />}
          {height !== 0 && (
            <Figure
              name={height < 0 ? 'low by' : 'high by'}
              value={`${about(mark!.heightMm)}${Math.abs(height).toFixed(2)} mm`}
            />
          )}
          {verdict.forceN !== null && <Figure name="force left" value={`${verdict.forceN.toFixed(2)} N`} />}
          <Figure
            name={socket.kind === 'pin-grid' ? 'finds its hole' : 'makes contact'}
            value={`${Math.round(verdict.makesContact * 100)} %`}
          />
        </dl>
      )}
      {step && (
        <div className="my-3 border-l-4 border-brass py-0.5 pl-3 leading-snug">
          {sentence(step.say)}
          {step.overTravelMm > 0 && !mark?.touches && `, ${step.overTravelMm.toFixed(2)} mm past level`}.
          {step.strokes > 0 &&
            ` ${strokes} ${strokes === 1 ? 'stroke' : 'strokes'}; it snaps in ${inHundred(step.snaps)} of 100.`}
          {step.after.length > 0 && ` After ${step.after.join(', ')}.`}
          {work && <span className="text-soft"> If it goes: {step.ifLost}.</span>}
        </div>
      )}
      {asksNeighbour(mark) && <WhichNeighbour surface={surface} />}
      {work && advice && (
        <p className="mb-2 leading-snug" aria-live="polite" data-advice={advice.advice}>
          <b className="font-semibold">{adviceWords[advice.advice]}</b>: {advice.why}.
        </p>
      )}
      {work && (
        <div className="flex flex-col gap-1.5 [&>button]:py-1.5">
          <Button look="first" keyHint="space" onClick={() => onTried('there')}>
            There now
          </Button>
          <Button keyHint="o" onClick={() => onTried('still short')}>
            Still short
          </Button>
          <div className="grid grid-cols-2 gap-1.5 [&>button]:px-2 [&>button]:py-1.5">
            <Button keyHint="b" onClick={() => onTried('past')}>
              Past it
            </Button>
            <Button keyHint="j" onClick={() => onTried('touching')}>
              Touches
            </Button>
          </div>
          <Button keyHint="x" onClick={() => onTried('snapped')}>
            It snapped
          </Button>
        </div>
      )}
      {(!damaged || marking) && <MarkList surface={surface} />}
      <div className="mt-1 flex justify-between gap-1">
        {step && (step.technique === 'replace' || work) && (
          <Button
            look="bare"
            className="px-0! text-[0.94rem]"
            onClick={() => put('left', { contact: cursor, why: 'more risk than gain' })}
          >
            Leave it
          </Button>
        )}
        {damaged && (
          <Button
            look="bare"
            className="px-0! text-[0.94rem]"
            onClick={() => setMarking(!marking)}
            aria-expanded={marking}
          >
            {marking ? 'Marks away' : 'Mark it anew'}
          </Button>
        )}
      </div>
    </aside>
  )
}

/** Which of the eight it touches: as figures lie on a keypad, in the view's orientation. Nothing is picked for them. */
function WhichNeighbour({ surface }: { surface: Surface }) {
  const { socket, view, cursor, marks } = surface
  const folded = marks[cursor]?.kind === 'folded'
  const around = neighboursByKey(socket, view, cursor)
  return (
    <div
      role="group"
      aria-label={`Which neighbour does ${cursor} ${folded ? 'lie over' : 'touch'}?`}
      className="my-2"
    >
      <p className="font-semibold">Which one does it {folded ? 'lie over' : 'touch'}?</p>
      <div className="mt-1 grid grid-cols-3 gap-1">
        {(['7', '8', '9', '4', null, '6', '1', '2', '3'] as const).map((key) => {
          const name = key && around[key]
          return name ? (
            <button
              key={key}
              type="button"
              onClick={() => surface.setTouches(name)}
              className="rounded-sheet border-[1.5px] border-line px-1 py-0.5 hover:border-ink"
            >
              <kbd className="num text-[0.75rem] text-soft">{key}</kbd> <span className="num">{name}</span>
            </button>
          ) : (
            <span key={key ?? 'here'} className="text-center text-soft">
              {key === null ? cursor : ''}
            </span>
          )
        })}
      </div>
      <p className="text-[0.88rem] text-soft">
        A figure names it. Until then it counts for every one it can reach; 5 leaves it open.
      </p>
    </div>
  )
}

function MarkList({ surface }: { surface: Surface }) {
  const { cursor, marks, swath, socket } = surface
  const now = marks[cursor]?.kind ?? 'intact'
  return (
    <ul
      className="mt-3 border-t border-line"
      aria-label={swath.length > 0 ? 'Mark the swath' : `Mark ${cursor}`}
    >
      {kindKeys.map(([key, kind]) => (
        <li key={kind}>
          <button
            type="button"
            onClick={() => surface.setKind(kind)}
            aria-pressed={now === kind}
            className="flex w-full items-baseline gap-2.5 border-b border-line py-[3px] text-left leading-tight hover:bg-ground aria-pressed:font-semibold"
            title={damageWords[kind][socket.kind === 'pin-grid' ? 'pin' : 'land']}
          >
            <kbd className="num w-3 text-[0.85rem] text-soft">{key}</kbd>
            {damageWords[kind].word}
          </button>
        </li>
      ))}
    </ul>
  )
}

function Figure({ name, value, plain = false }: { name: string; value: string; plain?: boolean }) {
  return (
    <div className="flex items-baseline justify-between gap-2 border-b border-line py-1">
      <dt className="text-[0.92rem] text-soft">{name}</dt>
      <dd className={plain ? 'text-right' : 'num text-[1.12rem]'}>{value}</dd>
    </div>
  )
}

const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
