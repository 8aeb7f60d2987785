import type { Page } from '@playwright/test'
import { axe, atStation, expect, saved, takeIn, tapeLines, test } from './bench'

const step = (page: Page) => page.locator('[data-next-step] h1')

test('a temperature log passes its test, or fails it, or says how long it still takes', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop, 'proof')
  const under = page.getByRole('region', { name: 'Temperature under load' })
  const log = (name: string, at: (s: number) => number, seconds: number) =>
    under.getByLabel('Temperature log as CSV').setInputFiles({
      name,
      mimeType: 'text/csv',
      buffer: Buffer.from(
        `s,c\n${Array.from({ length: seconds / 2 }, (_, i) => `${2 * i},${at(2 * i).toFixed(1)}`).join('\n')}\n`,
      ),
    })
  await under.getByLabel('The CPU bears, °C').fill('warm')
  await expect(under).toContainText('50 to 150 °C')
  await under.getByLabel('The CPU bears, °C').fill('95')
  await log('backwards.csv', () => 50, 8)
  await expect(under).toContainText('4 readings are too few')
  await log('early.csv', (s) => 80 - 56 * Math.exp(-s / 220), 80)
  await expect(under).toContainText(/early\.csv: not yet.*min more would tell/)
  // Nothing was ever measured of this board: that it passes is asked about first.
  await log('good.csv', (s) => 61 - 37 * Math.exp(-s / 100), 600)
  await expect(page.getByText('it may not be powered as it stands', { exact: true })).toBeVisible()
  await expect(under).toContainText('early.csv')
  await page.getByRole('button', { name: 'Note it all the same' }).click()
  await expect(under).toContainText(/good\.csv: levels off at 61 °C/)
  await expect(tapeLines(page).last()).toContainText('temperature under load, good.csv: levels off')
  await expect(page.getByRole('listitem').filter({ hasText: 'Temperature under load for 15' })).toContainText(
    'passes',
  )
  await log('hot.csv', (s) => 118 - 94 * Math.exp(-s / 110), 400)
  await expect(under).toContainText('Stop, and look at mounting and paste')
  await expect(step(page)).toHaveText('1 test failed: back to triage with what was seen.')
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})

test('whether going on is worth it, at any moment: in figures, and in two sentences', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0407', 'proof')
  await page.keyboard.press('$')
  await expect(page.getByText('The job stands as fixed: nothing is to be decided.')).toBeVisible()
  await atStation(page, shop, 'Q-0410', 'triage')
  await page.keyboard.press('$')
  const sheet = page.getByRole('dialog', { name: 'Is it worth going on?' })
  const comes = sheet.getByRole('region', { name: 'What it comes to' })
  await sheet.getByLabel(/^Worth to its owner/).fill('')
  await expect(sheet).toContainText('without it nothing is weighed')
  await expect(comes).toHaveCount(0)
  await sheet.getByLabel(/^Worth to its owner/).fill('a lot')
  await expect(sheet).toContainText('an amount, like 450')
  await expect(comes).toHaveCount(0)
  await sheet.getByLabel(/^Worth to its owner/).fill('9000')
  await expect(comes).toContainText('It can be repaired here with')
  await expect(comes.getByRole('row').nth(1)).toContainText(/^go on, \d+ min at most/)
  await sheet.getByLabel(/^Another board/).fill('100')
  await expect(comes).toContainText('Another board is the better way: it works out with 96 %, about 3 days.')
  await sheet.getByLabel(/^Left here as a donor/).fill('150')
  await expect(comes.getByRole('row', { name: /leave it here as a donor/ })).toContainText('150 kr')
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
  // What was asked for somewhere else stays when the sheet is closed.
  await page.keyboard.press('Escape')
  await page.keyboard.press('$')
  await expect(sheet.getByLabel(/^Left here as a donor/)).toHaveValue('150')
  await expect(sheet.getByLabel(/^Another board/)).toHaveValue('100')
  await sheet.getByLabel(/^Worth to its owner/).fill('9000')
  await sheet.getByRole('button', { name: 'Note it as decided' }).click()
  await expect(tapeLines(page).last()).toContainText('decided: Another board is the better way')
  await saved(page)
  await page.keyboard.press('z')
  await saved(page)
})

test('the bench says when each job is likely ready, and gives it out as a calendar', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/`)
  const tide = page.getByRole('listitem').filter({ hasText: 'Q-0416' })
  await expect(tide).toContainText(/likely \w{3}/)
  await expect(
    page
      .getByText(/kept (<|>)? ?\d+ %: (what comes before it|its own work|no bench hours before it)/)
      .first(),
  ).toBeVisible()
  const answer = await page.request.get(`${shop.url}/api/calendar`)
  expect(answer.headers()['content-type']).toContain('text/calendar')
  const text = await answer.text()
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\n[^]*END:VCALENDAR\s*$/)
  expect(text).toContain('SUMMARY:Q-0416 likely ready')
  expect(text).toMatch(/DTSTART:20\d{6}T\d{6}\r\n/)
  const stranger = await fetch(`${shop.url}/api/calendar`)
  expect(stranger.status).toBe(401)
})

test('a proof says what each test would find, what is wanting for it, and what could still be wrong', async ({
  bench: page,
  shop,
}) => {
  const left = page.getByRole('region', { name: 'What could still be wrong' })
  await atStation(page, shop, 'Q-0417', 'proof')
  await expect(left).toContainText('Not known: it may not be powered as it stands.')
  await expect(page.getByText(/that it finds something/)).toHaveCount(0)
  // One that runs, with its gate open.
  await atStation(page, shop, 'Q-0409', 'proof')
  await expect(left).toContainText('that the owner finds something that was not found here')
  const odds = async () => Number.parseInt(await left.locator('b').first().innerText())
  const suspected = await odds()
  // What is suspected comes first: settings that are kept take most of the doubt.
  await expect(step(page)).toHaveText('Clock and settings kept over ten minutes without mains.')
  await page.keyboard.press('p')
  await expect.poll(odds).toBeLessThan(suspected / 2)
  await expect(tapeLines(page).last()).toContainText(
    /^.*settings: pass \(\d+ % that it would find something\)/,
  )
  const before = await odds()
  await page.getByRole('button', { name: /^4 cold starts.*: passes$/ }).click()
  await expect.poll(odds).toBeLessThan(before)
  await expect(page.getByText(/\d % that it finds something/).first()).toBeVisible()
  await page.getByRole('button', { name: /^Temperature under load.*: cannot be run here$/ }).click()
  await expect(left).toContainText('cannot be run here: Temperature under load')
  await page.getByRole('button', { name: /^One module, then two.*: fails$/ }).click()
  await expect(left).toContainText('Not known: a test has failed')
})
