import { spawnSync } from 'node:child_process'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

const owner = process.env.TEST_OWNER_URL

/** The demo shop beside a real one: `npm test` gives a database, without it this is skipped. */
describe.skipIf(!owner)('a database that is not the demo’s', () => {
  const name = `real_${process.pid}`
  const url = new URL(owner ?? 'postgres://nowhere/x')
  url.pathname = `/${name}`
  const ask = async (where: string, text: string) => {
    const client = new pg.Client({ connectionString: where })
    await client.connect()
    try {
      return (await client.query(text)).rows as { n: number }[]
    } finally {
      await client.end()
    }
  }
  beforeAll(async () => {
    await ask(owner!, `create database ${name}`)
    await ask(url.href, 'create table customers (n int)')
    await ask(url.href, 'insert into customers values (7)')
  })
  afterAll(() => ask(owner!, `drop database ${name} with (force)`))
  const load = (...flags: string[]) =>
    spawnSync(process.execPath, ['--conditions=react-server', '--import', 'tsx', 'demo/load.ts', ...flags], {
      env: { ...process.env, DATABASE_URL: url.href },
      encoding: 'utf8',
    })
  const customers = () => ask(url.href, 'select n from customers')

  it.each([[[]], [['--reset']], [['--into=another']], [['--reset', '--empty']]])(
    'is left alone with %j, and the way on is said',
    async (flags) => {
      const { status, stderr } = load(...flags)
      expect(status).toBe(1)
      expect(stderr).toContain(`The database ${name} is not the demo's`)
      expect(stderr).toContain(`--into=${name}`)
      expect(await customers()).toEqual([{ n: 7 }])
    },
  )
  it('is opened as an empty shop, with a code for its first lead', async () => {
    const { status, stdout } = load('--empty')
    expect(status).toBe(0)
    expect(stdout).toMatch(/opens the shop with this code: \S+/)
    expect(await ask(url.href, 'select count(*)::int as n from account')).toEqual([{ n: 0 }])
    expect(await customers()).toEqual([{ n: 7 }])
  })
})
