import type { Page } from '@playwright/test'
import { awake, expect, signIn, takeIn, tapeLines, test } from './bench'

test.use({ locale: 'de-DE', timezoneId: 'Australia/Adelaide' })

/** A press as another keyboard layout gives it. */
const press = (
  page: Page,
  key: string,
  code: string,
  more: { shiftKey?: true; ctrlKey?: true; repeat?: true } = {},
) =>
  page.evaluate(
    (init) => {
      document.body.dispatchEvent(new KeyboardEvent('keydown', init))
    },
    { key, code, bubbles: true, cancelable: true, ...more },
  )
const cursor = (page: Page) => page.locator('#map')

test('in a second locale numbers, money and moments are the reader’s on both sides', async ({
  bench: page,
  shop,
}) => {
  const faults: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error') faults.push(message.text())
  })
  page.on('pageerror', (error) => faults.push(error.message))
  await page.goto(`${shop.url}/library`)
  await expect(page.getByText('1.716 contacts').first()).toBeVisible()
  // The zone is known to the server from the second page on, once the first one listens.
  await expect
    .poll(async () => (await page.context().cookies()).find((c) => c.name === 'zone')?.value)
    .toBe(encodeURIComponent('Australia/Adelaide'))
  const html = await (await page.goto(`${shop.url}/record`))!.text()
  const first = page.locator('main time').first()
  await expect(first).toHaveText(/^\d{1,2}\. \S+ 2026$/)
  expect(html.includes(`>${await first.textContent()}<`)).toBe(true)
  await page.goto(`${shop.url}/library/bench`)
  await expect(page.getByRole('row', { name: /a board while its ticket/i })).toContainText('1.000 kr')
  expect(faults).toEqual([])
})

test('amounts carry the shop’s own word, set on the bench’s figures', async ({ page, shop }) => {
  await signIn(page, shop, 'Ines')
  await page.goto(`${shop.url}/library/bench`)
  await awake(page)
  const word = page.getByLabel('currency')
  await word.fill('12')
  await page.getByRole('button', { name: 'Keep them' }).click()
  await expect(page.getByText('One to eight letters or a currency sign')).toBeVisible()
  await word.fill('Taler')
  await page.getByRole('button', { name: 'Keep them' }).click()
  await expect(page.getByText('Kept. It counts')).toBeVisible()
  await page.reload()
  await awake(page)
  await expect(page.getByRole('row', { name: /an hour at the bench/i })).toContainText('600 Taler')
  await word.fill('kr')
  await page.getByRole('button', { name: 'Keep them' }).click()
  await expect(page.getByText('Kept. It counts')).toBeVisible()
})

test('on other keyboard layouts the single keys are where they are printed, or where the Latin letter stands', async ({
  bench: page,
  shop,
}) => {
  // Figures that want shift: g, then 3.
  await page.goto(`${shop.url}/jobs/Q-0417/intake`)
  await awake(page)
  await press(page, 'g', 'KeyG')
  await press(page, 'g', 'KeyG', { repeat: true })
  await press(page, '3', 'Digit3', { shiftKey: true })
  await expect(page).toHaveURL(/Q-0417\/socket$/)
  await expect(cursor(page)).toBeVisible()
  await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
  // Cyrillic: the key where r stands turns the view; AltGr gives the bracket; Control does not.
  await press(page, 'к', 'KeyR')
  await expect(page.getByRole('button', { name: /^turn 90°/ })).toBeVisible()
  await press(page, 'r', 'KeyR', { ctrlKey: true })
  await press(page, 'r', 'KeyP')
  await expect(page.getByRole('button', { name: /^turn 180°/ })).toBeVisible()
  // After g a key that makes no pair marks nothing, and the next one counts again.
  const lines = await tapeLines(page).count()
  await press(page, 'g', 'KeyG')
  await press(page, 'x', 'KeyX')
  await press(page, 'r', 'KeyR')
  await expect(page.getByRole('button', { name: /^turn 270°/ })).toBeVisible()
  await expect(tapeLines(page)).toHaveCount(lines)
})

test('a key is given to another move, is refused where it would clash, and can rest with all others', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop)
  const open = async () => {
    await page.keyboard.press('?')
    return page.getByRole('dialog', { name: 'Keys' })
  }
  const sheet = await open()
  await sheet.getByRole('button', { name: /^mark the station done/ }).click()
  await page.keyboard.press('t')
  await expect(sheet.getByText('t is “type on the tape” in everywhere in a job')).toBeVisible()
  await page.keyboard.press('F9')
  await expect(sheet.getByRole('button', { name: /^mark the station done.*f9/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: /^Mark station done/ })).toContainText('f9')
  await page.keyboard.press('e')
  await page.keyboard.press('F9')
  await expect(tapeLines(page).last()).toContainText('intake done')
  await expect(tapeLines(page)).toHaveCount(1)
  // Kept in the browser; and all of them can rest.
  await page.reload()
  await awake(page)
  await expect(page.getByRole('button', { name: /^Open it again/ })).toContainText('f9')
  await (await open()).getByRole('checkbox').uncheck()
  await page.keyboard.press('Escape')
  await page.keyboard.press('F9')
  await page.keyboard.press('t')
  await expect(page.getByRole('textbox', { name: 'Quick entry on the tape' })).not.toBeFocused()
  await (await open()).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'The usual keys again' }).click()
  await expect(sheet.getByRole('button', { name: /^mark the station done.*: e$/ })).toBeVisible()
})
