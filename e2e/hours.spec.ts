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

test('a job is put first by hand, by keys and by the mouse; it stays so, and goes back to the bench’s own order', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  const tags = page.locator('main ol [data-job]')
  const own = await tags.allTextContents()
  const third = own[2]!
  const handle = (tag: string) => page.getByRole('button', { name: `Move ${tag}` })
  await handle(third).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(`${third} is at place 3.`)).toBeAttached()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(`${third} is at place 2.`)).toBeAttached()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(`${third} is at place 1.`)).toBeAttached()
  await page.keyboard.press('Space')
  const rest = own.filter((tag) => tag !== third)
  await expect(tags).toHaveText([third, ...rest])
  await expect(page.getByText('The first is put there by hand.')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`Take ${third} next`)
  await page.reload()
  await awake(page)
  await expect(tags).toHaveText([third, ...rest])

  const [from, to] = [await handle(rest[1]!).boundingBox(), await handle(third).boundingBox()]
  await page.mouse.move(from!.x + 8, from!.y + 8)
  await page.mouse.down()
  await page.mouse.move(from!.x + 8, from!.y - 20, { steps: 4 })
  await page.mouse.move(to!.x + 8, to!.y + 4, { steps: 8 })
  await expect(page.getByText(`${rest[1]} is at place 1.`)).toBeAttached()
  await page.mouse.up()
  await expect(tags.first()).toHaveText(rest[1]!)
  await expect(page.getByText('The first 2 are put there by hand.')).toBeVisible()

  // Somebody else still sees the order before that, and moves a job: theirs is not put over this one.
  const older = await page.context().newPage()
  await older.goto(`${shop.url}/`)
  await awake(older)
  await page.getByRole('button', { name: 'Back to the bench’s own order' }).click()
  await expect(tags).toHaveText(own)
  await older.getByRole('button', { name: `Move ${own[3]}` }).focus()
  await older.keyboard.press('Space')
  await expect(older.getByText(`${own[3]} is at place 4.`)).toBeAttached()
  await older.keyboard.press('ArrowUp')
  await expect(older.getByText(`${own[3]} is at place 3.`)).toBeAttached()
  await older.keyboard.press('Space')
  await expect(older.getByText('Somebody moved jobs meanwhile: this is their order.')).toBeVisible()
  await expect(older.locator('main ol [data-job]')).toHaveText(own)
})
