import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { atStation, expect, ownShop, saved, signIn, takeIn, tapeLines, test } from './bench'
import type { Shop } from './bench'

const step = (page: Page) => page.locator('[data-next-step] h1')
const evidence = (page: Page) => page.getByRole('region', { name: 'Evidence' })

const tab = (page: Page, name: RegExp) => evidence(page).getByRole('tab', { name }).click(QUICK)
/** A sentence that is overtaken by the next takes its button with it. */
const QUICK = { timeout: 5000 } as const

async function act(page: Page, say: string): Promise<void> {
  if (say.startsWith('Repair it')) return page.getByRole('button', { name: /^Repaired/ }).click(QUICK)
  if (/to ground/.test(say)) {
    await tab(page, /^Rails/)
    return page.getByRole('button', { name: 'Measure all seven' }).click(QUICK)
  }
  if (/its own CPU/.test(say)) {
    await tab(page, /^Power-up/)
    await page.locator('#fitted').getByLabel('CPU', { exact: true }).fill('Orrin 52', QUICK)
    return page.keyboard.press('Tab')
  }
  if (/no heatsink noted/.test(say)) {
    await tab(page, /^Power-up/)
    return page.locator('#fitted').getByText('on', { exact: true }).click(QUICK)
  }
  return page.getByRole('button', { name: /^Run it/ }).click(QUICK)
}

/** Does what triage says, whatever it says, until it says that the board runs. */
async function follow(page: Page): Promise<string[]> {
  const said: string[] = []
  for (let n = 0; n < 60; n++) {
    await expect(step(page)).not.toHaveText(/^Calculating/)
    const say = await step(page).innerText()
    if (said.at(-1) !== say) said.push(say)
    if (/^It runs: prove it|^Nothing is left/.test(say)) return said
    const lines = await tapeLines(page).count()
    // One that was overtaken writes nothing: what is said now is done next.
    await act(page, say)
      .then(() => expect(tapeLines(page)).not.toHaveCount(lines, QUICK))
      .catch(() => undefined)
  }
  return said
}

/** Passes whatever is owed, and hands the board back. */
async function proveAndHandBack(page: Page, shop: Shop, tag: string): Promise<void> {
  await saved(page)
  await atStation(page, shop, tag, 'proof')
  for (let n = 0; n < 40; n++) {
    const say = await step(page).innerText()
    if (say === 'Everything owed is proved. Hand it back.') break
    const lines = await tapeLines(page).count()
    await page.keyboard.press('p')
    await expect(tapeLines(page)).not.toHaveCount(lines)
    await expect(step(page)).not.toHaveText(say)
  }
  await expect(step(page)).toHaveText('Everything owed is proved. Hand it back.')
  await saved(page)
  await atStation(page, shop, tag, 'hand-back')
  await expect(page.getByRole('list', { name: 'What holds the hand-back' })).toHaveCount(0)
  await page.getByLabel('The bill, kr').fill('250')
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(step(page)).toHaveText('Handed back: fixed.')
}

test('two boards of the demo, to the end, by what is said next', async ({ page }) => {
  test.setTimeout(360_000)
  // Handed back they are gone from the bench of every other test: they have a shop to themselves.
  const shop = await ownShop('to_the_end')
  try {
    await signIn(page, shop, 'Tolliver')
    await test.step('the timetable master: a good cell in a bad holder', async () => {
      await atStation(page, shop, 'Q-0409', 'triage')
      const said = await follow(page)
      expect(said.some((say) => /^Repair it.*coin cell holder/.test(say))).toBe(true)
      expect(said.at(-1)).toMatch(/^It runs|^Nothing is left/)
      await saved(page)
      await atStation(page, shop, 'Q-0409', 'parts')
      await expect(step(page)).toHaveText(
        'Every part noted is settled: mark the station done, or note another.',
      )
      await proveAndHandBack(page, shop, 'Q-0409')
    })
    await test.step('the bird observatory: a second fault behind the first', async () => {
      await atStation(page, shop, 'Q-0412', 'triage')
      const said = await follow(page)
      expect(said.some((say) => /^Repair it.*(slot B|memory)/.test(say))).toBe(true)
      expect(said.at(-1)).toMatch(/^It runs|^Nothing is left/)
      // Its own parts are put back and noted once, however often a start with them is asked for.
      expect(said.filter((say) => /its own CPU/.test(say)).length).toBeLessThanOrEqual(1)
      await proveAndHandBack(page, shop, 'Q-0412')
    })
  } finally {
    await shop.kill()
  }
})

test('a look round the socket is answered by one key where it is asked for', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0410', 'triage')
  await page.getByRole('button', { name: /other test/ }).click()
  const which = page.getByRole('dialog').getByLabel('Which')
  await which.selectOption({ label: 'Look round the socket and the core regulator, 4 min' })
  await page.getByRole('button', { name: /traces scratched/ }).click()
  await expect(tapeLines(page).last()).toContainText('round the socket: traces scratched')
  await saved(page)
  await page.keyboard.press('z')
  await saved(page)
})

test('small parts are counted before the iron and after it; one that is gone shuts the gate', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await atStation(page, shop, tag, 'parts')
  await page.getByRole('tab', { name: 'Heat' }).click()
  const count = page.getByRole('region', { name: 'Small parts counted' })
  await count.getByLabel('Counted').fill('many')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('a count, 0 to 500')
  await count.getByLabel('Counted').fill('14')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('14 should be there.')
  await page.getByRole('tab', { name: 'Note' }).click()
  await page.getByLabel('Part', { exact: true }).fill('R9')
  await page.getByRole('radio', { name: 'fitted', exact: true }).click()
  await page.getByRole('button', { name: 'Note the part' }).click()
  await expect(step(page)).toHaveText('Count the small parts at the firmware chip again: 14 should be there.')
  await page.getByRole('tab', { name: 'Heat' }).click()
  await count.getByLabel('Counted').fill('13')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('13 small parts counted, at the firmware chip, of 14: 1 missing')
  await expect(page.locator('[data-gate]')).toHaveAttribute('data-gate', 'do not power')
  await expect(step(page)).toHaveText(/^Account for part missing from the count/)
  await count.getByLabel('Counted').fill('14')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(step(page)).not.toHaveText(/^Account for/)
})

test('hot air practice: warmed, touched, lifted when it floats; torn off cold it is worth nothing', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/practice/hot-air`)
  await expect(page.getByRole('heading', { name: 'Hot air practice' })).toBeVisible()
  const says = page.getByRole('status')
  const line = (name: string) => page.locator('dl > div', { hasText: name }).locator('dd')
  await expect(async () => {
    await page.keyboard.press('t')
    await expect(says).toHaveText('It stands firm.', { timeout: 500 })
  }).toPass()
  await page.keyboard.press('x')
  await expect(says).toContainText('its pads came with it')
  await expect(line('score')).toHaveText('0')
  await page.keyboard.press('a')
  await page.getByLabel('Flow, l/min').fill('much')
  await expect(page.getByText('1 to 200')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Lift it' })).toBeDisabled()
  await page.getByLabel('Flow, l/min').fill('40')
  const blow = async (air: string, seconds: number) => {
    await page.getByLabel('Air, °C').fill(air)
    for (let s = 0; s < seconds; s += 20) await page.getByRole('button', { name: /^20 s on/ }).click()
  }
  await blow('', 180)
  for (const air of ['150', '230', '310', '400']) await blow(air, 20)
  await page.getByLabel('Air, °C').fill('480')
  await expect(async () => {
    await page.getByRole('button', { name: /^5 s on/ }).click()
    await page.getByRole('button', { name: /^Touch it/ }).click()
    await expect(says).toHaveText('It floats.', { timeout: 300 })
  }).toPass({ timeout: 60_000, intervals: [50] })
  await page.getByRole('button', { name: /^Lift it/ }).click()
  await expect(says).not.toContainText('pads')
  await expect(line('this board took of the air')).toHaveText(/%$/)
  await expect(line('mean of this sitting')).toHaveText(/, 2 lifted$/)
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})

test('what was it: read, said, and never guessed where nobody may', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/practice/what-was-it`)
  const pad = (name: string) => page.getByRole('region', { name, exact: true })
  await expect(async () => {
    await page.getByRole('button', { name: 'That is what it was' }).click()
    await expect(page.getByText('what did it do?')).toBeVisible({ timeout: 500 })
  }).toPass()
  for (const name of ['Pad A', 'Pad B'])
    await pad(name)
      .getByRole('button', { name: /^Ω to ground/ })
      .click()
  await expect(pad('Pad A')).toContainText('to ground')
  await page.getByLabel('What it did').selectOption('decoupling')
  await page.getByLabel('Value to try, Ω').fill('lots')
  await page.getByRole('button', { name: 'That is what it was' }).click()
  await expect(page.getByText('ohms, like 33 or 4k7')).toBeVisible()
  await page.getByLabel('Value to try, Ω').fill('33')
  await page.getByRole('button', { name: 'That is what it was' }).click()
  await expect(page.getByRole('status')).toContainText('that is what kills a board')
  await page.getByRole('button', { name: 'The same again' }).click()
  await page.getByLabel('What it did').selectOption('decoupling')
  await page.getByRole('button', { name: 'That is what it was' }).click()
  await expect(page.getByRole('status')).toContainText('Rightly not guessed')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})

test('a temperature log passes its test, or fails it, or says how long it still takes', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await atStation(page, shop, tag, 'proof')
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
  await expect(under).toContainText(/early\.csv: it has not yet.*min more would tell/)
  await log('good.csv', (s) => 61 - 37 * Math.exp(-s / 100), 600)
  await expect(under).toContainText(/good\.csv: it levels off at 61 °C/)
  await expect(tapeLines(page).last()).toContainText('temperature under load, good.csv: levels off')
  await expect(page.getByRole('listitem').filter({ hasText: 'Temperature under load for 15' })).toContainText(
    'passes',
  )
  await log('hot.csv', (s) => 118 - 94 * Math.exp(-s / 110), 400)
  await expect(under).toContainText('Stop, and look at mounting and paste')
  await expect(step(page)).toHaveText('1 test failed: back to triage with what was seen.')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})

test('whether going on is worth it, at any moment: in figures, and in two sentences', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0410', 'triage')
  await page.keyboard.press('$')
  const sheet = page.getByRole('dialog', { name: 'Is it worth going on?' })
  const comes = sheet.getByRole('region', { name: 'What it comes to' })
  await sheet.getByLabel(/^Worth to its owner/).fill('a lot')
  await expect(sheet).toContainText('an amount, like 450')
  await expect(comes).toHaveCount(0)
  await sheet.getByLabel(/^Worth to its owner/).fill('9000')
  await expect(comes).toContainText('It can be repaired here with')
  await expect(comes.getByRole('row').nth(1)).toContainText(/^go on, \d+ min at most/)
  await sheet.getByLabel(/^Another board/).fill('100')
  await expect(comes).toContainText('Another board is the better way: it works out with 97 %, about 3 days.')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
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
