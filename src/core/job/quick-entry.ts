import type { Rail } from '../board/rail'
import type { Bodies, Kind } from '../slices'
import { rails, railWords } from '../board/rail'
import { damageKinds } from '../socket/damage/mark'
import { notACode, readCodesTyped } from '../triage/instruments/code'
import { readMark } from './read-mark'
import { notRead, readNumber } from './read-number'

/** A typed line, understood: what to put on the tape. */
export type Typed = {
  [K in Kind]: { readonly kind: K; readonly body: Bodies[K]; readonly strikes: number | null }
}[Kind]

export type Parsed =
  | { readonly ok: true; readonly entry: Typed; readonly say: string }
  | { readonly ok: false; readonly say: string; readonly example: string }

interface Word {
  readonly word: string
  readonly form: string
  readonly example: string
  readonly say: string
  readonly read: (rest: string[], text: string, bench: Bench) => Typed | string
}

/** What is known of the board while a line is typed. */
export interface Bench {
  /** Whether a CPU is in, by what was fitted; null while nobody has said. */
  readonly cpu: 'in' | 'out' | null
}

/** A sentence about words that are left over, or null. */
const leftOver = (rest: readonly string[], used: number): string | null =>
  rest.length > used ? `“${rest.slice(used).join(' ')}” is not understood` : null

const entry = <K extends Kind>(kind: K, body: Bodies[K], strikes: number | null = null): Typed =>
  ({ kind, body, strikes }) as unknown as Typed

const railAlias: Readonly<Record<string, Rail>> = {
  '12': '12v',
  '5': '5v',
  '3.3': '3v3',
  '3v3': '3v3',
  '3.3v': '3v3',
  '5vsb': 'standby',
  sb: 'standby',
  core: 'vcore',
  mem: 'vmem',
  memory: 'vmem',
  sa: 'vsys',
}

const railOf = (text: string | undefined): Rail | null => {
  const word = (text ?? '').toLowerCase()
  return rails.find((r) => r === word) ?? railAlias[word] ?? null
}

export const words: readonly Word[] = [
  {
    word: 'ohm',
    form: 'ohm RAIL NUMBER [cpu in|out]',
    example: 'ohm vcore 1.8 cpu out',
    say: 'ohms to ground; CPU in or out as it is fitted, unless said',
    read: (rest, _, bench) => {
      const rail = railOf(rest[0])
      if (!rail) return `“${rest[0] ?? ''}” is no rail; rails are ${rails.join(', ')}`
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
    read: (rest) => {
      const rail = railOf(rest[0])
      const figure = rest.slice(1).join(' ')
      const volts = readNumber(figure, 'V')
      if (!rail) return `“${rest[0] ?? ''}” is no rail; rails are ${rails.join(', ')}`
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
    word: 'code',
    form: 'code HEX HEX … [for SECONDS]',
    example: 'code 4C 4C 31',
    say: 'codes in the order they showed, and how long it was watched',
    read: (words) => {
      const last = words.findIndex((w) => w.toLowerCase() === 'for')
      const rest = last < 0 ? words : words.slice(0, last)
      const watchedS = last < 0 ? undefined : readNumber(words[last + 1], 's')
      if (watchedS === null || (watchedS !== undefined && (watchedS < 0 || words.length > last + 2)))
        return `watched how long? “${words.slice(last + 1).join(' ')}” is no number of seconds`
      const { codes, odd } = readCodesTyped(rest.join(' '))
      if (codes.length === 0) return 'which codes? two hex figures each'
      if (odd) return notACode(odd)
      return entry('codes', { codes, ...(watchedS === undefined ? {} : { watchedS }) })
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
    word: 'says',
    form: 'says WHAT THE OWNER SAYS',
    example: 'says it worked until Tuesday',
    say: 'a claim: weighs less until checked here',
    read: (_, text) => (text ? entry('claim', { text }) : 'what does the owner say?'),
  },
  {
    word: 'note',
    form: 'note TEXT',
    example: 'note flux left of the socket',
    say: 'anything worth keeping',
    read: (_, text) => (text ? entry('note', { text }) : 'what is the note?'),
  },
  {
    word: 'decide',
    form: 'decide TEXT',
    example: 'decide straighten first, flash later',
    say: 'a decision and its reason',
    read: (_, text) => (text ? entry('decision', { text }) : 'what was decided?'),
  },
  {
    word: 'mark',
    form: 'mark CONTACT KIND [MM] [WAY] [on CONTACT]',
    example: 'mark M31 low 0.19',
    say: `kinds: ${damageKinds.slice(1).join(', ')}`,
    read: (rest) => {
      const read = readMark(rest)
      return typeof read === 'string' ? read : entry('mark', { contacts: [read.contact], mark: read.mark })
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
    word: 'chip',
    form: 'chip MARKING [VOLTS]',
    example: 'chip LSN-16V 1.8',
    say: 'marking and voltage of the firmware chip',
    read: (rest) => {
      if (!rest[0]) return 'what does the chip’s marking say?'
      const figure = rest.slice(1).join(' ')
      const volts = figure === '' ? undefined : readNumber(figure, 'V')
      if (volts === null || (volts !== undefined && (volts < 1 || volts > 5.5)))
        return `“${figure}” is no chip voltage; 1.8 or 3.3`
      return entry('firmware', {
        chip: rest[0].toUpperCase(),
        ...(volts === undefined ? {} : { chipVolts: volts }),
      })
    },
  },
  {
    word: 'version',
    form: 'version TEXT',
    example: 'version 1.40',
    say: 'firmware version seen on the screen',
    read: (_, text) => (text ? entry('firmware', { version: text }) : 'which version was seen?'),
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
      if (/^(out|none|no|off|removed|empty|-)$/i.test(text)) return entry('fitted', { cpu: null })
      // “in” says that there is one, not which: nothing is fitted that is called so.
      if (text === '' || /^(in|on|yes|fitted|same|seated|\?)$/i.test(text))
        return 'which CPU? its name, or cpu out'
      return entry('fitted', { cpu: text })
    },
  },
  {
    word: 'strike',
    form: 'strike NUMBER WHY',
    example: 'strike 6 probe had slipped',
    say: 'strikes a line; it stays readable',
    read: (rest, text) => {
      const seq = /^\d{1,9}$/.test(rest[0] ?? '') ? Number(rest[0]) : 0
      if (seq < 1) return `strike which line? “${rest[0] ?? ''}” is no line number`
      const why = text.slice(text.indexOf(rest[0]!) + rest[0]!.length).trim()
      return why ? entry('strike', { why }, seq) : 'why is it struck? one word is enough'
    },
  },
]

/** Distance in single-letter changes, for “did you mean”. Source: Levenshtein (1966). */
function letterDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)))
    row = next
  }
  return row[b.length]!
}

/**
 * Reads one line of the quick entry. Never throws; what makes no sense comes back with a sentence and an example.
 * A line that starts with no known word is not guessed to be a note: it might be a reading that was mistyped.
 */
export function readLine(line: string, bench: Bench = { cpu: null }): Parsed {
  const text = line.trim().replace(/\s+/g, ' ')
  const [first = '', ...rest] = text.split(' ')
  const word = words.find((w) => w.word === first.toLowerCase())
  if (!word) {
    const near = words
      .map((w) => ({ w, d: letterDistance(first.toLowerCase(), w.word) }))
      .sort((a, b) => a.d - b.d)[0]!
    if (near.d <= 2 && first.length > 1)
      return {
        ok: false,
        say: `“${first}” is not a word of the tape; did you mean ${near.w.word}?`,
        example: near.w.example,
      }
    return {
      ok: false,
      say: first
        ? `“${first}” is not a word of the tape; begin with ${words.map((w) => w.word).join(', ')}`
        : 'type a word and a reading',
      example: first ? `note ${text}` : words[0]!.example,
    }
  }
  const read = word.read(rest, rest.join(' '), bench)
  return typeof read === 'string'
    ? { ok: false, say: read, example: word.example }
    : {
        ok: true,
        entry: read,
        say:
          read.kind === 'rail'
            ? `${railWords[read.body.rail]} ${read.body.ohms} Ω, CPU ${read.body.cpu}`
            : word.form,
      }
}

/** Completions for a line being typed: first words, then rails and kinds where they fit. */
export function completions(line: string): readonly { readonly text: string; readonly say: string }[] {
  const parts = line.replace(/^\s+/, '').split(/\s+/)
  const [first = '', second = '', third = ''] = parts
  if (parts.length <= 1)
    return words
      .filter((w) => w.word.startsWith(first.toLowerCase()))
      .map((w) => ({ text: `${w.word} `, say: w.form }))
  const word = words.find((w) => w.word === first.toLowerCase())
  if (!word) return []
  if ((word.word === 'ohm' || word.word === 'volt') && parts.length === 2)
    return rails
      .filter((r) => r.startsWith(second.toLowerCase()))
      .map((r) => ({ text: `${word.word} ${r} `, say: word.form }))
  if (word.word === 'mark' && parts.length === 3)
    return damageKinds
      .filter((k) => k.startsWith(third.toLowerCase()))
      .map((k) => ({ text: `mark ${second} ${k} `, say: word.form }))
  return [{ text: '', say: `${word.form} — ${word.say}` }]
}
