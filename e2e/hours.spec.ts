import { awake, expect, ownShop, signIn, test } from './bench'

test('the bench hours: what is wrong is named and stays typed, what is kept is reckoned with, the lead alone keeps it', async ({
  page,
}) => {
  const shop = await ownShop('hours')
  try {
    await signIn(page, shop, 'Ines')
    await page.goto(`${shop.url}/library/hours`)
    await awake(page)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('The bench is worked 35 hours a week')
    await page.getByLabel('Monday from').fill('nine')
    await page.getByLabel('Closed days, one a line').fill('2026-02-30')
    await page.getByRole('button', { name: 'Keep the hours' }).click()
    await expect(page.getByText('“nine” is no time')).toBeVisible()
    await expect(page.getByText('“2026-02-30” is no day')).toBeVisible()
    await expect(page.getByLabel('Monday from')).toHaveValue('nine')
    for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'])
      for (const which of ['from', 'to']) await page.getByLabel(`${day} ${which}`).fill('')
    await page.getByLabel('Sunday from').fill('10:00')
    await page.getByLabel('Sunday to').fill('14:00')
    await page.getByLabel('Closed days, one a line').fill('')
    await page.getByRole('button', { name: 'Keep the hours' }).click()
    await expect(page.getByText('Kept. The bench list and the calendar reckon with it.')).toBeVisible()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('The bench is worked 4 hours a week')
    await page.goto(`${shop.url}/`)
    await expect(page.getByText(/^likely Sun/).first()).toBeVisible()
    await expect(page.getByText(/^likely (Mon|Tue|Wed|Thu|Fri|Sat)/)).toHaveCount(0)
    await page.context().clearCookies()
    await signIn(page, shop, 'Maren')
    await page.goto(`${shop.url}/library/hours`)
    await expect(page.getByText('The lead changes it.')).toBeVisible()
    await expect(page.getByLabel('Monday from')).toBeDisabled()
  } finally {
    await shop.kill()
  }
})
