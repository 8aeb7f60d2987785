import type { Page } from '@playwright/test'
import { atStation, awake, expect, saved, takeIn, tapeLines, test } from './bench'

const field = (page: Page, label: string) => page.getByLabel(label, { exact: true })
const heatWindow = (page: Page) => page.getByRole('region', { name: 'Heat window' })

test('a heat recipe is searched, dropped, kept; what a thermocouple reads corrects it', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop)
  await atStation(page, shop, tag, 'parts')
  await page.getByRole('tab', { name: 'Heat' }).click()
  await expect(heatWindow(page)).toContainText('Nothing passes its limit.')

  await test.step('a field that is wrong is named, and nothing else is lost', async () => {
    await field(page, 'Nozzle, mm').fill('wide')
    await expect(page.getByText('1 to 40 mm')).toBeVisible()
    await expect(page.getByText('A field of the recipe is not clear yet; it says which.')).toBeVisible()
    await field(page, 'Nozzle, mm').fill('5')
    await field(page, 'Distance, mm').fill('60')
    await field(page, 'Its name').fill('U7')
    await expect(heatWindow(page)).toContainText('It never floats: nothing is lifted.')
    await expect(heatWindow(page)).not.toContainText('only when it floats')
    await field(page, 'Distance, mm').fill('8')
  })
  await test.step('a search can be dropped; its end fills in the recipe and holds the ways against each other', async () => {
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByRole('progressbar', { name: 'Searching a recipe' })).toBeVisible()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(field(page, 'Nozzle, mm')).toHaveValue('5')
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0, { timeout: 120_000 })
    await expect(heatWindow(page)).toContainText('Nothing passes its limit.')
    await expect(heatWindow(page)).toContainText('lift it only when it floats, never pull')
    for (const school of ['air only', 'preheated', 'small nozzle', 'large nozzle'])
      await expect(heatWindow(page).locator('dt', { hasText: school })).toBeVisible()
  })
  await test.step('kept with the job, and there after a reload', async () => {
    await page.getByRole('button', { name: 'Keep this recipe' }).click()
    await expect(page.getByRole('button', { name: 'Kept', exact: true })).toBeDisabled()
    await expect(tapeLines(page).last()).toContainText('heat recipe, firmware chip U7')
    await saved(page)
    await page.reload()
    await awake(page)
    await page.getByRole('tab', { name: 'Heat' }).click()
    await expect(field(page, 'Its name')).toHaveValue('U7')
    await expect(heatWindow(page)).toContainText('Floats at')
  })
  await test.step('a board that reads far cooler: the curves count with it, and it floats no more', async () => {
    await field(page, 'At, s').fill('soon')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(page.getByText('seconds since it began')).toBeVisible()
    await field(page, 'At, s').fill('170')
    await field(page, 'Reads, °C').fill('80')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(tapeLines(page).last()).toContainText('thermocouple at the board: 80 °C at 170 s')
    await expect(page.getByText('what the air gives is not settled')).toBeVisible()
    await expect(heatWindow(page)).toContainText('It never floats: nothing is lifted.')
  })
  await test.step('where nothing at hand melts it, that is said, with what would', async () => {
    await field(page, 'Nozzles, mm').fill('2')
    await field(page, 'Preheat, W/cm²').fill('')
    await page.getByLabel('What is heated').selectOption('socket')
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByText('Nothing at hand melts the joint.')).toBeVisible({ timeout: 120_000 })
  })
})
