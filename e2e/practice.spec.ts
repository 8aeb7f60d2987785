import { axe, expect, test } from './bench'

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
  const { violations } = await axe(page).analyze()
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
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})
