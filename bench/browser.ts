import type { Entry } from '@/core/job/job-state'

// The figures that need a server and a browser: pages of the demo, frames of the map, the answer to a mark.
import { chromium } from '@playwright/test'
import type { Browser, Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { performance } from 'node:perf_hooks'
import { zipSync } from 'fflate'
import { runToEnd } from '@/core/run-to-end'
import { seeded } from '@/core/maths/seeded'
import { generateField, rowName } from '@/core/socket/model/generate'
import { takePhoto } from '@/simulated-bench/microscope-camera'
import { packJob } from '@/server/job-zip'
import { shotOf } from '@/stations/socket/photo/camera-shot'
import { demoSockets } from '../demo/sockets'
import { figure } from './figure'
import type { Figure } from './figure'
import { answersOn, ensureBuild, ensureDatabase, layShop, startCluster } from '../scripts/cluster.mjs'

const flags = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
const pages = [
  '/',
  '/library',
  '/record',
  '/people',
  ...['intake', 'triage', 'socket', 'firmware', 'parts', 'proof', 'hand-back'].map(
    (s) => `/jobs/Q-0417/${s}`,
  ),
  '/jobs/Q-0410/socket',
]

/** A job over whose board the simulated camera stands, with a socket of 1,284 contacts. */
const CAMERA_JOB = 'Q-0409'

export async function browserFigures(): Promise<Figure[]> {
  const checkout = process.cwd()
  await ensureBuild(checkout, '.next')
  const cluster = await startCluster({ checkout, throwaway: true })
  const urls = await ensureDatabase(cluster, 'needle_bench')
  layShop(checkout, urls.owner, ['--into=needle_bench'])
  const env = {
    ...process.env,
    PORT: '0',
    HOST: '127.0.0.1',
    DATABASE_URL: urls.app,
    DEMO_SIGN_IN: '1',
    NODE_ENV: 'production' as const,
    NEXT_TELEMETRY_DISABLED: '1',
  }
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    env,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  })
  const gone = new Promise((resolve) => server.on('exit', resolve))
  let browser: Browser | null = null
  const stop = async () => {
    await browser?.close()
    server.kill('SIGTERM')
    await gone
    await cluster.stop()
  }
  const interrupted = () => void stop().then(() => process.exit(130))
  process.once('SIGINT', interrupted)
  process.once('SIGTERM', interrupted)
  try {
    const port = await answersOn(server)
    browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: flags })
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    // The runner that compiles this file names functions through a helper that the page does not have.
    await page.addInitScript('globalThis.__name = (f) => f')
    const url = `http://127.0.0.1:${port}`
    await page.goto(`${url}/sign-in`)
    await page.getByRole('button', { name: /^Tolliver/ }).click()
    await page.waitForURL(`${url}/`)
    return [
      ...(await pageFigures(page, url)),
      ...(await readsWhileBusy(page, url)),
      ...(await mapFigures(page, url, 'Q-0410', '1,716')),
      ...(await mapFigures(page, url, 'Q-0417', '1,284')),
      ...(await largestFigures(page, url)),
      ...(await oddsFigures(page, url)),
      ...(await photoInWorker(page, url)),
    ]
  } finally {
    process.off('SIGINT', interrupted)
    process.off('SIGTERM', interrupted)
    await stop()
  }
}

/** Whole answers of the server, the second time on. */
async function pageFigures(page: Page, url: string): Promise<Figure[]> {
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ')
  const figures: Figure[] = []
  for (const path of pages) {
    const samples: number[] = []
    for (let i = 0; i < 9; i++) {
      const began = performance.now()
      const answer = await fetch(url + path, { headers: { cookie }, redirect: 'error' })
      await answer.arrayBuffer()
      if (i > 0) samples.push(performance.now() - began)
    }
    figures.push(figure(`page ${path}`, samples, 'ms', 300))
  }
  return figures
}

/** A job's ZIP of so many lines. */
function longZip(lines: number): Promise<Buffer> {
  const at = '2026-11-24T09:00:00.000Z'
  const entries = Array.from(
    { length: lines },
    (_, i) =>
      ({
        id: randomUUID(),
        seq: i + 1,
        by: randomUUID(),

        at,

        strikes: null,
        v: 1,
        ...(i % 2 === 0
          ? { kind: 'note', body: { text: `line ${i}` } }
          : { kind: 'look', body: { what: `place ${i}`, seen: 'nothing', clear: true } }),
      }) as Entry,
  )
  const whole = { tag: 'Q-0001', exportedAt: at, entries, socket: null, owner: null, files: [] }
  return buffer(packJob(whole, () => Readable.from([])))
}

/** What a read of a tape takes while each kind of heavy work is under way, until every piece of it is answered. */
async function readsWhileBusy(page: Page, url: string): Promise<Figure[]> {
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ')
  const headers = { cookie, origin: url }
  const get = (path: string) => fetch(url + path, { headers })
  const send = (path: string, body: string | Buffer, type: string) =>
    fetch(url + path, {
      method: 'POST',
      headers: { ...headers, 'content-type': type },
      body: new Uint8Array(Buffer.from(body)),
    })
  const readIn = (zip: Buffer) => send(`/api/jobs/import?id=${randomUUID()}`, zip, 'application/zip')
  const bomb = Buffer.from(zipSync({ 'tape.json': new Uint8Array(504 * 1024 * 1024) }, { level: 9 }))
  const long = await longZip(40_000)
  const wide = JSON.stringify({ name: 'x', csv: `rail\n${','.repeat(1_900_000)}${'1'.repeat(2_000_000)}` })
  const works: Record<string, () => Promise<Response>> = {
    'the camera': () => get('/api/jobs/Q-0417/camera?view=above'),
    'the sheet as PDF': () => get('/api/jobs/Q-0407/sheet'),
    'a ZIP going out': () => get('/api/jobs/Q-0417/zip'),
    'a ZIP of 40,000 lines coming in': () => readIn(long),
    [`a ZIP of ${(bomb.length / 1e6).toFixed(1)} MB that unfolds to 504`]: () => readIn(bomb),
    'a table of 1.9 million columns': () =>
      send('/api/boards/tw-k61/references/rails', wide, 'application/json'),
  }
  const figures: Figure[] = []
  for (const [what, work] of Object.entries(works)) {
    let status = 0
    const began = performance.now()
    const under = work().then(async (answer) => {
      await answer.arrayBuffer()
      status = answer.status
    })
    const samples: number[] = []
    while (status === 0) {
      const asked = performance.now()
      await (await get('/api/jobs/Q-0414/tape')).arrayBuffer()
      samples.push(performance.now() - asked)
    }
    await under
    const took = ((performance.now() - began) / 1000).toFixed(1)
    figures.push(figure(`a read beside ${what} (${took} s, ${status})`, samples, 'ms', 300))
  }
  return figures
}

/** Goes to the map of a job, and waits until it has reckoned. */
async function atMap(page: Page, url: string, tag: string): Promise<{ x: number; y: number }> {
  await page.goto(`${url}/jobs/${tag}/socket`)
  await page.waitForSelector('#map canvas')
  await page.waitForSelector('[data-fresh="true"]')
  const box = (await page.locator('#map').boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}

/** Times between frames while something is done so many times, ms. */
async function frames(page: Page, steps: number, move: (i: number) => Promise<void>): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = []
    const held = window as unknown as { times: number[]; watching: boolean }
    held.times = times
    held.watching = true
    let last = performance.now()
    const watch = (now: number) => {
      times.push(now - last)
      last = now
      if (held.watching) requestAnimationFrame(watch)
    }
    requestAnimationFrame(watch)
  })
  for (let i = 0; i < steps; i++) await move(i)
  return page.evaluate(() => {
    const held = window as unknown as { times: number[]; watching: boolean }
    held.watching = false
    return held.times.slice(2)
  })
}

/** Zooming, panning and marking on the map of a job, from the press of a key to the frame that shows it. */
async function mapFigures(page: Page, url: string, tag: string, contacts: string): Promise<Figure[]> {
  const middle = await atMap(page, url, tag)
  await page.mouse.move(middle.x, middle.y)
  const zoomed = await frames(page, 60, (i) => page.mouse.wheel(0, i < 30 ? -60 : 60))
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -100)
  await page.mouse.move(middle.x, middle.y - 60)
  await page.mouse.down()
  const panned = await frames(page, 80, (i) =>
    page.mouse.move(middle.x + 40 * Math.sin(i / 5), middle.y - 60 + i),
  )
  await page.mouse.up()
  await page.keyboard.press('f')
  await page.mouse.click(middle.x - 60, middle.y - 120)

  const marks: { shown: number; settled: number }[] = []
  for (let i = 0; i < 20; i++) {
    await page.keyboard.press('ArrowDown')
    await page.waitForTimeout(150)
    marks.push(
      await page.evaluate(async () => {
        const lines = () => document.querySelectorAll('[aria-label="Lines of the tape"] > li').length
        const before = lines()
        let fresh: string | undefined
        const watch = new MutationObserver(([change]) => {
          fresh = (change?.target as HTMLElement).dataset.fresh
        })
        watch.observe(document.body, { attributes: true, subtree: true, attributeFilter: ['data-fresh'] })
        const began = performance.now()
        window.dispatchEvent(new KeyboardEvent('keydown', { key: '3', bubbles: true }))
        let shown = 0
        // What is marked as it was already asks nothing new: then nothing is older.
        while ((shown === 0 || fresh === 'false') && performance.now() - began < 5000) {
          await new Promise(requestAnimationFrame)
          if (shown === 0 && lines() !== before) shown = performance.now() - began
        }
        watch.disconnect()
        return { shown, settled: performance.now() - began }
      }),
    )
  }
  // One that is low already is not marked again.
  const marked = marks.filter((m) => m.shown > 0)
  return [
    figure(`map of ${contacts} contacts, zooming: time between frames`, zoomed, 'ms', 33),
    figure(`map of ${contacts} contacts, panning: time between frames`, panned, 'ms', 33),
    figure(
      `a mark on that map on the screen after its key`,
      marked.map((m) => m.shown),
      'ms',
      50,
    ),
    figure(
      `odds and order of work after that mark`,
      marked.map((m) => m.settled),
      'ms',
      300,
    ),
  ]
}

const LARGEST = { rows: 80, columns: 81, pitchMm: 0.7 }

/** The largest field there is on a job of its own, 60 of its contacts leaning. */
async function largestFigures(page: Page, url: string): Promise<Figure[]> {
  const send = async (path: string, data: unknown) => {
    const answer = await page.request.post(`${url}${path}`, { data })
    if (!answer.ok()) throw new Error(`${path}: ${answer.status()} ${await answer.text()}`)
    return (await answer.json()) as Record<string, unknown>
  }
  const grid = {
    ...LARGEST,
    hole: '',
    regions: `A1 ${rowName(LARGEST.rows - 1)}${LARGEST.columns} memory A`,
    beamDeg: [45, 225],
  }
  const { kept } = await send('/api/sockets', { name: 'bench field', kind: 'land-grid', look: false, grid })
  const { tag } = (await send('/api/jobs', { id: randomUUID() })) as { tag: string }
  const socket = generateField({
    id: '',
    name: '',
    kind: 'land-grid',
    ...LARGEST,
    holes: [],
    beamDeg: [45, 225],
    regions: [],
  })
  const draw = seeded(6480)
  const put = async (kind: string, body: object) => {
    const { entries } = (await (await page.request.get(`${url}/api/jobs/${tag}/tape`)).json()) as {
      entries: { seq: number }[]
    }
    const basis = Math.max(0, ...entries.map((e) => e.seq))
    const at = new Date().toISOString()
    await send(`/api/jobs/${tag}/tape`, { id: randomUUID(), kind, strikes: null, at, basis, body })
  }
  await put('ticket', { set: { socketId: kept } })
  await put('pass', { name: 'before' })
  for (let i = 0; i < 60; i++)
    await put('mark', {
      contacts: [socket.contacts[Math.floor(draw() * socket.contacts.length)]!.name],
      mark: { kind: 'lean', leanMm: [0.3 * (draw() - 0.5), 0.3 * (draw() - 0.5)] },
    })
  return mapFigures(page, url, tag, (LARGEST.rows * LARGEST.columns).toLocaleString())
}

const oddsThere = '[aria-label="Likely causes"][aria-busy="false"]'

/** The odds of a job: on opening its page, and on coming to triage from another of its stations. */
async function oddsFigures(page: Page, url: string): Promise<Figure[]> {
  const opened: number[] = []
  const reached: number[] = []
  for (let i = 0; i < 10; i++) {
    // From a bench list that has come to rest, as one opens a job.
    await page.goto(`${url}/`)
    await page.waitForLoadState('networkidle')
    await page.goto(`${url}/jobs/Q-0417/triage`)
    opened.push(
      await page.evaluate(async (there) => {
        while (!document.querySelector(there)) await new Promise(requestAnimationFrame)
        return performance.now()
      }, oddsThere),
    )
    await page.goto(`${url}/jobs/Q-0417/intake`)
    await page.waitForSelector('[data-next-step]')
    await page.waitForLoadState('networkidle')
    const began = performance.now()
    await page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: /^Triage/ })
      .click()
    await page.waitForSelector(oddsThere)
    reached.push(performance.now() - began)
  }
  return [
    figure(`odds of triage, its page opened from the bench list`, opened, 'ms', 300),
    figure(`odds of triage, from another station`, reached, 'ms', 300),
  ]
}

/** From the key to what was read, with the photo of the camera stand-in, in the worker of the page. */
async function photoInWorker(page: Page, url: string): Promise<Figure[]> {
  await atMap(page, url, CAMERA_JOB)
  const { entries } = (await (await page.request.get(`${url}/api/jobs/${CAMERA_JOB}/tape`)).json()) as {
    entries: { seq: number }[]
  }
  const socket = demoSockets.lg1284
  const shot = shotOf(socket, { view: 'above' }, Math.max(...entries.map((e) => e.seq)))
  const truth = runToEnd(takePhoto(socket, {}, shot))
  await page.keyboard.press('y')
  const asks: number[] = []
  const photo = page.getByRole('application')
  for (let i = 0; i < 4; i++) {
    if (i > 0) await page.getByRole('button', { name: 'Put it away' }).click()
    const began = performance.now()
    await page.getByRole('button', { name: 'from above', exact: true }).click()
    await photo.waitFor()
    // The first picture of all starts the thread that takes it.
    if (i > 0) asks.push(performance.now() - began)
  }
  for (let i = 0; i < 4; i++) {
    await photo.waitFor()
    const asked = /tip of (\w+)/.exec((await photo.getAttribute('aria-label'))!)![1]!
    const { px } = truth.tips.find((t) => t.name === asked)!
    const box = (await photo.boundingBox())!
    await page.mouse.click(
      box.x + (px[0] / shot.widthPx) * box.width,
      box.y + (px[1] / shot.heightPx) * box.height,
    )
    await page.getByRole('button', { name: `Take the click on ${asked} away` }).waitFor()
  }
  const samples: number[] = []
  for (let i = 0; i < 5; i++) {
    const began = performance.now()
    await page.keyboard.press('a')
    await page.getByRole('progressbar', { name: /^Reading/ }).waitFor()
    await page.getByText('Read. Another click may be added').waitFor()
    samples.push(performance.now() - began)
  }
  const megapixels = Math.round((shot.widthPx * shot.heightPx) / 1e6)
  return [
    figure(`from the camera’s button to the first click asked for`, asks, 'ms', 2000),
    figure(`a photo of ${megapixels} MP read in a browser’s worker`, samples, 'ms', 3000),
  ]
}
