import sharp from 'sharp'
import type { Page } from '@playwright/test'
import {
  atStation,
  awake,
  expect,
  newJob,
  saved,
  Shop,
  signIn,
  tapeLines,
  test,
  type,
  draw,
  drawer,
} from './bench'
import { Wire } from './wire'
import { risksFor } from '../src/core/intake/history'
import { onBoard } from '../demo/jobs/job'

const gate = (page: Page) => page.locator('[data-gate]')
const evidence = (page: Page, tab: string) =>
  page
    .getByRole('region', { name: 'Evidence' })
    .getByRole('tab', { name: new RegExp(`^${tab}`) })
    .click()
const step = (page: Page) => page.locator('[data-next-step] h1')
const cursor = (page: Page) => page.locator('#map')
const lastLine = (page: Page) => tapeLines(page).last()

/** A new job with its board chosen and consent given. */
async function begin(page: Page, shop: { readonly url: string }, station = 'intake'): Promise<string> {
  const tag = await newJob(page, shop, [
    { kind: 'ticket', body: { set: onBoard('tw-k61') } },
    {
      kind: 'consent',
      body: { risks: risksFor([], 'unknown'), limitMinor: null, signature: null, how: 'by telephone' },
    },
  ])
  await open(page, shop, tag, station)
  return tag
}
const open = async (page: Page, shop: { readonly url: string }, tag: string, station: string) => {
  await atStation(page, shop, tag, station)
  if (station === 'socket') await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
}

test.describe('intake', () => {
  test('the history decides what to look at first, and a risk that is new since the signature is signed again', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop)
    await expect(page.getByText('Agreed, by telephone')).toBeVisible()
    await page.getByLabel('lightning or surge').check()
    await page.getByLabel('Used as').focus()
    await page.getByLabel('Reached at').focus()
    await expect(page.getByText('burns, swollen parts, each rail to ground')).toBeVisible()
    await expect(page.getByText('new since the signature')).toBeVisible()
    await page.getByRole('button', { name: 'Signed on paper' }).click()
    await expect(page.getByText('new since the signature')).toHaveCount(0)
  })

  test('a claim weighs as a claim until it is checked', async ({ bench: page, shop }) => {
    await begin(page, shop)
    const before = await tapeLines(page).count()
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(page.getByRole('alert').filter({ hasText: 'What does the owner say?' })).toBeVisible()
    await expect(tapeLines(page)).toHaveCount(before)
    await page.getByLabel('Another thing the owner says').fill('never opened')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(lastLine(page)).toContainText('says: never opened')
    await page.getByLabel('How “never opened” was checked').fill('seal is cut')
    await page.getByRole('button', { name: 'Wrong', exact: true }).click()
    await expect(lastLine(page)).toContainText(/checked line \d+: wrong, seal is cut/)
    await expect(page.getByRole('button', { name: 'Wrong', exact: true })).toHaveCount(0)
  })

  test('a board in warranty asks for a decision; a disk lock is asked for before a rewrite', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop)
    await expect(page.getByText(/the recovery key is needed first/)).toBeVisible()
    await page.getByLabel('Warranty').selectOption('in warranty')
    await expect(page.getByText(/opening it can end that/)).toBeVisible()
    await page.getByLabel('Decided').fill('owner wants it repaired here')
    await page.getByLabel('Disk lock').selectOption('no')
    await page.getByLabel('Reached at').focus()
    await expect(lastLine(page)).toContainText('warranty')
    await expect(page.getByText(/the recovery key is needed first/)).toHaveCount(0)
    await page.getByLabel('Reached at').blur()
    await page.keyboard.press('$')
    const sheet = page.getByRole('dialog', { name: 'Is it worth going on?' })
    await sheet.getByLabel(/^Worth to its owner/).fill('2000')
    await expect(sheet.getByLabel(/^The maker’s repair/)).toHaveValue('0')
    await expect(sheet.getByRole('region', { name: 'What it comes to' })).toContainText(
      'The maker’s repair is the better way: it works out with 90 %, about 21 days.',
    )
  })

  test('the owner is kept outside the tape and erased by the lead alone', async ({
    page,
    bench,
    shop,
    browser,
  }) => {
    const tag = await begin(bench, shop)
    await page.getByRole('textbox', { name: 'Name' }).fill('Skerrow Choir')
    // Gone to another station in the middle of the field: it is kept all the same.
    await page.getByRole('link', { name: /^Triage/ }).click()
    await page.getByRole('link', { name: /^Intake/ }).click()
    await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Skerrow Choir')
    await page.getByRole('button', { name: 'Erase' }).click()
    await expect(page.getByText('Only the lead erases an owner’s data.')).toBeVisible()
    const lead = await (await browser.newContext()).newPage()
    await signIn(lead, shop, 'Ines')
    await open(lead, shop, tag, 'intake')
    await expect(lead.getByRole('textbox', { name: 'Name' })).toHaveValue('Skerrow Choir')
    await lead.getByRole('button', { name: 'Erase' }).click()
    await expect(lead.getByText('Erased; the technical record stays.')).toBeVisible()
    await lead.context().close()
  })

  test('what was typed in the ticket survives a reload that nobody wanted', async ({ bench: page, shop }) => {
    await begin(page, shop)
    await page.getByLabel('Owner’s words').fill('half a sentence that nobody')
    await page.reload()
    await awake(page)
    await expect(page.getByLabel('Owner’s words')).toHaveValue('half a sentence that nobody')
    await page.getByLabel('Owner’s words').focus()
    await page.getByLabel('Reached at').focus()
    await expect(page.getByText('owner: half a sentence that nobody')).toBeVisible()
  })
})

test.describe('triage', () => {
  test('a burn shuts the gate until the place is looked at again', async ({ bench: page, shop }) => {
    await begin(page, shop, 'triage')
    await page.getByRole('button', { name: 'outside of the board: problem' }).click()
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(page.getByText('Say first what it is: press its number.')).toBeVisible()
    await page.getByRole('radio', { name: 'burnt or scorched' }).focus()
    await page.keyboard.press('2')
    await page.getByLabel('Found outside of the board').fill('at the inductor')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(gate(page)).toContainText('reasons')
    await gate(page).click()
    await expect(
      page.getByText('outside of the board: at the inductor (burnt or scorched)').last(),
    ).toBeVisible()
    await page.keyboard.press('Escape')
    await evidence(page, 'Inspection')
    await page.getByRole('button', { name: 'outside of the board: OK' }).click()
    await evidence(page, 'Inspection')
    await expect(page.getByText('nothing seen', { exact: true })).toBeVisible()
  })

  test('figures that are none are told by their field, and stay', async ({ bench: page, shop }) => {
    await begin(page, shop, 'triage')
    await evidence(page, 'Rails')
    await page.getByLabel('5 V rail, ohms to ground').fill('lots')
    await page.getByLabel('5 V rail, ohms to ground').press('Enter')
    await expect(page.getByText('“lots” is not a resistance; like 1.8 or 4.7k')).toBeVisible()
    await expect(page.getByLabel('5 V rail, ohms to ground')).toHaveValue('lots')
    await page.getByLabel('5 V rail, ohms to ground').fill('4.7k')
    await page.getByLabel('5 V rail, ohms to ground').press('Enter')
    await expect(page.getByLabel('3.3 V rail, ohms to ground')).toBeFocused()
    await expect(tapeLines(page).filter({ hasText: '5 V rail to ground 4700 Ω, CPU out' })).toHaveCount(1)
    await evidence(page, 'Power-up')
    await page.getByRole('textbox', { name: 'Coin cell' }).fill('12')
    await page.getByRole('textbox', { name: 'Coin cell' }).press('Enter')
    await expect(page.getByText('a coin cell reads 0 to 5 V')).toBeVisible()
    await page.getByRole('button', { name: 'Note this power-up' }).click()
    await expect(page.getByText('Nothing is noted yet: at least what the fans did.')).toBeVisible()
    await page.getByLabel('POST codes, in order').fill('4C 9Z')
    await page.getByRole('button', { name: 'Note this power-up' }).click()
    await expect(page.getByText('“9Z” is no code: two hex figures each, like 4C')).toBeVisible()
    await expect(page.getByLabel('POST codes, in order')).toHaveValue('4C 9Z')
  })

  test('a second power-up shows what has changed, also without a picture', async ({ bench: page, shop }) => {
    await begin(page, shop, 'triage')
    const note = async (lamp: string, heat: string) => {
      await page.getByRole('radiogroup', { name: 'Fans' }).getByRole('radio', { name: 'on' }).click()
      await page
        .getByRole('radiogroup', { name: 'Debug LED' })
        .getByRole('radio', { name: lamp, exact: true })
        .click()
      await page.getByRole('radiogroup', { name: 'CPU feels' }).getByRole('radio', { name: heat }).click()
      await page.getByRole('button', { name: 'Note this power-up' }).click()
    }
    await evidence(page, 'Power-up')
    await note('CPU', 'cold')
    const ladder = page.getByRole('region', { name: 'How far it starts' })
    await expect(ladder.locator('[aria-current]')).toContainText('first fetch')
    await note('memory', 'warm')
    await expect(ladder.locator('[aria-current]')).toContainText('memory')
    await evidence(page, 'Power-up')
    await expect(page.getByRole('region', { name: 'Evidence' })).toContainText(
      /Since the power-up before: .*CPU cold → warm/,
    )
  })
})

test('the bench list and the page of a job say the same thing to do, also after another line', async ({
  bench: page,
  shop,
}) => {
  const tag = await begin(page, shop)
  const row = page.getByRole('listitem').filter({ hasText: tag })
  const same = async () => {
    await page.goto(`${shop.url}/`)
    // A test before it may have set the bench’s figures: then every job of the bench is computed anew.
    await expect(row).not.toContainText(/being calculated|Calculating/, { timeout: 120_000 })
    const said = (await row.getByRole('paragraph').nth(1).textContent())!
    await row.getByRole('link', { name: tag }).click()
    await expect(step(page)).toHaveText(said)
    return said
  }
  const before = await same()
  await type(page, 'lost tip of AK37')
  await saved(page)
  await expect(step(page)).toHaveText(/^Account for tip of AK37/)
  expect(await same()).not.toBe(before)
})

test.describe('which test next', () => {
  test('what it may be moves with a power-up and with each outcome, which is one key', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'triage')
    const strip = page.getByRole('region', { name: 'Likely causes' })
    const answers = page.getByRole('group', { name: 'Result' })
    await expect(strip).toContainText('by this board’s history alone')
    await evidence(page, 'Power-up')
    await page.getByRole('radiogroup', { name: 'Fans' }).getByRole('radio', { name: 'on' }).click()
    await page
      .getByRole('radiogroup', { name: 'Debug LED' })
      .getByRole('radio', { name: 'memory', exact: true })
      .click()
    await page.getByRole('button', { name: 'Note this power-up' }).click()
    await expect(strip).toContainText('last evidence: Power up as it came, memory LED')
    await expect(strip.getByRole('button').first()).toContainText(/ %, up from/)
    await strip.getByRole('button').first().click()
    await expect(strip).toContainText('Power up as it came: memory LED')
    const first = answers.getByRole('button').filter({ hasText: /^1/ })
    const outcome = await first.innerText()
    await page.keyboard.press('1')
    await expect(lastLine(page)).toContainText(outcome.replace(/^1\s*|\s*[<\d ]+%$/g, ''))
    await page.keyboard.press('Escape')
    await page.keyboard.press('z')
    await expect(strip).toContainText('last evidence: Power up as it came, memory LED')
  })

  test('a verdict is mended and what stands behind it is looked for', async ({ bench: page, shop }) => {
    await open(page, shop, 'Q-0412', 'triage')
    const answers = page.getByRole('group', { name: 'Result' })
    await expect(step(page)).toHaveText('Look into the memory slots, with a light.')
    await answers.getByRole('button', { name: /slot B/ }).click()
    await expect(step(page)).toHaveText('Repair it and see: memory slot B damaged or dirty.')
    await answers.getByRole('button', { name: 'Repaired' }).click()
    await expect(lastLine(page)).toContainText('repaired: slot B')
    // A slot is soldered: the rails come first again.
    await expect(step(page)).toHaveText('Measure 12 V rail to ground again, unplugged.')
    await expect(answers.getByRole('button', { name: 'Repaired' })).toHaveCount(0)
  })
})

test.describe('socket', () => {
  test('snapping on the way shuts the gate until the fragment is found, and the sheet remembers', async ({
    bench: page,
    shop,
  }) => {
    const tag = await begin(page, shop, 'socket')
    await type(page, 'mark M31 low 0.2')
    await type(page, 'mark P13 touching on P14')
    await draw(page, 'Order')
    await expect(drawer(page, 'Order')).toContainText('lift from under')
    await drawer(page, 'Order').getByRole('button', { name: /M31/ }).click()
    await expect(cursor(page)).toHaveAttribute('data-cursor', 'M31')
    await page.keyboard.press(']')
    await expect(page.getByText('2 strokes, breaks in')).toBeVisible()
    await page.keyboard.press('o')
    await expect(lastLine(page)).toContainText('M31 lift, 2 strokes, short')
    await page.keyboard.press('x')
    await expect(lastLine(page)).toContainText('snapped')
    // The needle goes to what comes first in the order that was made anew, whichever that is by the shop's record.
    await expect(drawer(page, 'Order')).not.toContainText('lift from under')
    await expect(async () => {
      const first = await drawer(page, 'Order').getByRole('listitem').first().innerText()
      await expect(cursor(page)).toHaveAttribute('data-cursor', /[A-Z]+\d+/.exec(first)![0], { timeout: 500 })
    }).toPass()
    await gate(page).click()
    await expect(page.getByText('fragment of M31 is not accounted for').last()).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(step(page)).toContainText('fragment of M31')
    await page.getByLabel('Where fragment of M31 was found').fill('on the tape')
    await page.getByRole('button', { name: 'Found it' }).click()
    await expect(lastLine(page)).toContainText('accounted for: on the tape')
    await open(page, shop, tag, 'hand-back')
    await expect(page.getByRole('article', { name: 'Hand-back sheet' })).toContainText(
      'M31, found low by 0.20 mm, snapped while being straightened',
    )
  })

  test('the worst first or the easy ones first; one left as it is goes to the end', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'socket')
    await type(page, 'mark M31 low 0.2')
    await type(page, 'mark AC30 folded on AC31')
    await draw(page, 'Order')
    const order = drawer(page, 'Order').getByRole('listitem')
    await expect(order).toHaveCount(2)
    await expect(order.first()).toContainText('M31')
    await page.getByRole('radio', { name: 'the worst while the eye is fresh' }).click()
    await expect(order.first()).toContainText('AC30')
    await order.first().getByRole('button').click()
    await page.getByRole('button', { name: 'Leave it' }).click()
    await expect(order.last()).toContainText('more risk than gain')
  })

  test('a CPU that does not fall flat is noted, and what is marked is not counted as looked at anew', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'socket')
    await page.getByRole('button', { name: 'all inspected' }).click()
    await expect(page.getByText('1,284 of 1,284 inspected')).toBeVisible()
    await page.getByRole('button', { name: 'Seating and loose parts' }).click()
    await page.getByRole('button', { name: 'Note the seating' }).click()
    await expect(page.getByText('Which CPU was it?')).toBeVisible()
    await page.getByLabel('CPU', { exact: true }).fill('bench Orrin 41')
    await page.getByRole('radio', { name: 'one corner stays proud' }).click()
    await page.getByRole('radiogroup', { name: 'Heatsink' }).getByRole('radio', { name: 'off' }).click()
    await page.getByRole('button', { name: 'Note the seating' }).click()
    await expect(lastLine(page)).toContainText('seated bench Orrin 41: proud')
    await gate(page).click()
    await expect(page.getByText('CPU fitted, no heatsink noted')).toBeVisible()
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Re-inspection', exact: true }).click()
    await page.getByRole('textbox', { name: 'Re-inspection' }).fill('after the seat')
    await page.getByRole('button', { name: 'Begin it' }).click()
    await expect(page.getByText('0 of 1,284 inspected')).toBeVisible()
    await expect(gate(page)).toContainText('reasons')
  })

  test('the table in words keeps step with the map and goes to its contact', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'socket')
    for (const line of ['mark B10 low 0.1', 'mark B2 snapped', 'mark T30 lean 0.3 west'])
      await type(page, line)
    await page.getByRole('button', { name: 'Table' }).click()
    const rows = page.getByRole('table', { name: 'Marked contacts' }).locator('tbody tr')
    await expect(rows).toHaveCount(3)
    await page.getByRole('button', { name: 'Contact', exact: true }).click()
    await expect(rows.nth(0)).toContainText('B2')
    await expect(rows.nth(1)).toContainText('B10')
    await page.getByRole('button', { name: 'T30', exact: true }).click()
    await expect(cursor(page)).toHaveAttribute('data-cursor', 'T30')
    await page.keyboard.press('1')
    await expect(rows).toHaveCount(2)
    await page.getByRole('button', { name: 'Function', exact: true }).click()
    await expect(drawer(page, 'Function')).toContainText('ground1 of 46')
  })
})

test.describe('firmware, parts, proof, hand-back', () => {
  test('the wrong voltage is said before the clip goes on, and a clip shuts the gate', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'firmware')
    await expect(step(page)).toHaveText(/^Look round the firmware chip first/)
    await page.getByRole('button', { name: 'Nothing is wrong there' }).click()
    await expect(step(page)).toHaveText(/^Read the chip’s marking/)
    await page.getByLabel('Chip works at').fill('1.8')
    await page.getByLabel('Programmer').fill('3.3')
    await page.getByLabel('Version seen').focus()
    await expect(page.getByText('put the adapter between before the clip goes on')).toBeVisible()
    await page.getByRole('radio', { name: 'on the chip' }).click()
    await gate(page).click()
    await expect(page.getByText('Programmer at 3.3 V on a 1.8 V chip')).toBeVisible()
    await page.keyboard.press('Escape')
    await page.getByRole('tab', { name: 'Found and done' }).click()
    await page.getByRole('button', { name: 'Note the step' }).click()
    await expect(page.getByText('What was done? Like: read twice')).toBeVisible()
  })

  test('a missing part is read at its pads, fitted, and read across; of feedback no value is given', async ({
    bench: page,
    shop,
  }) => {
    await begin(page, shop, 'parts')
    const note = async (ref: string, did: string, more: Readonly<Record<string, string>> = {}) => {
      await page.getByRole('tab', { name: 'Note' }).click()
      await page.getByLabel('Part', { exact: true }).fill(ref)
      await page.getByRole('radio', { name: did, exact: true }).click()
      for (const [label, value] of Object.entries(more))
        await page.getByLabel(label, { exact: true }).fill(value)
      await page.getByRole('button', { name: 'Note the part' }).click()
      await expect(lastLine(page)).toContainText(`${ref} ${did}`)
    }
    const read = async (pad: 'A' | 'B', what: string, value: string) =>
      page.getByLabel(`Pad ${pad}: ${what}`, { exact: true }).fill(value)
    const account = async () => {
      await page.getByPlaceholder('where it was found, or where it went').fill('eaten away')
      await page.getByRole('button', { name: 'Found it' }).first().click()
    }
    await note('R214', 'found missing', { 'Net, if it is known': 'SPI_MISO' })
    await account()
    await expect(step(page)).toHaveText('What was R214? Read its two pads, unplugged.')
    await page.getByRole('tab', { name: 'What was it?' }).click()
    // What the board's map knows stands there; without its twins it has to be read.
    const twins = page.getByLabel('Its twins', { exact: true })
    await expect(twins).toHaveValue(/R213 33 Ω/)
    await twins.fill('')
    await read('A', 'To ground, Ω', 'some')
    await expect(page.getByText('“some” are no ohms: 120k, 4.7, or open')).toBeVisible()
    await read('A', 'To ground, Ω', '120k')
    await expect(page.getByLabel('Pad A: Net', { exact: true })).toHaveValue('SPI_MISO')
    await page.getByLabel('Pad A, pin 1: which').fill('U7.2')
    await read('B', 'To ground, Ω', 'open')
    await read('B', 'Net', 'PCH_MISO')
    await page.getByLabel('Pad B, pin 1: which').fill('U3.2')
    await page.getByLabel('Pads apart, mm').fill('1.0')
    const says = page.getByRole('region', { name: 'What R214 was' })
    await expect(says).toContainText('33 Ω, 0402: an educated guess')
    await page.getByRole('button', { name: 'Keep these readings' }).click()
    await expect(step(page)).toHaveText('Fit 33 Ω, 0402, at R214.')
    await note('R214', 'fitted', { Value: '33 Ω' })
    await expect(step(page)).toHaveText('Measure across R214.')
    await note('R214', 'measured', { Value: '210' })
    await expect(page.getByText('too much: a poor joint, or another value').first()).toBeVisible()
    await note('R214', 'measured', { Value: '34' })
    await expect(page.getByText('as it must; from pin to far end 30 Ω to 37 Ω')).toBeVisible()
    await note('R303', 'found missing', { 'Net, if it is known': 'VR_FB' })
    await account()
    await page.getByRole('tab', { name: 'What was it?' }).click()
    await read('A', 'Net', 'VCORE')
    await read('B', 'Net', 'VR_FB')
    const feedback = page.getByRole('region', { name: 'What R303 was' })
    await expect(feedback).toContainText(
      'No value is given: what sets a voltage or a current is never guessed',
    )
    await expect(feedback).toContainText('Look it up on a board map of this revision')
    await page.getByRole('tab', { name: 'Marking' }).click()
    await page.getByLabel('Figures and letters on the part').fill('68X')
    await expect(page.getByText('49.9 Ω')).toBeVisible()
  })

  test('a test that fails sends back to triage; a change after a pass asks for it again', async ({
    bench: page,
    shop,
  }) => {
    const tag = await begin(page, shop, 'proof')
    // Nothing was ever powered here, and nothing may be: no key says that it ran, and a pass is asked about.
    await expect(step(page)).toHaveText(/^Do not power yet/)
    await page.keyboard.press('p')
    await expect(page.getByText('What speaks against')).toHaveCount(0)
    await page.getByRole('button', { name: 'An operating system loads: passes' }).click()
    await expect(page.getByText('it may not be powered as it stands', { exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Do not note it' }).click()
    await expect(page.getByRole('textbox', { name: /^Reading for An operating system/ })).toBeVisible()
    await page.getByRole('button', { name: 'An operating system loads: passes' }).click()
    await page.getByRole('button', { name: 'Note it all the same' }).click()
    await expect(lastLine(page)).toContainText('system: pass (despite: it may not be powered as it stands')
    await page.getByRole('button', { name: /^4 cold starts.*: fails$/ }).click()
    await expect(step(page)).toHaveText('1 test failed: back to triage with what was seen.')
    await page.getByRole('button', { name: 'It passes now' }).click()
    await page.getByRole('button', { name: 'Note it all the same' }).click()
    await expect(step(page)).not.toHaveText(/failed/)
    await open(page, shop, tag, 'socket')
    await page.getByRole('button', { name: 'Seating and loose parts' }).click()
    await page.getByLabel('CPU', { exact: true }).fill('Orrin 41')
    await page.getByRole('radio', { name: 'fell flat by itself' }).click()
    await page.getByRole('button', { name: 'Note the seating' }).click()
    await saved(page)
    await open(page, shop, tag, 'proof')
    await expect(page.getByText('Again: something was changed since.')).toHaveCount(2)
  })

  test('a bill over the limit is said; parked stays on the bench, and a late word is counted', async ({
    bench: page,
    shop,
  }) => {
    const tag = await begin(page, shop)
    await page.getByLabel('Limit').fill('300')
    await page.getByLabel('Reached at').focus()
    await saved(page)
    await open(page, shop, tag, 'hand-back')
    await page.getByLabel('The bill, kr').fill('a lot')
    await page.getByRole('button', { name: 'Hand it back' }).click()
    await expect(page.getByText('An amount, like 450 or 450,50.')).toBeVisible()
    await page.getByLabel('The bill, kr').fill('450')
    await expect(page.getByText('More than the 300 kr agreed: change the offer first.')).toBeVisible()
    await page.getByLabel('As', { exact: true }).selectOption('parked')
    await page.getByRole('button', { name: 'Hand it back' }).click()
    await saved(page)
    await page.goto(`${shop.url}/`)
    await expect(page.getByRole('link', { name: tag })).toBeVisible()
    await open(page, shop, tag, 'hand-back')
    await page.getByLabel('As', { exact: true }).selectOption('returned untested')
    await page.getByRole('button', { name: 'Hand it back' }).click()
    await expect(step(page)).toHaveText('Handed back: returned untested.')
    await page.getByLabel('What they say').fill('runs at home')
    await page.getByRole('button', { name: 'It holds' }).click()
    await expect(lastLine(page)).toContainText('later: runs at home')
    await saved(page)
    await page.goto(`${shop.url}/`)
    await expect(page.getByRole('link', { name: tag })).toHaveCount(0)
  })

  test('a station is passed over with a reason, never without', async ({ bench: page, shop }) => {
    await begin(page, shop, 'firmware')
    await page.getByRole('button', { name: 'Skip…' }).click()
    await page.getByRole('button', { name: 'Skip this station', exact: true }).click()
    await expect(page.getByText('A few words, so that the next person knows.')).toBeVisible()
    await page.getByLabel('Because').fill('nothing points here')
    await page.getByRole('button', { name: 'Skip this station', exact: true }).click()
    await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText(
      'skipped: nothing points here',
    )
    await page.getByRole('button', { name: 'Open it again' }).click()
    await expect(page.getByRole('navigation', { name: 'Stations' })).not.toContainText('skipped')
  })
})

test('a photo and a line wait in the browser while the server is away, and are sent once', async ({
  bench: page,
  shop,
}) => {
  const tag = await begin(page, shop)
  await shop.kill()
  const png = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#3a2' } })
    .png()
    .toBuffer()
  await page
    .getByLabel('Photo to add')
    .setInputFiles({ name: 'side.png', mimeType: 'image/png', buffer: png })
  await type(page, 'note taken while the server was away')
  await expect(page.getByRole('progressbar', { name: 'Sending side.png' })).toBeVisible()
  // The stations are here already: going to another needs no server.
  await page.keyboard.press('g')
  await page.keyboard.press('2')
  await expect(page).toHaveURL(/triage$/)
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Proof' }).click()
  await expect(page.getByRole('button', { name: 'An operating system loads: passes' })).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('region', { name: 'Likely causes' })).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('1')
  await expect(page.getByRole('progressbar', { name: 'Sending side.png' })).toBeVisible()
  await shop.start()
  await page.reload()
  await expect(tapeLines(page).filter({ hasText: 'photo, side.png' })).toHaveCount(1)
  await expect(tapeLines(page).filter({ hasText: 'taken while the server was away' })).toHaveCount(1)
  await saved(page)
  await page.reload()
  await expect(tapeLines(page).filter({ hasText: 'photo, side.png' })).toHaveCount(1)
  expect(page.url()).toContain(tag)
})

test('a database that goes away and comes back loses nothing', async ({ bench: page, shop: near }) => {
  const wire = await Wire.to(near.databaseUrl)
  const shop = await Shop.open(wire.url)
  try {
    await begin(page, shop)
    wire.cut()
    await type(page, 'note the database is away')
    await expect(page.getByText('The server does not answer.')).toBeVisible()
    await expect(page.getByText('not saved yet, kept here')).toBeVisible()
    wire.mend()
    await saved(page)
    await page.reload()
    await expect(lastLine(page)).toContainText('the database is away')
  } finally {
    await shop.kill()
    wire.close()
  }
})
