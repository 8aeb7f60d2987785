// The figures that need a server and a browser: pages of the demo, frames of the map, the answer to a mark.
import { chromium } from '@playwright/test'
import type { Browser, Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { performance } from 'node:perf_hooks'
import { figure } from './figure'
import type { Figure } from './figure'
import {
  accepting,
  ensureBuild,
  ensureDatabase,
  freePort,
  layShop,
  startCluster,
} from '../scripts/cluster.mjs'

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

export async function browserFigures(): Promise<Figure[]> {
  const checkout = process.cwd()
  ensureBuild(checkout, '.next')
  const cluster = await startCluster({ checkout, throwaway: true })
  const urls = await ensureDatabase(cluster, 'needle_bench')
  layShop(checkout, urls.owner)
  const port = String(await freePort())
  const env = {
    ...process.env,
    DATABASE_URL: urls.app,
    DEMO_SIGN_IN: '1',
    NODE_ENV: 'production' as const,
    NEXT_TELEMETRY_DISABLED: '1',
  }
  const server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '-p', port, '-H', '127.0.0.1'],
    { env, stdio: ['ignore', 'ignore', 'inherit'] },
  )
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
    await accepting(Number(port), server)
    browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: flags })
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    // The runner that compiles this file names functions through a helper that the page does not have.
    await page.addInitScript('globalThis.__name = (f) => f')
    const url = `http://127.0.0.1:${port}`
    await page.goto(`${url}/sign-in`)
    await page.getByRole('button', { name: /^Tolliver/ }).click()
    await page.waitForURL(`${url}/`)
    return [...(await pageFigures(page, url)), ...(await mapFigures(page, url))]
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

async function mapFigures(page: Page, url: string): Promise<Figure[]> {
  await page.goto(`${url}/jobs/Q-0410/socket`)
  await page.waitForSelector('#map canvas')
  await page.waitForSelector('[data-fresh="true"]')
  const box = (await page.locator('#map').boundingBox())!
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  await page.mouse.move(middle.x, middle.y)
  const frames = async (move: (i: number) => Promise<void>, steps: number) => {
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
  const zoomed = await frames((i) => page.mouse.wheel(0, i < 30 ? -60 : 60), 60)
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -100)
  await page.mouse.move(middle.x, middle.y - 60)
  await page.mouse.down()
  const panned = await frames((i) => page.mouse.move(middle.x + 40 * Math.sin(i / 5), middle.y - 60 + i), 80)
  await page.mouse.up()
  await page.keyboard.press('f')
  await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.2)

  // From the press of a key to the next frame that shows the mark on the tape.
  const marks: number[] = []
  for (let i = 0; i < 20; i++) {
    await page.keyboard.press('ArrowDown')
    await page.waitForTimeout(50)
    marks.push(
      await page.evaluate(async () => {
        const lines = () => document.querySelectorAll('[aria-label="Lines of the tape"] > li').length
        const before = lines()
        const began = performance.now()
        window.dispatchEvent(new KeyboardEvent('keydown', { key: '3', bubbles: true }))
        while (lines() === before && performance.now() - began < 5000)
          await new Promise(requestAnimationFrame)
        return performance.now() - began
      }),
    )
  }
  return [
    figure('map of 1,716 contacts, zooming: time between frames', zoomed, 'ms', 33),
    figure('map of 1,716 contacts, panning: time between frames', panned, 'ms', 33),
    figure('a mark on the screen after its key', marks, 'ms', 50),
  ]
}
