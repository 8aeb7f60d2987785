import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { accepting, freePort, hashOf } from './cluster.mjs'

let checkout: string
beforeEach(() => {
  checkout = mkdtempSync(join(tmpdir(), 'needle-test-'))
  mkdirSync(join(checkout, 'src/core'), { recursive: true })
  writeFileSync(join(checkout, 'src/core/a.ts'), 'a')
  writeFileSync(join(checkout, 'package-lock.json'), '{}')
})
afterEach(() => rmSync(checkout, { recursive: true, force: true }))

describe('what decides whether something is built again', () => {
  const now = () => hashOf(checkout, ['src', 'package-lock.json', 'not-there.json'])
  it('stays the same while nothing changes', () => {
    expect(now()).toBe(now())
  })
  it.each([
    ['a changed file', () => writeFileSync(join(checkout, 'src/core/a.ts'), 'b')],
    ['a new file', () => writeFileSync(join(checkout, 'src/core/b.ts'), '')],
    [
      'a file moved',
      () => (rmSync(join(checkout, 'src/core/a.ts')), writeFileSync(join(checkout, 'src/a.ts'), 'a')),
    ],
    ['another lockfile', () => writeFileSync(join(checkout, 'package-lock.json'), '{ }')],
    ['a file that was not there', () => writeFileSync(join(checkout, 'not-there.json'), '')],
  ])('changes with %s', (_, change) => {
    const before = now()
    change()
    expect(now()).not.toBe(before)
  })
})

describe('waiting for a server', () => {
  it('ends when it accepts', async () => {
    const port = await freePort()
    const server = createServer()
    setTimeout(() => server.listen(port, '127.0.0.1'), 150)
    await accepting(port, null)
    server.close()
  })
  it('ends with its exit when it dies first', async () => {
    await expect(accepting(await freePort(), { exitCode: 3 })).rejects.toThrow(
      'the server stopped before it answered (exit 3)',
    )
  })
})
