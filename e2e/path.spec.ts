import type { Locator, Page } from '@playwright/test'
import { awake, expect, nothingMoved, saved, tapeLines, test, watchShifts } from './bench'
import type { Shop } from './bench'

/** How a bench is worked: what every hand has to be able to do. */
interface Hand {
  readonly press: (what: Locator) => Promise<void>
  readonly write: (field: Locator, text: string) => Promise<void>
  readonly pick: (field: Locator, label: string) => Promise<void>
  readonly radio: (group: string, choice: string) => Promise<void>
}

const radioOf = (page: Page, group: string, choice: string) =>
  page.getByRole('radiogroup', { name: group, exact: true }).getByRole('radio', { name: choice, exact: true })

/** Points and clicks; letters and figures are all that is typed. */
const byMouse = (page: Page): Hand => ({
  press: (what) => what.click(),
  async write(field, text) {
    await field.click()
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type(text)
  },
  pick: async (field, label) => void (await field.selectOption({ label })),
  radio: (group, choice) => radioOf(page, group, choice).click(),
})

/** Never points: what it wants it reaches by Tab, as whoever has no mouse does. */
function byKeys(page: Page): Hand {
  const has = (what: Locator) => what.evaluate((el) => el.contains(document.activeElement))
  async function reach(what: Locator): Promise<void> {
    await expect(what).toBeVisible()
    for (let tabs = 0; !(await has(what)); tabs++) {
      expect(tabs, `${String(what)} is reached by Tab`).toBeLessThan(250)
      await page.keyboard.press('Tab')
    }
  }
  return {
    async press(what) {
      await reach(what)
      await page.keyboard.press((await what.getAttribute('type')) === 'checkbox' ? 'Space' : 'Enter')
    },
    async write(field, text) {
      await reach(field)
      await page.keyboard.press('ControlOrMeta+a')
      await page.keyboard.type(text)
    },
    async pick(field, label) {
      await reach(field)
      await page.keyboard.type(label)
      await expect(field.locator('option:checked')).toHaveText(label)
    },
    async radio(group, choice) {
      await reach(page.getByRole('radiogroup', { name: group, exact: true }))
      const wanted = radioOf(page, group, choice)
      for (let moves = 0; (await wanted.getAttribute('aria-checked')) !== 'true'; moves++) {
        expect(moves, `${group}: ${choice} is reached by the arrows`).toBeLessThan(12)
        await page.keyboard.press(moves === 0 ? 'Space' : 'ArrowRight')
      }
    },
  }
}

/** The centre has not been scrolled, and cannot be. */
async function centreStands(page: Page): Promise<void> {
  expect(
    await page.locator('main').evaluate((m) => [m.scrollTop, m.scrollHeight - m.clientHeight, scrollY]),
  ).toEqual([0, 0, 0])
}

/** A newcomer takes in a board that turns out to be good, follows the sentence on top, and hands it back. */
async function walk(page: Page, shop: Shop, kind: 'mouse' | 'keys', folds = false): Promise<void> {
  const plain = kind === 'mouse' ? byMouse(page) : byKeys(page)
  const stands = () => (folds ? Promise.resolve() : centreStands(page))
  const step = page.locator('[data-next-step] h1')
  const gate = page.locator('[data-gate]')
  const button = (name: string | RegExp) =>
    page.getByRole('button', typeof name === 'string' ? { name, exact: true } : { name })
  const press = async (what: Locator) => {
    const shifted = await watchShifts(page)
    await plain.press(what)
    await stands()
    // Stacked in one column, what grows moves what is below it.
    if (!folds) await nothingMoved(shifted)
  }
  const { write, pick, radio } = plain
  /** The last line says it; where there is no room the tape is opened for a look. */
  const onTape = async (words: string | RegExp) => {
    if (folds) await button('Open the tape').click()
    await expect(tapeLines(page).last()).toContainText(words)
    if (folds) await button('Fold the tape away').click()
  }
  const go = async (n: number, station: string) => {
    if (kind === 'mouse')
      await page
        .getByRole('navigation', { name: 'Stations' })
        .getByRole('link', { name: new RegExp(`^${station}`, 'i') })
        .click()
    else {
      await page.keyboard.press('Escape')
      await page.keyboard.press('g')
      await page.keyboard.press(String(n))
    }
    await expect(page).toHaveURL(new RegExp(`/${station}$`))
    await awake(page)
    await stands()
  }
  const settle = () => (kind === 'mouse' ? press(button(/^Mark station done/)) : key('e'))
  const key = async (name: string) => {
    await page.keyboard.press('Escape')
    await page.keyboard.press(name)
  }

  await page.goto(`${shop.url}/`)
  await awake(page)
  await press(button(/^New job/))
  await expect(page).toHaveURL(/\/jobs\/Q-\d+\/intake/)
  await awake(page)
  await stands()

  await test.step('intake', async () => {
    await expect(step).toHaveText('Say which board this is.')
    await pick(page.getByLabel('Model'), 'Tarnworks TW-K61 rev B')
    await write(page.getByLabel('Owner’s words'), 'dark since the cooler was changed')
    await press(page.getByLabel('cooler swap'))
    await write(page.getByLabel('Limit'), '500')
    await press(button('Agreed by telephone'))
    await expect(page.getByText('Agreed, by telephone')).toBeVisible()
    await settle()
    await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('done')
  })

  await test.step('triage, before power', async () => {
    await go(2, 'triage')
    await expect(step).toHaveText('Look over the outside of the board, both sides.')
    await press(button('outside of the board: OK'))
    // The rails open themselves, the first has its field ready, and each gives on to the next.
    await expect(page.getByLabel('12 V rail, ohms to ground')).toBeFocused()
    for (const ohms of ['480', '310', '265', '720', '6,4', '221', '38']) {
      await page.keyboard.type(ohms)
      await page.keyboard.press('Enter')
    }
    await expect(page.getByRole('tab', { name: /^Rails 7\/7/ })).toBeVisible()
    if (kind === 'mouse') await page.getByRole('tab', { name: /^Battery/ }).click()
    else {
      await plain.press(page.getByRole('tab', { selected: true }))
      for (let n = 0; !(await page.getByRole('tab', { name: /^Battery/, selected: true }).isVisible()); n++) {
        expect(n).toBeLessThan(9)
        await page.keyboard.press('ArrowRight')
      }
    }
    await write(page.getByLabel('Volts', { exact: true }), '3,02')
    await press(page.getByRole('tabpanel').getByRole('button', { name: 'Note it', exact: true }).first())
    await onTape(/3[.,]02 V/)
    await stands()
  })

  await test.step('socket', async () => {
    await go(3, 'socket')
    const map = page.locator('#map')
    if (kind === 'mouse') {
      const box = (await map.boundingBox())!
      await page.mouse.click(box.x + box.width / 3, box.y + box.height / 3)
      await press(page.getByRole('list', { name: /^Mark / }).getByRole('button', { name: /low$/ }))
    } else {
      await page.keyboard.press('ArrowDown')
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('3')
    }
    const contact = (await map.getAttribute('data-cursor'))!
    await onTape(`${contact} low`)
    await expect(button(/^Straight/)).toBeEnabled()
    await (kind === 'mouse' ? press(button(/^Straight/)) : page.keyboard.press('Space'))
    await onTape('straight')
    await press(button('all inspected'))
    await expect(step).toHaveText('The field looks right. Seat the CPU and try.')
    await press(button('Seating and loose parts'))
    await write(page.getByLabel('CPU', { exact: true }), 'bench Orrin 41')
    await radio('It', 'fell flat by itself')
    await radio('Heatsink', 'on')
    await press(button('Note the seating'))
    await expect(gate).not.toHaveAttribute('data-gate', 'do not power')
    await settle()
  })

  await test.step('the first power-up', async () => {
    await go(2, 'triage')
    await press(page.getByRole('tab', { name: /^Power-up/ }))
    await write(page.getByLabel('Supply limit'), '1')
    await radio('Fans', 'on')
    await radio('Current', 'steady')
    await radio('CPU feels', 'warm')
    await radio('Picture', 'system loads')
    await write(page.getByLabel('Amps'), '0,7')
    await press(button(/^Note this power-up/))
    await expect(step).toHaveText('It runs: prove it.')
    await expect(gate).toHaveAttribute('data-gate', 'clear')
    await settle()
  })

  await test.step('firmware and parts are skipped', async () => {
    for (const [n, station] of [
      [4, 'firmware'],
      [5, 'parts'],
    ] as const) {
      await go(n, station)
      await press(button('Skip…'))
      await write(page.getByLabel('Because'), 'nothing points here')
      await press(button('Skip this station'))
      await expect(page.getByRole('dialog')).toHaveCount(0)
    }
  })

  await test.step('proof', async () => {
    await go(6, 'proof')
    const answers = page.getByRole('group', { name: 'Result' })
    for (let n = 0; n < 40; n++) {
      const say = await step.innerText()
      if (say.startsWith('Everything owed is proved')) break
      const starts = /^(\d+ cold starts|Cold start)/.test(say)
      if (!starts) await write(answers.getByRole('textbox'), 'as it should')
      await (kind === 'mouse'
        ? press(answers.getByRole('button', { name: starts ? /^It came up/ : /: passes$/ }))
        : key('p'))
      await expect(step).not.toHaveText(say)
    }
    await expect(step).toHaveText('Everything owed is proved. Hand it back.')
    await settle()
  })

  await test.step('hand-back', async () => {
    await go(7, 'hand-back')
    await write(page.getByLabel('The bill, kr'), '450')
    await press(button('Hand it back'))
    await expect(step).toHaveText('Handed back: fixed.')
    await saved(page)
    await stands()
  })
}

test.describe('a newcomer takes a new board from intake to hand-back', () => {
  test.use({ actionTimeout: 20_000 })
  test.describe('in German', () => {
    test.use({ locale: 'de-DE', viewport: { width: 1280, height: 800 } })
    test('by the mouse alone, and the centre never scrolls', async ({ bench: page, shop }) => {
      await walk(page, shop, 'mouse')
    })
  })
  test.describe('in Norwegian', () => {
    test.use({ locale: 'nb-NO', viewport: { width: 1280, height: 800 } })
    test('by keys alone, and the centre never scrolls', async ({ bench: page, shop }) => {
      await walk(page, shop, 'keys')
    })
  })
  test.describe('at 200 %', () => {
    test.use({ viewport: { width: 640, height: 400 } })
    test('by the mouse alone', async ({ bench: page, shop }) => {
      await walk(page, shop, 'mouse', true)
    })
  })
})
