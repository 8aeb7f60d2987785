import { TapeWriter } from '../tape-writer'
import { baseline, goodRails, onBoard, railsWithCpu } from './job'
import type { DemoJob, DemoNow } from './job'

const agreed = (risks: readonly string[], limitMinor: number, how: string) => ({
  risks,
  limitMinor,
  signature: null,
  how,
})

/** 4: eight school displays to be moved to a newer CPU generation with two bench CPUs at hand. */
export function schoolDisplays(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0411', 'Ines', now.hoursAgo(74))
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k74'),
        use: 'school timetable displays, eight alike',
        complaint: 'black with the new CPUs',
        cpu: 'Orrin 53 (new), Orrin 44 (old)',
        memory: '1 × 8 GB each',
        history: ['CPU swap'],
        valueMinor: 140_000,
        limitMinor: 200_000,
        minutesPromised: 240,
        promisedAt: now.inHours(70),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('the new CPUs are the right ones', 'the seller tried one')
    .put(
      'consent',
      agreed(
        ['Rewriting firmware can lock disks that a security module protects.'],
        200_000,
        'signed on paper, kept with the boards',
      ),
    )
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.1 })
    .rails('in', railsWithCpu)
    .put('fitted', { cpu: 'Orrin 53', heatsink: true, modules: ['A1'] })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('supply', { limitA: 2 })
    .put('baseline', baseline({ fans: 'on', current: 'steady', amps: 0.6, lamp: 'cpu', cpuHeat: 'warm' }))
    .put('fitted', { cpu: 'bench Orrin 44', heatsink: true, modules: ['A1'] })
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'steady',
        amps: 0.9,
        lamp: 'none',
        cpuHeat: 'warm',
        picture: 'maker screen',
      }),
    )
    .settle('triage')
    .put('firmware', { version: '1.40' })
    .put('note', { text: 'version read from the start screen; board one of eight' })
    .put('clock', { run: null })
  return { tape, owner: { name: 'Skerrow School', contact: 'the caretaker, mornings' }, pictures: [] }
}

/** 5: a storm cut the power in the middle of an update; the second chip is intact. */
export function kilnController(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0413', 'Ines', now.hoursAgo(29))
  tape
    .put('ticket', {
      set: {
        ...onBoard('tw-k74'),
        use: 'kiln controller of the pottery',
        complaint: 'storm took the mains while it updated itself',
        cpu: 'Orrin 44',
        memory: '2 × 4 GB',
        history: ['power cut during update'],
        valueMinor: 180_000,
        limitMinor: 70_000,
        minutesPromised: 60,
        promisedAt: now.inHours(20),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .put(
      'consent',
      agreed(
        ['Rewriting firmware can lock disks that a security module protects.'],
        70_000,
        'signed on paper, kept with the board',
      ),
    )
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('look', { what: 'round the firmware chip', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3.0 })
    .rails('in', railsWithCpu)
    .put('fitted', { cpu: 'Orrin 44', heatsink: true, modules: ['A1'] })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('supply', { limitA: 2 })
    .put('baseline', baseline({ fans: 'on', current: 'steady', amps: 0.3, lamp: 'cpu', cpuHeat: 'cold' }))
    .settle('triage')
    .put('firmware', { chip: 'LSN-16V', chipVolts: 1.8 })
    .put('firmware', { programmerVolts: 3.3 })
    .put('note', { text: 'adapter for 1.8 V first; switch SW2 not tried yet' })
    .put('clock', { run: null })
  return {
    tape,
    owner: { name: 'Pottery in the Old Smokehouse', contact: 'at the wheel until four' },
    pictures: [],
  }
}

/** 6: salt has eaten a resistor between controller and flash chip; “surely the firmware”. */
export function tideGauge(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0416', 'Maren', now.hoursAgo(22))
  tape
    .put('ticket', {
      set: {
        ...onBoard('br-sound-5'),
        use: 'tide-gauge logger',
        complaint: 'surely the firmware: it only needs a flash',
        cpu: 'Orrin 33',
        memory: '1 × 4 GB',
        history: ['liquid', 'long unplugged'],
        valueMinor: 120_000,
        limitMinor: 50_000,
        minutesPromised: 75,
        promisedAt: now.inHours(9),
        warranty: 'none',
        diskLock: 'no',
      },
    })
    .says('it was never wet', 'the harbour office flashed it already, without success')
    .put('consent', agreed(['Corrosion goes on under parts where nobody sees it.'], 50_000, 'by telephone'))
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('look', {
      what: 'round the firmware chip',
      seen: 'green residue beside the chip, one part gone',
      clear: false,
      hazard: 'corroded',
    })
    .put('look', { what: 'outside of the board', seen: 'nothing else', clear: true })
    .put('claim checked', { claim: 2, verdict: 'wrong', how: 'salt beside the chip' })
    .put('cell', { volts: 2.61 })
    .rails('out', goodRails)
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('part', {
      ref: 'R214',
      did: 'found missing',
      text: 'pads green; chip pin 2 to controller',
      side: 'top',
    })
  const gone = tape.last
  tape
    .put('accounted', { item: `${gone}/0`, where: 'eaten away; its ends still stand on the pads' })
    .put('clock', { run: null })
  return { tape, owner: { name: 'Skerrow Pilots', contact: 'the pilot house' }, pictures: [] }
}

/** 7: a previous owner fitted a larger flash chip; the upper half answers wrongly. */
export function catalogueTerminal(now: DemoNow): DemoJob {
  const tape = new TapeWriter('Q-0410', 'Tolliver', now.hoursAgo(80))
  tape
    .put('ticket', {
      set: {
        ...onBoard('br-sound-7'),
        use: 'catalogue terminal of the lending library',
        complaint: 'starts every third time',
        cpu: 'Orrin 51',
        memory: '2 × 8 GB',
        history: ['firmware update', 'worked on by others'],
        valueMinor: 150_000,
        limitMinor: 60_000,
        minutesPromised: 90,
        promisedAt: now.inHours(30),
        warranty: 'none',
        diskLock: 'unknown',
      },
    })
    .says('the chip was changed for a better one')
    .put(
      'consent',
      agreed(
        ['Rewriting firmware can lock disks that a security module protects.'],
        60_000,
        'signed on paper, kept with the board',
      ),
    )
    .settle('intake')
    .put('clock', { run: 'triage' })
    .put('cell', { volts: 3.04 })
    .put('look', {
      what: 'round the firmware chip',
      seen: 'flux residue, chip soldered by hand, straight',
      clear: true,
    })
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .rails('in', railsWithCpu)
    .put('fitted', { cpu: 'Orrin 51', heatsink: true, modules: ['A1'] })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: 'all' })
    .settle('socket')
    .put('supply', { limitA: 2 })
    .put(
      'baseline',
      baseline({
        fans: 'on',
        current: 'cycling',
        amps: 0.7,
        lamp: 'memory',
        cpuHeat: 'warm',
        codes: ['19', '4C', '19', '4C'],
      }),
    )
    .put('firmware', { chip: 'FERN-32V', chipVolts: 1.8 })
    .put('note', { text: 'read twice by the owner before us: the reads differ in the upper half' })
    .put('clock', { run: null })
  return { tape, owner: { name: 'Lending Library', contact: 'desk, afternoons' }, pictures: [] }
}
