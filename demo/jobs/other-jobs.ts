import { TapeWriter } from '../tape-writer'
import { baseline, demoNow, goodRails, onBoard, railsWithCpu } from './job'
import type { DemoJob, DemoNow } from './job'

const agreed = (risks: readonly string[], limitMinor: number) => ({
  risks,
  limitMinor,
  signature: null,
  how: 'signed on paper, kept with the board',
})

/** 8: forgets over weekends though the cell is good: an oxidised holder. */
export function timetableMaster(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0409', 'Maren', now.hoursAgo(98))
  tape
    .put('ticket', {
      set: {
        ...onBoard('hv-gannet'),
        use: 'timetable master',
        complaint: 'forgets its settings over every weekend',
        cpu: 'Orrin 42',
        memory: '2 × 4 GB',
        history: ['long unplugged'],
        valueMinor: 130_000,
        limitMinor: 30_000,
        minutesPromised: 40,
        promisedAt: now.inHours(-3),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('the cell was changed in spring')
    .put('consent', agreed(['Some faults only show once the first is gone.'], 30_000))
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('cell', { volts: 3.06 })
    .put('look', {
      what: 'outside of the board',
      seen: 'cell holder dull and grey',
      clear: false,
      hazard: 'harmless',
    })
    .rails('in', railsWithCpu)
    .put('fitted', { cpu: 'Orrin 42', heatsink: true, modules: ['A1', 'B1'] })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('supply', { limitA: 3 })
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'steady',
        amps: 1.1,
        cpuHeat: 'warm',
        picture: 'system loads',
      }),
    )
    .settle('triage')
    .pass('firmware', 'nothing points here')
    .put('part', {
      ref: 'BT1',
      did: 'measured',
      value: '3.1 kΩ',
      text: 'cell to clock pin, through the holder',
      side: 'top',
    })
    .put('clock', { run: null })
  return { tape, owner: { name: 'Island Bus Office', contact: 'at the slip' }, pictures: [] }
}

/** 10: a board bowed in a hot cabinet; the repair is not worth it, so it is exchanged. */
export function harbourOffice(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0408', 'Ines', now.hoursAgo(120))
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k61'),
        use: 'harbour office',
        complaint: 'off and on, then off for good',
        cpu: 'Orrin 34',
        memory: '2 × 4 GB',
        history: ['none known'],
        valueMinor: 45_000,
        limitMinor: 30_000,
        minutesPromised: 45,
        promisedAt: now.inHours(-40),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .put('consent', agreed(['Some faults only show once the first is gone.'], 30_000))
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', {
      what: 'outside of the board',
      seen: 'bowed by 2 mm between the holes of the cooler',
      clear: false,
      hazard: 'harmless',
    })
    .put('cell', { volts: 2.9 })
    .rails('out', goodRails)
    .put('clock', { run: 'socket' })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .put('seat', { cpu: 'Orrin 34', drop: 'proud', heatsink: true })
    .wait(12)
    .put('clock', { run: null })
    .put('offer', {
      text: 'repair costs more than the board; a matching one is on the shelf',
      limitMinor: 50_000,
      minutes: 45,
    })
  tape
    .put('offer answered', { offer: tape.last, approved: true, how: 'by telephone' })
    .put('decision', { text: 'exchange: value 450 kr, chance of a lasting repair below one in three' })
    .put('advice', { text: 'Give the cabinet a hand’s width of air behind it.' })
    .put('hand-back', { outcome: 'exchanged', priceMinor: 48_000, text: '' })
  return { tape, owner: { name: 'Harbour Office', contact: 'quay 1' }, pictures: [] }
}

/** 11: finished, full proof, hand-back signed. */
export function filmClub(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0407', 'Tolliver', now.hoursAgo(146))
  const bent = ['R30', 'R31', 'T30', 'T31'] as const
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k61-b'),
        use: 'projector server of the film club',
        complaint: 'half the memory is gone since the cleaning',
        cpu: 'Orrin 43',
        memory: '2 × 8 GB',
        history: ['cleaning'],
        valueMinor: 190_000,
        limitMinor: 55_000,
        minutesPromised: 80,
        promisedAt: now.inHours(-96),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('only dusted with a cloth')
    .put(
      'consent',
      agreed(
        [
          'A fatigued contact may snap while it is straightened.',
          'Some faults only show once the first is gone.',
        ],
        55_000,
      ),
    )
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.02 })
    .rails('out', goodRails)
    .put('clock', { run: 'socket' })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .mark(bent, { kind: 'lean', leanMm: [0.31, 0.05] })
  for (const contact of bent)
    tape
      .put('stroke', {
        contact,
        technique: 'push',
        tool: 'sewing needle',
        from: 'east',
        strokes: 2,
        result: 'there',
        predictedSnaps: 0.01,
      })
      .wait(2)
  tape
    .put('pass', { name: 'after first try' })
    .put('looked', { contacts: 'all' })
    .put('claim checked', { claim: 2, verdict: 'wrong', how: 'four contacts dragged the same way' })
    .put('seat', { cpu: 'Orrin 43', drop: 'flat', heatsink: true })
    .put('fitted', { modules: ['A1'] })
    .put('supply', { limitA: 2 })
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'steady',
        amps: 1.2,
        lamp: 'none',
        cpuHeat: 'warm',
        picture: 'system loads',
      }),
    )
    .settle('triage', 'socket')
    .pass('firmware', 'nothing points here')
    .pass('parts', 'none missing')
    .put('clock', { run: 'proof' })
  const proofs: readonly (readonly [string, string, number])[] = [
    ['cold starts', '4 of 4', 12],
    ['temperature', '61 °C, level after 9 min', 15],
    ['memory amount', '16 GB, dual channel', 4],
    ['memory B slots', 'both slots, rated speed', 7],
    ['memory test', 'no error', 12],
    ['load', 'all cores, no error, 64 °C', 20],
    ['system', 'log-in appears', 3],
  ]
  for (const [test, reading, minutes] of proofs)
    tape.put('proof', { test, result: 'pass', reading }).wait(minutes)
  tape
    .put('clock', { run: null })
    .settle('proof')
    .put('advice', { text: 'No cloth near an open socket; a blower is enough.' })
    .put('hand-back', { outcome: 'fixed', priceMinor: 48_000, text: '' })
    .wait(3000)
    .put('late outcome', { text: 'ran the whole festival', holds: true })
  return { tape, owner: { name: 'Film Club', contact: 'Thursdays' }, pictures: [] }
}

const LIGHTHOUSE_SERIAL = 'K61-11807'

/** The lighthouse's board was here half a year ago: what was done then is read beside what it does now. */
export function lighthouseBefore(now: Date): TapeWriter {
  return new TapeWriter('Q-0402', 'Maren', demoNow(now).hoursAgo(24 * 190))
    .put('ticket', {
      set: {
        ...onBoard('tw-k61'),
        use: 'lighthouse museum, lamp display',
        complaint: 'dark after the winter',
        serial: LIGHTHOUSE_SERIAL,
        history: ['long unplugged'],
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .put('consent', agreed(['Some faults only show once the first is gone.'], 40_000))
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.0 })
    .rails('out', goodRails)
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .put('supply', { limitA: 2 })
    .put('baseline', baseline({ fans: 'off', current: 'trips', lamp: 'none', cpuHeat: 'cold' }))
    .put('part', { ref: 'C14', did: 'taken off', text: '12 V input capacitor, leaking', side: 'top' })
    .put('part', { ref: 'C14', did: 'fitted', value: '22 µF 25 V', side: 'top' })
    .put('mended', { fault: '12 V short' })
    .rails('out', goodRails)
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'steady',
        amps: 1.1,
        lamp: 'none',
        cpuHeat: 'warm',
        picture: 'system loads',
      }),
    )
    .put('proof', { test: 'cold starts', result: 'pass', reading: '4 of 4' })
    .put('proof', { test: 'system', result: 'pass', reading: 'log-in appears' })
    .put('advice', { text: 'Keep it dry: the input capacitors sit under the vent.' })
    .put('hand-back', { outcome: 'fixed', priceMinor: 32_000, text: '' })
}

/** 12: just arrived; nothing known but what the owner says. */
export function lighthouseMuseum(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0418', 'Ines', now.hoursAgo(0.6))
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k61'),
        use: 'lighthouse museum, lamp display',
        complaint: 'it just stopped, and the guide says it smelled',
        serial: LIGHTHOUSE_SERIAL,
        history: ['worked on by others'],
        promisedAt: now.inHours(52),
      },
    })
    .says('it smelled for a day', 'a visitor’s nephew looked at it', 'nobody opened the case')
  return { tape, owner: { name: 'Lighthouse Museum', contact: 'the keeper’s cottage' }, pictures: [] }
}
