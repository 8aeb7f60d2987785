import type { Mark } from '@/core/socket/damage/mark'
import { fieldOf } from '@/core/socket/model/socket'
import { seeded } from '@/core/maths/seeded'
import { fieldPhoto } from '../photo'
import { demoSockets } from '../sockets'
import { TapeWriter } from '../tape-writer'
import { baseline, goodRails, onBoard } from './job'
import type { DemoJob, DemoNow } from './job'

const { lg1284, pg906 } = demoSockets
const round = (mm: number) => Math.round(mm * 100) / 100

/** Contacts of a crater round a middle: pressed lowest at the middle, leaning outwards at the rim. */
function crater(middle: string, radiusMm: number): [string, Mark][] {
  const { named, near } = fieldOf(lg1284)
  const c = named.get(middle)!
  const draw = seeded(417)
  return near.within(c.xMm, c.yMm, radiusMm).map((i) => {
    const contact = lg1284.contacts[i]!
    const dx = contact.xMm - c.xMm
    const dy = contact.yMm - c.yMm
    const far = Math.hypot(dx, dy)
    const low = round(0.22 - 0.13 * (far / radiusMm) + 0.02 * (draw() - 0.5))
    const lean = 0.05 + 0.12 * (far / radiusMm)
    const leanMm = far === 0 ? undefined : ([round((dx / far) * lean), round((dy / far) * lean)] as const)
    return [contact.name, { kind: 'low', heightMm: -low, ...(leanMm ? { leanMm } : {}) }]
  })
}

/** 1: a dropped driver bit left a small crater of low contacts at the memory edge. */
export function ticketKiosk(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0417', 'Tolliver', now.hoursAgo(3.2))
  const pit = crater('M31', 2.3)
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k61-b'),
        use: 'ticket kiosk',
        complaint: 'dark since a driver bit fell into the socket',
        cpu: 'Orrin 41',
        memory: '2 × 8 GB',
        history: ['dropped something in'],
        serial: 'K61B-20931',
      },
    })
    .put('ticket', {
      set: {
        valueMinor: 210_000,
        limitMinor: 60_000,
        minutesPromised: 90,
        promisedAt: now.inHours(4),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('worked until Tuesday', 'nobody touched the socket')
    .put('consent', {
      risks: [
        'A fatigued contact may snap while it is straightened.',
        'Some faults only show once the first is gone.',
        'Data on the owner’s disks is not ours to keep safe; have a copy.',
      ],
      limitMinor: 60_000,
      signature: null,
      how: 'signed on paper, kept with the board',
    })
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('look', { what: 'wiring, supply, cooler', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.02 })
    .put('fitted', { cpu: null, heatsink: false, modules: [] })
    .rails('out', { vcore: 0.4 })
    .rails('out', { vmem: 2.2 })
  const slipped = tape.last
  tape
    .put('strike', { why: 'probe had slipped' }, slipped)
    .rails('out', { vmem: 221, '12v': 480, '5v': 310, '3v3': 265, standby: 720, vsys: 38 })
    .put('note', { text: 'core rail at ground with the CPU out: something in the socket joins them' })
    .settle('triage')
    .put('clock', { run: 'socket' })
    .wait(3)
  tape.photo('field from above, before')
  const photo = tape.last
  tape.put('pass', { name: 'before' }).put('looked', { contacts: 'all' }).wait(4)
  for (const [name, mark] of pit) tape.mark(name, mark)
  tape
    .mark('P13', { kind: 'touching', touches: 'P14', leanMm: [0.42, 0.02] })
    .mark('N30', { kind: 'lean', leanMm: [-0.16, 0.1] })
    .mark('AH8', { kind: 'twisted', leanMm: [0.12, 0.1], twistDeg: 30 })
    .mark('AE22', { kind: 'lean', leanMm: [0.2, -0.16] })
    .mark('AK38', { kind: 'snapped' })
    .mark('E9', { kind: 'tip gone' })
  const lost = tape.last - 1
  tape
    .put('accounted', { item: `${lost}/0`, where: 'found on the tape, in the dish' })
    .put('accounted', { item: `${lost + 1}/0`, where: 'found beside it, in the dish' })
    .put('claim checked', { claim: 4, verdict: 'wrong', how: '26 contacts are out of place' })
    .put('stroke', {
      contact: 'M28',
      technique: 'lift',
      tool: 'sewing needle',
      from: 'west',
      strokes: 2,
      result: 'there',
      predictedSnaps: 0.012,
      light: 'low from one side',
      magnification: '20×',
    })
    .put('stroke', {
      contact: 'N30',
      technique: 'lift',
      tool: 'sewing needle',
      from: 'east',
      strokes: 1,
      result: 'still off',
      predictedSnaps: 0.012,
    })
    .put('clock', { run: null })
  return {
    tape,
    owner: { name: 'Skerrow Ferry Office', contact: 'quay 2, second door' },
    pictures: [
      {
        line: photo,
        png: () =>
          fieldPhoto(
            lg1284,
            Object.fromEntries([...pit, ['P13', { kind: 'touching', leanMm: [0.42, 0.02] } as Mark]]),
            417,
          ),
      },
    ],
  }
}

/** 2: a CPU once forced in a quarter turn off; one corner pressed and two contacts tied. */
export function cameraServer(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0414', 'Maren', now.hoursAgo(27))
  const corner = lg1284.contacts
    .filter((c) => /^A[N-W]\d+$/.test(c.name) && Number(c.name.slice(2)) > 35)
    .slice(0, 18)
  tape
    .put('ticket', {
      set: {
        ...onBoard('hv-gannet'),
        use: 'camera server of the bird observatory',
        complaint: 'no picture after a new CPU was put in',
        cpu: 'Orrin 43',
        memory: '1 × 8 GB',
        history: ['CPU swap', 'worked on by others'],
        valueMinor: 160_000,
        limitMinor: 80_000,
        minutesPromised: 120,
        promisedAt: now.inHours(26),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('the CPU went in easily', 'the old CPU worked')
    .put('consent', {
      risks: ['A fatigued contact may snap while it is straightened.'],
      limitMinor: 80_000,
      signature: null,
      how: 'by telephone',
    })
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', {
      what: 'round the socket',
      seen: 'scratch towards the corner, no parts missing',
      clear: false,
      hazard: 'harmless',
    })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 2.97 })
    .rails('out', { ...goodRails, vcore: 1.4 })
    .put('clock', { run: 'socket' })
    .wait(9)
    .put('pass', { name: 'before' })
  tape.put('looked', { contacts: lg1284.contacts.filter((c) => c.yMm < 4).map((c) => c.name) })
  tape.mark(
    corner.map((c) => c.name),
    { kind: 'low', heightMm: -0.14, leanMm: [0.08, -0.06] },
  )
  tape
    .mark('AP30', { kind: 'folded', touches: 'AP31' })
    .mark('AP31', { kind: 'lean', leanMm: [-0.12, 0] })
    .mark('T5', { kind: 'touching', touches: 'T6', leanMm: [0.4, 0] })
    .put('clock', { run: null })
    .put('offer', {
      text: 'two contacts may need a donor; about twice the time',
      limitMinor: 120_000,
      minutes: 200,
    })
  return {
    tape,
    owner: { name: 'Observatory on the Skerry', contact: 'radio, channel 8, after six' },
    pictures: [],
  }
}

/** 3: a pin-grid CPU torn out with its cooler; a row leaning and one pin flat. */
export function choirMachine(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0415', 'Tolliver', now.hoursAgo(25))
  const row = pg906.contacts.filter((c) => /^AB\d+$/.test(c.name)).slice(4, 13)
  tape
    .put('ticket', {
      set: {
        ...onBoard('hv-skua-2'),
        use: 'recording machine of the choir',
        complaint: 'CPU came out with the cooler',
        cpu: 'Petrel b2',
        memory: '4 × 2 GB',
        history: ['cooler swap'],
        valueMinor: 90_000,
        limitMinor: 40_000,
        minutesPromised: 60,
        promisedAt: now.inHours(7),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('it was warm when the cooler was turned')
    .put('consent', {
      risks: ['A fatigued pin may snap while it is straightened.'],
      limitMinor: 40_000,
      signature: null,
      how: 'signed on paper, kept with the board',
    })
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.05 })
    .rails('out', goodRails)
    .settle('triage')
    .put('clock', { run: 'socket' })
    .wait(6)
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .mark(
      row.map((c) => c.name),
      { kind: 'lean', leanMm: [0.32, 0.05] },
    )
    .mark('E27', { kind: 'folded', touches: 'E28' })
    .mark('N4', { kind: 'lean', leanMm: [0, -0.25], unsure: true })
    .photo('pins from above')
    .put('clock', { run: null })
  return {
    tape,
    owner: { name: 'Skerrow Harbour Choir', contact: 'Wednesdays in the hall' },
    pictures: [
      {
        line: tape.last - 1,
        png: () =>
          fieldPhoto(
            pg906,
            Object.fromEntries(row.map((c) => [c.name, { kind: 'lean', leanMm: [0.32, 0.05] } as Mark])),
            415,
          ),
      },
    ],
  }
}

/** 9: lightning nearby, a rail nearly shorted, and behind it a silent memory channel. */
export function birdObservatory(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0412', 'Maren', now.hoursAgo(50))
  tape
    .put('ticket', {
      set: {
        ...onBoard('br-sound-7'),
        use: 'bird observatory, night counter',
        complaint: 'dead after the storm',
        cpu: 'Orrin 52',
        memory: '2 × 16 GB',
        history: ['lightning or surge'],
        valueMinor: 260_000,
        limitMinor: 90_000,
        minutesPromised: 150,
        promisedAt: now.inHours(2),
        warranty: 'none',
        diskLock: 'yes, owner told',
      },
    })
    .says('the other machine on the same strip survived')
    .put('consent', {
      risks: ['A second fault often shows only once the first is gone.'],
      limitMinor: 90_000,
      signature: null,
      how: 'by telephone',
    })
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', {
      what: 'outside of the board',
      seen: 'one capacitor near the memory slots has a dark ring',
      clear: false,
      hazard: 'burnt',
    })
    .put('cell', { volts: 3.01 })
    .rails('out', { ...goodRails, vmem: 6.8 })
    .put('supply', { limitA: 0.5 })
    .put('part', { ref: 'C318', did: 'found damaged', text: 'dark ring, 6.8 Ω across', side: 'top' })
    .put('part', { ref: 'C318', did: 'taken off', side: 'top' })
    .put('mended', { fault: 'memory rail short' })
    .rails('out', { vmem: 205 })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('part', {
      ref: 'C318',
      did: 'fitted',
      value: '10 µF',
      text: 'from a twin on the same rail',
      side: 'top',
    })
    .rails('out', { ...goodRails, vmem: 205 })
    .put('look', { what: 'outside of the board', seen: 'clean where C318 was', clear: true })
    .put('seat', { cpu: 'bench Orrin 51', drop: 'flat', heatsink: true })
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'steady',
        amps: 0.4,
        lamp: 'memory',
        cpuHeat: 'warm',
        codes: ['4C', '4C', '51'],
      }),
    )
    .put('trial', { test: 'good in A', outcome: 'system loads' })
    .put('trial', { test: 'good in B', outcome: 'memory lamp' })
    .put('note', { text: 'second fault: a module in channel A starts it, none in channel B does' })
    .put('clock', { run: null })
  return {
    tape,
    owner: { name: 'Observatory on the Skerry', contact: 'radio, channel 8, after six' },
    pictures: [],
  }
}
