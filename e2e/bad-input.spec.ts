import { createHash, randomBytes } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import sharp from 'sharp'
import { awake, expect, saved, signIn, sql, takeIn, tapeLines, test, type } from './bench'

const rows = (n: number, change: (i: number) => string = () => '') =>
  [
    'name,x_mm,y_mm,group',
    ...Array.from({ length: n }, (_, i) => change(i) || `A${i + 1},${i},0,ground`),
  ].join('\n')

test.describe('a malformed contact table', () => {
  for (const [what, csv, says] of [
    ['a wrong delimiter', rows(4).replaceAll(',', '/'), /no column “name”/],
    [
      'a doubled contact',
      rows(4, (i) => (i === 2 ? 'A1,9,9,ground' : '')),
      /line 4, name: A1 stands already on line 2/,
    ],
    [
      'a number that is none',
      rows(4, (i) => (i === 1 ? 'A2,NaN,0,ground' : '')),
      /line 3, x_mm: “NaN” is not a number/,
    ],
    [
      '7,000 rows',
      rows(7000, (i) => `A${(i % 999) + 1},${i},0,ground`),
      /7,000 contacts; the largest field taken is 6,500/,
    ],
    ['nothing in it', '', /The file is empty|no column/],
  ] as const)
    test(`with ${what} is refused with its line, and what was entered stays`, async ({
      bench: page,
      shop,
    }) => {
      await page.goto(`${shop.url}/library`)
      await awake(page)
      await page.getByText('Import a socket').click()
      await page.getByRole('textbox', { name: 'Name' }).fill('Broken')
      await page
        .getByLabel(/^Table:/)
        .setInputFiles({ name: 'table.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
      await page.getByRole('button', { name: 'Look at it' }).click()
      await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible()
      await expect(page.getByRole('button', { name: 'Keep it' })).toHaveCount(0)
      await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Broken')
    })

  test('that lies mirrored, in mils and other people’s columns, is asked about and put right', async ({
    bench: page,
    shop,
  }) => {
    await page.goto(`${shop.url}/library`)
    await awake(page)
    await page.getByText('Import a socket').click()
    await page.getByRole('textbox', { name: 'Name' }).fill(`Mirrored ${randomBytes(3).toString('hex')}`)
    const mirrored = ['A', 'B', 'C'].flatMap((row, r) =>
      Array.from({ length: 4 }, (_, c) => `SIG${r}${c},${-40 * c},${-40 * r},${row}${c + 1}`),
    )
    await page.getByLabel(/^Table:/).setInputFiles({
      name: 'table.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['Signal Name,X,Y,Ball', ...mirrored].join('\n')),
    })
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('12 contacts, pitch 1.016 mm.')).toBeVisible()
    await expect(page.getByText(/taken as mil, by their spacing/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled()
    await page.getByRole('radio', { name: 'put right' }).click()
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(
      page.getByText(/was mirrored, as seen on the underside of the CPU; it is put right/),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Keep it' }).click()
    await expect(page.getByText('It is in the library.')).toBeVisible()
  })

  test('with a byte-order mark and semicolons is read, kept and given back', async ({
    bench: page,
    shop,
  }) => {
    const name = `Good ${randomBytes(3).toString('hex')}`
    await page.goto(`${shop.url}/library`)
    await awake(page)
    await page.getByText('Import a socket').click()
    await page.getByRole('textbox', { name: 'Name' }).fill(name)
    await page.getByLabel(/^Table:/).setInputFiles({
      name: 'table.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`\uFEFF${rows(5).replaceAll(',', ';')}`),
    })
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('5 contacts, pitch 1 mm.')).toBeVisible()
    await page.getByRole('button', { name: 'Keep it' }).click()
    await expect(page.getByText('It is in the library.')).toBeVisible()
    await page.getByRole('link', { name }).click()
    const download = page.waitForEvent('download')
    await page.getByRole('link', { name: 'The table as CSV' }).click()
    expect((await download).suggestedFilename()).toMatch(/\.csv$/)
  })

  test('as a grid says which figure is missing', async ({ bench: page, shop }) => {
    await page.goto(`${shop.url}/library`)
    await awake(page)
    await page.getByText('Import a socket').click()
    await page.getByRole('textbox', { name: 'Name' }).fill('Grid')
    await page.getByRole('radio', { name: 'rows and columns' }).click()
    await page.getByRole('textbox', { name: 'Rows' }).fill('many')
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('Rows: a whole number from 2 to 200.')).toBeVisible()
    await page.getByRole('textbox', { name: 'Rows' }).fill('10')
    await page.getByRole('textbox', { name: 'Columns' }).fill('12')
    await page.getByRole('textbox', { name: 'Pitch, mm' }).fill('1,2')
    await page.getByRole('textbox', { name: 'What the regions do, one a line' }).fill('A1 C4 cabbage')
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText(/“cabbage” is not a function group/)).toBeVisible()
    await page.getByRole('textbox', { name: 'What the regions do, one a line' }).fill('A1 C4 memory A')
    await page.getByRole('button', { name: 'Look at it' }).click()
    await expect(page.getByText('120 contacts, pitch 1.2 mm.')).toBeVisible()
  })
})

test('a photo of 60 MB, and a picture that is none, are refused by name and leave no line', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop)
  const input = page.getByLabel('Photo to add')
  const huge = test.info().outputPath('huge.png')
  writeFileSync(huge, Buffer.alloc(60 * 1024 * 1024))
  await input.setInputFiles(huge)
  await expect(page.getByRole('alert').filter({ hasText: 'huge.png' })).toContainText(
    'This picture has 60 MB; at most 40 MB are taken.',
  )
  await input.setInputFiles({
    name: 'fake.png',
    mimeType: 'image/png',
    buffer: Buffer.from('this is only named a picture'),
  })
  await expect(page.getByRole('alert').filter({ hasText: 'fake.png' })).toContainText(
    'This is not a JPEG, PNG or WebP picture.',
  )
  for (const name of ['huge.png', 'fake.png'])
    await page
      .getByRole('alert')
      .filter({ hasText: name })
      .getByRole('button', { name: 'Put it away' })
      .click()
  await expect(page.getByRole('alert').filter({ hasText: '.png' })).toHaveCount(0)
  await expect(tapeLines(page).filter({ hasText: 'photo' })).toHaveCount(0)
})

test('a photo that is dropped hangs on the job and is not seen by another', async ({ bench: page, shop }) => {
  const tag = await takeIn(page, shop)
  const colour = `#${randomBytes(3).toString('hex')}`
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: colour } })
    .png()
    .toBuffer()
  const transfer = await page.evaluateHandle(
    (bytes) => {
      const data = new DataTransfer()
      data.items.add(new File([Uint8Array.from(bytes)], 'above.png', { type: 'image/png' }))
      return data
    },
    [...png],
  )
  await page.getByRole('region', { name: 'Photos' }).dispatchEvent('drop', { dataTransfer: transfer })
  await expect(tapeLines(page).last()).toContainText('photo, above.png')
  const src = await page.getByRole('button', { name: 'Open above.png' }).locator('img').getAttribute('src')
  expect((await page.request.get(`${shop.url}${src}`)).status()).toBe(200)
  const other = await takeIn(page, shop)
  expect((await page.request.get(`${shop.url}${src!.replace(tag, other)}`)).status()).toBe(404)
})

test('a tape line that makes no sense teaches, and stays to be mended', async ({ bench: page, shop }) => {
  await takeIn(page, shop)
  const input = page.getByRole('textbox', { name: 'Quick entry on the tape' })
  for (const [line, says] of [
    ['ohn vcore 1.8', 'did you mean ohm?'],
    ['vbat twelve', 'a coin cell reads 0 to 5 V; “twelve” does not'],
    ['mark M31 sad', 'what is wrong with M31?'],
    ['code 4X', '“4X” is no code'],
  ] as const) {
    await input.fill(line)
    await input.press('Enter')
    await expect(page.getByText(says)).toBeVisible()
    await expect(input).toHaveValue(line)
  }
  await page.getByRole('button', { name: /^Like:/ }).click()
  await input.press('Enter')
  await expect(tapeLines(page).last()).toContainText('codes 4C 4C 31')
  await input.fill('oh')
  await input.press('Tab')
  await expect(input).toHaveValue('ohm ')
})

test('a contact the socket does not have is refused by name', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/jobs/Q-0410/triage`)
  await awake(page)
  const input = page.getByRole('textbox', { name: 'Quick entry on the tape' })
  await input.fill('mark S99 low 0.1')
  await input.press('Enter')
  await expect(page.getByText('LG-1716 has no contact S99; they run from A1 to')).toBeVisible()
})

test('two people on one job are shown to each other, and neither loses a mark', async ({
  bench: page,
  shop,
  browser,
}) => {
  const tag = await takeIn(page, shop)
  await type(page, 'note begun by Tolliver')
  await saved(page)
  const second = await (await browser.newContext()).newPage()
  await signIn(second, shop, 'Maren')
  await second.goto(`${shop.url}/jobs/${tag}/triage`)
  await expect(second.getByText('begun by Tolliver')).toBeVisible()
  await second.route('**/tape?after=*', (route) => route.abort())
  await type(page, 'mark M31 low 0.2')
  await saved(page)
  await type(second, 'mark M31 snapped')
  const trouble = second.getByRole('alert').filter({ hasText: 'M31 snapped off' })
  await expect(trouble).toContainText('Tolliver has just written about the same thing.')
  await expect(trouble).toContainText('What you entered is kept.')
  await expect(tapeLines(second).filter({ hasText: 'M31 low by 0.20 mm' })).toBeVisible()
  await trouble.getByRole('button', { name: 'Enter mine after it' }).click()
  await expect(trouble).toHaveCount(0)
  await expect(tapeLines(page).filter({ hasText: 'M31 snapped off' })).toBeVisible({ timeout: 20_000 })
  await second.context().close()
})

test('a session that ends in the middle of a map keeps every mark until the next sign-in', async ({
  page,
  shop,
  context,
}) => {
  await signIn(page, shop, 'Tolliver')
  await page.goto(`${shop.url}/jobs/Q-0413/socket`)
  await expect(page.locator('#map')).toHaveAttribute('data-cursor', /\d/)
  await page.keyboard.press('Escape')
  await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
  const cookie = (await context.cookies()).find((c) => c.name === 'needle_session')!
  const tokenHash = createHash('sha256').update(cookie.value).digest('hex')
  await sql(shop.databaseUrl, 'update session set revoked_at = now() where token_hash = $1', [tokenHash])
  const before = await tapeLines(page).count()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('4')
  await expect(page.getByText('Your sign-in has run out.')).toBeVisible()
  await expect(page.getByText('1 line is kept here.')).toBeVisible()
  const signInPage = context.waitForEvent('page')
  await page.getByRole('link', { name: 'Sign in in a new tab' }).click()
  const other = await signInPage
  await other.getByRole('button', { name: /^Tolliver/ }).click()
  await expect(other).toHaveURL(/\/jobs\/Q-0413\//)
  await other.close()
  // It is sent by itself once the page is looked at again; the button is for who does not wait.
  const send = page.getByRole('button', { name: 'send' })
  await expect(async () => {
    if (await send.isVisible()) await send.click({ timeout: 1000 })
    await expect(page.getByText('1 line is kept here.')).toHaveCount(0, { timeout: 1000 })
  }).toPass()
  await saved(page)
  await expect(tapeLines(page)).toHaveCount(before + 1)
  await page.reload()
  await expect(tapeLines(page).last()).toContainText('high')
})

test('a ZIP that is no job is refused with its reason', async ({ bench: page, shop }) => {
  await page.goto(`${shop.url}/`)
  await awake(page)
  await page
    .getByLabel('Job ZIP to import')
    .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: Buffer.from('PK not really') })
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was imported.' })).toContainText(
    'this is not a ZIP',
  )
})

test('requests from elsewhere, without a sign-in or beyond measure are refused', async ({
  bench: page,
  shop,
  playwright,
}) => {
  const stranger = await playwright.request.newContext()
  expect((await stranger.get(`${shop.url}/api/jobs/Q-0417/tape`)).status()).toBe(401)
  expect((await stranger.get(`${shop.url}/api/jobs/Q-0417/zip`)).status()).toBe(401)
  expect((await stranger.get(`${shop.url}/jobs/Q-0417/socket`, { maxRedirects: 0 })).status()).toBe(307)
  await stranger.dispose()
  const post = (data: unknown, headers: Record<string, string> = {}) =>
    page.request.post(`${shop.url}/api/jobs/Q-0417/tape`, { data, headers })
  expect((await post({}, { origin: 'http://elsewhere.example' })).status()).toBe(403)
  expect((await post({ id: 'x' })).status()).toBe(422)
  expect((await post('{')).status()).toBe(400)
  expect((await post({ text: 'x'.repeat(600_000) })).status()).toBe(413)
  expect((await page.request.get(`${shop.url}/api/jobs/Q-9999/tape`)).status()).toBe(404)
  expect((await page.request.get(`${shop.url}/api/jobs/Q-0417/map?as=dwg`)).status()).toBe(400)
  const answer = await page.request.get(`${shop.url}/`)
  expect(answer.headers()['content-security-policy']).toMatch(/script-src 'self' 'nonce-/)
  expect(answer.headers()['x-powered-by']).toBeUndefined()
})
