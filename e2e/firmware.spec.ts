import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import type { Shop } from './bench'
import { axe, atStation, awake, expect, saved, sql, takeIn, tapeLines, test, type } from './bench'

const step = (page: Page) => page.locator('[data-next-step] h1')
const lastLine = (page: Page) => tapeLines(page).last()
const READ = 'docs/examples/chip-read.bin'
const RELEASE = 'docs/examples/release-1.40.bin'

test('a read from the disk beside the release: where the update broke off, and triage knows', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop, 'firmware')
  await page.getByRole('button', { name: 'Nothing is wrong there' }).click()
  await expect(step(page)).toHaveText(/^Read the chip’s marking/)
  await type(page, 'chip LSN-16V 1.8')
  await expect(step(page)).toHaveText(/^Read the chip, twice/)

  await test.step('a file that is broken is named, and nothing is noted', async () => {
    await page.getByLabel('A read of the chip').setInputFiles({
      name: 'odd.hex',
      mimeType: 'text/plain',
      buffer: Buffer.from(':10000000FFFFFFFFFFFFFFFFFFFFFFFFFFFFFFFF01\n:00000001FF\n'),
    })
    await expect(page.getByRole('alert').filter({ hasText: 'odd.hex, line 1' })).toBeVisible()
    await expect(lastLine(page)).toContainText('chip LSN-16V')
  })

  await page.getByLabel('A read of the chip').setInputFiles(READ)
  await expect(step(page)).toHaveText('Read it once more.')
  await expect(lastLine(page)).toContainText('chip read: chip-read.bin, 32 KiB, version 1.40')
  await page.getByLabel('A read of the chip').setInputFiles(READ)
  await expect(step(page)).toHaveText(/maker’s file/)
  await page.getByLabel('The maker’s file of a release').setInputFiles(RELEASE)
  await expect(step(page)).toHaveText('Compare the chip with the release.')
  await page.getByRole('button', { name: 'Compare c' }).click()
  await expect(step(page)).toHaveText(
    'Update broken off at 0x004000: new up to it, old after it. Write it whole.',
  )
  await expect(page.getByRole('region', { name: 'Images' })).toContainText('chip-read.bin')

  await test.step('the field, its parts and its bytes', async () => {
    await page.getByRole('tab', { name: 'Contents' }).click()
    const field = page.getByRole('application', { name: /^Byte field/ })
    await expect(page.getByText('4,982 bytes differ')).toBeVisible()
    await field.focus()
    await page.keyboard.press('End')
    await expect(page.locator('#byte-field-says')).toHaveText(/^0x007000 to 0x008000/)
    await page.keyboard.press('Home')
    await page.getByRole('radio', { name: 'bytes' }).click()
    await page.getByRole('button', { name: 'to the next in code' }).click()
    await expect(page.getByRole('region', { name: 'Bytes' })).toContainText('0x004000')
    const { violations } = await axe(page).analyze()
    expect(violations.map((v) => v.id)).toEqual([])
  })

  await test.step('saved as it was read', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('region', { name: 'Images' }).getByRole('button', { name: 'Save' }).last().click(),
    ])
    expect(await readFile(await download.path())).toEqual(await readFile(READ))
  })

  await test.step('a line taken back is no evidence any more, and comes again', async () => {
    await saved(page)
    await page.keyboard.press('z')
    await expect(step(page)).toHaveText('Compare the chip with the release.')
    await page.getByRole('button', { name: 'Compare c' }).click()
    await expect(lastLine(page)).toContainText('Update broken off at 0x004000')
  })
})

test('“surely the firmware”: the part first, then the chip says that it is not', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0416', 'firmware')
  await expect(step(page)).toHaveText(/put that right before the firmware is blamed/)
  await type(page, 'chip LSN-16M 3.3')
  await atStation(page, shop, 'Q-0416', 'parts')
  await expect(step(page)).toHaveText('What was R214? Read its two pads, unplugged.')
  await page.getByRole('tab', { name: 'Note' }).click()
  await page.getByLabel('Part', { exact: true }).fill('R214')
  await page.getByRole('radio', { name: 'fitted' }).click()
  await page.getByRole('button', { name: 'Note the part' }).click()
  await expect(lastLine(page)).toContainText('R214')
  await atStation(page, shop, 'Q-0416', 'firmware')
  await expect(step(page)).toHaveText(/^Read the chip, twice/)
  await page.getByRole('button', { name: 'Read it (simulated)' }).click()
  await expect(
    page.getByRole('alert').filter({ hasText: 'which voltage the programmer gives' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'to chip and clip' }).click()
  await page.getByRole('textbox', { name: 'Programmer' }).fill('3.3')
  await page.getByRole('textbox', { name: 'Programmer' }).press('Enter')
  await page.getByRole('radio', { name: 'on the chip' }).click()
  await expect(lastLine(page)).toContainText('clip on')
  await saved(page)
  await page.getByRole('button', { name: 'Read it (simulated)' }).click()
  await expect(step(page)).toHaveText('Read it once more.')
  await saved(page)
  await page.getByRole('button', { name: 'Read it again (simulated)' }).click()
  await page.getByRole('button', { name: '1.30 of the maker (simulated)' }).click()
  await expect(step(page)).toHaveText('Compare the chip with the release.')
  await page.getByRole('button', { name: 'Compare c' }).click()
  await expect(step(page)).toHaveText('Same code: it is not the firmware. Do not write it.')
  await expect(page.getByRole('link', { name: 'go on at triage' })).toBeVisible()
})

/** A job of its own on the simulated bench, with what is wrong with it; the clip is on. */
async function onBench(page: Page, shop: Shop, faults: string): Promise<string> {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Model').selectOption({ label: 'Tarnworks TW-K74' })
  await saved(page)
  await sql(
    shop.databaseUrl,
    `insert into hidden_board (job_id, faults, seed, marks) select id, $2, 413, '{}' from job where tag = $1`,
    [tag, [faults]],
  )
  await atStation(page, shop, tag, 'firmware')
  await page.getByRole('button', { name: 'Nothing is wrong there' }).click()
  await type(page, 'chip LSN-16V 1.8')
  await page.getByRole('textbox', { name: 'Programmer' }).fill('1.8')
  await page.getByRole('textbox', { name: 'Programmer' }).press('Enter')
  await page.getByRole('radio', { name: 'on the chip' }).click()
  await expect(lastLine(page)).toContainText('clip on')
  await saved(page)
  await page.getByRole('button', { name: 'Read it (simulated)' }).click()
  await expect(step(page)).toHaveText('Read it once more.')
  await saved(page)
  await page.getByRole('button', { name: 'Read it again (simulated)' }).click()
  return tag
}

/** Sees to every point that is open, and has the chip written and read back. */
async function writeChip(page: Page, says: string): Promise<void> {
  await page.getByRole('button', { name: 'Write the chip…' }).click()
  const sheet = page.getByRole('dialog', { name: 'Write the chip' })
  await expect(sheet).toContainText(says)
  await expect(sheet.getByRole('checkbox').first()).toBeVisible()
  for (const box of await sheet.getByRole('checkbox').all()) await box.check()
  await sheet.getByRole('button', { name: 'Write it (simulated)' }).click()
  await expect(sheet).toContainText('Written and read back', { timeout: 90_000 })
  await page.keyboard.press('Escape')
}

test('two reads that differ: the chip says that it is of another kind', async ({ bench: page, shop }) => {
  await onBench(page, shop, 'firmware chip')
  await expect(step(page)).toHaveText('The last two reads differ: read the chip’s ID.')
  await page.getByRole('button', { name: 'Read the ID (simulated)' }).click()
  await expect(lastLine(page)).toContainText('ID bank 2: 3C 25 16')
  await expect(page.getByText('It says of itself: 4 MiB; addresses of 3 bytes')).toBeVisible()
  await page.getByRole('button', { name: '1.40 of the maker (simulated)' }).click()
  await expect(step(page)).toHaveText(
    /the chip says it has 4 MiB, the release 2: look whether it is of another kind/,
  )
})

test('an update that was broken off: written whole, though the supply goes half-way', async ({
  bench: page,
  shop,
}) => {
  test.slow()
  const tag = await onBench(page, shop, 'firmware corrupt')
  await page.getByRole('button', { name: '1.40 of the maker (simulated)' }).click()
  await page.getByRole('button', { name: 'Compare c' }).click()
  await expect(step(page)).toHaveText(/^Update broken off at /)

  const sheet = page.getByRole('dialog', { name: 'Write the chip' })
  await test.step('nothing is written before everything open was seen to', async () => {
    await page.getByRole('button', { name: 'Write the chip…' }).click()
    await expect(sheet.getByRole('region', { name: 'Where its bytes come from' })).toContainText(
      'from the original',
    )
    await expect(sheet.getByRole('button', { name: 'Write it (simulated)' })).toBeDisabled()
    const { violations } = await axe(page).include('[role=dialog]').analyze()
    expect(violations.map((v) => v.id)).toEqual([])
    // Nor by another way than the screen.
    const refused = await page.evaluate(
      async (of) => {
        const answer = await fetch(`/api/jobs/${of.tag}/flash`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ id: of.id, image: of.image, release: of.image, despite: [] }),
        })
        return [answer.status, ((await answer.json()) as { error: { text: string } }).error.text] as const
      },
      { tag, id: crypto.randomUUID(), image: 'ab'.repeat(32) },
    )
    expect(refused[0]).toBe(409)
    expect(refused[1]).toMatch(/^Not yet: /)
    for (const box of await sheet.getByRole('checkbox').all()) await box.check()
    await sheet.getByLabel('Fault of the simulated programmer').selectOption('supply lost half-way')
    await sheet.getByRole('button', { name: 'Write it (simulated)' }).click()
  })
  await test.step('the supply goes; put away and opened again it is still known, and goes on', async () => {
    await expect(sheet).toContainText('The supply is gone. Go on from here, or roll back to the backup.')
    await page.keyboard.press('Escape')
    await page.reload()
    await awake(page)
    await page.getByRole('button', { name: 'Write the chip…' }).click()
    await sheet.getByRole('button', { name: 'Go on from here' }).click()
    await expect(sheet).toContainText('Written and read back: every byte is as it should be.')
    await page.keyboard.press('Escape')
  })
  await expect(lastLine(page)).toContainText('chip written, every byte read back')
  await expect(step(page)).toHaveText('Clip off, then start it two or three times before you judge.')
  await page.getByRole('button', { name: 'Clip is off' }).click()
  // Nothing was measured on this board yet.
  await expect(step(page)).toHaveText(/^Do not power yet: /)
})

test('a chip comes off the board and goes on again: photo first, then point by point, the gate shut meanwhile', async ({
  bench: page,
  shop,
}) => {
  const tag = await onBench(page, shop, 'module')
  await expect(step(page)).toHaveText(/maker’s file/)
  await saved(page)
  const gate = page.getByRole('button', { name: /^Do not power/ })
  await page.getByRole('tab', { name: 'Chip and clip' }).click()
  await page.getByRole('button', { name: 'Take the chip off…' }).click()
  const sheet = page.getByRole('dialog', { name: 'Before the chip comes off' })
  await test.step('no iron without a photo of the place', async () => {
    for (const box of await sheet.getByRole('checkbox').all()) await box.check()
    await expect(sheet.getByRole('button', { name: 'The chip is off' })).toBeDisabled()
    await sheet.getByLabel('A photo of the place').setInputFiles('docs/screenshots/bench-paper.png')
    await sheet.getByRole('checkbox', { name: /^photo/ }).check()
    const { violations } = await axe(page).include('[role=dialog]').analyze()
    expect(violations.map((v) => v.id)).toEqual([])
    await sheet.getByRole('button', { name: 'The chip is off' }).click()
  })
  await expect(lastLine(page)).toContainText('firmware chip off the board, by hot air')
  await gate.click()
  await expect(page.getByText('The firmware chip is off the board').last()).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Soldered back, by hot air' }).click()
  await expect(step(page)).toHaveText(/^Is its dot where it was on the photo/)
  await test.step('turned, it comes off again', async () => {
    await page.getByRole('button', { name: 'It is turned' }).click()
    await expect(step(page)).toHaveText(/^The chip is turned: power would destroy it/)
    await page.getByRole('button', { name: 'It is off again' }).click()
    await page.getByRole('button', { name: 'Soldered back, by hot air' }).click()
  })
  for (const says of [/^Is its dot/, /^Is every pad/, /^Is each pin wetted/]) {
    await expect(step(page)).toHaveText(says)
    await saved(page)
    await page.keyboard.press('c')
  }
  await expect(step(page)).toHaveText(/^Measure each pin to the far end/)
  const clock = page.getByLabel('CLK (pin 6)')
  await clock.fill('open')
  await clock.press('Enter')
  await expect(step(page)).toHaveText(/^CLK \(6\) does not come through/)
  await page.getByRole('button', { name: 'Joints reflowed' }).click()
  await expect(step(page)).toHaveText(/^(Still to be measured|Measure)/)
  await clock.fill('two')
  await clock.press('Enter')
  await expect(
    page.getByRole('alert').filter({ hasText: '“two” is no reading; ohms, or open' }),
  ).toBeVisible()
  await expect(gate).toBeVisible()
  await atStation(page, shop, tag, 'firmware')
  await expect(step(page)).toHaveText(/^(Still to be measured|Measure)/)
})

test('a release that the route asks for is written in a session, and the route goes on', async ({
  bench: page,
  shop,
}) => {
  test.slow()
  await onBench(page, shop, 'module')
  await expect(step(page)).toHaveText(/maker’s file/)
  await type(page, 'cpu bench Orrin 44')
  await type(page, 'version 1.40')
  await saved(page)
  await page.getByRole('tab', { name: 'Route' }).click()
  const route = page.getByRole('region', { name: 'Route' })
  await route.getByLabel('CPU wanted').selectOption('Orrin 53')
  await route.getByRole('checkbox', { name: 'the built-in updater' }).uncheck()
  await page.getByRole('button', { name: 'Follow this route' }).click()
  await expect(step(page)).toHaveText(/^Write 2\.04 by the programmer, by clip\./)
  await page.getByRole('button', { name: '2.04 of the maker (simulated)' }).click()
  await page.getByRole('button', { name: 'Compare c' }).click()
  await expect(step(page)).toHaveText(/^Write 2\.04 by the programmer, by clip\./)
  await writeChip(page, '2.04 does not run Orrin 44 by the table')
  await expect(step(page)).toHaveText('Take the clip off first.')
  await page.getByRole('button', { name: 'Clip is off' }).click()
  await expect(step(page)).toHaveText('Fit Orrin 53.')
  await page.reload()
  await awake(page)
  await expect(step(page)).toHaveText('Fit Orrin 53.')
})

test('a write that leaves the board dark: the last step first, then the ID, then the original is put back', async ({
  bench: page,
  shop,
}) => {
  test.slow()
  const tag = await onBench(page, shop, 'module')
  await page.getByRole('button', { name: '2.04 of the maker (simulated)' }).click()
  await page.getByRole('button', { name: 'Compare c' }).click()
  await expect(step(page)).toHaveText(/^Another release/)
  await writeChip(page, '2.04')
  await expect(step(page)).toHaveText('Clip off, then start it two or three times before you judge.')
  await page.getByRole('button', { name: 'Clip is off' }).click()
  await expect(lastLine(page)).toContainText('clip off')
  await atStation(page, shop, tag, 'triage')
  await page.getByRole('tab', { name: /^Power-up/ }).click()
  for (const start of ['1', '2']) {
    await page.getByRole('radiogroup', { name: 'Fans' }).getByRole('radio', { name: 'on' }).click()
    await page.getByRole('radiogroup', { name: 'Picture' }).getByRole('radio', { name: 'none' }).click()
    await page.getByRole('button', { name: /^Note this power-up/ }).click()
    await expect(page.getByRole('tab', { name: `Power-up ${start}` })).toBeVisible()
  }
  await saved(page)
  await atStation(page, shop, tag, 'firmware')
  await expect(step(page)).toHaveText(/^Dark since the write. The last step first/)
  await page.getByRole('button', { name: 'All sits home' }).click()
  await expect(step(page)).toHaveText(/^Dark since the write: read the chip’s ID/)
  await page.getByRole('radio', { name: 'on the chip' }).click()
  await page.getByRole('button', { name: 'Read the ID (simulated)' }).click()
  await expect(step(page)).toHaveText('Put the original back: it was sound, and the board is no better.')
  await page.getByRole('button', { name: 'Put the original back…' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Put the original back/ })
    .click()
  await expect(lastLine(page)).toContainText('backup put back on the chip', { timeout: 90_000 })
})
