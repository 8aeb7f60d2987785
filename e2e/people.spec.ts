import { randomBytes } from 'node:crypto'
import { awake, expect, Shop, signIn, sql, test } from './bench'

test('the first start of an empty shop makes the lead’s account, and only once', async ({ page }) => {
  const shop = await Shop.open(process.env.E2E_EMPTY_URL!)
  try {
    await page.goto(shop.url)
    await expect(page).toHaveURL(`${shop.url}/welcome`)
    await expect(page.getByRole('heading', { name: 'An empty bench.' })).toBeVisible()
    await page.getByLabel('Your name at the bench').fill('Ada')
    await page.getByLabel('Sign-in name').fill('Not A Name!')
    await page.getByLabel('Password').fill('short')
    await page.getByLabel('Code').fill('x')
    await page.getByRole('button', { name: 'Open the shop' }).click()
    await expect(page.getByText('Two to forty letters, figures, dots or dashes.')).toBeVisible()
    await expect(page.getByText('At least 12 characters; a short sentence is easiest.')).toBeVisible()
    await expect(page.getByLabel('Your name at the bench')).toHaveValue('Ada')
    await page.getByLabel('Sign-in name').fill('ada')
    await page.getByLabel('Password').fill('a long enough word')
    await page.getByLabel('Code').fill('not the code')
    await page.getByRole('button', { name: 'Open the shop' }).click()
    await expect(page.getByText('This is not the code.')).toBeVisible()
    await page.getByLabel('Password').fill('a long enough word')
    await page.getByLabel('Code').fill(process.env.FIRST_LEAD_CODE!)
    await page.getByRole('button', { name: 'Open the shop' }).click()
    await expect(page.getByRole('heading', { name: 'Nothing waits. Start a new job.' })).toBeVisible()
    await page.goto(`${shop.url}/record`)
    await expect(page.getByRole('heading', { name: 'No job is finished yet.' })).toBeVisible()
    await page.goto(`${shop.url}/library`)
    await expect(page.getByRole('heading', { name: /Import a first socket/ })).toBeVisible()
    await page.goto(`${shop.url}/welcome`)
    await expect(page).toHaveURL(/sign-in/)
  } finally {
    await shop.kill()
  }
})

test('a wrong word is told apart from too many tries', async ({ page, shop }) => {
  await page.goto(`${shop.url}/sign-in`)
  const login = `nobody-${randomBytes(4).toString('hex')}`
  for (let i = 0; i < 6; i++) {
    await page.getByLabel('Name').fill(login)
    await page.getByLabel('Password').fill(`guess ${i}`)
    await page.getByRole('button', { name: 'Sign in' }).click()
    // The form forgets the word once the answer is there.
    await expect(page.getByLabel('Password')).toHaveValue('')
    await expect(
      page.getByText(
        i < 5
          ? 'Name and password do not go together.'
          : 'Too many tries. Wait ten minutes, or ask the lead.',
      ),
    ).toBeVisible()
    await expect(page.getByLabel('Name')).toHaveValue(login)
  }
})

test('the lead adds somebody, who signs in and can be closed again', async ({ page, shop, browser }) => {
  const login = `new-${randomBytes(4).toString('hex')}`
  await signIn(page, shop, 'Ines')
  await page.goto(`${shop.url}/people`)
  await awake(page)
  await page.getByRole('textbox', { name: 'Name at the bench' }).fill('Newcomer')
  await page.getByRole('textbox', { name: 'Sign-in name' }).fill(login)
  await page.getByLabel('First password').fill('a long enough word')
  await page.getByRole('button', { name: 'Add the account' }).click()
  await expect(page.getByText('Newcomer can sign in now.')).toBeVisible()

  const other = await (await browser.newContext()).newPage()
  await other.goto(`${shop.url}/sign-in?back=/record`)
  await other.getByLabel('Name').fill(login)
  await other.getByLabel('Password').fill('a long enough word')
  await other.getByRole('button', { name: 'Sign in' }).click()
  await expect(other).toHaveURL(`${shop.url}/record`)
  await other.goto(`${shop.url}/people`)
  await expect(other.getByRole('button', { name: 'Add the account' })).toHaveCount(0)

  await page.reload()
  await page.getByRole('listitem').filter({ hasText: login }).getByRole('button').click()
  await expect(page.getByRole('listitem').filter({ hasText: login })).toContainText('closed')
  await other.goto(`${shop.url}/`)
  await expect(other).toHaveURL(/sign-in/)
  await other.context().close()
})

test('a session of mine elsewhere can be ended from here', async ({ page, shop, browser }) => {
  const userAgent = `other bench ${randomBytes(4).toString('hex')}`
  const other = await (await browser.newContext({ userAgent })).newPage()
  await signIn(other, shop, 'Maren')
  await signIn(page, shop, 'Maren')
  await page.goto(`${shop.url}/people`)
  await awake(page)
  const there = page.getByRole('listitem').filter({ hasText: userAgent })
  await there.getByRole('button', { name: 'End it' }).click()
  await expect(there).toHaveCount(0)
  await expect(page.getByText('here', { exact: true })).toBeVisible()
  await other.goto(`${shop.url}/`)
  await expect(other).toHaveURL(/sign-in/)
  await other.context().close()
})

test('owners are kept for so many months, and go by themselves when the server comes up', async ({
  page,
  shop,
}) => {
  await signIn(page, shop, 'Ines')
  await page.goto(`${shop.url}/people`)
  await awake(page)
  const kept = page.getByRole('region', { name: 'How long owners’ names are kept' })
  await kept.getByLabel('Months after the hand-back').fill('a while')
  await kept.getByRole('button', { name: 'Keep it so' }).click()
  await expect(kept).toContainText('Whole months, 1 to 240, like 24')
  await expect(kept.getByLabel('Months after the hand-back')).toHaveValue('a while')
  await kept.getByLabel('Months after the hand-back').fill('24')
  await kept.getByRole('button', { name: 'Keep it so' }).click()
  await expect(kept).toContainText('Kept for 24 months. Nobody is over it.')

  await sql(shop.databaseUrl, "update job set closed_at = now() - interval '25 months' where tag = 'Q-0407'")
  await shop.kill()
  await shop.start()
  await expect(async () => {
    await page.goto(`${shop.url}/jobs/Q-0407/intake`)
    await expect(page.getByText('Erased; the technical record stays.')).toBeVisible({ timeout: 1000 })
  }).toPass({ timeout: 60_000 })
})
