import { firstFindings, missingColumns, notANumber, numberIn } from '@/core/tables/finding'
import type { Finding, Row } from '@/core/tables/finding'
import { saySignature } from './microcode-support'
import { tableFaults } from './support-table'
import type { Release, SupportRow } from './support-table'
import { programmerBy, usualWays, wayKinds } from './way'
import type { Way } from './way'

/** The releases of a board, oldest first. */
export interface ReleaseTable {
  readonly name: string
  readonly releases: readonly Release[]
}
/** The CPUs of a board, and the releases that start them. */
export interface CpuTable {
  readonly name: string
  readonly support: readonly SupportRow[]
}
/** By which ways a release gets into the chip of a board. */
export interface WayTable {
  readonly name: string
  readonly ways: readonly Way[]
}

export const releaseColumns = ['release', 'date', 'needs', 'holds', 'state', 'source', 'trust'] as const
export const cpuColumns = [
  'cpu',
  'family',
  'from',
  'until',
  'state',
  'source',
  'date',
  'trust',
  'signature',
] as const
export const wayColumns = [
  'way',
  'by',
  'minutes',
  'risk',
  'price',
  'from',
  'downgrades',
  'stepping',
  'holds',
] as const

/** How far a row is trusted whose table does not say (bench default). */
const USUAL_TRUST = 0.95
const MOST_ROWS = 20_000

interface Read<T> {
  readonly of: T | null
  readonly findings: readonly Finding[]
}

/** Reads each row with what it takes, and gathers what is wrong. */
class Reader {
  readonly findings: Finding[] = []
  constructor(
    private readonly row: Row,
    private readonly line: number,
  ) {}

  fault(field: string, text: string): void {
    this.findings.push({ level: 'error', line: this.line, field, text })
  }
  text(field: string): string {
    return (this.row[field] ?? '').trim().slice(0, 200)
  }
  orNull(field: string): string | null {
    return this.text(field) || null
  }
  named(field: string): string {
    const text = this.text(field)
    if (text === '') this.fault(field, 'nothing stands here: give it a name')
    if (text.length > 60) this.fault(field, 'is longer than 60 letters')
    return text
  }
  number(field: string, usual: number, min: number, max: number): number {
    const text = this.text(field)
    if (text === '') return usual
    const is = numberIn(text)
    if (is === null) this.fault(field, notANumber(text))
    else if (is < min || is > max) this.fault(field, `${text} is not between ${min} and ${max}`)
    return is ?? usual
  }
  date(field: string): string | null {
    const text = this.text(field)
    if (text === '') return null
    if (!/^\d{4}-\d{2}-\d{2}$/.test(text) || Number.isNaN(Date.parse(text)))
      this.fault(field, `“${text}” is no day: write it as 2026-03-14`)
    return text
  }
  yes(field: string, usual: boolean): boolean {
    const text = this.text(field).toLowerCase()
    if (text === '') return usual
    if (text !== 'yes' && text !== 'no') this.fault(field, `“${text}” is neither yes nor no`)
    return text === 'yes'
  }
  /** The signature of a CPU, hexadecimal. */
  signature(field: string): { signature?: number } {
    const text = this.text(field).replace(/^0x/i, '')
    if (text === '') return {}
    if (/^[0-9a-f]{1,8}$/i.test(text)) return { signature: parseInt(text, 16) }
    this.fault(field, `“${text}” is no signature: hexadecimal figures, like 60A51`)
    return {}
  }
  one<T extends string>(field: string, of: readonly T[]): T {
    const text = this.text(field) as T
    if (!of.includes(text)) this.fault(field, `“${text}” is none of: ${of.join(', ')}`)
    return text
  }
  /** Words of a state, such as “unstable”. */
  state(field: string, of: readonly string[]): ReadonlySet<string> {
    const words = this.text(field)
      .split(/[\s,]+/)
      .filter(Boolean)
    for (const w of words) if (!of.includes(w)) this.fault(field, `“${w}” is none of: ${of.join(', ')}`)
    return new Set(words)
  }
}

function readRows<T>(
  rows: readonly Row[],
  columns: readonly string[],
  needed: readonly string[],
  what: string,
  read: (r: Reader) => T,
): { readonly rows: readonly T[]; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, needed)
  if (missing) return { rows: [], findings: [missing] }
  if (rows.length === 0 || rows.length > MOST_ROWS)
    return {
      rows: [],
      findings: [
        {
          level: 'error',
          line: rows.length === 0 ? 2 : 0,
          field: 'rows',
          text:
            rows.length === 0
              ? `the table has a header but no ${what}`
              : `${rows.length} ${what}; the most a table may hold is 20,000`,
        },
      ],
    }
  const findings: Finding[] = []
  const all = rows.map((row, i) => {
    const reader = new Reader(row, i + 2)
    const one = read(reader)
    findings.push(...reader.findings)
    return one
  })
  return { rows: all, findings }
}

/** Reads releases, oldest first; findings for bad data, never an exception. */
export function readReleases(
  name: string,
  rows: readonly Row[],
  columns: readonly string[],
): Read<ReleaseTable> {
  const read = readRows(rows, columns, ['release'], 'releases', (r): Release => {
    const state = r.state('state', ['unstable', 'withdrawn'])
    return {
      name: r.named('release'),
      date: r.date('date'),
      needs: r.orNull('needs'),
      holds: r.orNull('holds'),
      unstable: state.has('unstable'),
      withdrawn: state.has('withdrawn'),
      source: r.text('source'),
      trust: r.number('trust', USUAL_TRUST, 0, 1),
    }
  })
  const findings = read.findings.length ? read.findings : tableFaults({ releases: read.rows, support: [] })
  return { of: findings.length ? null : { name, releases: read.rows }, findings: firstFindings(findings) }
}

/** Reads which releases start which CPU; whether those releases exist is told beside the releases. */
export function readCpus(name: string, rows: readonly Row[], columns: readonly string[]): Read<CpuTable> {
  const { rows: support, findings } = readRows(rows, columns, ['cpu', 'from'], 'CPUs', (r): SupportRow => ({
    cpu: r.named('cpu'),
    family: r.text('family'),
    from: r.named('from'),
    until: r.orNull('until'),
    unstable: r.state('state', ['unstable']).has('unstable'),
    source: r.text('source'),
    date: r.date('date'),
    trust: r.number('trust', USUAL_TRUST, 0, 1),
    ...r.signature('signature'),
  }))
  return { of: findings.length ? null : { name, support }, findings: firstFindings(findings) }
}

/** Reads the ways of a board; what is left empty is as usual for its kind. */
export function readWays(name: string, rows: readonly Row[], columns: readonly string[]): Read<WayTable> {
  const { rows: ways, findings } = readRows(rows, columns, ['way'], 'ways', (r): Way => {
    const kind = r.one('way', wayKinds)
    const by = r.text('by') === '' ? null : r.one('by', programmerBy)
    if (by !== null && kind !== 'programmer') r.fault('by', 'only a programmer gets there one way or another')
    const usual = usualWays[by ?? kind] ?? usualWays.updater
    const holds = r.orNull('holds')
    if (holds !== null && kind !== 'recovery' && kind !== 'second chip')
      r.fault('holds', 'only a boot block or a second chip holds a release')
    return {
      kind,
      by: kind === 'programmer' ? (by ?? usual.by) : null,
      minutes: r.number('minutes', usual.minutes, 0, 10_000),
      risk: r.number('risk', usual.risk, 0, 0.999),
      price: r.number('price', 0, 0, 1e7),
      from: r.orNull('from'),
      downgrades: r.yes('downgrades', usual.downgrades),
      stepping: r.yes('stepping', usual.stepping),
      holds,
    }
  })
  return { of: findings.length ? null : { name, ways }, findings: firstFindings(findings) }
}

/** What is wrong between the tables of one board: CPUs and ways that name releases that are none. */
export function betweenTables(
  releases: ReleaseTable | null,
  cpus: CpuTable | null,
  ways: WayTable | null,
): readonly Finding[] {
  if (!releases)
    return cpus || ways
      ? [
          {
            level: 'error',
            line: 0,
            field: 'releases',
            text: 'the board has no releases yet: import those first',
          },
        ]
      : []
  const named = new Set(releases.releases.map((r) => r.name))
  return firstFindings([
    ...tableFaults({ releases: releases.releases, support: cpus?.support ?? [] }),
    ...(ways?.ways ?? []).flatMap((w, i) =>
      (['from', 'holds'] as const).flatMap((field) => {
        const said = w[field]
        return said === null || named.has(said)
          ? []
          : [{ level: 'error' as const, line: i + 2, field, text: `${said} is no release of this board` }]
      }),
    ),
  ])
}

const words = (...of: (string | false)[]) => of.filter(Boolean).join(' ')
const yes = (is: boolean) => (is ? 'yes' : 'no')
export const releaseRows = ({ releases }: ReleaseTable): string[][] =>
  releases.map((r) => [
    r.name,
    r.date ?? '',
    r.needs ?? '',
    r.holds ?? '',
    words(r.unstable && 'unstable', r.withdrawn && 'withdrawn'),
    r.source,
    String(r.trust),
  ])
export const cpuRows = ({ support }: CpuTable): string[][] =>
  support.map((s) => [
    s.cpu,
    s.family,
    s.from,
    s.until ?? '',
    s.unstable ? 'unstable' : '',
    s.source,
    s.date ?? '',
    String(s.trust),
    s.signature === undefined ? '' : saySignature(s.signature),
  ])
export const wayRows = ({ ways }: WayTable): string[][] =>
  ways.map((w) => [
    w.kind,
    w.by ?? '',
    String(w.minutes),
    String(w.risk),
    String(w.price),
    w.from ?? '',
    yes(w.downgrades),
    yes(w.stepping),
    w.holds ?? '',
  ])
