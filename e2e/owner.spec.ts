import { axe, atStation, expect, saved, takeIn, tapeLines, test, type } from './bench'

test('an owner sees how their board stands by a link, answers a changed offer, and says later how it went', async ({
  bench: page,
  shop,
  browser,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Owner’s words').fill('dark since the storm')
  await page.keyboard.press('Tab')
  await saved(page)
  await type(page, 'note the owner is in a hurry')
  await saved(page)
  const link = page.getByRole('region', { name: 'Link for the owner' })
  await link.getByLabel('Opens, days').fill('0')
  await expect(link.getByText('1 to 365')).toBeVisible()
  await link.getByLabel('Opens, days').fill('30')
  await link.getByRole('button', { name: 'Make a link' }).click()
  const address = (await link.getByText(`${shop.url}/owner/`).textContent())!
  const home = await (await browser.newContext()).newPage()
  await home.goto(address)
  await expect(home.getByRole('heading', { level: 1 })).toHaveText('It is here, and waits for its turn.')
  await expect(home.getByText('“dark since the storm”')).toBeVisible()
  await expect(home.getByText('hurry')).toHaveCount(0)
  expect((await home.request.get(`${shop.url}/api/jobs/${tag}/tape`)).status()).toBe(401)
  expect((await axe(home).analyze()).violations).toEqual([])

  await test.step('a changed offer is asked and answered there', async () => {
    await page.getByRole('button', { name: 'Change the offer' }).click()
    await page.getByLabel('What changes').fill('a second contact is broken')
    await page.getByRole('button', { name: 'Put it to the owner' }).click()
    await expect(page.getByText('Hand-back is held.')).toBeVisible()
    await saved(page)
    await home.reload()
    await home.getByRole('button', { name: 'Yes, go on' }).click()
    await expect(home.getByText('a second contact is broken: yes')).toBeVisible()
    await page.reload()
    await expect(tapeLines(page).last()).toContainText('owner approves the offer (through their link)')
  })

  await test.step('closed, it opens nothing, and answers nothing', async () => {
    await atStation(page, shop, tag, 'intake')
    await link.getByRole('button', { name: 'Close it' }).click()
    await expect(link.getByRole('listitem')).toHaveCount(0)
    await home.reload()
    await expect(home.getByRole('heading', { level: 1 })).toHaveText('This link opens nothing.')
  })

  await test.step('of a board that was repaired the owner says weeks later how it goes', async () => {
    const id = crypto.randomUUID()
    const made = await page.request.post(`${shop.url}/api/jobs/Q-0150/links`, { data: { id, days: 5 } })
    const { path } = (await made.json()) as { path: string }
    await home.goto(`${shop.url}${path}`)
    await expect(home.getByRole('heading', { level: 1 })).toHaveText('It is repaired.')
    await home.getByLabel('A few words, if you like').fill('stopped after a week')
    await home.getByRole('button', { name: 'It fails again' }).click()
    await expect(home.getByText('Thank you. The workshop sees it at once.')).toBeVisible()
    await atStation(page, shop, 'Q-0150', 'hand-back')
    await expect(tapeLines(page).last()).toContainText('later: the owner: stopped after a week')
  })
  await home.context().close()
})
