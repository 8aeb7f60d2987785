import type { HistoryItem } from '../board/history-item'

/** What an owner can do so that it does not happen again, by what it was. */
const byCause: Readonly<Record<string, string>> = {
  contacts:
    'Changing a CPU: lower it straight down by its edges, never slide it; keep the cover on an empty socket.',
  'cell weak': 'A coin cell lasts some five years: have it changed before the clock is wrong.',
  'cell holder': 'Change the coin cell with the fingers only; a bent holder lets settings go.',
  'firmware corrupt': 'Do not switch off while firmware is written, and update only from a steady supply.',
  'firmware partly corrupt':
    'Do not switch off while firmware is written, and update only from a steady supply.',
  'CPU unsupported':
    'Before another CPU goes in, look up from which firmware version it runs, and update first.',
  'CPU without graphics': 'This CPU has no graphics of its own: the screen goes to the card.',
  'module seat': 'Press a module down until its latches close by themselves.',
  module: 'Buy modules in pairs that were tested together, and run a memory test once.',
  cooling: 'Clean fans and fins once a year; fresh paste whenever the cooler was off.',
  pressure: 'Tighten a cooler crosswise, a turn at a time, and no further than its stop.',
  'front wiring': 'Before the case is closed, check the front wires by the print on the board.',
  'reset held':
    'A reset wire that is pinched keeps a machine dark: check the front wires by the print on the board.',
  'something fitted': 'Standoffs only where the board has holes; nothing loose behind it.',
  'strip off': 'Dark all at once: look at the mains strip and the switch at the back of the supply first.',
  supply: 'Use only the cables that came with this supply; those of another can be wired otherwise.',
  settings: 'Write down settings that differ from the usual ones.',
}

const byHistory: Readonly<Partial<Record<HistoryItem, string>>> = {
  liquid: 'After liquid: mains off at once, do not try it; drying alone does not stop corrosion.',
  'lightning or surge': 'A strip with surge protection, and mains off in a thunderstorm.',
  'shipped without socket cover': 'Never ship a board without the cover on its socket.',
  'dropped something in': 'Cover the socket while you work over an open case.',
}

/** Advice from what it was and what had happened to it, each once. */
export const adviceFor = (causes: readonly string[], history: readonly HistoryItem[]): string[] => [
  ...new Set([
    ...causes.flatMap((cause) => byCause[cause] ?? []),
    ...history.flatMap((item) => byHistory[item] ?? []),
  ]),
]
