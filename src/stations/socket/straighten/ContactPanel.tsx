'use client'
import { useKeyHint } from '@/frame/use-keys'
import { strokeWords } from '@/core/socket/bodies'
import type { StrokeResult } from '@/core/socket/bodies'

import { sentence } from '@/core/sentence'
import { percent } from '@/core/maths/percent'
import { contactVerdict } from '@/core/socket/contact/contact-force'
import { toView } from '@/core/socket/map/display-list'
import { sayHeading } from '@/core/socket/model/walk'
import type { Contact } from '@/core/socket/model/socket'
import type { Mark } from '@/core/socket/damage/mark'
import { letGo } from '@/ui/keys'
import { damageKinds, damageWords, isDamage, usualHeightMm, usualLeanMm } from '@/core/socket/damage/mark'
import type { Step } from '@/core/socket/straighten/plan'
import type { PushAdvice } from '@/core/socket/straighten/push'
import { fieldOf } from '@/core/socket/model/socket'
import { neighboursByKey } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { adviceWords } from './StopOrPush'
import { asksNeighbour } from '@/stations/socket/map/use-surface'
import type { Surface } from '@/stations/socket/map/use-surface'

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
  const hint = useKeyHint()
  const { socket, cursor, marks, swath } = surface
  const contact = fieldOf(socket).named.get(cursor)
  const append = useJob((j) => j.append)
  if (!contact) return null
  const mark = marks[cursor]
  const damaged = isDamage(mark)
  const verdict = mark && damaged ? contactVerdict(mark, socket.kind) : null
  const work = step && step.technique !== 'leave' && step.technique !== 'replace' && step.technique !== 'look'
  return (
    <aside
      aria-label="Contact under the needle"
      className="flex min-h-0 min-w-0 flex-col lg:col-start-2 lg:row-start-1 lg:h-full"
    >
      <div className="relative min-h-0 flex-1 lg:overflow-y-auto lg:pr-1.5">
        <div className="flex items-baseline justify-between gap-2">
          <h2 className="num text-2xl! leading-none font-medium!">{cursor}</h2>
          {swath.length > 0 ? (
            <p className="truncate text-[0.88rem] font-semibold text-brass">
              {swath.length} chosen: marks go to all of them
            </p>
          ) : (
            <p className="truncate text-[0.88rem] text-soft">
              {contact.group}, {contact.net} · {trustWords[contact.trust]}
            </p>
          )}
        </div>
        <dl className="mt-1.5 border-t border-line">
          <Figure name="seen" value={seenWords(mark)} plain />
          <Figure
            name={socket.kind === 'pin-grid' ? 'finds its hole' : 'makes contact'}
            value={verdict ? percent(verdict.makesContact) : '–'}
          />
          {work ? (
            <Figure
              name={`${strokes} ${strokes === 1 ? 'stroke' : 'strokes'}, breaks in`}
              value={percent(step.snaps)}
            />
          ) : (
            <Figure
              name="force left"
              value={verdict?.forceN == null ? '–' : `${verdict.forceN.toFixed(2)} N`}
            />
          )}
        </dl>
        <div className="my-1.5 h-[98px]">
          {asksNeighbour(mark) ? <WhichNeighbour surface={surface} /> : <LeanPad surface={surface} />}
        </div>
        {/* What to do and whether to: their room is kept, so that nothing below moves from contact to contact. */}
        <p
          className={`my-1 line-clamp-3 h-[3.2rem] border-l-4 pl-2.5 text-[0.86rem] leading-tight ${step ? 'border-brass' : 'border-line text-soft'}`}
        >
          {step ? (
            <>
              {sentence(
                step.overTravelMm > 0 && !mark?.touches
                  ? `${step.say}, ${step.overTravelMm.toFixed(2)} mm past level`
                  : step.say,
              )}
              {step.after.length > 0 && ` After ${step.after.join(', ')}.`}
              {work && <span className="text-soft"> If it breaks: {step.ifLost}.</span>}
            </>
          ) : (
            'Nothing to do here.'
          )}
        </p>
        <p
          className="my-1 line-clamp-3 h-[3.2rem] text-[0.86rem] leading-tight"
          data-advice={work && advice ? advice.advice : undefined}
        >
          {work && advice && (
            <>
              <b className="font-semibold">{adviceWords[advice.advice]}</b>: {advice.why}.
            </>
          )}
        </p>
        <MarkList surface={surface} />
      </div>
      <div className="shrink-0 border-t border-line pt-2 pb-1 text-[0.9rem] [&_button]:px-2! [&_button]:py-1!">
        <div className="grid grid-cols-6 gap-1.5">
          {results.map(([result, key]) => (
            <Button
              key={key}
              look={result === 'there' ? 'first' : 'quiet'}
              className={result === 'there' ? 'col-span-4' : 'col-span-2 gap-1.5!'}
              keyHint={hint(key)}
              disabled={!work}
              onClick={() => onTried(result)}
            >
              {strokeWords[result]}
            </Button>
          ))}
        </div>
        <p className="flex h-7 items-center justify-between text-[0.88rem]">
          {step && (step.technique === 'replace' || work) ? (
            <Button
              look="bare"
              className="px-0! py-0!"
              onClick={() => append('left', { contact: cursor, why: 'more risk than gain' })}
            >
              Leave it
            </Button>
          ) : (
            <span className="text-soft">{noStroke(step, damaged)}</span>
          )}
          <Button look="bare" className="px-0! py-0!" onClick={surface.toggleUnsure} disabled={!damaged}>
            not sure of it
          </Button>
        </p>
      </div>
    </aside>
  )
}

/** Why there is no stroke to be made at the contact under the needle. */
function noStroke(step: Step | null, damaged: boolean): string {
  if (step?.technique === 'look') return 'look again first'
  return damaged ? 'not to be straightened' : 'no stroke here'
}

/** What a stroke came to, and its move. */
const results = [
  ['there', 'there'],
  ['still short', 'short'],
  ['past', 'past'],
  ['touching', 'touching'],
  ['snapped', 'snapped'],
] as const

const trustWords: Readonly<Record<Contact['trust'], string>> = {
  published: 'published',
  shared: 'as a sister socket',
  region: 'guessed by region',
  none: 'not known',
}

const seenWords = (mark: Mark | undefined): string =>
  mark ? `${damageWords[mark.kind].word}${mark.unsure ? '?' : ''}` : 'not marked'

/** Eight directions to lean it, how far, how high, and the neighbour it touches: all with the mouse alone. */
function LeanPad({ surface }: { surface: Surface }) {
  const { socket, view, cursor, marks } = surface
  const mark = marks[cursor]
  const around = neighboursByKey(socket, view, cursor)
  const lean = mark ? Math.hypot(...usualLeanMm(mark)) : 0
  const height = mark ? usualHeightMm(mark) : 0
  const about = (measured: unknown, size: number) =>
    size !== 0 && (measured === undefined || mark?.about) ? '≈' : ''
  return (
    <div className="grid grid-cols-[94px_minmax(0,1fr)] gap-x-2.5">
      <div className="grid grid-cols-3 gap-0.5" role="group" aria-label="Lean it">
        {pad.map(([key, x, y, arrow]) =>
          key === null ? (
            <TipDial key="tip" surface={surface} />
          ) : (
            <button
              key={key}
              type="button"
              className="flex h-[30px] items-center justify-center rounded-sheet border border-line text-[0.95rem] hover:border-ink"
              aria-label={`Lean it ${sayHeading([x, y])}${around[key] ? `, towards ${around[key]}` : ''}`}
              onClick={(event) => {
                letGo(event)
                surface.nudge([x, y])
              }}
            >
              <span aria-hidden="true">{arrow}</span>
            </button>
          ),
        )}
      </div>
      <dl className="text-[0.92rem] leading-[1.9rem]">
        <Stepped
          name="lean"
          value={`${about(mark?.leanMm, lean)}${lean.toFixed(2)} mm`}
          onLess={() => surface.leanBy(-0.05)}
          onMore={() => surface.leanBy(0.05)}
        />
        <Stepped
          name="height"
          value={
            height === 0
              ? 'level'
              : `${about(mark?.heightMm, height)}${height > 0 ? '+' : '−'}${Math.abs(height).toFixed(2)} mm`
          }
          onLess={() => surface.raise(-0.05)}
          onMore={() => surface.raise(0.05)}
        />
        <div className="flex justify-between">
          <dt className="text-soft">{mark?.kind === 'folded' ? 'lies over' : 'touches'}</dt>
          <dd className="num">{mark?.touches ?? '–'}</dd>
        </div>
      </dl>
    </div>
  )
}

const pad = [
  ['7', -1, -1, '↖'],
  ['8', 0, -1, '↑'],
  ['9', 1, -1, '↗'],
  ['4', -1, 0, '←'],
  [null, 0, 0, ''],
  ['6', 1, 0, '→'],
  ['1', -1, 1, '↙'],
  ['2', 0, 1, '↓'],
  ['3', 1, 1, '↘'],
] as const

/** Where its tip is, seen from above as the view is turned. */
function TipDial({ surface }: { surface: Surface }) {
  const { view, cursor, marks, socket } = surface
  const [x, y] = marks[cursor] ? toView(view, ...usualLeanMm(marks[cursor])) : [0, 0]
  const reach = socket.pitchMm / 2
  const [tx, ty] = [x, y].map((v) => Math.max(-13, Math.min(13, (v / reach) * 9)))
  return (
    <svg viewBox="-15 -15 30 30" className="h-[30px] w-full" aria-hidden="true">
      <circle r="9" fill="none" stroke="var(--line)" />
      <path d={`M0 0L${tx} ${ty}`} stroke="var(--ink)" strokeWidth="2.5" />
      <circle cx={tx} cy={ty} r="3.4" fill="var(--ink)" />
    </svg>
  )
}

function Stepped({
  name,
  value,
  onLess,
  onMore,
}: {
  name: string
  value: string
  onLess: () => void
  onMore: () => void
}) {
  const step = 'flex h-6 w-6.5 items-center justify-center rounded-sheet border border-line hover:border-ink'
  return (
    <div className="flex items-center justify-between gap-1.5">
      <dt className="text-soft">{name}</dt>
      <dd className="flex items-center gap-1">
        <span className="num text-[0.84rem] tracking-tight whitespace-nowrap">{value}</span>
        <button type="button" className={step} aria-label={`less ${name}`} onClick={onLess}>
          −
        </button>
        <button type="button" className={step} aria-label={`more ${name}`} onClick={onMore}>
          +
        </button>
      </dd>
    </div>
  )
}

/** Which of the eight it touches: as figures lie on a keypad, in the view's orientation. Nothing is picked for them. */
function WhichNeighbour({ surface }: { surface: Surface }) {
  const { socket, view, cursor, marks } = surface
  const folded = marks[cursor]?.kind === 'folded'
  const around = neighboursByKey(socket, view, cursor)
  const hint = useKeyHint()
  return (
    <div
      role="group"
      title={`A figure names it. Until then it counts for every one it can reach; ${hint('touchesOpen') ?? 'no figure'} leaves it open.`}
      aria-label={`Which neighbour does ${cursor} ${folded ? 'lie over' : 'touch'}?`}
    >
      <p className="leading-tight font-semibold">Which one does it {folded ? 'lie over' : 'touch'}?</p>
      <div className="mt-0.5 grid grid-cols-3 gap-0.5">
        {(['7', '8', '9', '4', null, '6', '1', '2', '3'] as const).map((key) => {
          const name = key && around[key]
          return name ? (
            <button
              key={key}
              type="button"
              onClick={() => surface.setTouches(name)}
              className="rounded-sheet border-[1.5px] border-line px-1 text-[0.86rem] leading-6 hover:border-ink"
            >
              <kbd className="num text-[0.75rem] text-soft">{hint(`touches.${key}`)}</kbd>{' '}
              <span className="num">{name}</span>
            </button>
          ) : (
            <span key={key ?? 'here'} className="text-center text-soft">
              {key === null ? cursor : ''}
            </span>
          )
        })}
      </div>
    </div>
  )
}

function MarkList({ surface }: { surface: Surface }) {
  const { cursor, marks, swath, socket } = surface
  const now = marks[cursor]?.kind ?? 'intact'
  const hint = useKeyHint()
  return (
    <ul
      className="mt-1 grid grid-cols-2 gap-x-3 border-t border-line text-[0.88rem]"
      aria-label={swath.length > 0 ? 'Mark those chosen' : `Mark ${cursor}`}
    >
      {damageKinds.map((kind) => (
        <li key={kind}>
          <button
            type="button"
            onClick={() => surface.setKind(kind)}
            aria-pressed={now === kind}
            className="flex w-full items-baseline gap-2.5 border-b border-line py-px text-left leading-snug hover:bg-ground aria-pressed:font-semibold"
            title={damageWords[kind][socket.kind === 'pin-grid' ? 'pin' : 'land']}
          >
            <kbd className="num w-3 text-[0.85rem] text-soft">{hint(`mark.${kind}`)}</kbd>
            {damageWords[kind].word}
          </button>
        </li>
      ))}
    </ul>
  )
}

function Figure({ name, value, plain = false }: { name: string; value: string; plain?: boolean }) {
  return (
    <div className="flex items-baseline justify-between gap-2 border-b border-line py-0.5">
      <dt className="text-[0.88rem] text-soft">{name}</dt>
      <dd className={plain ? 'text-right' : 'num text-[1rem]'}>{value}</dd>
    </div>
  )
}
