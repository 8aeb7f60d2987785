import type { Page } from '@playwright/test'
import { axe, atStation, awake, expect, saved, takeIn, tapeLines, test, type } from './bench'

const step = (page: Page) => page.locator('[data-next-step] h1')
const lastLine = (page: Page) => tapeLines(page).last()
const panel = (page: Page) => page.getByRole('region', { name: 'Route', exact: true })

/** The chip is read before the programmer writes it, each time it holds something else. */
async function readTwice(page: Page): Promise<void> {
  for (const line of ['Read the chip, twice, before anything is erased.', 'Read it once more.']) {
    await expect(step(page)).toHaveText(line)
    await page.getByLabel('A read of the chip').setInputFiles({
      name: 'r.bin',
      mimeType: 'application/octet-stream',
      buffer: Buffer.alloc(65536, 0x5a),
    })
  }
}

test('from a CPU that starts to one that does not yet: planned, followed, and planned again', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Model').selectOption({ label: 'Tarnworks TW-K74' })
  await expect(lastLine(page)).toContainText('board model')
  await type(page, 'cpu bench Orrin 44')
  await type(page, 'version 1.40')
  await saved(page)
  await atStation(page, shop, tag, 'firmware')
  await page.getByRole('tab', { name: 'Route' }).click()
  await expect(panel(page)).toContainText('In the chip 1.40 (seen); in the socket Orrin 44')
  await page.getByLabel('CPU wanted').selectOption('Orrin 53')
  const steps = page.getByRole('list', { name: 'Steps of the route' })
  await expect(steps.getByRole('listitem')).toHaveText([
    /Write 1\.60 from 1\.40 by the built-in updater\./,
    /Write 2\.04 from 1\.60 .*A black screen is expected: 2\.04 does not run Orrin 44\./,
    /Fit Orrin 53\./,
  ])
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])

  await page.getByRole('button', { name: 'Follow this route' }).click()
  await expect(lastLine(page)).toContainText('wanted: Orrin 53; route of 3 steps, 30 min')
  // Nothing was measured on this board: the updater needs power, and that is said first.
  await expect(step(page)).toHaveText(/^Do not power yet: /)
  await page.getByRole('tab', { name: 'Route' }).click()
  await page.getByRole('checkbox', { name: 'the built-in updater' }).uncheck()
  await expect(steps.getByRole('listitem')).toHaveText([
    /Write 2\.04 by the programmer, by clip/,
    /Fit Orrin 53\./,
  ])
  await page.getByRole('button', { name: 'Follow this route' }).click()
  // The programmer: the place, the marking and the reads come before it.
  await page.getByRole('button', { name: 'Nothing is wrong there' }).click()
  await type(page, 'chip LSN-16V 1.8')
  await readTwice(page)
  await expect(step(page)).toHaveText(/^Write 2\.04 by the programmer, by clip\./)
  await page.getByRole('tab', { name: 'Route' }).click()
  await page.getByRole('button', { name: 'Another version is seen…' }).click()
  await page.getByLabel('Version that is seen').fill('1.62')
  await page.keyboard.press('Enter')
  await expect(lastLine(page)).toContainText('2.04 written by the programmer, by clip, 1.62 seen')
  await expect(step(page)).toHaveText('Plan the route again: 2.04 was written, 1.62 is seen.')
  await page.getByRole('button', { name: 'Plan again' }).click()
  await expect(steps.getByRole('listitem').first()).toContainText('Write 2.04')
  await page.getByRole('button', { name: 'Follow this route' }).click()
  await readTwice(page)
  await page.getByRole('button', { name: 'Written; dark, as expected' }).click()
  await expect(step(page)).toHaveText('Fit Orrin 53.')
  await page.keyboard.press('c')
  await expect(lastLine(page)).toContainText('Orrin 53')
  await saved(page)
})

test('where the release is not known, what to try next is said; where none leads there, what would', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Model').selectOption({ label: 'Tarnworks TW-K74' })
  await type(page, 'cpu Orrin 53')
  await saved(page)
  await atStation(page, shop, tag, 'firmware')
  await page.getByRole('tab', { name: 'Route' }).click()
  await expect(panel(page)).toContainText('The release in the chip is not known')
  await page.getByRole('checkbox', { name: 'Orrin 47' }).check()
  await expect(panel(page)).toContainText(/Try Orrin \d+ next: \d+ % that it starts/)
  await expect(page.getByRole('list', { name: 'Odds of releases' })).toContainText('dark for another reason')
  await type(page, 'version 1.40')
  for (const cpu of ['Orrin 47', 'Orrin 41', 'Orrin 44'])
    await page.getByRole('checkbox', { name: cpu }).uncheck()
  await page.getByRole('checkbox', { name: 'the programmer, by clip' }).uncheck()
  await expect(panel(page)).toContainText('No route: none of the ways at hand leads there with these CPUs.')
  await expect(panel(page)).toContainText('would open one, bought or borrowed')
  await expect(panel(page)).toContainText('A programmer would open one')
})

test('the library takes releases, CPUs and ways, and refuses what does not hold together', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/library/boards/hv-gannet`)
  await awake(page)
  const read = async (label: string, csv: string) =>
    page
      .getByLabel(`${label}: table to import`)
      .setInputFiles({ name: 'gannet.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  await read('CPUs, and the releases that run them', 'cpu,from\nOrrin 31,1.0\n')
  await expect(page.getByText('the board has no releases yet: import those first')).toBeVisible()
  await read('Firmware releases, oldest first', 'release,needs\n1.0,2.0\n2.0,1.0\n')
  await expect(page.getByText('the steps go round in a circle')).toBeVisible()
  await read('Firmware releases, oldest first', 'release,needs\n1.0,\n2.0,1.0\n')
  await expect(page.getByText('Kept: 2 releases, the newest 2.0')).toBeVisible()
  await read('CPUs, and the releases that run them', 'cpu,from,until\nOrrin 31,2.0,1.0\n')
  await expect(page.getByText('Orrin 31 ends with 1.0 before it begins with 2.0')).toBeVisible()
  await read('CPUs, and the releases that run them', 'cpu,from,until\nOrrin 31,1.0,1.0\n')
  await expect(page.getByText('Kept: 1 CPUs')).toBeVisible()
  // The same rows, edited where they stand; a fault is told at its place and nothing typed is lost.
  const part = page.locator('#firmware')
  await part.getByRole('button', { name: 'Edit' }).nth(1).click()
  const rows = page.getByRole('form', { name: 'CPUs, and the releases that run them: rows' })
  await rows.getByRole('button', { name: 'Add a row' }).click()
  await rows.getByLabel('cpu, row 2').fill('Orrin 36')
  await rows.getByLabel('from, row 2').fill('3.0')
  await rows.getByRole('button', { name: 'Keep the table' }).click()
  await expect(rows.getByLabel('from, row 2')).toHaveAttribute('aria-invalid', 'true')
  await expect(page.getByText('3.0 is no release here')).toBeVisible()
  await expect(rows.getByLabel('cpu, row 2')).toHaveValue('Orrin 36')
  await rows.getByLabel('from, row 2').fill('2.0')
  await rows.getByRole('button', { name: 'Move row 2 up' }).click()
  await rows.getByRole('button', { name: 'Keep the table' }).click()
  await expect(page.getByText('Kept: 2 CPUs')).toBeVisible()
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
  const back = await page.request.get(`${shop.url}/api/boards/hv-gannet/references/cpus`)
  expect(await back.text()).toContain('Orrin 36,,2.0,')
  expect(await back.text()).toContain('Orrin 31,,1.0,1.0')
})

test('bench CPUs: the kit follows what is owned and what it costs', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/library/kit`)
  await awake(page)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'To get: Orrin 36, Orrin 47, for 310 kr.',
  )
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
  const row = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Keep Orrin 47' }) })
  await row.getByRole('textbox').fill('a lot')
  await row.getByRole('button', { name: 'Keep Orrin 47' }).click()
  await expect(row.getByRole('alert')).toContainText('“a lot” is no price')
  await row.getByRole('textbox').fill('250')
  await row.getByRole('button', { name: 'Keep Orrin 47' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('for 340 kr.')
  await page.getByRole('link', { name: '3x' }).click()
  await expect(page.getByText('only the family 3x runs on it').first()).toBeVisible()
})

test('a chip that the board is not known to take is refused by its ID, point by point', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Model').selectOption({ label: 'Tarnworks TW-K74' })
  await saved(page)
  await atStation(page, shop, tag, 'firmware')
  await page.getByRole('tab', { name: 'Chip and clip' }).click()
  const id = page.getByRole('textbox', { name: 'ID', exact: true })
  await id.fill('7F 3C 25 16')
  await id.press('Enter')
  const fits = page.getByRole('region', { name: 'Whether the chip fits' })
  await expect(fits).toContainText('This board is known to take LSN-16V, and looks at the ID.')
  await expect(fits).toContainText('Refuse it.')
  await expect(fits).toContainText(
    'bank 2: 3C 25 16: the board looks at the ID, and is not known to take this one',
  )
  await id.fill('7F 7F 33 60 15')
  await id.press('Enter')
  await expect(fits).toContainText('this board is known to take it')
})
