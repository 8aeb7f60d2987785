import type { Page } from '@playwright/test'
import { atStation, awake, expect, nothingMoved, saved, takeIn, tapeLines, test, watchShifts } from './bench'

const cursor = (page: Page) => page.locator('#map')
const step = (page: Page) => page.locator('[data-next-step] h1')
const settled = (page: Page) =>
  expect(page.getByText('starts as it stands: ').or(page.getByText('The map needs'))).not.toContainText('…')

const stations = ['intake', 'triage', 'socket', 'firmware', 'parts', 'proof', 'hand-back'] as const

test('at 1280 × 800 the centre of no station scrolls as a whole, and its end is in sight', async ({
  bench: page,
  shop,
}) => {
  for (const station of stations) {
    await atStation(page, shop, 'Q-0417', station)
    const main = await page.locator('main').evaluate((m) => [m.scrollHeight, m.clientHeight])
    expect([station, main[0]]).toEqual([station, main[1]])
    await expect(step(page)).toBeInViewport()
    if (station !== 'hand-back')
      await expect(page.getByRole('button', { name: /Mark station done|Open it again/ })).toBeInViewport()
  }
})

for (const [width, height, least, most] of [
  [1280, 800, 560, 800],
  [1024, 768, 420, 768],
  [1920, 1080, 560, 1080],
] as const)
  test(`the map takes the height there is at ${width} × ${height}, and its results stay in sight`, async ({
    bench: page,
    shop,
  }) => {
    await page.setViewportSize({ width, height })
    await atStation(page, shop, 'Q-0417', 'socket')
    await settled(page)
    const box = (await cursor(page).boundingBox())!
    expect(box.height).toBeGreaterThanOrEqual(least)
    expect(box.y + box.height).toBeLessThanOrEqual(most)
    await expect(page.getByRole('button', { name: /^Straight/ })).toBeInViewport({ ratio: 1 })
    await expect(page.getByRole('button', { name: /^Snapped/ })).toBeInViewport({ ratio: 1 })
  })

test('nothing moves under the hand: answers, marks, strokes, tabs', async ({ bench: page, shop }) => {
  await atStation(page, shop, 'Q-0412', 'triage')
  const answers = page.getByRole('group', { name: 'Result' })
  await expect(answers.getByRole('button').filter({ hasText: /^1/ })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Likely causes' })).toHaveAttribute('aria-busy', 'false')
  const strip = await page.locator('[data-next-step]').boundingBox()
  let shifted = await watchShifts(page)
  await page.keyboard.press('1')
  await expect(page.getByRole('region', { name: 'Likely causes' })).toContainText('last evidence')
  await saved(page)
  await page.getByRole('tab', { name: /^Rails/ }).click()
  await page.getByRole('tab', { name: /^Inspection/ }).click()
  await page.keyboard.press('z')
  await saved(page)
  expect(await page.locator('[data-next-step]').boundingBox()).toEqual(strip)
  await nothingMoved(shifted)

  await atStation(page, shop, 'Q-0417', 'socket')
  await settled(page)
  shifted = await watchShifts(page)
  const straight = page.getByRole('button', { name: /^Straight/ })
  const under = await straight.boundingBox()
  for (const key of ['ArrowRight', '.', '.', ',', 'o', '2', 'q', 'q']) await page.keyboard.press(key)
  await saved(page)
  await settled(page)
  expect(await straight.boundingBox()).toEqual(under)
  await nothingMoved(shifted)
})

test('a lean, a height and a range are set with the mouse alone; space and a drag move the map', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Socket', { exact: true }).selectOption({ label: 'PG-906, 906 contacts' })
  await page.getByLabel('CPU', { exact: true }).focus()
  await page.getByLabel('Owner’s words').focus()
  await saved(page)
  await atStation(page, shop, tag, 'socket')
  await settled(page)
  const box = (await cursor(page).boundingBox())!
  // A click anywhere takes the nearest contact.
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.25)
  const name = (await cursor(page).getAttribute('data-cursor'))!
  for (let i = 0; i < 3; i++)
    await page
      .getByRole('button', { name: /^Lean it right/ })
      .first()
      .click()
  await expect(tapeLines(page).last()).toContainText(`${name} leaning, 0.15 mm`)
  await expect(page.locator('[data-says]')).toContainText(`${name}, leaning, 0.15 mm, to the east`)
  await page.getByRole('button', { name: 'more lean' }).click()
  await expect(tapeLines(page).last()).toContainText(`${name} leaning, 0.20 mm`)
  await page.getByRole('button', { name: 'less height' }).click()
  await expect(tapeLines(page).last()).toContainText('low by 0.05 mm')
  // A drag chooses a range.
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.7)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.85, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByText(/\d+ chosen: marks go to all of them/)).toBeVisible()
  await page.getByRole('button', { name: /^\d twisted/ }).click()
  await expect(tapeLines(page).last()).toContainText(/\d+ contacts twisted/)
  // Held, space moves the map, and inspects nothing.
  const lines = await tapeLines(page).count()
  const at = await cursor(page).getAttribute('data-cursor')
  await page.keyboard.down(' ')
  await page.mouse.move(box.x + 200, box.y + 200)
  await page.mouse.down()
  await page.mouse.move(box.x + 260, box.y + 240, { steps: 3 })
  await page.mouse.up()
  await page.keyboard.up(' ')
  await expect(tapeLines(page)).toHaveCount(lines)
  expect(await cursor(page).getAttribute('data-cursor')).toBe(at)
})

test('at 200 % the stations are there, the tape folds by itself, and nothing is cut off sideways', async ({
  bench: page,
  shop,
}) => {
  await page.setViewportSize({ width: 640, height: 400 })
  for (const station of ['triage', 'socket', 'proof', 'hand-back'] as const) {
    await page.goto(`${shop.url}/jobs/Q-0417/${station}`)
    await expect(step(page)).toBeVisible()
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
    await expect(page.getByRole('button', { name: 'Open the tape' })).toBeVisible()
    const [wide, inner] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth])
    expect([station, wide! <= inner!]).toEqual([station, true])
  }
})

test('bench, library, record and shelf fit a telephone', async ({ bench: page, shop }) => {
  await page.setViewportSize({ width: 390, height: 800 })
  for (const view of ['/', '/library', '/record', '/shelf']) {
    await page.goto(`${shop.url}${view}`)
    await awake(page)
    const [wide, inner] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth])
    expect([view, wide! <= inner!]).toEqual([view, true])
  }
})

test('printed, a hand-back is its sheet, however narrow the paper', async ({ bench: page, shop }) => {
  await page.setViewportSize({ width: 700, height: 900 })
  await atStation(page, shop, 'Q-0407', 'hand-back')
  await page.emulateMedia({ media: 'print' })
  await page.setViewportSize({ width: 500, height: 900 })
  await expect(page.getByRole('article', { name: 'Hand-back sheet' })).toBeVisible()
  await expect(page.getByText('The stations need a wider screen')).toHaveCount(0)
})

test('a first visit: three moves worth trying, put away for good by one key; the words of the trade', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  const moves = page.getByRole('region', { name: 'Worth trying first' })
  await expect(moves.getByRole('listitem')).toHaveCount(3)
  await page.keyboard.press('h')
  await expect(moves).toHaveCount(0)
  await page.reload()
  await awake(page)
  await expect(moves).toHaveCount(0)
  await page.keyboard.press('#')
  await expect(page.getByRole('dialog').getByText('POST code')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog').getByText('new job')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  // Down to the second job, Enter opens it, and a named link leads back.
  const second = page.locator('a[data-job]').nth(1)
  await expect(async () => {
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowDown')
    await expect(second).toBeFocused({ timeout: 500 })
  }).toPass()
  const tag = await second.innerText()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(new RegExp(`/jobs/${tag}/`))
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await expect(page).toHaveURL(`${shop.url}/`)
})

test('focus never falls to the page: what had it has gone, the station has it', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0417', 'triage')
  await page.getByRole('button', { name: 'other test' }).focus()
  await page.evaluate(() => (document.activeElement as HTMLElement).remove())
  await page.evaluate(() => document.body.dispatchEvent(new FocusEvent('focusout', { bubbles: true })))
  await expect(page.locator('main')).toBeFocused()
})

for (const locale of ['de-DE', 'nb-NO', 'en-US', 'en-GB'])
  test(`in ${locale} both sides say the same, and a time is one line`, async ({
    browser,
    shop,
    signedIn,
  }) => {
    const context = await browser.newContext({
      locale,
      storageState: signedIn,
      viewport: { width: 1280, height: 800 },
    })
    const page = await context.newPage()
    const faults: string[] = []
    page.on('console', (message) => {
      if (message.type() === 'error') faults.push(message.text())
    })
    page.on('pageerror', (error) => faults.push(error.message))
    for (const view of ['/', '/record', '/jobs/Q-0417/triage', '/jobs/Q-0407/hand-back']) {
      await page.goto(`${shop.url}${view}`)
      await awake(page)
      const wrapped = await page
        .locator('time:visible')
        .evaluateAll((all) =>
          all.filter((time) => time.getClientRects().length > 1).map((time) => time.textContent),
        )
      expect([view, wrapped]).toEqual([view, []])
    }
    await atStation(page, shop, 'Q-0413', 'triage')
    await page.getByRole('tab', { name: /^Battery/ }).click()
    await page.getByLabel('Volts', { exact: true }).fill('2,91')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(tapeLines(page).last()).toContainText('2.91 V')
    await saved(page)
    await page.keyboard.press('z')
    await saved(page)
    expect(faults).toEqual([])
    await context.close()
  })

test('a chosen test that powers the board is not the thing to do while the gate is closed', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0418', 'triage')
  await expect(page.locator('[data-gate]')).toHaveAttribute('data-gate', 'do not power')
  await page.keyboard.press('/')
  await page.getByLabel('Which', { exact: true }).selectOption('no memory')
  await expect(step(page)).toHaveText(/^Do not power yet: /)
  await expect(page.getByRole('button', { name: 'Run it (simulated)' })).toHaveCount(0)
  await page.getByRole('button', { name: 'back to what is due' }).click()
  await expect(step(page)).not.toHaveText(/^Do not power yet: /)
})

test('what is typed in one kind of evidence is there still when another opened; a link does not hold its tab', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await page.goto(`${shop.url}/jobs/${tag}/triage#rails`)
  await awake(page)
  const tab = (name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) })
  await expect(tab('Rails')).toHaveAttribute('aria-selected', 'true')
  await tab('Power-up').click()
  await page.getByLabel('POST codes, in order').fill('4C')
  // Looked over outside: the rails are due, and their tab opens itself.
  await tab('Inspection').click()
  await page.getByRole('button', { name: 'outside of the board: OK' }).click()
  await expect(tab('Rails')).toHaveAttribute('aria-selected', 'true')
  await expect(page.getByLabel('12 V rail, ohms to ground')).toBeFocused()
  await tab('Power-up').click()
  await expect(tab('Power-up')).toHaveAttribute('aria-selected', 'true')
  await expect(page.getByLabel('POST codes, in order')).toHaveValue('4C')
})

test('what opens itself late does not take a hand that has moved on', async ({ bench: page, shop }) => {
  const tag = await takeIn(page, shop)
  await page.goto(`${shop.url}/jobs/${tag}/triage`)
  await awake(page)
  const tab = (name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) })
  await expect(tab('Inspection')).toHaveAttribute('aria-selected', 'true')
  // The first half of a move is pressed between the answer and the field that it makes ready.
  await page.getByRole('button', { name: 'outside of the board: OK' }).evaluate(
    (button: HTMLElement) =>
      new Promise<void>((done) => {
        const opened = new MutationObserver(() => {
          const tab = document.querySelector('[role=tab][aria-selected=true]')
          if (!tab?.textContent?.startsWith('Rails')) return
          opened.disconnect()
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'g', code: 'KeyG', bubbles: true }))
          done()
        })
        opened.observe(document.body, { subtree: true, attributes: true, childList: true })
        button.click()
      }),
  )
  await expect(tab('Rails')).toHaveAttribute('aria-selected', 'true')
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
  await expect(page.locator('input:focus')).toHaveCount(0)
  await page.keyboard.press('3')
  await expect(page).toHaveURL(/\/socket$/)
})
