import { axe, atStation, awake, expect, ownShop, saved, signIn, tapeLines, test, type } from './bench'

test('odds said before a start are kept with what was reckoned, and scored once the job is done', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const shop = await ownShop('record')
  try {
    await signIn(page, shop, 'Tolliver')
    await page.goto(`${shop.url}/record`)
    await page.getByRole('link', { name: 'What came true of the odds' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/What came true in 30\d jobs/)
    await awake(page)
    const odds = page.getByRole('region', { name: 'Odds against what came' })
    await odds.getByRole('radio', { name: 'a picture, said aloud' }).click()
    await expect(odds).toContainText(/What is said as \d+ % comes true in/)
    await expect(odds.getByRole('option', { name: /^all of them \(30\d\)$/ })).toBeAttached()
    await page.getByLabel('Whose, or of what').selectOption('by Ines')
    await expect(odds.getByRole('row')).not.toHaveCount(1)
    const changed = page.getByRole('region', { name: 'What it changed' })
    await expect(changed.getByRole('row', { name: /minutes until a job is ready/ })).toContainText(
      /26\d fixed jobs/,
    )
    const { violations } = await axe(page).analyze()
    expect(violations).toEqual([])
    const csv = await (await page.request.get(`${shop.url}/api/record`)).text()
    expect(csv.split('\n')[0]!.trim()).toBe('job,of,source,by,kind,odds,came,school')

    await test.step('the record leaves the shop as CSV and JSON', async () => {
      const get = async (query: string) => page.request.get(`${shop.url}/api/record${query}`)
      const odds = (await (await get('?as=json')).json()) as object[]
      expect(odds.length).toBe(csv.trim().split('\n').length - 1)
      const jobs = (await (await get('?of=jobs&as=json')).json()) as Record<string, unknown>[]
      expect(jobs.length).toBeGreaterThan(300)
      expect(jobs.find((j) => j.job === 'Q-0407')).toMatchObject({ outcome: 'fixed', held: 1 })
      const table = (await (await get('?of=jobs')).text()).split('\n')[0]!.trim()
      expect(table).toBe(Object.keys(jobs[0]!).join(','))
      const refused = await get('?of=cats')
      expect(refused.status()).toBe(422)
      expect(((await refused.json()) as { error: { field: string } }).error.field).toBe('of')
    })

    await test.step('the bench list reckons with it', async () => {
      await page.goto(`${shop.url}/`)
      await expect(page.getByText(/By 26\d jobs of the record, work takes/)).toBeVisible()
    })

    await test.step('a claim is believed as such claims held', async () => {
      await atStation(page, shop, 'Q-0412', 'triage')
      await page
        .getByRole('region', { name: 'Evidence' })
        .getByRole('tab', { name: /Claims/ })
        .click()
      await page.getByRole('button', { name: 'What it means' }).first().click()
      await expect(page.getByText(/of \d+ such claims that were checked here, \d+ held/)).toBeVisible()
    })

    await test.step('said before it starts, told by the start', async () => {
      await page
        .getByRole('region', { name: 'Evidence' })
        .getByRole('tab', { name: /Power-up|power/ })
        .first()
        .click()
      await page.getByRole('radio', { name: '40 %' }).click()
      await expect(page.getByText(/You say 40 %; reckoned \d+ %/)).toBeVisible()
      await expect(tapeLines(page).last()).toContainText(
        'said before the start: 40 % that there is a picture',
      )
      await type(page, 'say 60')
      await expect(page.getByText('You say 60 %.')).toBeVisible()
      await saved(page)
    })

    await test.step('a promise says its odds before it is given, and keeps them on its line', async () => {
      await page.goto(`${shop.url}/jobs/Q-0412/intake`)
      await awake(page)
      const terms = page.getByRole('group', { name: 'Worth, limit, promise' })
      const promised = terms.getByLabel('Promised')
      await promised.fill('2026-01-05T10:00')
      await expect(terms.getByText('Kept < 1 %: no bench hours before it.')).toBeVisible()
      await promised.fill('')
      await terms.getByRole('button', { name: 'Promise that' }).click()
      await expect(promised).not.toHaveValue('')
      await expect(promised).toBeFocused()
      await expect(terms.getByText(/^Kept (7|8|9)\d %|^Kept > 99 %/)).toBeVisible()
      const { violations } = await axe(page).include('#terms').analyze()
      expect(violations).toEqual([])
      await page.getByRole('heading', { level: 2 }).first().click()
      await expect(tapeLines(page).last()).toContainText(/ticket: promised, (\d\d|> 99) % that it is kept/)
      await saved(page)
      const asked = await page.request.get(`${shop.url}/api/jobs/Q-0412/promise?minutes=x`)
      expect(asked.status()).toBe(422)
      expect(((await asked.json()) as { error: { field: string } }).error.field).toBe('minutes')
    })
  } finally {
    await shop.kill()
  }
})
