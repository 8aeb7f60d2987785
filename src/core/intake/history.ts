import type { HistoryItem } from '../board/history-item'

/** What a piece of history makes likelier, the risk to tell the owner, and where to look first. */
export interface HistoryAdvice {
  readonly suspects: readonly string[]
  readonly risk: string | null
  readonly look: string
}

export const historyAdvice: Readonly<Record<HistoryItem, HistoryAdvice>> = {
  'cooler swap': {
    suspects: ['bent contacts', 'scratched traces'],
    risk: null,
    look: 'scratches and cracked small parts round the socket',
  },
  'CPU swap': {
    suspects: ['bent contacts', 'CPU not supported by this version'],
    risk: 'A fatigued contact may snap while it is straightened.',
    look: 'the socket, corner by corner, at a low light',
  },
  'firmware update': {
    suspects: ['wrong version for this CPU', 'corrupt firmware'],
    risk: 'Rewriting firmware can lock disks that a security module protects.',
    look: 'which version it should be, and round the firmware chip',
  },
  'power cut during update': {
    suspects: ['corrupt firmware'],
    risk: 'Rewriting firmware can lock disks that a security module protects.',
    look: 'whether there is a second chip or a flash button',
  },
  cleaning: {
    suspects: ['contacts dragged by a cloth', 'knocked-off small parts'],
    risk: 'A fatigued contact may snap while it is straightened.',
    look: 'a swath of contacts leaning the same way',
  },
  'shipped without socket cover': {
    suspects: ['pressed contacts', 'something lodged'],
    risk: 'A fatigued contact may snap while it is straightened.',
    look: 'the middle of the field, from each side for height',
  },
  'long unplugged': {
    suspects: ['coin cell', 'lost settings'],
    risk: null,
    look: 'the coin cell and its holder',
  },
  'dropped something in': {
    suspects: ['bent contacts', 'contacts touching'],
    risk: 'A fatigued contact may snap while it is straightened.',
    look: 'a crater in the field, and what fell',
  },
  liquid: {
    suspects: ['corroded parts', 'shorts'],
    risk: 'Corrosion goes on under parts where nobody sees it.',
    look: 'white or green residue, both sides',
  },
  'lightning or surge': {
    suspects: ['shorted rail', 'dead controller', 'dead CPU'],
    risk: 'A second fault often shows only once the first is gone.',
    look: 'burns, swollen parts, each rail to ground',
  },
  'worked on by others': {
    suspects: ['two faults at once', 'wrong part fitted'],
    risk: 'A second fault often shows only once the first is gone.',
    look: 'flux residue, reheated parts, scratches',
  },
  'none known': { suspects: [], risk: null, look: 'everything once: burns, liquid, missing parts, socket' },
}

const always = [
  'Some faults only show once the first is gone.',
  'Data on the owner’s disks is not ours to keep safe; have a copy.',
]

/** Risks the owner is asked to agree to, in plain words, without repeats. */
export function risksFor(history: readonly HistoryItem[], diskLock: string): string[] {
  const said = history.map((item) => historyAdvice[item].risk).filter((r): r is string => r !== null)
  if (diskLock === 'unknown')
    said.push(
      'If the disks are locked by a security module, a rewrite or exchange can lock the owner out: the recovery key is needed first.',
    )
  return [...new Set([...said, ...always])]
}

/** What to look at first, before any power. */
export function lookFirst(history: readonly HistoryItem[]): string[] {
  const from = history.length > 0 ? history : (['none known'] as const)
  return [
    ...new Set([
      ...from.map((item) => historyAdvice[item].look),
      'outside: burns, liquid, flux residue, cracked small parts',
      'the socket, before anything else is tried',
    ]),
  ]
}

/** Faults that this history makes likelier, most often named first. */
export function suspectsFor(history: readonly HistoryItem[]): string[] {
  const count = new Map<string, number>()
  for (const item of history)
    for (const s of historyAdvice[item].suspects) count.set(s, (count.get(s) ?? 0) + 1)
  return [...count].sort((a, b) => b[1] - a[1]).map(([s]) => s)
}
