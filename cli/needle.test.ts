import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { operations } from './operations'

function needle(args: readonly string[], input = '') {
  const run = spawnSync(process.execPath, ['--import', 'tsx', 'cli/needle.ts', ...args], {
    input,
    encoding: 'utf8',
  })
  return { code: run.status, out: run.stdout, err: run.stderr }
}

/** The examples of docs/core.md: the request, and what must be in the answer. */
const page = readFileSync('docs/core.md', 'utf8')
const examples = [
  ...page.matchAll(/```json (needle|needle-bad) ([\w.]+)\n([\s\S]*?)```\s+gives\s+```json\n([\s\S]*?)```/g),
].map(([, how, operation, request, answer]) => ({
  bad: how === 'needle-bad',
  operation: operation!,
  request: request!,
  answer: JSON.parse(answer!) as unknown,
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
  it.each(examples)('$operation gives what it says', ({ bad, operation, request, answer }) => {
    const { code, out, err } = needle([operation], request)
    expect(code, err).toBe(bad ? 2 : 0)
    expect(shared(JSON.parse(bad ? err : out), answer)).toEqual(answer)
  })
})

describe('needle', () => {
  it('lists and describes its operations', () => {
    expect((JSON.parse(needle(['list']).out) as { operation: string }[]).map((o) => o.operation)).toEqual(
      Object.keys(operations),
    )
    expect(JSON.parse(needle(['schema', 'socket.plan']).out)).toMatchObject({
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
  ])('%j %s is refused at %s', (args, input, field, text) => {
    const { code, err } = needle(args, input)
    expect(code).toBe(2)
    const { error } = JSON.parse(err) as { error: { field: string; text: string } }
    expect(error.field).toBe(field)
    expect(error.text).toMatch(text)
  })
})
