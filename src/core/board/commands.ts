import { lineOf, leftOver } from '../tape/command'
import type { Command } from '../tape/command'
import { notRead, readNumber } from '../tables/read-number'
import { rails } from './rail'
import type { Rail, UsualRail } from './rail'
import type { BoardBodies } from './bodies'

const entry = lineOf<BoardBodies>()

const railAlias: Readonly<Record<string, UsualRail>> = {
  '12': '12v',
  '5': '5v',
  '3.3': '3v3',
  '3v3': '3v3',
  '3.3v': '3v3',
  '5vsb': 'standby',
  sb: 'standby',
  vsb: 'standby',
  '5vstby': 'standby',
  core: 'vcore',
  vccore: 'vcore',
  vcpu: 'vcore',
  mem: 'vmem',
  memory: 'vmem',
  vdimm: 'vmem',
  vddq: 'vmem',
  vram: 'vmem',
  sa: 'vsys',
  vsa: 'vsys',
  vccsa: 'vsys',
}

/** That a place is empty, as it is typed. */
export const saysNone = (text: string): boolean => /^(out|none|no|off|removed|empty|-)$/i.test(text)

const railOf = (text: string | undefined, own: readonly Rail[] = []): Rail | null => {
  const word = (text ?? '').toLowerCase()
  return [...rails, ...own].find((r) => r === word) ?? railAlias[word] ?? null
}
/** What to say of a word that is no rail of this board. */
const noRail = (word = '', own: readonly Rail[] = []): string =>
  `“${word}” is no rail; rails are ${[...rails, ...own].join(', ')}`

/** Between which a bare figure of a rail may be its volts; the small rails carry less than two. */
const mayBeVolts: Readonly<Partial<Record<Rail, readonly [number, number]>>> = {
  '12v': [4, 20],
  '5v': [1.5, 8],
  '3v3': [1, 5.5],
  standby: [1.5, 8],
}

const ohmsOrVolts = /^(m?v|[Ωω\u2126]|ohms?)$/i

/** A line that begins with a rail: its reading in ohms or in volts, by its unit; without one, ohms unless it may be volts. */
function railFirst([first, ...rest]: readonly string[]): string | { readonly say: string } | null {
  const rail = railOf(first)
  const figure = rest.slice(0, ohmsOrVolts.test(rest[1] ?? '') ? 2 : 1).join(' ')
  if (!rail || !/^[\d.,]/.test(figure)) return null
  if (/v$/i.test(figure)) return `volt ${rail} ${rest.join(' ')}`
  const bare = /^[\d.,]+$/.test(figure) ? readNumber(figure) : null
  const [low, high] = mayBeVolts[rail] ?? [0.2, 2]
  return bare !== null && bare > low && bare < high
    ? { say: `${figure} of what? end with Ω or V` }
    : `ohm ${rail} ${rest.join(' ')}`
}

export const boardCommands: readonly Command[] = [
  {
    word: 'ohm',
    form: 'ohm RAIL NUMBER [cpu in|out]',
    example: 'ohm vcore 1.8 cpu out',
    say: 'ohms to ground; CPU in or out as it is fitted, unless said',
    choices: { 1: rails },
    understands: railFirst,
    read: (rest, _, bench) => {
      const rail = railOf(rest[0], bench.rails)
      if (!rail) return noRail(rest[0], bench.rails)
      const at = rest.findIndex((word, i) => i > 1 && /^(cpu|in|out)$/i.test(word))
      const figure = rest.slice(1, at < 0 ? undefined : at).join(' ')
      const ohms = readNumber(figure, 'Ω')
      if (ohms === null || ohms < 0)
        return `how many ohms? ${figure ? notRead(figure) : 'no figure'}; “${figure}” is not a resistance`
      const where = at < 0 ? '' : rest.slice(at).join(' ').toLowerCase()
      if (where && !/^(cpu )?(in|out)$/.test(where))
        return `“${where}” is not understood; end with cpu in or cpu out`
      const told = where === '' ? null : where.endsWith('in') ? ('in' as const) : ('out' as const)
      const cpu = told ?? bench.cpu
      if (cpu === null) return 'is the CPU in or out? end with cpu in or cpu out'
      if (told !== null && bench.cpu !== null && told !== bench.cpu)
        return `the CPU is noted as ${bench.cpu}: say first what is fitted (${told === 'in' ? 'cpu and its name' : 'cpu out'}), or end with cpu ${bench.cpu}`
      return entry('rail', { rail, ohms, cpu })
    },
  },
  {
    word: 'volt',
    form: 'volt RAIL NUMBER',
    example: 'volt 12v 11.9',
    say: 'volts on a rail',
    choices: { 1: rails },
    read: (rest, _, bench) => {
      const rail = railOf(rest[0], bench.rails)
      const figure = rest.slice(1).join(' ')
      const volts = readNumber(figure, 'V')
      if (!rail) return noRail(rest[0], bench.rails)
      if (volts === null || Math.abs(volts) > 60)
        return `how many volts? “${figure}” is not a reading up to 60 V`
      return entry('volts', { rail, volts })
    },
  },
  {
    word: 'vbat',
    form: 'vbat NUMBER [at board] [new]',
    example: 'vbat 2.9',
    say: 'volts of the coin cell, by itself or at the board',
    read: (rest) => {
      const unit = /^v$/i.test(rest[1] ?? '') ? 1 : 0
      const volts = readNumber(rest.slice(0, 1 + unit).join(''), 'V')
      const more = rest
        .slice(1 + unit)
        .join(' ')
        .toLowerCase()
      const told = /^(at board)? ?(new)?$/.exec(more)
      if (volts === null || volts < 0 || volts > 5)
        return `a coin cell reads 0 to 5 V; “${rest[0] ?? ''}” does not`
      if (!told) return `“${more}” is not understood; end with at board, new, or both`
      return entry('cell', {
        volts,
        ...(told[1] ? { where: 'at the board' as const } : {}),
        ...(told[2] ? { isNew: true } : {}),
      })
    },
  },
  {
    word: 'limit',
    form: 'limit AMPS | limit off',
    example: 'limit 0.5',
    say: 'current limit of the supply',
    read: (rest) => {
      if (rest[0]?.toLowerCase() === 'off') return leftOver(rest, 1) ?? entry('supply', { limitA: null })
      const figure = rest.join(' ')
      const amps = readNumber(figure, 'A')
      if (amps === null || amps <= 0 || amps > 60) return `how many amperes? “${figure}” is not a limit`
      return entry('supply', { limitA: amps })
    },
  },
  {
    word: 'lost',
    form: 'lost WHAT',
    example: 'lost tip of AK37',
    say: 'a fragment or part to be accounted for; the gate stays shut',
    read: (_, text) => (text ? entry('missing', { what: text, from: 'bench' }) : 'what is lost?'),
  },
  {
    word: 'heatsink',
    form: 'heatsink on|off',
    example: 'heatsink on',
    say: 'no CPU is powered without one',
    read: (rest) => {
      const word = rest.join(' ').toLowerCase()
      return word === 'on' || word === 'off'
        ? entry('fitted', { heatsink: word === 'on' })
        : 'heatsink on, or heatsink off?'
    },
  },
  {
    word: 'cpu',
    form: 'cpu NAME | cpu out',
    example: 'cpu Orrin 41',
    say: 'which CPU is in the socket',
    read: (_, text) => {
      if (saysNone(text)) return entry('fitted', { cpu: null })
      // “in” says that there is one, not which: nothing is fitted that is called so.
      if (text === '' || /^(in|on|yes|fitted|same|seated|\?)$/i.test(text))
        return 'which CPU? its name, or cpu out'
      return entry('fitted', { cpu: text })
    },
  },
]
