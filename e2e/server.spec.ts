import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { atStation, awake, expect, saved, Shop, takeIn, tapeLines, test, type, draw, drawer } from './bench'
import { Wire } from './wire'

/** Holds a key as a foot on a switch does: the browser repeats it. */
async function hold(page: Page, key: string, times = 12): Promise<void> {
  for (let i = 0; i < times; i++) await page.keyboard.down(key)
  await page.keyboard.up(key)
}
async function withSocket(page: Page, shop: Shop): Promise<string> {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Model').selectOption({ label: 'Tarnworks TW-K61 rev B' })
  await expect(tapeLines(page).last()).toContainText('ticket')
  await saved(page)
  return tag
}

test.describe('a key that is held', () => {
  test('proves one look of the sweep, not the whole field, and leaving the station is no fault', async ({
    bench: page,
    shop,
  }) => {
    const tag = await withSocket(page, shop)
    await atStation(page, shop, tag, 'socket')
    await expect(page.getByText('0 of 1,284 inspected')).toBeVisible()
    await page.keyboard.press('w')
    await expect(page.getByRole('status').filter({ hasText: 'Look at' })).toBeVisible()
    await hold(page, 'Space')
    await expect(tapeLines(page).filter({ hasText: 'inspection: 10 contacts' })).toHaveCount(1)
    await expect(page.getByText('10 of 1,284 inspected')).toBeVisible()
    await page.keyboard.press('g')
    await page.keyboard.press('2')
    await expect(page).toHaveURL(/triage$/)
    await expect(page.getByRole('region', { name: 'Likely causes' })).toBeVisible()
  })
  test('passes one test of the proof, whichever way it is pressed', async ({ bench: page, shop }) => {
    await atStation(page, shop, 'Q-0409', 'proof')
    const passed = tapeLines(page).filter({ hasText: /: pass|cold start: came up/ })
    const before = await passed.count()
    await hold(page, 'p')
    await expect(passed).toHaveCount(before + 1)
    await page
      .getByRole('button', { name: /: passes$/ })
      .first()
      .focus()
    await hold(page, 'Enter')
    await expect(passed).toHaveCount(before + 2)
  })
})

test('which neighbour a contact touches is asked, and never picked', async ({ bench: page, shop }) => {
  const tag = await withSocket(page, shop)
  await atStation(page, shop, tag, 'socket')
  await type(page, 'mark M31 low 0.1')
  await draw(page, 'Order')
  await drawer(page, 'Order').getByRole('button', { name: /M31/ }).click()
  await page.keyboard.press('7')
  await expect(tapeLines(page).last()).toContainText(
    'M31 touching, low by 0.10 mm, which neighbour is not said',
  )
  await expect(page.locator('[data-gate]')).toHaveAttribute('data-gate', 'do not power')
  const asked = page.getByRole('group', { name: 'Which neighbour does M31 touch?' })
  await expect(asked.getByRole('button')).toHaveCount(8)
  await page.keyboard.press('6')
  await expect(tapeLines(page).last()).toContainText('M31 touching, low by 0.10 mm, on M32')
  await expect(asked).toHaveCount(0)
})

test('undoing a line in conflict takes it out of hand, and writes nothing', async ({
  bench: page,
  shop,
  browser,
}) => {
  const tag = await withSocket(page, shop)
  await atStation(page, shop, tag, 'socket')
  const other = await (await browser.newContext()).newPage()
  await other.goto(`${shop.url}/sign-in`)
  await other.getByRole('button', { name: /^Maren/ }).click()
  await expect(other).toHaveURL(`${shop.url}/`)
  await atStation(other, shop, tag, 'socket')
  await page.route('**/api/jobs/*/tape**', (route) => route.abort())
  await type(page, 'mark M31 low 0.1')
  await type(other, 'mark M31 high 0.1')
  await saved(other)
  await page.unroute('**/api/jobs/*/tape**')
  await expect(page.getByText('has just written about the same thing')).toBeVisible()
  await page.keyboard.press('z')
  await expect(page.getByText('has just written about the same thing')).toHaveCount(0)
  await saved(page)
  const tape = (await (await page.request.get(`${shop.url}/api/jobs/${tag}/tape`)).json()) as {
    entries: { kind: string }[]
  }
  expect(tape.entries.filter((e) => e.kind === 'strike')).toEqual([])
  expect(tape.entries.filter((e) => e.kind === 'mark')).toHaveLength(1)
  await other.context().close()
})

test('a database that stands still is told, and found again', async ({ bench: page, shop: near }) => {
  const wire = await Wire.to(near.databaseUrl)
  const shop = await Shop.open(wire.url)
  try {
    await page.goto(`${shop.url}/sign-in`)
    const health = async () => (await page.request.get(`${shop.url}/api/health`)).status()
    expect(await health()).toBe(200)
    wire.freeze()
    expect(await health()).toBe(503)
    const answer = await page.request.get(`${shop.url}/api/jobs/Q-0417/tape`)
    expect([answer.status(), await answer.json()]).toMatchObject([
      503,
      { error: { text: expect.stringMatching(/does not answer/) } },
    ])
    // A page asked for meanwhile says so, and comes by itself.
    await page.goto(`${shop.url}/jobs/Q-0417/proof`)
    await expect(page.getByRole('heading', { name: 'This page could not be put together.' })).toBeVisible()
    wire.thaw()
    await expect(async () => expect(await health()).toBe(200)).toPass()
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  } finally {
    await shop.kill()
    wire.close()
  }
})

test('a thread that does not load is told where its answer would stand', async ({ bench: page, shop }) => {
  const data = { id: randomUUID(), exercise: 'outside', seed: 3 }
  const laid = await page.request.post(`${shop.url}/api/practice`, { data })
  const { tag } = (await laid.json()) as { tag: string }
  await page.addInitScript(() => {
    const There = Worker
    if (sessionStorage.getItem('threads') !== 'there')
      window.Worker = class extends There {
        constructor(_: string | URL, options?: WorkerOptions) {
          super('/no-such-thread.js', options)
        }
      }
  })
  await page.goto(`${shop.url}/jobs/Q-0412/triage`)
  await awake(page)
  // What was kept with the tape holds until its next line.
  await page
    .getByRole('group', { name: 'Result' })
    .getByRole('button', { name: /slot B/ })
    .click()
  await expect(page.getByRole('region', { name: 'Likely causes' })).toContainText('not calculated')
  await expect(page.getByText('what comes next was not calculated').first()).toBeVisible()
  expect((await page.request.post(`${shop.url}/api/practice/${tag}`)).ok()).toBe(true)
  await page.goto(`${shop.url}/practice/${tag}`)
  await expect(page.getByRole('alert').filter({ hasText: 'were not scored' })).toBeVisible()
  await page.evaluate(() => sessionStorage.setItem('threads', 'there'))
  await page.reload()
  await expect(page.getByText('Nothing was tried.')).toBeVisible()
})

test('reads are answered while the camera, the sheet and a ZIP are under way', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/`)
  const get = (path: string) => page.request.get(`${shop.url}${path}`)
  let slow = 0
  const heavy = ['/api/jobs/Q-0417/camera?view=above', '/api/jobs/Q-0407/sheet', '/api/jobs/Q-0417/zip'].map(
    async (path) => {
      slow++
      const answer = await get(path)
      slow--
      return answer.status()
    },
  )
  let during = 0
  while (slow > 0) {
    expect((await get('/api/jobs/Q-0414/tape')).status()).toBe(200)
    if (slow > 0) during++
  }
  expect(await Promise.all(heavy)).toEqual([200, 200, 200])
  // Not one at the end, but many on the way.
  expect(during).toBeGreaterThan(5)
})

test('addresses that are none are told so, answers are kept by nobody, and a redirect carries nothing', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  for (const path of [
    '/api/jobs/%00/tape',
    '/api/jobs/Q-0417%00/tape',
    '/api/jobs/nothing/tape',
    '/api/jobs/Q-0417/tape?after=99999999999',
    '/api/jobs/Q-0417/files/zz',
    '/api/sockets/%01',
    '/api/boards/a%00b/references/codes',
    '/jobs/Q-9999/intake',
    '/jobs/%E0%A4%A/intake',
    '/library/boards/a%00',
    '/library/sockets/%E0',
  ]) {
    const { status } = await fetch(`${shop.url}${path}`, {
      headers: { cookie: (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ') },
      redirect: 'manual',
    })
    expect([path, [400, 404].includes(status)]).toEqual([path, true])
  }
  const answer = await page.request.get(`${shop.url}/api/jobs/Q-0417/tape`)
  expect(answer.headers()).toMatchObject({ 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' })
  for (const path of ['/jobs/Q-0417', '/jobs/Q-0417/intake', '/library', '/', '/record']) {
    const unsigned = await fetch(`${shop.url}${path}`, { redirect: 'manual' })
    expect(await unsigned.text()).not.toMatch(/Tarnworks|TW-K61|ticket kiosk/)
  }
  // A name for somebody else's address is not believed, and neither is what a stranger says of itself.
  const forged = await fetch(`${shop.url}/api/jobs/Q-0417/tape`, {
    headers: { 'x-needle-address': '10.0.0.1', 'x-needle-tls': '1', 'x-forwarded-proto': 'https' },
  })
  expect([forged.status, forged.headers.get('strict-transport-security')]).toEqual([401, null])
})
