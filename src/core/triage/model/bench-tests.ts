import { rails } from '../../board/rail'
import { inspect, look, ohms, probe, readAtStop, start, volts } from './bench-test'
import type { BenchTest, Names } from './bench-test'
import { startTables } from './stage'

const { current } = startTables

/** What a look over the socket finds, by fault. */
export const inSocket: Names = {
  'power contacts shorted': 'power contacts touch',
  'power contacts open': 'power contacts open',
  'control contact open': 'control contact off',
  'sense contact open': 'sense contact off',
  'memory A contact open': 'memory A contact off',
  'memory B contact open': 'memory B contact off',
  'signal contacts touch': 'signal contacts touch',
  'display contact open': 'display contact off',
  'card contact open': 'card contacts off',
}
const inSlots: Names = { 'slot A': 'slot A', 'slot B': 'slot B', 'module seat': 'module not home' }
const outside: Names = {
  'standby rail short': 'scorched at a rail',
  '12 V short': 'scorched at a rail',
  '5 V short': 'scorched at a rail',
  '3.3 V short': 'scorched at a rail',
  'core rail short': 'scorched at a rail',
  'memory rail short': 'scorched at a rail',
  'core controller': 'scorched at a controller',
  'memory controller': 'scorched at a controller',
  'system-agent controller': 'scorched at a controller',
  'board controller': 'scorched at a controller',
  chipset: 'scorched at a controller',
  'cell holder': 'cell holder green',
  cooling: 'cooler loose',
  'controller line part': 'a part missing',
  'something fitted': 'a plugged-in part burnt',
}
const nearChip: Names = {
  'chip resistor': 'a resistor gone',
  'chip supply part': 'another part gone',
  'controller line part': 'another part gone',
  'firmware chip': 'chip reworked',
  'chip dead': 'chip reworked',
  'chip joint': 'chip reworked',
}

const roundSocket: Names = {
  'core regulator part': 'part broken at the regulator',
  'memory A traces': 'traces scratched',
  'memory B traces': 'traces scratched',
}
/** What a programmer is told by the chip, by what is wrong. */
const answers: Names = {
  'chip dead': 'none',
  'chip joint': 'none',
  'chip supply part': 'none',
  'firmware chip': 'another',
}
const marked: Names = { 'firmware chip': 'another chip', 'chip dead': 'no chip there' }

const either = (p: number) => [p, 1 - p]

/** Looked at or measured while the board has power, on standby at least. */
const underPower = (test: BenchTest): BenchTest => ({ ...test, powers: true })

/** Every test the reasoner knows; minutes and needs are bench defaults. */
export const benchTests: readonly BenchTest[] = [
  start('as it came', 'Power up as it came', {}, [2]),
  start('cold start', 'Mains off a minute, then a cold start', {}, [4]),
  start('needed only', 'Take out everything not needed, then power up', { fitted: 'needed' }, [6]),
  start('bridged', 'Front wiring off, bridge the power pins', { fitted: 'bridged' }, [6]),
  start('settings cleared', 'Clear the settings, then power up', { settings: 'cleared' }, [4]),
  start('new cell', 'New coin cell, settings cleared', { cell: 'new', settings: 'cleared' }, [
    6,
    'new coin cell',
  ]),
  start('trained', 'Wait out the training before judging', { wait: 'out' }, [12]),
  start('no memory', 'Power up with no memory', { memory: 'none', fitted: 'needed' }, [4]),
  start('memory reseated', 'Reseat the owner’s modules', { memory: 'own, reseated' }, [3]),
  start('own in B', 'One of the owner’s modules in slot B', { memory: 'own in slot B' }, [4]),
  start(
    'good in A',
    'A known-good module in slot A',
    { memory: 'good in A' },
    [4, 'known-good module'],
    'module',
  ),
  start(
    'good in B',
    'A known-good module in slot B',
    { memory: 'good in B' },
    [4, 'known-good module'],
    'module',
  ),
  start(
    'good in both',
    'Two known-good modules',
    { memory: 'good in both' },
    [4, 'known-good module', 'second known-good module'],
    'module',
  ),
  start(
    'known-good CPU',
    'A known-good CPU',
    { cpu: 'known-good', seat: 'reseated' },
    [10, 'known-good CPU'],
    'CPU',
  ),
  start('no drive', 'Power up with no drive connected', { drive: 'none' }, [3]),
  start('no CPU', 'Power up without a CPU', { cpu: 'none' }, [8]),
  start('reseated', 'Take the CPU out and seat it again', { seat: 'reseated' }, [9]),
  start('eased', 'Ease the mounting pressure, corner by corner', { seat: 'eased' }, [11]),
  start(
    'card',
    'A known-good card instead of the CPU’s graphics',
    { graphics: 'known-good card' },
    [4, 'known-good card'],
    'card',
  ),
  start('own graphics', 'Card out, the CPU’s own graphics', { graphics: 'own graphics' }, [3]),
  start('bench supply', 'Another supply', { supply: 'bench supply' }, [6, 'bench supply']),
  start('second chip', 'Start from the second firmware chip', { chip: 'second' }, [4, 'second chip']),
  start('good drive', 'A known-good drive on another lead', { drive: 'known-good' }, [5, 'known-good drive']),

  probe(
    'standby current',
    'Current in standby',
    ['none', 'as it should be'],
    (reaches) => either(reaches('standby') ? 0.02 : 0.8),
    [2, 'bench supply'],
  ),
  readAtStop(
    'current',
    'Current after power-on',
    {
      trips: current.trips!,
      nothing: current.none!.map((p, i) => p + current.standby![i]!),
      steady: current.steady!,
      cycles: current.cycling!,
    },
    [2, 'bench supply'],
  ),
  probe(
    'warmth',
    'Feel whether the CPU gets warm',
    ['cold', 'warm'],
    (reaches) =>
      either(reaches('first fetch') ? 0.1 : reaches('reset released') ? 0.4 : reaches('rails') ? 0.65 : 0.97),
    [2],
  ),
  probe(
    'codes',
    'Read the codes',
    ['none', 'early', 'memory', 'late'],
    (reaches) =>
      reaches('memory training')
        ? [0.04, 0.02, 0.06, 0.88]
        : reaches('CPU and chipset')
          ? [0.05, 0.06, 0.87, 0.02]
          : reaches('first fetch')
            ? [0.14, 0.8, 0.05, 0.01]
            : [0.93, 0.05, 0.01, 0.01],
    [2],
  ),
  probe(
    'reset',
    'Look whether reset is released',
    ['held', 'released once', 'toggles'],
    (reaches) =>
      reaches('CPU and chipset')
        ? [0.01, 0.93, 0.06]
        : reaches('reset released')
          ? [0.03, 0.6, 0.37]
          : [0.95, 0.03, 0.02],
    [3, 'scope'],
  ),
  probe(
    'power-good',
    'Measure power-good',
    ['missing', 'there'],
    (reaches) => either(reaches('power-good') ? 0.02 : 0.93),
    [3, 'meter'],
  ),
  probe(
    'chip selected',
    'Look whether the firmware chip is being read',
    ['silent', 'read once', 'read and read again'],
    (reaches) =>
      reaches('first fetch')
        ? [0.02, 0.9, 0.08]
        : reaches('reset released')
          ? [0.12, 0.2, 0.68]
          : [0.95, 0.03, 0.02],
    [4, 'scope'],
  ),
  probe(
    'fans settle',
    'Listen whether the fans settle',
    ['full speed', 'settle', 'do not turn'],
    (reaches) =>
      reaches('CPU and chipset')
        ? [0.1, 0.88, 0.02]
        : reaches('power-good')
          ? [0.6, 0.38, 0.02]
          : reaches('power-on request')
            ? [0.25, 0.25, 0.5]
            : [0.02, 0.03, 0.95],
    [2],
  ),
  probe(
    'beeps',
    'No memory: does it complain?',
    ['silent', 'beeps or memory code'],
    (reaches) => either(reaches('CPU and chipset') ? 0.08 : 0.95),
    [3],
  ),

  look('outside', 'Look over the board from outside, both sides', 'outside', outside, 0.02, [4]),
  look('socket', 'Look over the whole socket at a low light', 'socket', inSocket, 0.02, [10]),
  look('swept', 'Sweep the socket contact by contact, from two sides', 'socket', inSocket, 0.01, [24], 2.2),
  look('slots probed', 'Probe the slots’ contacts with the meter', 'slots', inSlots, 0.01, [12, 'meter'], 2),
  inspect(
    'seat gauged',
    'Gauge the CPU’s corners and the frame',
    'CPU proud',
    ['proud', 'flush'],
    0.01,
    [10],
    2,
  ),
  look('round the chip', 'Look round the firmware chip', 'round the chip', nearChip, 0.015, [3]),
  inspect('CPU proud', 'See whether the CPU sits flush', 'CPU proud', ['proud', 'flush'], 0.02, [5]),
  underPower(
    inspect(
      'controller talks',
      'Look whether the board controller talks',
      'controller silent',
      ['silent', 'talks'],
      0.03,
      [5, 'scope'],
    ),
  ),
  inspect(
    'controller lines',
    'Measure the lines of the board controller',
    'controller line open',
    ['open', 'through'],
    0.015,
    [10, 'meter'],
  ),
  inspect(
    'new cell under load',
    'A new cell, measured at the board under load',
    'new cell low under load',
    ['low', 'good'],
    0.01,
    [4, 'new coin cell', 'meter'],
  ),
  underPower(
    inspect(
      'self start',
      'Mains on: see whether it starts by itself',
      'starts by itself',
      ['starts by itself', 'waits for the button'],
      0.02,
      [1],
    ),
  ),
  look(
    'round the socket',
    'Look round the socket and the core regulator',
    'round the socket',
    roundSocket,
    0.015,
    [4],
  ),
  inspect('strip', 'Check the strip, the supply’s switch and its cable', 'strip', ['off', 'on'], 0.005, [1]),
  look('slots', 'Look into the memory slots, with a light', 'slots', inSlots, 0.02, [3]),
  inspect(
    'front wiring',
    'Measure the front buttons and their wires',
    'front wiring',
    ['wrong', 'right'],
    0.02,
    [4, 'meter'],
  ),
  underPower(
    inspect(
      'standby heat',
      'Standby only: current against the usual, and feel for heat',
      'standby current high',
      ['too high', 'usual'],
      0.03,
      [4, 'bench supply'],
    ),
  ),
  inspect('cell', 'Measure the coin cell', 'cell low', ['low', 'good'], 0.01, [1, 'meter']),
  inspect(
    'cell under load',
    'Measure the cell at the board, under load',
    'cell low under load',
    ['low', 'good'],
    0.015,
    [3, 'meter'],
  ),
  underPower(
    inspect(
      'settings kept',
      'See whether settings outlast mains off',
      'settings lost',
      ['lost', 'kept'],
      0.03,
      [8],
    ),
  ),
  {
    ...look('chip id', 'Read the firmware chip’s ID', 'chip answers wrongly', answers, 0.02, [
      12,
      'chip reader',
    ]),
    outcomes: ['none', 'another', 'right'],
    former: { 'wrong or none': 'none' },
  },
  look('marking', 'Read which firmware chip is on it', 'marking', marked, 0.01, [2]),
  inspect(
    'chip contents',
    'Read the chip twice, compare with the release',
    'contents differ',
    ['differ', 'alike'],
    0.03,
    [20, 'chip reader', 'firmware file'],
  ),
  inspect(
    'chip lines',
    'Measure each line from the chip to the controller',
    'chip line open',
    ['open', 'through'],
    0.015,
    [8, 'meter'],
  ),
  inspect(
    'CPU elsewhere',
    'Try the owner’s CPU in another board',
    'CPU fails elsewhere',
    ['fails', 'starts'],
    0.02,
    [15, 'another board'],
  ),
  inspect(
    'module elsewhere',
    'Try the owner’s modules in another board',
    'module fails elsewhere',
    ['fails', 'good'],
    0.02,
    [8, 'another board'],
  ),
  inspect(
    'version',
    'Find which version it holds and whether that runs this CPU',
    'version too old',
    ['does not run it', 'runs it'],
    0.04,
    [8],
  ),
  ...rails.map(ohms),
  ohms('other'),
  ...rails.map(volts),
]
