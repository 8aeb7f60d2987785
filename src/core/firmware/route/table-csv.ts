import { firstFindings } from '@/core/tables/finding'
import type { Finding, Row } from '@/core/tables/finding'
import { readRows } from '@/core/tables/row-reader'
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

const signatureOf = (text: string | null) => (text === null ? {} : { signature: parseInt(text, 16) })

interface Read<T> {
  readonly body: T | null
  readonly findings: readonly Finding[]
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
  return { body: findings.length ? null : { name, releases: read.rows }, findings: firstFindings(findings) }
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
    ...signatureOf(r.hex('signature', '60A51')),
  }))
  return { body: findings.length ? null : { name, support }, findings: firstFindings(findings) }
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
  return { body: findings.length ? null : { name, ways }, findings: firstFindings(findings) }
}

/**
 * What is wrong between the tables of one board: CPUs and ways that name releases that are none.
 *
 * @param changed the table that is to be kept; a fault in another is told by that one's name and line
 */
export function betweenTables(
  releases: ReleaseTable | null,
  cpus: CpuTable | null,
  ways: WayTable | null,
  changed: 'releases' | 'cpus' | 'ways',
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
  const inTable = (table: typeof changed, called: string) => (f: Finding) =>
    table === changed ? f : { ...f, line: 0, field: called, text: `line ${f.line} of ${called}: ${f.text}` }
  const ofCpus = tableFaults({ releases: releases.releases, support: cpus?.support ?? [] })
  const ofWays = (ways?.ways ?? []).flatMap((w, i) =>
    (['from', 'holds'] as const).flatMap((field): Finding[] => {
      const said = w[field]
      return said === null || named.has(said)
        ? []
        : [{ level: 'error', line: i + 2, field, text: `${said} is no release of this board` }]
    }),
  )
  return firstFindings([
    ...ofCpus.map(inTable('cpus', 'the CPUs')),
    ...ofWays.map(inTable('ways', 'the ways')),
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
