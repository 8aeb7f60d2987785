/** Outcomes and pictures as they are said today; on tapes they keep the words they were written with. */
const words: Readonly<Record<string, string>> = {
  'fans, no lamp': 'fans, no LED',
  'CPU lamp': 'CPU LED',
  'memory lamp': 'memory LED',
  'graphics lamp': 'graphics LED',
  'boot lamp': 'boot LED',
  'fans, dark': 'fans on, dark',
  'maker screen': 'start screen',
  short: 'shorted',
  'a resistor gone': 'a resistor gone or broken',
  'another part gone': 'another part gone or broken',
  'a part missing': 'a part missing or broken',
}

export const sayOutcome = (outcome: string): string => words[outcome] ?? outcome
