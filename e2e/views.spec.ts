import type { Page } from '@playwright/test'
import { awake, expect, saved, takeIn, tapeLines, test, type } from './bench'

const cursor = (page: Page) => page.locator('#map')

test('the window is never without its title, however slow the page', async ({
  bench: page,
  shop,
  context,
}) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  const slow = await context.newCDPSession(page)
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 6 })
  await page.evaluate(() => {
    const look = () =>
      document.title || document.documentElement.setAttribute('data-untitled', location.pathname)
    new MutationObserver(look).observe(document, { childList: true, subtree: true })
  })
  await expect(page).toHaveTitle('Arch Needle')
  for (const name of ['Shelf', 'Record', 'Practice', 'Library']) {
    await page.getByRole('navigation').getByRole('link', { name, exact: true }).click()
    await expect(page).toHaveTitle(`${name} · Arch Needle`)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  }
  await page.getByRole('link', { name: 'Arch Needle' }).first().click()
  await page
    .getByRole('link', { name: /Q-0412/ })
    .first()
    .click()
  await expect(page).toHaveTitle(/^Q-0412 triage · Arch Needle$/)
  expect(await page.locator('html').getAttribute('data-untitled')).toBeNull()
})

test('the theme is kept and the first paint is right', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  await page.getByRole('button', { name: 'light / dark' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'scope')
  const html = await (await page.request.get(`${shop.url}/`)).text()
  expect(html).toContain('data-theme="scope"')
})

test('keys: help, stations, tape, undo and redo; at rest while typing', async ({ bench: page, shop }) => {
  await takeIn(page, shop)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('go to firmware')
  await page.keyboard.press('Escape')
  await page.keyboard.press('t')
  await page.keyboard.type('g7z?')
  await expect(page).toHaveURL(/intake$/)
  await page.keyboard.press('ControlOrMeta+A')
  await page.keyboard.type('vbat 2.9')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(tapeLines(page).last()).toContainText('cell 2.9 V')
  await page.keyboard.press('z')
  await expect(page.getByText('cell undone')).toBeVisible()
  await expect(tapeLines(page).first().locator('s')).toHaveText('cell 2.9 V')
  await page.keyboard.press('Shift+Z')
  await expect(tapeLines(page).first().locator('s')).toHaveCount(0)
})

test('a line is struck with its reason and stays readable', async ({ bench: page, shop }) => {
  await takeIn(page, shop)
  await type(page, 'ohm vmem 2.2 cpu out')
  await saved(page)
  await page.getByRole('button', { name: /^Line 1: memory rail/ }).click()
  await page.getByRole('button', { name: 'Strike the line' }).click()
  await expect(page.getByText('Why is it struck? One word is enough.')).toBeVisible()
  await page.getByLabel('Strike it because').fill('probe had slipped')
  await page.getByRole('button', { name: 'Strike the line' }).click()
  await expect(tapeLines(page).first().locator('s')).toHaveText('memory rail to ground 2.2 Ω, CPU out')
  await expect(tapeLines(page).last()).toContainText('struck line 1: probe had slipped')
})

test('the map follows the eyepiece: turned, mirrored, walked as it is seen', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/jobs/Q-0410/socket`)
  await expect(cursor(page)).toHaveAttribute('data-view', '0 plain')
  const at = () => cursor(page).getAttribute('data-cursor')
  const place = (name: string) => [name.replace(/\d+/, ''), Number(name.replace(/\D+/, ''))] as const
  await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
  const start = place((await at())!)
  await page.keyboard.press('ArrowRight')
  expect(place((await at())!)).toEqual([start[0], start[1] + 1])
  await page.keyboard.press('m')
  await expect(cursor(page)).toHaveAttribute('data-view', '0 mirrored')
  await page.keyboard.press('ArrowRight')
  expect(place((await at())!)).toEqual(start)
  await page.keyboard.press('m')
  await page.keyboard.press('r')
  await page.keyboard.press('r')
  await expect(page.getByRole('button', { name: /^turn 180°/ })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  expect(place((await at())!)).toEqual([start[0], start[1] - 1])
})

test('the map is worked with the mouse: point, drag a lean, paint a swath', async ({ bench: page, shop }) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Socket', { exact: true }).selectOption({ label: 'PG-906, 906 contacts' })
  await page.getByLabel('CPU', { exact: true }).focus()
  await page.getByLabel('Owner’s words').focus()
  await saved(page)
  await page.goto(`${shop.url}/jobs/${tag}/socket`)
  await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
  const box = (await cursor(page).locator('canvas').first().boundingBox())!
  const there = { x: box.x + box.width * 0.5, y: box.y + box.height * 0.25 }
  await page.mouse.move(there.x, there.y)
  for (let i = 0; i < 7; i++) await page.mouse.wheel(0, -240)
  await page.mouse.click(there.x, there.y)
  // The contact nearest to the pointer has the needle; its foot is found by leaning it with the mouse.
  const name = (await cursor(page).getAttribute('data-cursor'))!
  await page.mouse.move(there.x, there.y)
  await page.mouse.down()
  await page.mouse.move(there.x + 70, there.y, { steps: 5 })
  await page.mouse.up()
  await expect(tapeLines(page).last()).toContainText(new RegExp(`${name} leaning, 0\\.\\d\\d mm`))
  await page.keyboard.press('f')
  await page.keyboard.down('Shift')
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.7)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.85, { steps: 4 })
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await expect(page.getByText(/\d+ chosen: marks go to all of them/)).toBeVisible()
  await page.keyboard.press('2')
  await expect(tapeLines(page).last()).toContainText(/\d+ contacts leaning, about 0\.20 mm/)
})

test('maps go out as SVG, PNG and CSV', async ({ bench: page, shop }) => {
  const map = async (query: string) => page.request.get(`${shop.url}/api/jobs/Q-0417/map?${query}`)
  const svg = await (await map('as=svg&turn=1&mirror=1&theme=scope')).text()
  expect(svg).toMatch(/^<svg .*<title>Q-0417/)
  const png = await (await map('as=png')).body()
  expect(png.subarray(1, 4).toString()).toBe('PNG')
  expect((await (await map('as=csv')).text()).split('\n')[0]).toContain('name,group,net,kind')
})

test('a landmark with its photo stands on every job of that board', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/library/boards/br-sound-5`)
  await awake(page)
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(page.getByText('What is it? Flash button, debug LEDs, coin cell…')).toBeVisible()
  await page.getByRole('textbox', { name: 'What' }).fill('speaker')
  await page.getByRole('textbox', { name: 'Where' }).fill('left of the memory')
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(page.getByText('speaker is noted.')).toBeVisible()
  await page.goto(`${shop.url}/jobs/Q-0416/intake`)
  await expect(page.getByText('left of the memory')).toBeVisible()
  await page.goto(`${shop.url}/library/boards/br-sound-5`)
  await awake(page)
  await page.getByRole('button', { name: 'Remove speaker' }).click()
  await expect(page.getByText('left of the memory')).toHaveCount(0)
})

test('a changed offer and a lost fragment hold the hand-back until they are settled', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/jobs/Q-0414/hand-back`)
  await expect(page.getByRole('list', { name: 'What holds the hand-back' })).toContainText(
    'The owner has not answered the changed offer',
  )
  await expect(page.getByRole('button', { name: 'Held' })).toBeDisabled()
  await page.getByRole('link', { name: /has not answered the changed offer/ }).click()
  await page.getByRole('button', { name: 'Owner approves' }).click()
  await expect(page.getByText('of 200 min')).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('7')
  await expect(page.getByRole('button', { name: 'Hand it back' })).toBeEnabled()
})

test('the gate’s reasons lead to where they are cleared', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/jobs/Q-0417/intake`)
  await page.locator('[data-gate]').click()
  await page.getByRole('button', { name: 'Separate P13 from P14' }).click()
  await expect(page).toHaveURL(/socket#P13$/)
  await expect(cursor(page)).toHaveAttribute('data-cursor', 'P13')
})

test('the bench clock runs with the work and says when the promise is passed', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop)
  await page.getByRole('textbox', { name: 'Minutes' }).fill('0')
  await page.getByRole('textbox', { name: 'Name' }).focus()
  await page.getByRole('button', { name: 'Bench clock paused; press to start' }).click()
  await expect(page.getByText('over its 0 min')).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('2')
  await expect(tapeLines(page).last()).toContainText('clock on triage')
  await page.getByRole('button', { name: 'Bench clock running on triage; press to pause' }).click()
  await expect(tapeLines(page).last()).toContainText('clock paused')
})

test('the record is searched and paged', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/record`)
  await expect(page.getByRole('listitem')).toHaveCount(40)
  await page.getByRole('link', { name: 'earlier ones' }).click()
  await expect(page.getByRole('listitem')).toHaveCount(40)
  await page.getByLabel('Search').fill('film club')
  await page.getByRole('button', { name: 'Search', exact: true }).click()
  await expect(page.getByRole('listitem')).toHaveCount(1)
  await page.getByRole('link', { name: 'Q-0407' }).click()
  await expect(page.getByRole('article', { name: 'Hand-back sheet' })).toContainText(
    'projector server of the film club',
  )
})

test('a telephone puts photos on the job and reads the tape', async ({ bench: page, shop }) => {
  const tag = await takeIn(page, shop)
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`${shop.url}/jobs/${tag}/intake`)
  await expect(page.getByText('The stations need a wider screen')).toBeVisible()
  await type(page, 'note seen from the side')
  await expect(tapeLines(page).last()).toContainText('seen from the side')
  await expect(page.getByRole('button', { name: 'Add a photo' })).toBeVisible()
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  expect(over).toBeLessThanOrEqual(0)
})

test('a station that fails leaves header and tape standing, says whose fault it is, and goes on', async ({
  bench: page,
  shop,
}) => {
  await page.addInitScript(() => {
    const real = window.ResizeObserver
    let left = 1
    window.ResizeObserver = class extends real {
      constructor(heard: ResizeObserverCallback) {
        if (left-- > 0) throw new Error('made to fail')
        super(heard)
      }
    }
  })
  await page.goto(`${shop.url}/jobs/Q-0417/proof`)
  await awake(page)
  await page.keyboard.press('g')
  await page.keyboard.press('3')
  await expect(page.getByRole('heading', { name: 'This page has stopped by a fault of ours.' })).toBeVisible()
  await expect(page.getByText('made to fail')).toBeVisible()
  await expect(page.locator('[data-gate]')).toBeVisible()
  await expect(tapeLines(page).last()).toBeVisible()
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('starts as it stands: ')).toBeVisible()
})
