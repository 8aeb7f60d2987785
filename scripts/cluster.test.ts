import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import pg from 'pg'
import { accepting, answersOn, ensureDatabase, freePort, hashOf, startCluster } from './cluster.mjs'

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

describe('a server that is started', () => {
  const started = (script: string) =>
    spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] })
  it('says itself on which port it answers, and goes on without its channel', async () => {
    const child = started('process.send({ port: 4711 }); process.on("disconnect", () => process.exit(7))')
    const ended = once(child, 'exit')
    expect(await answersOn(child)).toBe(4711)
    expect((await ended)[0]).toBe(7)
  })
  it('is not waited for once it has stopped', async () => {
    await expect(answersOn(started('process.exit(3)'))).rejects.toThrow(
      'the server stopped before it answered (exit 3)',
    )
  })
  it('names a port that is taken, and ends', async () => {
    const other = createServer()
    await once(other.listen(0, '127.0.0.1'), 'listening')
    const { port } = other.address() as { port: number }
    const child = spawn(process.execPath, ['scripts/serve.mjs'], {
      env: { ...process.env, PORT: String(port) },
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    })
    let told = ''
    child.stderr!.on('data', (text) => (told += String(text)))
    await expect(answersOn(child)).rejects.toThrow('(exit 1)')
    expect(told).toContain(`Port ${port} is taken`)
    other.close()
  })
})

describe('a database that dies under the start command', () => {
  it('is told, and comes up again on the same port with the same data', async () => {
    chmodSync(checkout, 0o755)
    let died: () => void = () => undefined
    const death = new Promise<void>((resolve) => (died = resolve))
    const cluster = await startCluster({ checkout, onDeath: () => died() })
    try {
      const { owner } = await ensureDatabase(cluster, 'bench')
      const ask = async (text: string) => {
        const client = new pg.Client({ connectionString: owner })
        await client.connect()
        const answer = await client.query(text)
        await client.end()
        return answer.rows as unknown[]
      }
      await ask('create table kept (word text)')
      cluster.child.kill('SIGKILL')
      await death
      await cluster.revive()
      await ensureDatabase(cluster, 'bench')
      expect(await ask('select * from kept')).toEqual([])
    } finally {
      await cluster.stop()
    }
  }, 120_000)
})

describe('a database that died while one of its processes is still busy', () => {
  it('comes up again as soon as that one has let go', async () => {
    chmodSync(checkout, 0o755)
    const cluster = await startCluster({ checkout })
    try {
      await ensureDatabase(cluster, 'bench')
      const { pid } = cluster.child
      const busy = Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ')[0])
      process.kill(busy, 'SIGSTOP')
      const gone = new Promise((resolve) => cluster.child.on('exit', resolve))
      cluster.child.kill('SIGKILL')
      await gone
      const back = cluster.revive()
      setTimeout(() => process.kill(busy, 'SIGCONT'), 1500)
      await back
      await ensureDatabase(cluster, 'bench')
    } finally {
      await cluster.stop()
    }
  }, 120_000)
})

describe('a database whose plug was pulled', () => {
  const rows = async (url: string, text: string) => {
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    const { rows } = await client.query<{ word: string }>(text)
    await client.end()
    return rows
  }
  const lock = () => join(checkout, '.arch-needle/postgres/postmaster.pid')

  it('starts again, also when its lock file names another process by now, and keeps what was written', async () => {
    chmodSync(checkout, 0o755)
    let cluster = await startCluster({ checkout })
    try {
      const { owner } = await ensureDatabase(cluster, 'bench')
      await rows(owner, 'create table kept (word text)')
      await rows(owner, `insert into kept select 'word ' || n from generate_series(1, 20000) n`)
      const gone = new Promise((resolve) => cluster.child.on('exit', resolve))
      cluster.child.kill('SIGKILL')
      await gone
      writeFileSync(lock(), readFileSync(lock(), 'utf8').replace(/^\d+/, String(process.pid)))
      cluster = await startCluster({ checkout })
      const again = await ensureDatabase(cluster, 'bench')
      expect(await rows(again.owner, 'select count(*)::int as word from kept')).toEqual([{ word: 20000 }])
      // A second start takes over from a server that outlived its parent.
      const before = cluster
      cluster = await startCluster({ checkout })
      expect(before.child.exitCode ?? before.child.signalCode).not.toBeNull()
      expect(await rows((await ensureDatabase(cluster, 'bench')).app, 'select 1 as word')).toHaveLength(1)
    } finally {
      await cluster.stop()
    }
  }, 120_000)
})
