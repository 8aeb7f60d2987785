import type { FirmwareBodies } from '../bodies'
import type { Noted } from '../../tape/line'

/** Pins of a firmware chip with eight of them, from pin 1 on. */
export const chipPins = ['CS', 'DO', 'WP', 'GND', 'DI', 'CLK', 'HOLD', 'VCC'] as const
export type ChipPin = (typeof chipPins)[number]

/**
 * Most a line may read from the pin to its far end, ohms (bench default): ground and supply are copper; the lines of data
 * go through a resistor of some tens of ohms; what is only held high ends at its pull-up.
 */
const most: Readonly<Record<ChipPin, number>> = {
  CS: 150,
  DO: 150,
  WP: 12_000,
  GND: 2,
  DI: 150,
  CLK: 150,
  HOLD: 12_000,
  VCC: 2,
}

export const lineIs = (pin: ChipPin, ohms: number | null): 'through' | 'open' =>
  ohms !== null && ohms <= most[pin] ? 'through' : 'open'

/** What is asked of a chip that was fitted again: `no` forbids power, `open` has still to be looked at. */
export interface RefitPoint {
  readonly point: 'orientation' | 'pads' | 'joints' | 'lines' | 'seated'
  readonly is: 'good' | 'open' | 'no'
  readonly say: string
}

type Moves = readonly (Noted & FirmwareBodies['chip moved'])[]
type Refits = readonly (Noted & FirmwareBodies['refit'])[]
type Readings = Partial<Record<ChipPin, number | null>>

/** Whether the chip is off the board now. */
export const chipOff = ({ moves }: { readonly moves: Moves }): boolean => moves.at(-1)?.to === 'off'

/** The last reading of each pin since a line of the tape; one that read open tells nothing once it was reflowed. */
function linesSince(refits: Refits, since: number): Readings {
  const lines: Readings = {}
  for (const { seq, reflowed, lines: read } of refits) {
    if (seq <= since) continue
    if (reflowed) for (const pin of openPins(lines)) delete lines[pin]
    Object.assign(lines, read)
  }
  return lines
}

/** The pins whose lines do not come through. */
const openPins = (lines: Readings): readonly ChipPin[] =>
  chipPins.filter((pin) => lines[pin] !== undefined && lineIs(pin, lines[pin]) === 'open')

const named = (pins: readonly ChipPin[]) =>
  pins.map((pin) => `${pin} (${chipPins.indexOf(pin) + 1})`).join(', ')

/**
 * A chip that was fitted again, point by point; empty where it was never off, or is off now. One that stands in a socket
 * has no pads and no joints, and its pins can be bent all the same.
 */
export function refitPoints({
  moves,
  refits,
}: {
  readonly moves: Moves
  readonly refits: Refits
}): RefitPoint[] {
  const moved = moves.at(-1)
  if (!moved || moved.to === 'off') return []
  const last = <K extends 'orientation' | 'pads' | 'joints' | 'seated'>(field: K) =>
    refits.findLast((r) => r.seq > moved.seq && r[field] !== undefined)?.[field]
  const judged = <T>(
    point: RefitPoint['point'],
    seen: T | undefined,
    wanted: T,
    [good, no, open]: readonly [good: string, no: string, open: string],
  ): RefitPoint =>
    seen === undefined
      ? { point, is: 'open', say: open }
      : seen === wanted
        ? { point, is: 'good', say: good }
        : { point, is: 'no', say: no }
  const orientation = judged('orientation', last('orientation'), 'right', [
    'pin 1 stands where it stood',
    'the chip is turned: power would destroy it; take it off again',
    'is its dot where it was on the photo, at the mark of pin 1?',
  ])
  const seated = judged('seated', last('seated'), true, [
    'whatever was moved for the work sits home again',
    'something is not home again: seat it',
    'modules, cards, plugs, cell: does all that was moved sit home again?',
  ])
  if (moved.by === 'hand')
    return [
      orientation,
      judged('joints', last('joints'), 'sound', [
        'every pin is straight and home in the socket',
        'a pin is bent or beside the socket: take it out and straighten it',
        'is every pin straight, and home in the socket?',
      ]),
      seated,
    ]
  return [
    orientation,
    judged('pads', last('pads'), 'whole', [
      'no pad is lifted',
      'a pad is lifted: bridge it to the far end of its line first',
      'is every pad whole and flat under its pin?',
    ]),
    judged('joints', last('joints'), 'sound', [
      'each pin is wetted, none bridged',
      'a joint is open or bridged: flux, and reflow it',
      'is each pin wetted, and none bridged to the next?',
    ]),
    linesPoint(linesSince(refits, moved.seq)),
    seated,
  ]
}

function linesPoint(lines: Readings): RefitPoint {
  const open = openPins(lines)
  if (open.length > 0)
    return {
      point: 'lines',
      is: 'no',
      say: `${named(open)} ${open.length === 1 ? 'does' : 'do'} not come through: the joint, the pad, or the part in the line`,
    }
  const missing = chipPins.filter((pin) => lines[pin] === undefined)
  return missing.length === 0
    ? { point: 'lines', is: 'good', say: 'every pin comes through to the far end of its line' }
    : {
        point: 'lines',
        is: 'open',
        say:
          missing.length === chipPins.length
            ? 'measure each pin to the far end of its line, unplugged'
            : `still to be measured: ${named(missing)}`,
      }
}

/** What of a fitted chip forbids power: how it stands, its pads and its joints, and a line that is known to be open. */
export const refitForbids = (of: { readonly moves: Moves; readonly refits: Refits }): RefitPoint | null =>
  refitPoints(of).find(
    (p) => p.is === 'no' || (p.is === 'open' && p.point !== 'lines' && p.point !== 'seated'),
  ) ?? null

/** What the readings of one line of the tape say of the chip's lines; null where it has none. */
export function sayLines({ lines }: FirmwareBodies['refit']): 'open' | 'through' | null {
  if (!lines) return null
  return openPins(lines).length > 0
    ? 'open'
    : chipPins.every((pin) => lines[pin] !== undefined)
      ? 'through'
      : null
}

/** Soldered on again a joint may be open, and a part beside it gone; reflowed, the joint is put right. */
export function refitChanges({
  moves,
  refits,
}: {
  readonly moves: Moves
  readonly refits: Refits
}): readonly {
  readonly seq: number
  readonly is: 'made' | 'mended'
  readonly fault: 'chip joint' | 'chip resistor'
}[] {
  const made = moves.flatMap(({ to, by, seq }) =>
    to === 'on' && by !== 'hand'
      ? (['chip joint', 'chip resistor'] as const).map((fault) => ({ seq, is: 'made' as const, fault }))
      : [],
  )
  const mended = refits.flatMap(({ seq, reflowed }) =>
    reflowed ? [{ seq, is: 'mended' as const, fault: 'chip joint' as const }] : [],
  )
  return [...made, ...mended]
}

/** The line as it is read at the bench. */
export function sayRefit({
  orientation,
  pads,
  joints,
  seated,
  reflowed,
  lines,
}: FirmwareBodies['refit']): string {
  const measured = lines
    ? chipPins.flatMap((pin) =>
        lines[pin] === undefined ? [] : [`${pin} ${lines[pin] === null ? 'open' : `${lines[pin]} Ω`}`],
      )
    : []
  return `fitted chip: ${[
    orientation && (orientation === 'right' ? 'pin 1 right' : 'turned'),
    reflowed && 'reflowed',
    pads && `pads ${pads}`,
    joints && `joints ${joints}`,
    seated !== undefined && (seated ? 'all that was moved is home' : 'something is not home'),
    measured.length > 0 && `to the far end ${measured.join(', ')}`,
  ]
    .filter(Boolean)
    .join(', ')}`
}
