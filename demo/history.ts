import { nothingRound } from '@/core/job/advice-setting'
import type { HistoryItem } from '@/core/board/history-item'
import type { DamageKind } from '@/core/socket/damage/mark'
import { seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import { slipOdds, untwistOdds } from '@/core/socket/straighten/technique'
import { demoBoards } from './boards'
import type { Socket } from '@/core/socket/model/socket'
import { jobState } from '@/core/job/job-state'
import { speaksAgainst } from '@/core/job/asks-first'
import { proofStanding } from '@/core/job/stations-say'
import { baseline, goodRails, onBoard } from './jobs/job'
import { demoSockets } from './sockets'
import { TapeWriter } from './tape-writer'
import { claimed, leftOpen, promiseOf, saidBefore, takesItsTime, tested } from './told'

const uses = [
  'ticket kiosk',
  'harbour lights',
  'weather mast',
  'bakery till',
  'ferry cabin display',
  'school library',
  'fish scales',
  'museum sound',
  'post counter',
  'workshop terminal',
  'pilot house',
  'pump control',
] as const
const people = ['Ines', 'Tolliver', 'Maren'] as const
const causes: readonly (readonly [HistoryItem, string])[] = [
  ['CPU swap', 'no start after a CPU swap'],
  ['cooler swap', 'dark after the cooler was changed'],
  ['cleaning', 'half the memory since the cleaning'],
  ['dropped something in', 'something fell into the socket'],
  ['shipped without socket cover', 'arrived by post, dead'],
  ['worked on by others', 'somebody tried already'],
]
const damage: readonly (readonly [DamageKind, 'lift' | 'push' | 'untwist' | 'unfold'])[] = [
  ['low', 'lift'],
  ['lean', 'push'],
  ['lean', 'push'],
  ['twisted', 'untwist'],
  ['folded', 'unfold'],
]
const pick = <T>(draw: Uniform, from: readonly T[]): T => from[Math.floor(draw() * from.length)]!

/** Boards that nobody called for: kept as verified stock, one of them before all of its tests were made. */
const stock: Readonly<Record<string, 'proved' | 'not proved yet'>> = {
  'Q-0353': 'proved',
  'Q-0364': 'proved',
  'Q-0371': 'not proved yet',
}

/** What is still owed on a board that starts, passed one after the other. */
function proved(tape: TapeWriter, socket: Socket): void {
  for (const { id, result } of proofStanding(jobState(tape.entries), socket, nothingRound).tests)
    if (result === null) tape.put('proof', { test: id, result: 'pass', reading: 'as it should be' }).wait(4)
}

/** A lean as an eye judges it, within 0.3 mm. */
const offset = (draw: Uniform) => Math.round((draw() - 0.5) * 60) / 100 + 0

/**
 * The shop's past: finished jobs made with a fixed seed, so that the record means something. A folded contact snaps
 * more often than the bench default says, a leaning one less, and under a ring light all of them more: there is
 * something to be learned from it.
 */
export function* history(count: number, now: Date, seed = 300): Generator<TapeWriter> {
  const draw = seeded(seed)
  // Told on the way, with a stream of its own: what was drawn before it stays as it was.
  const told = seeded(seed + 1)
  const promised = seeded(seed + 2)
  const proof = seeded(seed + 3)
  for (let n = 1; n <= count; n++) {
    const daysAgo = 8 + ((count - n) / count) * 700 + draw()
    const start = new Date(now.getTime() - daysAgo * 86_400_000).toISOString()
    const tape = new TapeWriter(`Q-${String(100 + n).padStart(4, '0')}`, pick(draw, people), start)
    const model = pick(draw, demoBoards)
    const socket = Object.values(demoSockets).find((s) => s.id === model.socketId)!
    const [item, complaint] = pick(draw, causes)
    const worth = 40_000 + Math.round(draw() * 20) * 10_000
    const use = pick(draw, uses)
    const minutesPromised = 30 + Math.round(draw() * 8) * 15
    const { kept, waitsDays } = promiseOf(promised)
    tape.put('ticket', {
      set: {
        ...onBoard(model.id),
        use,
        complaint,
        history: [item],
        valueMinor: worth,
        limitMinor: Math.round(worth / 3),
        minutesPromised,
        promisedAt: new Date(Date.parse(start) + 3 * 86_400_000).toISOString(),
        warranty: 'none',
        diskLock: 'no',
      },
      kept,
    })
    tape.put('consent', {
      risks: ['Some faults only show once the first is gone.'],
      limitMinor: Math.round(worth / 3),
      signature: null,
      how: 'signed on paper, kept with the board',
    })
    claimed(tape, told)
    tape
      .wait(waitsDays * 1440)
      .put('clock', { run: 'triage' })
      .wait(6)
      .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
      .put('cell', { volts: Math.round((2.6 + draw() * 0.5) * 100) / 100 })
      .rails('out', goodRails)
    tape.put('clock', { run: 'socket' }).put('pass', { name: 'before' }).put('looked', { contacts: 'all' })
    const first = Math.floor(draw() * (socket.contacts.length - 12))
    const bent = socket.contacts.slice(first, first + 1 + Math.floor(draw() * 9))
    const [kind, technique] = pick(draw, damage)
    let lost = 0
    const near = n % 3 !== 0
    for (const contact of bent) {
      const leanMm = [offset(draw), offset(draw)] as const
      tape.mark(contact.name, {
        kind,
        ...(kind === 'low' ? { heightMm: -0.15 } : kind === 'lean' ? { leanMm } : {}),
      })
    }
    for (const contact of bent) {
      // What the plan would have said of it then, and how this shop's hands really are.
      const predicted = kind === 'folded' ? 0.5 : kind === 'twisted' ? untwistOdds(30) : slipOdds[technique]
      const truly = predicted * 0.8 * (near ? 1 : 1.8)
      const snapped = draw() < truly
      if (snapped) lost++
      tape.put('stroke', {
        contact: contact.name,
        technique,
        tool: technique === 'untwist' ? 'two fine tweezers' : 'sewing needle',
        from: 'west',
        strokes: 1 + Math.floor(draw() * 3),
        result: snapped ? 'snapped' : 'there',
        predictedSnaps: predicted,
        damage: kind,
        light: near ? 'low from one side' : 'ring',
        magnification: near ? '25×' : '12×',
      })
      if (snapped) tape.put('accounted', { item: `${tape.last}/0`, where: 'in the dish' })
      tape.wait(2 + draw() * 3)
    }
    tape.put('seat', { cpu: 'bench CPU', drop: 'flat', heatsink: true }).put('supply', { limitA: 2 })
    const truly = 0.93 - 0.12 * lost
    const fixed = draw() < truly
    tape.put('odds said', saidBefore(truly, told))
    tape.put(
      'baseline',
      baseline(
        fixed
          ? {
              fans: 'on',
              current: 'steady',
              amps: 1.1,
              lamp: 'none',
              cpuHeat: 'warm',
              picture: 'system loads',
            }
          : { fans: 'on', current: 'steady', amps: 0.4, lamp: 'memory', cpuHeat: 'warm' },
      ),
    )
    tape.put('clock', { run: 'proof' }).wait(15)
    if (fixed) {
      tested(tape, proof, ['cold starts', '4 of 4', '3 of 4'])
      tested(tape, proof, ['system', 'log-in appears', 'hangs at the log-in'])
    }
    const stays = fixed ? stock[tape.tag] : undefined
    if (stays === 'proved') proved(tape, socket)
    takesItsTime(tape, minutesPromised, told)
    tape.put('clock', { run: null })
    const end = {
      outcome: fixed
        ? ('fixed' as const)
        : pick(draw, ['exchanged', 'returned unrepaired', 'sent out'] as const),
      priceMinor: fixed ? Math.round(worth / 4) : 0,
      text: '',
      ...(fixed ? { left: leftOpen(promised) } : {}),
      ...(stays ? { fate: 'verified stock' as const } : {}),
    }
    const despite = stays ? speaksAgainst('hand-back', end, jobState(tape.entries), socket, nothingRound) : []
    tape.put('hand-back', { ...end, ...(despite.length > 0 ? { despite } : {}) })
    if (draw() < 0.3) {
      const holds = fixed && draw() < 0.95
      // Asked two weeks later: of the newest that is still to come.
      if (daysAgo > 20) tape.wait(20_000).put('late outcome', { text: 'asked on the quay', holds })
    }
    yield tape
  }
}
