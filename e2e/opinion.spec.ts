import { buffer } from 'node:stream/consumers'
import sharp from 'sharp'
import { fromBuffer } from 'yauzl'
import { atStation, axe, expect, saved, takeIn, tapeLines, test, type } from './bench'

const photo = (colour: string) =>
  sharp({ create: { width: 64, height: 48, channels: 3, background: colour } })
    .png()
    .toBuffer()

/** Names in a ZIP, and the text of one of them. */
const unzip = (bytes: Buffer, wanted: string) =>
  new Promise<{ names: string[]; text: string }>((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (fault, zip) => {
      if (fault) return reject(fault)
      const names: string[] = []
      let text = ''
      zip.on('entry', (entry: { fileName: string }) => {
        names.push(entry.fileName)
        if (entry.fileName !== wanted) return zip.readEntry()
        zip.openReadStream(entry as never, (_, stream) => {
          void buffer(stream).then((bytes) => {
            text = bytes.toString()
            zip.readEntry()
          })
        })
      })
      zip.on('end', () => resolve({ names, text }))
      zip.readEntry()
    })
  })

test('a second opinion is asked for with photos, given by a link, and the answer is a claim', async ({
  bench: page,
  shop,
  browser,
}) => {
  const tag = await takeIn(page, shop)
  await page.getByLabel('Photo to add').setInputFiles([
    { name: 'corner.png', mimeType: 'image/png', buffer: await photo('#884422') },
    { name: 'kitchen.png', mimeType: 'image/png', buffer: await photo('#228844') },
  ])
  await expect(page.getByRole('button', { name: /^Open / })).toHaveCount(2)
  await type(page, 'ohm vmem 2.2 cpu out')
  await type(page, 'note the owner is in a hurry')
  await saved(page)

  await page.getByRole('main').focus()
  await page.keyboard.press('&')
  const sheet = page.getByRole('dialog', { name: 'A second opinion' })
  await sheet.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(sheet.getByText('What do you want to know?')).toBeVisible()
  await sheet.getByLabel('The question').fill('Is D4 bent, or is that the light?')
  await sheet.getByLabel('kitchen.png').uncheck()
  await sheet.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(sheet.getByRole('listitem')).toContainText('Is D4 bent, or is that the light?')
  await saved(page)
  await expect(sheet.getByRole('listitem')).toContainText('whoever has the link; 1 photo')
  await sheet.getByText('Send it, or write down the answer').click()
  expect((await axe(page).include('[role=dialog]').analyze()).violations).toEqual([])

  const zip = await page.request.get(
    `${shop.url}${(await sheet.getByRole('link', { name: /ZIP/ }).getAttribute('href'))!}`,
  )
  const { names, text } = await unzip(await zip.body(), 'question.txt')
  expect(names).toEqual(['question.txt', 'photos/01.png'])
  expect(text).toContain('Is D4 bent, or is that the light?')
  expect(text).not.toContain('hurry')
  expect((await page.request.get(`${shop.url}/api/jobs/${tag}/opinion?asked=1`)).status()).toBe(404)

  await sheet.getByRole('button', { name: 'Make a link' }).click()
  const address = (await sheet.getByText(`${shop.url}/opinion/`).textContent())!
  const away = await (await browser.newContext()).newPage()
  await away.goto(address)
  await expect(away.getByRole('heading', { level: 1 })).toHaveText('Is D4 bent, or is that the light?')
  await expect(away.getByRole('listitem').filter({ hasText: '2.2 Ω' })).toBeVisible()
  await expect(away.getByText('hurry')).toHaveCount(0)
  await expect(away.getByRole('img')).toHaveCount(1)
  const shown = away.getByRole('img').first()
  expect(await shown.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(64)
  expect((await axe(away).analyze()).violations).toEqual([])
  // The other photo of the job is not theirs to see, nor is the tape, nor the owner’s page.
  const files = await page
    .locator('button[aria-label^="Open "] img')
    .evaluateAll((all) => all.map((img) => (img as HTMLImageElement).src.split('/').at(-1)!))
  const answers = await Promise.all(files.map((sha) => away.request.get(`${address}/photos/${sha}`)))
  expect(answers.map((a) => a.status()).sort()).toEqual([200, 404])
  expect((await away.request.get(`${shop.url}/api/jobs/${tag}/tape`)).status()).toBe(401)
  await away.goto(address.replace('/opinion/', '/owner/'))
  await expect(away.getByText('This link opens nothing.')).toBeVisible()

  await away.goto(address)
  await away.getByLabel('What do you see').fill('the tip of D4 is under its neighbour')
  await away.getByRole('button', { name: 'Answer' }).click()
  await expect(away.getByText('Who are you?')).toBeVisible()
  await expect(away.getByLabel('What do you see')).toHaveValue('the tip of D4 is under its neighbour')
  await away.getByLabel('Your name').fill('Rooke')
  await away.getByRole('button', { name: 'Answer' }).click()
  await expect(away.getByText('Thank you.')).toBeVisible()
  await expect(away.getByText('One answer is with the workshop.')).toBeVisible()

  await atStation(page, shop, tag, 'triage')
  await expect(tapeLines(page).last()).toContainText('Rooke: the tip of D4 is under its neighbour')
  await page
    .getByRole('region', { name: 'Evidence' })
    .getByRole('tab', { name: /^Claims/ })
    .click()
  await page.getByRole('button', { name: 'What it means' }).click()
  await expect(page.getByText('Whoever says it judges by photos.')).toBeVisible()
  await expect(page.getByText(/^Believed 50 %/)).toBeVisible()

  await page.getByRole('button', { name: /^second opinion/ }).click()
  await sheet.getByText('Send it again, or write down another answer').click()
  await sheet.getByRole('button', { name: 'Close it' }).click()
  await expect(sheet.getByRole('button', { name: 'Close it' })).toHaveCount(0)
  await away.reload()
  await expect(away.getByText('This link opens nothing.')).toBeVisible()
  await away.context().close()
})
