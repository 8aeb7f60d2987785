import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answer } from './answer'
import { operations } from './operations'

/** The command itself, in a process of its own. */
function needle(args: readonly string[], input = '') {
  const run = spawnSync(process.execPath, ['--import', 'tsx', 'cli/needle.ts', ...args], {
    input,
    encoding: 'utf8',
  })
  return { code: run.status, out: run.stdout, err: run.stderr }
}

const at = (name: string, xMm = 0) => ({ name, xMm, yMm: 0 })
const field = (contacts: readonly object[], marks: object) => JSON.stringify({ contacts, marks })

/** The examples of docs/core.md: the request, and what must be in the answer. */
const page = readFileSync('docs/core.md', 'utf8')
const examples = [
  ...page.matchAll(/```json (needle|needle-bad) ([\w.]+)\n([\s\S]*?)```\s+gives\s+```json\n([\s\S]*?)```/g),
].map(([, how, operation, request, shown]) => ({
  bad: how === 'needle-bad',
  operation: operation!,
  request: request!,
  answer: JSON.parse(shown!) as unknown,
}))

/** What of an answer an example speaks of: the same fields, and as many of a list as it shows. */
function shared(whole: unknown, shown: unknown): unknown {
  if (Array.isArray(whole) && Array.isArray(shown))
    return shown.length === 0 ? whole : whole.slice(0, shown.length).map((v, i) => shared(v, shown[i]))
  if (!whole || !shown || typeof whole !== 'object' || typeof shown !== 'object') return whole
  const fields = Object.entries(shown).map(
    ([k, v]) => [k, shared((whole as Record<string, unknown>)[k], v)] as const,
  )
  return Object.fromEntries(fields)
}

describe('docs/core.md', () => {
  it('documents every operation with an example', () => {
    const documented = new Set(examples.map((e) => e.operation))
    expect([...documented].sort()).toEqual(Object.keys(operations).sort())
    for (const name of Object.keys(operations)) expect(page).toContain(`## ${name}\n`)
  })
  it.each(examples)('$operation gives what it says', async ({ bad, operation, request, answer: shown }) => {
    const { code, json } = await answer([operation], request)
    expect(code, JSON.stringify(json)).toBe(bad ? 2 : 0)
    expect(shared(JSON.parse(JSON.stringify(json)), shown)).toEqual(shown)
  })
})

const queued = (queue: readonly object[], hours?: object) =>
  JSON.stringify({ now: '2026-11-30T09:00', queue, ...(hours && { hours }) })
const releases = [{ name: '1' }, { name: '2' }]
/** A request for a route, with something in it otherwise. */
const route = (otherwise: object) =>
  JSON.stringify({
    table: { releases },
    ways: [],
    start: { release: '1', cpu: null },
    want: { cpu: 'x' },
    ...otherwise,
  })

describe('needle', () => {
  it('as a command prints JSON, and errors with exit 2', () => {
    const good = needle(['power.gate'], '{}')
    expect([good.code, (JSON.parse(good.out) as { lamp: string }).lamp]).toEqual([0, 'do not power'])
    const bad = needle(['power.gate'], '{"contacts":-1}')
    expect([bad.code, bad.out, (JSON.parse(bad.err) as { error: { field: string } }).error.field]).toEqual([
      2,
      '',
      'contacts',
    ])
  })
  it('lists and describes its operations', async () => {
    const list = (await answer([], '')).json as { operation: string }[]
    expect(list.map((o) => o.operation)).toEqual(Object.keys(operations))
    expect((await answer(['schema', 'socket.plan'], '')).json).toMatchObject({
      type: 'object',
      keys: { school: { allow: ['A', 'B'] } },
    })
  })
  it.each([
    [['cabbage'], '{}', 'operation', /there is no operation cabbage/],
    [['schema', 'cabbage'], '', 'operation', /there is no operation cabbage/],
    [['power.gate'], '{', 'stdin', /not JSON/],
    [['power.gate'], '{"rails":[{"rail":"9v","ohms":1,"cpu":"in"}]}', 'rails.0.rail', /must be one of/],
    [['power.gate'], '{"contacts":-1}', 'contacts', /greater than or equal to 0/],
    [['socket.assess'], '{"marks":{}}', 'input', /table, contacts/],
    [['socket.check'], '{"table":"no/such.csv"}', 'table', /cannot be read/],
    [['job.verify'], '{}', 'zip', /required/],
    [['socket.assess'], field([at('A1'), at('A1', 1)], {}), 'contacts.1', /duplicate/],
    [['socket.assess'], field([at('A1')], { B7: { kind: 'low' } }), 'marks.B7', /no contact B7/],
    [['socket.assess'], field([at('A1')], { A1: { kind: 'bent' } }), 'marks.A1.kind', /must be one of/],
    [['socket.plan'], field([at('A1')], { A1: { kind: 'low', heightMm: -9 } }), 'marks.A1.heightMm', /-5/],
    [
      ['socket.plan'],
      field([at('A1')], { A1: { kind: 'touching', touches: 'A2' } }),
      'marks.A1.touches',
      /no contact A2/,
    ],
    [
      ['socket.plan'],
      field([at('A1')], { A1: { kind: 'touching', touches: 'A1' } }),
      'marks.A1.touches',
      /cannot touch itself/,
    ],
    [['firmware.route'], route({ start: { release: '3', cpu: null } }), 'start.release', /3 is no release/],
    [['firmware.route'], route({ want: {} }), 'want', /which CPU is to start/],
    [['firmware.route'], route({ ways: [{ kind: 'ferry' }] }), 'ways.0.kind', /must be one of/],
    [['firmware.route'], route({ ways: [{ kind: 'button', from: '3' }] }), 'ways.0.from', /3 is no release/],
    [
      ['firmware.route'],
      route({
        table: {
          releases: [
            { name: '1', needs: '2' },
            { name: '2', needs: '1' },
          ],
        },
      }),
      'table.releases.0',
      /in a circle/,
    ],
    [
      ['firmware.route'],
      route({ table: { releases, support: [{ cpu: 'x', from: '2', until: '1' }] } }),
      'table.support.0',
      /ends with 1 before it begins with 2/,
    ],
    [['firmware.version'], JSON.stringify({ table: { releases }, others: 0 }), 'prior', /ruled out/],
    [
      ['firmware.kit'],
      JSON.stringify({ boards: [{ board: 'b', table: { releases }, mayHold: ['7'] }], cpus: [] }),
      'boards.0.mayHold.0',
      /7 is no release/,
    ],
    [['firmware.kit'], '{"boards":[],"cpus":[],"dropped":"3x"}', 'dropped', /no CPU here/],
    [['proof.plan'], '{"groups":["soup"]}', 'groups.0', /must be one of/],
    [['proof.plan'], '[]', 'input', /object/],
    [['proof.starts'], '{"starts":5,"failures":6}', 'failures', /less than or equal to starts/],
    [['shop.promise'], '{"now":"2026-02-30T09:00","queue":[]}', 'now', /a moment of the calendar/],
    [['shop.promise'], queued([{ id: 'a', minutesLeft: -5 }]), 'queue.0.minutesLeft', /greater than/],
    [
      ['shop.promise'],
      queued([{ id: 'a', minutesLeft: 5, notBefore: '2026-11-31T10:00' }]),
      'queue.0.notBefore',
      /a moment of the calendar/,
    ],
    [
      ['shop.promise'],
      queued([
        { id: 'a', minutesLeft: 5 },
        { id: 'a', minutesLeft: 6 },
      ]),
      'queue.1',
      /a duplicate/,
    ],
    [
      ['shop.promise'],
      queued([], { week: [[960, 540], [540, 960], ...Array.from({ length: 5 }, () => null)] }),
      'hours.week.0.1',
      /ends before it begins/,
    ],
    [
      ['shop.promise'],
      queued([], { week: Array.from({ length: 7 }, () => null) }),
      'hours.week',
      /nothing is ever ready/,
    ],
    [['shop.promise'], queued([], { closed: ['2026-13-01'] }), 'hours.closed.0', /a day of the calendar/],
  ])('%j %s is refused at %s', async (args, input, field, text) => {
    const { code, json } = await answer(args, input)
    expect(code).toBe(2)
    const { error } = json as { error: { field: string; text: string } }
    expect(error.field).toBe(field)
    expect(error.text).toMatch(text)
  })
})

it('proof.plan takes a soldered holder for more than a cell, whatever else is said', async () => {
  const owed = async (request: object) => {
    const { json } = await answer(['proof.plan'], JSON.stringify(request))
    return (json as { tests: { id: string }[] }).tests.map((test) => test.id).sort()
  }
  const cell = { cell: true, cellAlone: true }
  expect(await owed(cell)).toEqual(['cold starts', 'settings'])
  expect(await owed({ repaired: [{ fault: 'cell weak' }] })).toEqual(['cold starts', 'settings'])
  expect(await owed({ ...cell, repaired: [{ fault: 'cell holder' }] })).toContain('temperature')
})

it('job.verify says of a file that is no ZIP that it is none', async () => {
  const { code, json } = await answer(['job.verify'], '{"zip":"docs/core.md"}')
  expect(code).toBe(0)
  expect(json).toMatchObject({ good: false, findings: [expect.anything()] })
})

/** Every place in a request, as a path. */
const places = (value: unknown, path: readonly string[] = []): string[][] =>
  value !== null && typeof value === 'object'
    ? Object.entries(value).flatMap(([key, inner]) => [[...path, key], ...places(inner, [...path, key])])
    : []

/** The request with one place of it changed, or taken out. */
function changed(request: unknown, [key, ...rest]: readonly string[], to: unknown): unknown {
  const copy = (Array.isArray(request) ? [...(request as unknown[])] : { ...(request as object) }) as Record<
    string,
    unknown
  >
  if (rest.length > 0) copy[key!] = changed(copy[key!], rest, to)
  else if (to === undefined) delete copy[key!]
  else copy[key!] = to
  return copy
}

describe('needle, given anything', () => {
  const sound = async (operation: string, input: string) => {
    const { code, json } = await answer([operation], input)
    if (code === 0) {
      expect(JSON.stringify(json)).not.toMatch(/undefined|NaN|Infinity/)
      return
    }
    const { error } = json as { error: { field: string; text: string } }
    expect(error.field.length * error.text.length, JSON.stringify(error)).toBeGreaterThan(0)
  }
  const good = examples.filter((e) => !e.bad)
  const value = fc.oneof(
    fc.jsonValue({ maxDepth: 2 }),
    fc.constantFrom(undefined, -1, 1e308, 0, '', 'A1', []),
  )

  it('answers or refuses, and never falls over', async () => {
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...Object.keys(operations)), fc.json({ maxDepth: 3 }), sound),
    )
  })
  it('answers or refuses when one place of a good request is changed', async () => {
    const change = fc.constantFrom(...good).chain((example) => {
      const request = JSON.parse(example.request) as unknown
      const all = places(request)
      const path = all.length > 0 ? fc.constantFrom(...all) : fc.constant(['x'])
      return fc.tuple(path, value).map(([where, to]) => ({
        operation: example.operation,
        request: changed(request, where, to),
      }))
    })
    await fc.assert(
      fc.asyncProperty(change, ({ operation, request }) => sound(operation, JSON.stringify(request))),
    )
  })
})

describe('triage by the order of what was seen', () => {
  const odds = (input: object) => answer(['triage.odds'], JSON.stringify(input))
  const start = (test: string, outcome: string, mended: readonly string[] = []) => ({ test, outcome, mended })
  it('takes what a test has put right for good as gone from then on', async () => {
    const seen = [start('as it came', 'memory lamp'), start('settings cleared', 'system loads')]
    const share = async (evidence: object[]) => {
      const { faults } = (await odds({ evidence })).json as { faults: { fault: string; odds: number }[] }
      return faults.find((f) => f.fault === 'settings')?.odds ?? 0
    }
    expect(await share(seen.slice(0, 1))).toBeGreaterThan(0.05)
    expect(await share(seen)).toBeLessThan(0.01)
  })
  it('refuses evidence that knows less of the repairs than what came before it', async () => {
    const evidence = [start('ohms 12v', 'good', ['12 V short']), start('as it came', 'system loads')]
    expect(await odds({ evidence })).toMatchObject({
      code: 2,
      json: { error: { field: 'evidence.1.mended' } },
    })
  })
})
