import type { Page } from '@playwright/test'
import { atStation, expect, ownShop, saved, signIn, tapeLines, test } from './bench'
import type { Shop } from './bench'

const step = (page: Page) => page.locator('[data-next-step] h1')
const evidence = (page: Page) => page.getByRole('region', { name: 'Evidence' })

const tab = (page: Page, name: RegExp) => evidence(page).getByRole('tab', { name }).click(QUICK)
/** A sentence that is overtaken by the next takes its button with it. */
const QUICK = { timeout: 5000 } as const

async function act(page: Page, say: string): Promise<void> {
  if (say.startsWith('Repair it')) return page.getByRole('button', { name: /^Repaired/ }).click(QUICK)
  if (/to ground/.test(say)) {
    await tab(page, /^Rails/)
    return page.getByRole('button', { name: 'Measure all seven' }).click(QUICK)
  }
  if (/its own CPU/.test(say)) {
    await tab(page, /^Power-up/)
    await page.locator('#fitted').getByLabel('CPU', { exact: true }).fill('Orrin 52', QUICK)
    return page.keyboard.press('Tab')
  }
  if (/no heatsink noted/.test(say)) {
    await tab(page, /^Power-up/)
    return page.locator('#fitted').getByText('on', { exact: true }).click(QUICK)
  }
  return page.getByRole('button', { name: /^Run it/ }).click(QUICK)
}

/** Does what triage says, whatever it says, until it says that the board runs. */
async function follow(page: Page): Promise<string[]> {
  const said: string[] = []
  for (let n = 0; n < 60; n++) {
    await expect(step(page)).not.toHaveText(/^Calculating/)
    const say = await step(page).innerText()
    if (said.at(-1) !== say) said.push(say)
    if (/^It runs: prove it|^Nothing is left/.test(say)) return said
    const lines = await tapeLines(page).count()
    // One that was overtaken writes nothing: what is said now is done next.
    await act(page, say)
      .then(() => expect(tapeLines(page)).not.toHaveCount(lines, QUICK))
      .catch(() => undefined)
  }
  return said
}

/** Passes whatever is owed, and hands the board back. */
async function proveAndHandBack(page: Page, shop: Shop, tag: string): Promise<void> {
  await saved(page)
  await atStation(page, shop, tag, 'proof')
  for (let n = 0; n < 40; n++) {
    const say = await step(page).innerText()
    if (say === 'Everything owed is proved. Hand it back.') break
    const lines = await tapeLines(page).count()
    await page.keyboard.press('p')
    await expect(tapeLines(page)).not.toHaveCount(lines)
    await expect(step(page)).not.toHaveText(say)
  }
  await expect(step(page)).toHaveText('Everything owed is proved. Hand it back.')
  await saved(page)
  await atStation(page, shop, tag, 'hand-back')
  await expect(page.getByRole('list', { name: 'What holds the hand-back' })).toHaveCount(0)
  await page.getByLabel('The bill, kr').fill('250')
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(step(page)).toHaveText('Handed back: fixed.')
}

test('two boards of the demo, to the end, by what is said next', async ({ page }) => {
  test.setTimeout(360_000)
  // Handed back they are gone from the bench of every other test: they have a shop to themselves.
  const shop = await ownShop('to_the_end')
  try {
    await signIn(page, shop, 'Tolliver')
    await test.step('the timetable master: a good cell in a bad holder', async () => {
      await atStation(page, shop, 'Q-0409', 'triage')
      const said = await follow(page)
      expect(said.some((say) => /^Repair it.*coin cell holder/.test(say))).toBe(true)
      expect(said.at(-1)).toMatch(/^It runs|^Nothing is left/)
      await saved(page)
      await atStation(page, shop, 'Q-0409', 'parts')
      await expect(step(page)).toHaveText(
        'Every part noted is settled: mark the station done, or note another.',
      )
      await proveAndHandBack(page, shop, 'Q-0409')
    })
    await test.step('the bird observatory: a second fault behind the first', async () => {
      await atStation(page, shop, 'Q-0412', 'triage')
      const said = await follow(page)
      expect(said.some((say) => /^Repair it.*(slot B|memory)/.test(say))).toBe(true)
      expect(said.at(-1)).toMatch(/^It runs|^Nothing is left/)
      // Its own parts are put back and noted once, however often a start with them is asked for.
      expect(said.filter((say) => /its own CPU/.test(say)).length).toBeLessThanOrEqual(1)
      await proveAndHandBack(page, shop, 'Q-0412')
    })
  } finally {
    await shop.kill()
  }
})

test('a look round the socket is answered by one key where it is asked for', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0410', 'triage')
  await page.getByRole('button', { name: /other test/ }).click()
  const which = page.getByRole('dialog').getByLabel('Which')
  await which.selectOption({ label: 'Look round the socket and the core regulator, 4 min' })
  await page.getByRole('button', { name: /traces scratched/ }).click()
  await expect(tapeLines(page).last()).toContainText('round the socket: traces scratched')
  await saved(page)
  await page.keyboard.press('z')
  await saved(page)
})
