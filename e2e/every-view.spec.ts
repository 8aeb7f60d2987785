import { randomUUID } from 'node:crypto'
import { demoSockets } from '../demo/sockets'
import { axe, atStation, awake, expect, test } from './bench'

const views = [
  '/',
  '/library',
  '/practice',
  '/practice/needle',
  '/practice/hot-air',
  '/practice/what-was-it',
  '/shelf',
  '/library/faults',
  '/library/bench',
  '/library/hours',
  '/record/came-true',
  '/library/boards/br-sound-7',
  `/library/sockets/${demoSockets.pg906.id}`,
  `/library/sockets/${demoSockets.pg906.id}/edit`,
  '/record',
  '/people',
  '/jobs/Q-0417/intake',
  '/jobs/Q-0417/triage',
  '/jobs/Q-0417/socket',
  '/jobs/Q-0412/triage',
  '/jobs/Q-0418/triage',
  '/jobs/Q-0413/triage',
  '/jobs/Q-0413/firmware',
  '/jobs/Q-0416/parts',
  '/jobs/Q-0407/proof',
  '/jobs/Q-0407/hand-back',
  '/jobs/Q-0418/socket',
] as const

const half = Math.ceil(views.length / 2)
for (const [which, some] of [
  ['first half', ['/sign-in', ...views.slice(0, half)]],
  ['second half', views.slice(half)],
] as const)
  test(`axe finds nothing in any view, in paper and scope, and none scrolls sideways at 1024 pixels: ${which}`, async ({
    bench: page,
    shop,
    context,
  }) => {
    test.setTimeout(300_000)
    await context.addCookies([{ name: 'theme', value: 'paper', url: shop.url }])
    for (const view of some) {
      await page.setViewportSize({ width: 1280, height: 800 })
      await page.goto(`${shop.url}${view}`)
      await expect(page.locator('html')).toHaveAttribute('data-theme', 'paper')
      if (view.endsWith('socket'))
        await expect(
          page.getByText('starts as it stands: ').or(page.getByText('The map needs')),
        ).not.toContainText('…')
      await awake(page)
      // Until the tabs are there, a hidden button catches the focus for them.
      await expect(page.locator('main button[aria-hidden="true"]')).toHaveCount(0)
      const found = async (look: ReturnType<typeof axe>) =>
        (await look.analyze()).violations.map(
          (v) => `${view} ${v.id}: ${v.nodes.map((n) => n.html).join(' ')}`,
        )
      expect(await found(axe(page))).toEqual([])
      // Only the colours differ between the themes.
      await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'scope'))
      expect(await found(axe(page).withRules(['color-contrast'])), 'scope').toEqual([])
      await page.setViewportSize({ width: 1024, height: 768 })
      const over = await page.evaluate(() => {
        const main = document.querySelector('main')!
        return Math.max(
          document.documentElement.scrollWidth - window.innerWidth,
          main.scrollWidth - main.clientWidth,
        )
      })
      expect(over, view).toBeLessThanOrEqual(0)
    }
  })

test('axe finds nothing on any instrument, nor in a review of practice', async ({ bench: page, shop }) => {
  await atStation(page, shop, 'Q-0412', 'triage')
  const tabs = page.getByRole('region', { name: 'Evidence' }).getByRole('tab')
  for (let i = 0; i < (await tabs.count()); i++) {
    await tabs.nth(i).click()
    const { violations } = await axe(page).include('#instruments').analyze()
    expect(violations.map((v) => `tab ${i} ${v.id}: ${v.nodes.map((n) => n.html).join(' ')}`)).toEqual([])
  }
  const data = { id: randomUUID(), exercise: 'outside', seed: 3 }
  const laid = await page.request.post(`${shop.url}/api/practice`, { data })
  const { tag } = (await laid.json()) as { tag: string }
  expect((await page.request.post(`${shop.url}/api/practice/${tag}`)).ok()).toBe(true)
  await page.goto(`${shop.url}/practice/${tag}`)
  await expect(page.getByText('Nothing was tried.')).toBeVisible()
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(' ')}`)).toEqual([])
})
