import { axe, atStation, awake, expect, newJob, saved, takeIn, tapeLines, test } from './bench'
import { onBoard } from '../demo/jobs/job'
import { risksFor } from '../src/core/intake/history'

test('a sheet is signed, changed, and both are kept; a technician’s has every line', async ({
  bench: page,
  shop,
}) => {
  const ready = page.waitForResponse((answer) => answer.request().method() === 'HEAD')
  const tag = await takeIn(page, shop, 'hand-back')
  expect((await ready).status(), 'the printer is ready while the sheet is read').toBe(204)
  const owners = page.getByRole('article', { name: 'Hand-back sheet' })
  for (const heading of ['Found', 'Cause', 'Repaired', 'Verified', 'Failed', 'Not tested', 'Left as it is'])
    await expect(owners.getByRole('heading', { name: heading, exact: true })).toBeVisible()
  // Of a board that never came up nothing small is promised.
  await expect(owners).toContainText(/not known: it may not be powered as it stands/i)
  await expect(page.getByRole('radiogroup', { name: 'Version' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Signed on paper' }).click()
  await expect(owners).toContainText('Received, on paper')
  await expect(tapeLines(page).last()).toContainText('sheet signed, on paper')

  await page.getByLabel('Advice for the sheet').fill('keep the cover on the socket')
  await page.getByRole('button', { name: 'Put it on' }).click()
  await expect(page.getByText('Changed since version 1 was signed')).toBeVisible()
  await expect(owners).toContainText('version 2')
  await expect(owners).toContainText(/keep the cover on the socket/i)
  await page.getByRole('radio', { name: '1, signed' }).click()
  await expect(owners).not.toContainText(/keep the cover on the socket/i)
  await expect(owners).toContainText('Received, on paper')
  await saved(page)
  // What was signed is kept word for word.
  const { entries } = (await (await page.request.get(`${shop.url}/api/jobs/${tag}/tape?after=0`)).json()) as {
    entries: { kind: string; body: { words?: { parts: { title: string }[] } } }[]
  }
  expect(entries.find((e) => e.kind === 'sheet signed')?.body.words?.parts.map((p) => p.title)).toContain(
    'Not tested',
  )
  const pdf = async (query: string) =>
    (await page.request.get(`${shop.url}/api/jobs/${tag}/sheet?${query}`)).status()
  expect([await pdf('version=1'), await pdf('version=2&for=technician'), await pdf('version=3')]).toEqual([
    200, 200, 404,
  ])

  await page.getByRole('radio', { name: '2, as it stands' }).click()
  await page.getByRole('radio', { name: 'For a technician' }).click()
  const technical = page.getByRole('article', { name: 'Technical sheet' })
  await expect(technical.getByRole('heading', { name: 'Every test of the proof' })).toBeVisible()
  await expect(technical.getByRole('heading', { name: 'Advice' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Sign for the sheet' }).click()
  const signing = page.getByRole('dialog', { name: 'Read this to the owner, then sign' })
  await signing.getByRole('button', { name: 'Keep the signature' }).click()
  await expect(signing).toContainText('Nothing is signed yet')
  const field = await signing.getByLabel('Field to sign in').boundingBox()
  await page.mouse.move(field!.x + 30, field!.y + 40)
  await page.mouse.down()
  await page.mouse.move(field!.x + 120, field!.y + 90, { steps: 5 })
  await page.mouse.up()
  await signing.getByRole('button', { name: 'Keep the signature' }).click()
  await expect(signing).toHaveCount(0)
  await page.getByRole('radio', { name: 'For the owner' }).click()
  await expect(owners.getByAltText('The owner’s signature')).toBeVisible()
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
})

test('back in its machine: each check in turn, what lies between bench and machine first, and asked about at the end', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop, 'intake')
  await page.getByRole('button', { name: 'Agreed by telephone' }).click()
  await saved(page)
  await atStation(page, shop, tag, 'hand-back')
  // What is pressed next stays where it is, saved or not.
  let answer = () => {}
  const held = new Promise<void>((resolve) => (answer = resolve))
  await page.route('**/tape', async (route) => {
    await held
    await route.continue()
  })
  const top = () =>
    page.getByRole('heading', { name: 'Back in its machine' }).evaluate((h) => h.getBoundingClientRect().y)
  const before = await top()
  await page.getByRole('button', { name: 'Board alone' }).click()
  await expect(tapeLines(page).last()).toContainText('not saved yet')
  expect(await top()).toBe(before)
  answer()
  await saved(page)
  expect(await top()).toBe(before)
  await expect(page.getByText('No machine came with it.')).toBeVisible()
  await page.getByRole('button', { name: 'It is here' }).click()
  const check = (name: string) => page.getByRole('group', { name })
  await check('Standoffs').getByRole('button', { name: 'In order', exact: true }).click()
  await check('Retention frame and lever')
    .getByLabel(/^Note on/)
    .fill('hook bent')
  await check('Retention frame and lever').getByRole('button', { name: 'Not in order' }).click()
  await expect(tapeLines(page).last()).toContainText('Retention frame and lever: not in order, hook bent')
  const sheet = page.getByRole('article', { name: 'Hand-back sheet' })
  await expect(sheet).toContainText('Retention frame and lever: hook bent')
  await expect(sheet).toContainText('Front-panel wiring: not looked at')
  for (const name of [
    'Cooler, fan and pump',
    'Supply cables',
    'Front-panel wiring',
    'Cards',
    'Settings',
    'Mains strip and switch',
  ]) {
    await check(name).getByRole('button', { name: 'In order', exact: true }).click()
    // What is left moves up: the next press is not made while it does.
    await expect(check(name)).toHaveCount(0)
  }
  await check('It starts in its machine').getByRole('button', { name: 'Not in order' }).click()
  await expect(page.getByText('It ran on the bench: what lies between comes first.')).toContainText(
    'Retention frame',
  )
  await page.getByRole('button', { name: /^Retention frame and lever: not in order/ }).click()
  await expect(page.getByText('It ran on the bench: what lies between comes first.')).toHaveCount(0)
  await expect(page.getByText('Nothing is left to look at.')).toBeVisible()

  await page.getByLabel('Warranty on what was repaired, months').fill('ages')
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(page.getByText('Whole months, 0 to 60, like 3; empty for none.')).toBeVisible()
  await page.getByLabel('Warranty on what was repaired, months').fill('3')
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(page.getByText('not in order: It starts in its machine')).toBeVisible()
  await page.getByLabel('As', { exact: true }).selectOption('returned unrepaired')
  await page.getByLabel('The board that came').selectOption('donor')
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(sheet).toContainText('returned unrepaired; the board that came: donor')
})

test('another model stands in only where the owner’s memory goes onto it, by what the library says of both', async ({
  bench: page,
  shop,
}) => {
  const ticket = {
    kind: 'ticket',
    body: { set: { ...onBoard('hv-gannet'), cpu: 'Orrin 43', memory: '2 × 8 GB', diskLock: 'no' } },
  }
  const tag = await newJob(page, shop, [ticket])
  const instead = page.getByRole('group', { name: 'Instead the owner has' })
  const exchange = async () => {
    await atStation(page, shop, tag, 'hand-back')
    await page.getByLabel('As', { exact: true }).selectOption('exchanged')
  }
  await exchange()
  await expect(instead.getByRole('listitem').filter({ hasText: 'Q-0353' })).toContainText(
    'is not offered: it takes memory “long, 288 contacts”, the one that came “short, 260 contacts”',
  )

  await page.goto(`${shop.url}/library/boards/hv-gannet`)
  await awake(page)
  await page.getByLabel('Memory, as printed').fill('long, 288 contacts')
  await page.getByLabel('Size, mm').fill('wide')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Along the rear edge × away from it in mm, like 244 × 305.')).toBeVisible()
  await expect(page.getByLabel('Memory, as printed')).toHaveValue('long, 288 contacts')
  await page.getByLabel('Size, mm').fill('170 × 170')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Kept.')).toBeVisible()

  await exchange()
  const offered = instead.locator('label').filter({ hasText: 'Q-0353' })
  await expect(offered).toContainText('another model')
  await expect(offered).toContainText('it is 244 × 305 mm, the one that came 170 × 170: whether it goes in')
  await expect(offered).not.toContainText('memory:')
})

test('a board is exchanged for one of verified stock, which is proved and fits; what is not proved is not offered', async ({
  bench: page,
  shop,
}) => {
  const ticket = {
    kind: 'ticket',
    body: { set: { ...onBoard('tw-k61-b'), cpu: 'Orrin 43, cooler left off', diskLock: 'no' } },
  }
  const consent = {
    kind: 'consent',
    body: { risks: risksFor([], 'no'), limitMinor: null, signature: null, how: 'by telephone' },
  }
  const tag = await newJob(page, shop, [ticket, consent])
  await atStation(page, shop, tag, 'hand-back')
  const instead = page.getByRole('group', { name: 'Instead the owner has' })
  await page.getByLabel('As', { exact: true }).selectOption('exchanged')
  const one = instead.getByRole('radio', { name: /^Q-0353 Tarnworks TW-K61 rev B, same model and revision/ })
  await expect(one).toBeVisible()
  await expect(instead).toContainText('Prove it on the bench with the owner’s CPU and memory')
  await expect(instead.getByRole('listitem').filter({ hasText: 'Q-0371' })).toContainText(
    'is not offered: not proved:',
  )
  await expect(instead).not.toContainText('Q-0364')
  expect((await axe(page).analyze()).violations).toEqual([])
  await one.check()
  await page.getByLabel('The board that came').selectOption({ label: 'goes to electronic waste' })
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(tapeLines(page).last()).toContainText('handed back: exchanged for Q-0353')
  await saved(page)

  // It is in another machine now: the next one that needs it is told what to buy.
  const next = await newJob(page, shop, [ticket, consent])
  await atStation(page, shop, next, 'hand-back')
  await page.getByLabel('As', { exact: true }).selectOption('exchanged')
  await expect(instead).toContainText('No board of verified stock stands in for it.')
  await expect(instead).not.toContainText('Q-0353')
  await expect(instead).toContainText('To buy:')

  // One that is not proved is asked about before it is kept as that.
  await page.getByLabel('As', { exact: true }).selectOption('fixed')
  await page.getByLabel('The board that came').selectOption({ label: 'stays here as verified stock' })
  await page.getByRole('button', { name: 'Hand it back' }).click()
  await expect(page.getByText(/^not proved: /).first()).toBeVisible()
})
