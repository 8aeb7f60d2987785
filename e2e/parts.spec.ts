import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { axe, atStation, awake, expect, saved, takeIn, tapeLines, test, type } from './bench'

const field = (page: Page, label: string) => page.getByLabel(label, { exact: true })
const heatWindow = (page: Page) => page.getByRole('region', { name: 'Heat window' })

test('a heat recipe is searched, dropped, kept; what a thermocouple reads corrects it', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop, 'parts')
  await page.getByRole('tab', { name: 'Heat' }).click()
  await expect(heatWindow(page)).toContainText('Nothing passes its limit.')

  await test.step('a field that is wrong is named, and nothing else is lost', async () => {
    await field(page, 'Nozzle, mm').fill('wide')
    await expect(page.getByText('1 to 40 mm')).toBeVisible()
    await expect(page.getByText('A field of the recipe is not clear yet; it says which.')).toBeVisible()
    await field(page, 'Nozzle, mm').fill('5')
    await field(page, 'Distance, mm').fill('60')
    await field(page, 'Its name').fill('U7')
    await expect(heatWindow(page)).toContainText('It never floats: nothing is lifted.')
    await expect(heatWindow(page)).not.toContainText('only when it floats')
    await field(page, 'Distance, mm').fill('8')
  })
  await test.step('a search can be dropped; its end fills in the recipe and holds the ways against each other', async () => {
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByRole('progressbar', { name: 'Searching a recipe' })).toBeVisible()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(field(page, 'Nozzle, mm')).toHaveValue('5')
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0, { timeout: 120_000 })
    await expect(heatWindow(page)).toContainText('Nothing passes its limit.')
    await expect(heatWindow(page)).toContainText('lift it only when it floats, never pull')
    for (const school of ['air only', 'preheated', 'small nozzle', 'large nozzle'])
      await expect(heatWindow(page).locator('dt', { hasText: school })).toBeVisible()
  })
  await test.step('kept with the job, and there after a reload', async () => {
    await page.getByRole('button', { name: 'Keep this recipe' }).click()
    await expect(page.getByRole('button', { name: 'Kept', exact: true })).toBeDisabled()
    await expect(tapeLines(page).last()).toContainText('heat recipe, firmware chip U7')
    await saved(page)
    await page.reload()
    await awake(page)
    await page.getByRole('tab', { name: 'Heat' }).click()
    await expect(field(page, 'Its name')).toHaveValue('U7')
    await expect(heatWindow(page)).toContainText('Floats at')
  })
  await test.step('a board that reads far cooler: the curves count with it, and it floats no more', async () => {
    await field(page, 'At, s').fill('soon')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(page.getByText('seconds since it began')).toBeVisible()
    await field(page, 'At, s').fill('170')
    await field(page, 'Reads, °C').fill('80')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(tapeLines(page).last()).toContainText('thermocouple at the board: 80 °C at 170 s')
    await expect(page.getByText('what the air gives is not settled')).toBeVisible()
    await expect(heatWindow(page)).toContainText('It never floats: nothing is lifted.')
  })
  const { violations } = await axe(page).analyze()
  expect(violations).toEqual([])
  await test.step('pulls from a donor are practice, and counted', async () => {
    await page.getByLabel('What is heated').selectOption('single contact')
    const pulls = page.getByRole('region', { name: 'Practice pulls' })
    await expect(pulls).toContainText('None yet.')
    await pulls.getByRole('button', { name: 'Came whole' }).click()
    await pulls.getByRole('button', { name: 'Came bent' }).click()
    await expect(pulls).toContainText('1 of 2 came whole')
    await expect(tapeLines(page).last()).toContainText('practice pull: came bent')
  })
  await test.step('where nothing at hand melts it, that is said, with what would', async () => {
    await field(page, 'Nozzles, mm').fill('2')
    await field(page, 'Preheat, W/cm²').fill('')
    await page.getByLabel('What is heated').selectOption('socket')
    await page.getByRole('button', { name: 'Find a recipe' }).click()
    await expect(page.getByText('Nothing at hand melts the joint.')).toBeVisible({ timeout: 120_000 })
  })
})

test('a board’s netlist is kept with its model when it can be placed, and given back', async ({
  bench: page,
  shop,
}) => {
  const at = `${shop.url}/library/boards/br-sound-7`
  const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  const netlist = readFileSync('docs/examples/k61.ipc', 'utf8')
  await page.goto(at)
  await awake(page)
  const input = page.getByLabel('Netlist: table to import')
  await input.setInputFiles(file('letter.txt', 'Dear all,\nthe board is fine.\n'))
  await expect(
    page
      .locator('#map')
      .getByText(/line|nothing|no /i)
      .first(),
  ).toBeVisible()
  expect((await page.request.get(`${shop.url}/api/boards/br-sound-7/map/netlist`)).status()).toBe(404)
  await input.setInputFiles(file('sound.ipc', netlist))
  await expect(page.getByText('Kept: 121 parts, 639 nets, 2054 places')).toBeVisible()
  expect(await (await page.request.get(`${shop.url}/api/boards/br-sound-7/map/netlist`)).text()).toBe(netlist)
  await page
    .getByLabel('Placements: table to import')
    .setInputFiles(file('places.csv', 'part,x mm,y mm,side\nR214,74.6,54,top\n'))
  await expect(page.getByText('Kept: 1 parts')).toBeVisible()
  expect((await page.request.get(`${shop.url}/api/boards/nobody/map/netlist`)).status()).toBe(404)
  expect((await page.request.get(`${shop.url}/api/boards/br-sound-7/map/outline`)).status()).toBe(404)
})

test('the board map: found by name, turned and flipped; what is noted on it is evidence, and meets damaged contacts', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0416', 'parts')
  await page.getByRole('tab', { name: 'Map' }).click()
  const view = page.locator('[data-board]')
  await expect(view).toHaveAttribute('data-board', 'top 0 plain')
  await expect(page.getByText('121 parts, 639 nets. The socket is XU1.')).toBeVisible()

  await test.step('a part by its name: nets, twins, neighbours; a net and what it joins', async () => {
    await page.keyboard.press('/')
    await page.getByLabel('Find a part or a net').fill('R214')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    const part = page.getByRole('region', { name: 'Part R214' })
    await expect(part).toContainText('found missing')
    await expect(part.getByRole('button', { name: /It is missing/ })).toBeDisabled()
    await expect(part.getByRole('button', { name: 'R216' }).first()).toBeVisible()
    await part.getByRole('button', { name: 'SPI_MISO' }).click()
    await expect(page.getByRole('region', { name: 'Net SPI_MISO' })).toContainText('U7')
    await page.getByLabel('Find a part or a net').fill('zzz')
    await expect(page.getByText('Nothing on this map is called so.')).toBeVisible()
    await page.getByRole('button', { name: 'at the core regulator' }).click()
    await expect(page.getByRole('button', { name: 'R301', exact: true })).toBeVisible()
  })
  await test.step('what the map knows stands in the fields of the pads', async () => {
    await page.getByRole('tab', { name: 'What was it?' }).click()
    await expect(field(page, 'Pad B: Net')).toHaveValue('PCH_MISO')
    await expect(field(page, 'Its twins')).toHaveValue(/R213 33 Ω/)
    await expect(page.getByRole('region', { name: 'What R214 was' })).toContainText('as its twins')
    await page.getByRole('tab', { name: 'Map' }).click()
  })
  await test.step('its keys turn, mirror and flip it', async () => {
    await page.keyboard.press('r')
    await page.keyboard.press('m')
    await page.keyboard.press('b')
    await expect(view).toHaveAttribute('data-board', 'bottom 1 mirrored')
    await page.keyboard.press('b')
  })
  await test.step('a part that is missing meets a damaged contact on a net', async () => {
    await type(page, 'mark D17 low 0.1')
    await page.getByLabel('Find a part or a net').fill('R301')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    await expect(page.getByRole('region', { name: 'Part R301' })).toBeVisible()
    await page.keyboard.press('x')
    await expect(tapeLines(page).last()).toContainText('R301 found missing, net VCORE_SENSE')
    await expect(page.getByRole('region', { name: 'Where damage meets' })).toContainText(
      'VCORE_SENSE: contact D17, R301',
    )
    await expect(page.getByRole('region', { name: 'Part R301' })).toContainText('found missing')
  })
  await test.step('a press on the map takes the part that is there', async () => {
    await page.getByRole('button', { name: /^whole/ }).click()
    const canvas = page.locator('[data-board] canvas').last()
    const box = (await canvas.boundingBox())!
    await canvas.click({ position: { x: box.width / 2, y: box.height / 2 } })
    await expect(page.getByRole('region', { name: 'Part R301' })).toHaveCount(0)
  })
  const { violations } = await axe(page).analyze()
  expect(violations).toEqual([])
  await test.step('undone, it meets nothing any more', async () => {
    await page.keyboard.press('z')
    await expect(page.getByRole('region', { name: 'Where damage meets' })).toHaveCount(0)
    await page.keyboard.press('z')
    const strikes = async () => {
      const tape = await page.request.get(`${shop.url}/api/jobs/Q-0416/tape`)
      const { entries } = (await tape.json()) as { entries: { kind: string }[] }
      return entries.filter((e) => e.kind === 'strike').length
    }
    await expect.poll(strikes).toBe(2)
  })
})

test('a board without a map, and a job without a board, say what to do', async ({ bench: page, shop }) => {
  await takeIn(page, shop, 'parts')
  await page.getByRole('tab', { name: 'Map' }).click()
  await expect(page.getByText('No board model is named on the ticket')).toBeVisible()
  await atStation(page, shop, 'Q-0415', 'parts')
  await page.getByRole('tab', { name: 'Map' }).click()
  await expect(page.getByRole('link', { name: 'Import its netlist or placement list' })).toBeVisible()
})

test('the shelf: counted by a table, held and fitted by a job, low ones said', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/shelf`)
  await awake(page)
  const shelf = page.getByRole('region', { name: 'Parts and consumables' })
  await expect(shelf.getByRole('listitem').filter({ hasText: '33 Ω 0402' })).toContainText('60 free')
  await expect(shelf.getByRole('listitem').filter({ hasText: 'flux' })).toContainText('low')
  const table = (text: string) => ({ name: 'shelf.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  const input = page.getByLabel('Table of the shelf to import')
  await input.setInputFiles(table('item,kind,value,count\nR,resistor,4k7k,3\n'))
  await expect(shelf.getByText('“4k7k” is no value of a resistor')).toBeVisible()
  await expect(shelf.getByRole('listitem').filter({ hasText: '33 Ω 0402' })).toBeVisible()
  const csv = await (await page.request.get(`${shop.url}/api/stock`)).text()
  await input.setInputFiles(table(csv))
  await expect(shelf.getByText('Counted: 15 things')).toBeVisible()

  const tag = await takeIn(page, shop, 'parts')
  await type(page, 'note the shelf is next')
  await page.getByRole('tab', { name: 'Note' }).click()
  await page.getByLabel('Part', { exact: true }).fill('R9')
  await page.getByRole('button', { name: 'Note the part' }).click()
  await page.getByRole('tab', { name: 'Shelf' }).click()
  await page.getByRole('textbox', { name: 'Value', exact: true }).fill('x')
  await expect(page.getByText('Ω: 33 or 4k7')).toBeVisible()
  await page.getByRole('textbox', { name: 'Value', exact: true }).fill('33')
  await field(page, 'Size').selectOption('0402')
  await field(page, 'It does').selectOption('series')
  const stands = page.getByRole('region', { name: 'What may stand in for it' })
  const first = stands.getByRole('listitem').first()
  await expect(first).toContainText('33 Ω 0402')
  await expect(stands).toContainText('4.7 kΩ in place of 33 Ω')
  await first.getByRole('button', { name: 'Hold' }).click()
  await expect(first).toContainText('1 held for this job')
  await saved(page)
  await page.goto(`${shop.url}/shelf`)
  await expect(shelf.getByRole('listitem').filter({ hasText: '33 Ω 0402' })).toContainText(
    `1 held for ${tag}`,
  )
  await atStation(page, shop, tag, 'parts')
  await page.getByRole('tab', { name: 'Shelf' }).click()
  await page.getByRole('textbox', { name: 'Value', exact: true }).fill('33')
  await field(page, 'Size').selectOption('0402')
  await field(page, 'It does').selectOption('series')
  await first.getByRole('button', { name: 'Fitted' }).click()
  await expect(tapeLines(page).last()).toContainText('R9 fitted, 33 Ω, from the shelf')
  await test.step('what is good for a test alone is left for later', async () => {
    await stands
      .getByRole('listitem')
      .filter({ hasText: '33 Ω 0603' })
      .getByRole('button', { name: 'Fitted' })
      .click()
    await expect(page.locator('#deferred')).toContainText('R9: 33 Ω 0603 is fitted for a test')
  })
  const flux = page
    .getByRole('region', { name: 'Other things on the shelf' })
    .getByRole('listitem')
    .filter({ hasText: 'flux' })
  await flux.getByRole('button', { name: 'Used one' }).click()
  await expect(flux).toContainText('1 free, 1 used here')
  await test.step('the last bench module but one is held: no second one is at hand for others', async () => {
    const others = page.getByRole('region', { name: 'Other things on the shelf' }).getByRole('listitem')
    const modules = others.filter({ hasText: 'bench module 8 GB' })
    await modules.getByRole('button', { name: 'Hold' }).click()
    await expect(modules).toContainText('1 held for this job')
    await saved(page)
    const cpu = others.filter({ hasText: 'Orrin 44' })
    await expect(cpu.getByRole('button', { name: 'Used one' })).toHaveCount(0)
    await cpu.getByRole('button', { name: 'Hold' }).click()
    await saved(page)
    const there = await page.request.get(`${shop.url}/api/jobs/Q-0410/surroundings`)
    const { setting } = (await there.json()) as { setting: { shelf: string[] } }
    const atHand = setting.shelf
    expect(atHand).toContain('known-good module')
    expect(atHand).not.toContain('second known-good module')
    await page.goto(`${shop.url}/shelf`)
    await expect(page.getByRole('listitem').filter({ hasText: /^second known-good module/ })).toContainText(
      `1 held for ${tag}`,
    )
    await expect(
      page.getByRole('region', { name: 'Bench CPUs' }).getByRole('listitem').filter({ hasText: 'Orrin 44' }),
    ).toContainText(`1 held for ${tag}`)
    await atStation(page, shop, tag, 'parts')
    await page.getByRole('tab', { name: 'Shelf' }).click()
    await modules.getByRole('button', { name: 'Let go' }).click()
    await expect(modules).not.toContainText('held for this job')
    await saved(page)
  })
  const { violations } = await axe(page).analyze()
  expect(violations).toEqual([])
  await saved(page)
  await page.goto(`${shop.url}/shelf`)
  await expect(shelf.getByRole('listitem').filter({ hasText: '33 Ω 0402' })).toContainText('59 free')
  await expect(shelf.getByRole('listitem').filter({ hasText: '33 Ω 0402' })).not.toContainText('held')
})

test('the tide gauge, to the end: read at its pads, fitted from the shelf, measured, and started', async ({
  bench: page,
  shop,
}) => {
  const step = page.locator('[data-next-step] h1')
  await atStation(page, shop, 'Q-0416', 'parts')
  await page.getByRole('tab', { name: 'What was it?' }).click()
  await expect(field(page, 'Its twins')).toHaveValue(/R213 33 Ω/)
  await page.getByRole('button', { name: 'Keep these readings' }).click()
  await expect(step).toHaveText('Fit 33 Ω, 0402, at R214.')
  await page.getByRole('tab', { name: 'Shelf' }).click()
  const first = page.getByRole('region', { name: 'What may stand in for it' }).getByRole('listitem').first()
  await expect(first).toContainText('33 Ω 0402')
  await first.getByRole('button', { name: 'Fitted' }).click()
  await expect(step).toHaveText('Measure across R214.')
  await page.getByRole('tab', { name: 'Note' }).click()
  await page.getByLabel('Part', { exact: true }).fill('R214')
  await page.getByRole('radio', { name: 'measured', exact: true }).click()
  await page.getByRole('textbox', { name: 'Value', exact: true }).fill('34')
  await page.getByRole('button', { name: 'Note the part' }).click()
  await expect(page.getByText('as it must; from pin to far end 30 Ω to 37 Ω')).toBeVisible()
  await saved(page)

  await atStation(page, shop, 'Q-0416', 'triage')
  const gate = page.locator('[data-gate]')
  const evidence = page.getByRole('region', { name: 'Evidence' })
  await evidence.getByRole('tab', { name: /^Inspection/ }).click()
  await page.getByRole('button', { name: 'round the firmware chip: OK' }).click()
  await evidence.getByRole('tab', { name: /^Rails/ }).click()
  await page.getByRole('button', { name: 'Measure all seven' }).click()
  await expect(gate).not.toHaveAttribute('data-gate', 'do not power')
  await evidence.getByRole('tab', { name: /^Power-up/ }).click()
  await page.getByRole('button', { name: 'Power up and look' }).click()
  await expect(tapeLines(page).last()).toContainText('picture system loads')
  await expect(step).not.toContainText('R214')
})

test('what is awaited stands on the bench list and moves the day, until it is here', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop, 'parts')
  const awaited = page.getByRole('region', { name: 'Awaited' })
  await awaited.getByRole('button', { name: 'Wait for it' }).click()
  await expect(awaited).toContainText('What is awaited? Like: two 10 µF capacitors.')
  await awaited.getByLabel('What is awaited').fill('a socket')
  await awaited.getByLabel('Expected on').fill('2031-03-04')
  await awaited.getByRole('button', { name: 'Wait for it' }).click()
  await expect(tapeLines(page).last()).toContainText('awaited: a socket, expected on 2031-03-04')
  await saved(page)
  await page.goto(`${shop.url}/`)
  const onBench = page.getByRole('listitem').filter({ hasText: tag })
  await expect(onBench).toContainText(/waits for a socket, expected .*4 Mar/)
  await atStation(page, shop, tag, 'parts')
  await awaited.getByRole('button', { name: 'It is here' }).click()
  await expect(awaited).toContainText('arrived')
  await saved(page)
  await page.goto(`${shop.url}/`)
  await expect(onBench).not.toContainText('waits for')
})

test('work left for later holds the hand-back until somebody answers for it', async ({
  bench: page,
  shop,
}) => {
  const tag = await takeIn(page, shop, 'parts')
  await page.getByLabel('What is left for later').fill('second header burnt')
  await page.getByRole('button', { name: 'Leave it for later' }).click()
  await expect(tapeLines(page).last()).toContainText('left for later: second header burnt')
  await saved(page)
  await atStation(page, shop, tag, 'hand-back')
  await page
    .getByRole('list', { name: 'What holds the hand-back' })
    .getByRole('link', { name: /second header burnt/ })
    .click()
  await page.getByRole('button', { name: 'Sign it off…' }).click()
  await page.getByRole('button', { name: 'I answer for leaving it' }).click()
  await expect(page.getByText('Why may it be left?')).toBeVisible()
  await page.getByLabel('Why second header burnt is left').fill('the owner does without it')
  await page.getByRole('button', { name: 'I answer for leaving it' }).click()
  await expect(page.locator('#deferred')).toContainText('signed off, the owner does without it (Tolliver)')
  await page.keyboard.press('z')
  await expect(page.locator('#deferred')).toContainText('Hand-back is held.')
})

test('two photos of a board are compared, and each place is said by one key', async ({
  bench: page,
  shop,
}) => {
  await atStation(page, shop, 'Q-0416', 'parts')
  const before = await tapeLines(page).count()
  await page.getByRole('tab', { name: 'Compare' }).click()
  const places = page.getByRole('region', { name: 'Places that differ' })
  const byFile = (role: string) => page.getByLabel(`Photo: ${role}`)
  const picked = async (role: string, file: string) =>
    byFile(role).setInputFiles({
      name: file,
      mimeType: 'image/jpeg',
      buffer: readFileSync(`docs/examples/${file}`),
    })
  await test.step('two photos of different things are not compared, and it says so', async () => {
    await expect(page.getByRole('button', { name: /^Compare/ })).toBeDisabled()
    await picked('This board', 'board-gone.jpg')
    await picked('A good board, or this one before', 'field-60.jpg')
    await page.getByLabel('Width of the board in the first photo, mm').fill('50')
    await page.getByRole('button', { name: /^Compare/ }).click()
    await expect(page.getByText('the two photos do not lie over one another')).toBeVisible({
      timeout: 60_000,
    })
    await expect(places).toHaveCount(0)
  })
  await test.step('too far away for small parts: the field says it', async () => {
    await picked('A good board, or this one before', 'board-good.jpg')
    await page.getByLabel('Width of the board in the first photo, mm').fill('150')
    await page.getByRole('button', { name: /^Compare/ }).click()
    await expect(page.getByText('take it nearer')).toBeVisible({ timeout: 60_000 })
    await page.getByLabel('Width of the board in the first photo, mm').fill('50')
  })
  await test.step('it can be stopped; its end shows the places, close up on both', async () => {
    await page.getByRole('button', { name: /^Compare/ }).click()
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    await expect(page.getByRole('button', { name: /^Compare/ })).toBeEnabled()
    await expect(places).toHaveCount(0)
    await page.keyboard.press('a')
    await expect(places).toContainText('may be parts', { timeout: 60_000 })
    await expect(page.getByRole('img', { name: 'The same place on the other photo' })).toBeVisible()
    expect((await axe(page).include('main').analyze()).violations).toEqual([])
  })
  await test.step('missing, under its name, is on the tape and closes the gate; nothing is not', async () => {
    await page.getByLabel('Its name on the board').fill('C77')
    await page.getByRole('button', { name: /^Missing/ }).click()
    await expect(tapeLines(page).last()).toContainText(
      'C77 found missing, board-gone.jpg beside board-good.jpg',
    )
    await page.keyboard.press('Backspace')
    await expect(places.getByRole('list', { name: 'Places, surest first' })).toContainText('nothing')
    await expect(tapeLines(page)).toHaveCount(before + 1)
  })
  await test.step('taken back on the tape, the place is open again', async () => {
    const first = places.getByRole('list', { name: 'Places, surest first' }).getByRole('button').first()
    await expect(first).toContainText('missing')
    await first.click()
    await expect(page.getByRole('button', { name: /^Missing/ })).toBeDisabled()
    await page.keyboard.press('z')
    await expect(tapeLines(page).last()).not.toContainText('C77')
    await expect(first).not.toContainText('missing')
    await expect(page.getByRole('button', { name: /^Missing/ })).toBeEnabled()
  })
  await saved(page)
})

test('small parts are counted before the iron and after it; one that is gone shuts the gate', async ({
  bench: page,
  shop,
}) => {
  await takeIn(page, shop, 'parts')
  await page.getByRole('tab', { name: 'Heat' }).click()
  const count = page.getByRole('region', { name: 'Small parts counted' })
  await count.getByLabel('Counted').fill('many')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('a count, 0 to 500')
  await count.getByLabel('Counted').fill('14')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('14 should be there.')
  await page.getByRole('tab', { name: 'Note' }).click()
  await page.getByLabel('Part', { exact: true }).fill('R9')
  await page.getByRole('radio', { name: 'fitted', exact: true }).click()
  await page.getByRole('button', { name: 'Note the part' }).click()
  await expect(page.locator('[data-next-step] h1')).toHaveText(
    'Count the small parts at the firmware chip again: 14 should be there.',
  )
  await page.getByRole('tab', { name: 'Heat' }).click()
  await count.getByLabel('Counted').fill('13')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(count).toContainText('13 small parts counted, at the firmware chip, of 14: 1 missing')
  await expect(page.locator('[data-gate]')).toHaveAttribute('data-gate', 'do not power')
  await expect(page.locator('[data-next-step] h1')).toHaveText(/^Account for part missing from the count/)
  // What is left, counted once more, does not make it whole.
  await count.getByLabel('Counted').fill('13')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(tapeLines(page).last()).toContainText('13 small parts counted, at the firmware chip, of 14')
  await expect(page.locator('[data-gate]')).toHaveAttribute('data-gate', 'do not power')
  await count.getByLabel('Counted').fill('14')
  await count.getByRole('button', { name: 'Note the count' }).click()
  await expect(page.locator('[data-next-step] h1')).not.toHaveText(/^Account for/)
})
