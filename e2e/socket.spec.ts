import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { demoSockets } from '../demo/sockets'
import { runToEnd } from '@/core/run-to-end'
import type { Socket } from '@/core/socket/model/socket'
import { plainShot, takePhoto } from '@/simulated-bench/microscope-camera'
import type { Photo, Shot } from '@/simulated-bench/microscope-camera'
import { shotOf } from '@/stations/socket/photo/camera-shot'
import { drawDamage } from '@/simulated-bench/drawn-damage'
import type { Shop } from './bench'
import {
  axe,
  atStation,
  awake,
  draw,
  drawer,
  expect,
  saved,
  signIn,
  sql,
  takeIn,
  tapeLines,
  test,
  type,
} from './bench'

/** A job of its own, on which nothing else is written; its contacts are drawn, since nobody has marked any. */
const TAG = 'Q-0409'
test.beforeAll(async ({ shop }) => {
  await sql(
    shop.databaseUrl,
    'update hidden_board set marks = $1 from job where job.id = job_id and job.tag = $2',
    [JSON.stringify(drawDamage(demoSockets.lg1284, 11)), TAG],
  )
})

const taken = (socket: Socket, shot: Shot): Photo => runToEnd(takePhoto(socket, {}, shot))
const atSocket = async (page: Page, shop: Shop, tag: string) => {
  await atStation(page, shop, tag, 'socket')
  await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
}
/** Marks a contact on the tape and puts the needle on it. */
async function marked(page: Page, line: string): Promise<void> {
  await type(page, line)
  await page.getByRole('button', { name: 'Table' }).click()
  await page
    .getByRole('table', { name: 'Marked contacts' })
    .getByRole('button', { name: line.split(' ')[1], exact: true })
    .click()
}
const photo = (page: Page) => page.getByRole('application')

/** Clicks each contact the page asks for where it is in the picture, or where `instead` says. */
async function clickFour(
  page: Page,
  truth: Photo,
  size: { widthPx: number; heightPx: number },
  instead: Readonly<Record<string, string>> = {},
): Promise<void> {
  for (let i = 0; i < 4; i++) {
    await expect(photo(page)).toHaveAttribute('aria-label', /on the tip of/)
    const asked = /tip of (\w+)/.exec((await photo(page).getAttribute('aria-label'))!)![1]!
    const { px } = truth.tips.find((t) => t.name === (instead[asked] ?? asked))!
    const box = (await photo(page).boundingBox())!
    await page.mouse.click(
      box.x + (px[0] / size.widthPx) * box.width,
      box.y + (px[1] / size.heightPx) * box.height,
    )
    await expect(photo(page)).not.toHaveAttribute('aria-label', new RegExp(`tip of ${asked} `))
  }
}
/** How many clicks the browser's own database holds. */
const clicksKept = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opening = indexedDB.open('arch-needle photos in hand')
        opening.onerror = () => reject(opening.error)
        opening.onsuccess = () => {
          const all = opening.result.transaction('photo').objectStore('photo').getAll()
          all.onsuccess = () => {
            opening.result.close()
            resolve(all.result.flatMap((p: { anchors: unknown[] }) => p.anchors).length)
          }
          all.onerror = () => reject(all.error)
        }
      }),
  )
const lastLine = async (page: Page, shop: Shop, tag: string) => {
  const tape = (await (await page.request.get(`${shop.url}/api/jobs/${tag}/tape`)).json()) as {
    entries: { seq: number }[]
  }
  return Math.max(...tape.entries.map((e) => e.seq))
}

test.describe('from photos', () => {
  test('the camera over the bench, four clicks, every suspect one key; what is in place is looked at', async ({
    bench: page,
    shop,
  }) => {
    await atSocket(page, shop, TAG)
    const shot = shotOf(demoSockets.lg1284, { view: 'above' }, await lastLine(page, shop, TAG))
    await page.keyboard.press('y')
    await page.getByRole('button', { name: 'from above', exact: true }).click()
    await clickFour(page, taken(demoSockets.lg1284, shot), shot)
    // What is in hand outlasts the page once the browser has written it: photo and clicks come back, and are read again.
    await expect(page.getByText('Four are clicked. Read it.')).toBeVisible()
    await expect.poll(() => clicksKept(page)).toBe(4)
    await page.reload()
    await awake(page)
    await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
    await page.keyboard.press('y')
    await expect(page.getByText('Four are clicked. Read it.')).toBeVisible()
    await page.keyboard.press('a')
    await expect(page.getByRole('button', { name: 'Take it onto the map' })).toBeVisible()
    await expect(page.getByRole('status').filter({ hasText: 'in place' })).toContainText(
      'heights are not told',
    )
    const { violations } = await axe(page).analyze()
    expect(violations.map((v) => v.id)).toEqual([])
    await page.getByRole('button', { name: 'Take it onto the map' }).click()
    await expect(
      tapeLines(page)
        .filter({ hasText: /inspection: [\d]+ contacts/ })
        .last(),
    ).toBeVisible()
    const list = page.getByRole('region', { name: 'Contacts that break the pattern' })
    const asked = await list.getByRole('button').count()
    expect(asked).toBeGreaterThan(3)
    const here = page.getByRole('complementary', { name: 'The one under the needle' })
    const name = (await here.getByRole('heading').textContent())!
    await page.keyboard.press('Space')
    await expect(
      tapeLines(page)
        .filter({ hasText: new RegExp(`${name} \\w`) })
        .last(),
    ).toBeVisible()
    await expect(here.getByRole('heading')).not.toHaveText(name)
    const second = (await here.getByRole('heading').textContent())!
    await page.keyboard.press('Backspace')
    await expect(tapeLines(page).filter({ hasText: `${second} sound` })).toHaveCount(1)
    const third = (await here.getByRole('heading').textContent())!
    await page.keyboard.press('9')
    await expect(
      tapeLines(page)
        .filter({ hasText: `${third} snapped off` })
        .last(),
    ).toBeVisible()
    await expect(list).toContainText(`${asked - 3} still to look at`)
    await saved(page)
    await page.keyboard.press('y')
    await expect(page.locator('#map')).toBeVisible()
  })

  test('a photo of a part asks for contacts in that part; what no photo shows is not looked at', async ({
    bench: page,
    shop,
  }) => {
    await atSocket(page, shop, 'Q-0417')
    const shot = shotOf(demoSockets.lg1284, { view: 'near right' }, await lastLine(page, shop, 'Q-0417'))
    await page.keyboard.press('y')
    await page.getByRole('button', { name: 'near right', exact: true }).click()
    await expect(page.getByText('Click the tip of AT40: near row, rightmost.')).toBeVisible()
    await clickFour(page, taken(demoSockets.lg1284, shot), shot)
    await page.keyboard.press('a')
    await expect(page.getByText(/not inspected: no photo shows them/)).toBeVisible()
    await page.getByRole('button', { name: 'Put it away' }).click()
    await expect.poll(() => clicksKept(page)).toBe(0)
    await page.reload()
    await awake(page)
    await expect(page.getByText('starts as it stands: ')).not.toContainText('…')
    await page.keyboard.press('y')
    await expect(page.getByText(/Photograph the field from straight above/)).toBeVisible()
  })

  test('mirrored clicks, a photo of something else and a file that is none are refused; nothing goes on the tape', async ({
    bench: page,
    shop,
  }) => {
    await atSocket(page, shop, 'Q-0417')
    const before = await lastLine(page, shop, 'Q-0417')
    await page.keyboard.press('y')
    const pick = page.getByLabel('Picture of the field')
    await pick.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') })
    await expect(page.getByRole('alert').filter({ hasText: 'no picture that can be read' })).toBeVisible()
    await page.getByRole('button', { name: 'Put it away' }).click()

    const shot: Shot = { ...plainShot, widthPx: 1400, heightPx: 1400, pxPerMm: 34, glare: 0, seed: 3 }
    const truth = taken(demoSockets.lg1284, shot)
    const png = await sharp(truth.image.grey, { raw: { width: 1400, height: 1400, channels: 1 } })
      .png()
      .toBuffer()
    await pick.setInputFiles({ name: 'field.png', mimeType: 'image/png', buffer: png })
    await clickFour(page, truth, shot, { A1: 'A40', A40: 'A1', AT1: 'AT40', AT40: 'AT1' })
    await page.keyboard.press('a')
    await expect(page.getByRole('alert').filter({ hasText: 'mirror' })).toBeVisible()
    await expect(page.getByRole('button', { name: 'Take it onto the map' })).toHaveCount(0)
    await page.getByRole('button', { name: 'Put it away' }).click()

    const plain = await sharp({ create: { width: 1400, height: 1400, channels: 3, background: '#667' } })
      .png()
      .toBuffer()
    await pick.setInputFiles({ name: 'table.png', mimeType: 'image/png', buffer: plain })
    await clickFour(page, truth, shot)
    await page.keyboard.press('a')
    await expect(page.getByRole('alert').filter({ hasText: 'no even field of tips' })).toBeVisible()
    expect(await lastLine(page, shop, 'Q-0417')).toBe(before)
  })

  test('a board on a real bench has no simulated camera', async ({ bench: page, shop }) => {
    const tag = await takeIn(page, shop)
    const answer = await page.request.get(`${shop.url}/api/jobs/${tag}/camera?view=above`)
    expect([answer.status(), ((await answer.json()) as { error: { text: string } }).error.text]).toEqual([
      404,
      expect.stringMatching(/real bench/),
    ])
    expect((await page.request.get(`${shop.url}/api/jobs/${TAG}/camera?view=below`)).status()).toBe(422)
  })
})

test('a stroke’s result changes what is left, and with it the advice; light and magnification are kept', async ({
  bench: page,
  shop,
}) => {
  await atSocket(page, shop, TAG)
  await marked(page, 'mark M31 low 0.15')
  await page.getByRole('button', { name: 'Leave or straighten' }).click()
  const panel = page.getByRole('complementary', { name: 'Contact under the needle' })
  await expect(panel.locator('[data-advice]')).toBeVisible()
  await page.getByRole('radio', { name: 'low from one side' }).click()
  await page.getByLabel('Magnification').fill('20×')
  await page.getByLabel('Magnification').press('Escape')
  const name = 'M31'
  await page.keyboard.press('o')
  await expect(tapeLines(page).filter({ hasText: new RegExp(`^.*${name} .*, short`) })).toHaveCount(1)
  await expect(panel.getByRole('heading')).toHaveText(name)
  await saved(page)
  const tape = (await (await page.request.get(`${shop.url}/api/jobs/${TAG}/tape`)).json()) as {
    entries: { kind: string; body: Record<string, unknown> }[]
  }
  expect(tape.entries.findLast((e) => e.kind === 'stroke')!.body).toMatchObject({
    contact: name,
    result: 'still short',
    light: 'low from one side',
    magnification: '20×',
    // What the record had made of the odds goes along, so that it does not unlearn it.
    snapFactor: expect.any(Number) as unknown,
  })
  // The shop's past was worked under a ring light in part, and more was lost there: the record says so.
  await expect(page.getByRole('heading', { name: 'By light and magnification' })).toBeVisible()
  await expect(page.getByText(/Under the light “ring” more are lost/)).toBeVisible()
  const snaps = async () =>
    Number(
      [...(await page.getByRole('row', { name: /^1 / }).first().textContent())!.matchAll(/(\d+) %/g)].at(
        -1,
      )![1],
    )
  const low = await snaps()
  await page.getByRole('radio', { name: 'ring', exact: true }).click()
  await expect.poll(snaps).toBeGreaterThan(low)
})

test('what lies under the map is drawn out over it by a press or by its key, and put away again', async ({
  bench: page,
  shop,
}) => {
  await atSocket(page, shop, 'Q-0417')
  const name = page.getByRole('button', { name: 'Re-inspection', exact: true })
  const map = await page.locator('#map').boundingBox()
  await name.click()
  await expect(name).toHaveAttribute('aria-expanded', 'true')
  await expect(page.getByRole('region', { name: 'Re-inspection' })).toBeVisible()
  expect(await page.locator('#map').boundingBox()).toEqual(map)
  await page.keyboard.press('q')
  await expect(page.getByRole('region', { name: 'Re-inspection' })).toHaveCount(0)
  await page.keyboard.press('q')
  await expect(page.getByRole('region', { name: 'Re-inspection' })).toBeVisible()
  await name.click()
  await expect(name).toHaveAttribute('aria-expanded', 'false')
  // What is typed there is there still when it is drawn out again.
  const cpu = drawer(page, 'Seating and loose parts').getByLabel('CPU', { exact: true })
  await draw(page, 'Seating and loose parts')
  await cpu.fill('bench Orrin 41')
  await draw(page, 'Order')
  await expect(cpu).toBeHidden()
  await draw(page, 'Seating and loose parts')
  await expect(cpu).toHaveValue('bench Orrin 41')
})

test('a sweep proves the whole field, one key a look', async ({ bench: page, shop }) => {
  await atSocket(page, shop, TAG)
  await type(page, 'mark M30 low 0.1')
  await page.getByRole('button', { name: 'Re-inspection', exact: true }).click()
  await page.getByRole('button', { name: 'Begin it' }).click()
  await page.getByRole('button', { name: 'Begin it' }).evaluate((b) => (b as HTMLButtonElement).blur())
  await page.keyboard.press('w')
  const bar = page.getByRole('status').filter({ hasText: 'Look at' })
  await expect(bar).toContainText('close to damage that is known')
  const left = async () => Number(/(\d+) looks/.exec((await bar.textContent())!)![1])
  const first = await left()
  await page.keyboard.press('Space')
  await expect.poll(left).toBe(first - 1)
  await page.keyboard.press('Space')
  await expect.poll(left).toBe(first - 2)
  await expect(tapeLines(page).filter({ hasText: 'inspection: ' }).last()).toBeVisible()
  await page.keyboard.press('w')
  await expect(bar).toHaveCount(0)
})

test('a CPU with a proud corner: what may keep it up, and the look that settles it', async ({
  bench: page,
  shop,
}) => {
  await atSocket(page, shop, TAG)
  await page.getByRole('button', { name: 'Seating and loose parts' }).click()
  await page.getByLabel('CPU', { exact: true }).fill('bench Orrin 44')
  await page.getByRole('radio', { name: 'one corner stays proud' }).click()
  await page.getByRole('radio', { name: 'far right' }).click()
  await page.getByRole('button', { name: 'Note the seating' }).click()
  await expect(tapeLines(page).filter({ hasText: 'proud at the far right corner' })).toHaveCount(1)
  await expect(page.getByRole('list', { name: 'What may keep it from falling flat' })).toContainText('%')
})

test('a transplant is noted with what came out; the donor is counted down, and the fragment has to be found', async ({
  bench: page,
  shop,
}) => {
  await atSocket(page, shop, TAG)
  await marked(page, 'mark K10 snapped')
  await page.getByRole('button', { name: 'Replace', exact: true }).click()
  const donor = page.getByRole('listitem').filter({ hasText: 'contacts left' })
  await expect(donor).toContainText('61 contacts left')
  const form = page.locator('form').filter({ hasText: 'was replaced' })
  await form.getByRole('radio', { name: 'transplant' }).click()
  const out = form.getByRole('checkbox').first()
  await out.check()
  const neighbour = (await form.getByRole('group').locator('label').first().textContent())!.trim()
  await form.getByRole('button', { name: 'Note it' }).click()
  await expect(tapeLines(page).filter({ hasText: `transplant from kiosk board` })).toContainText(
    `${neighbour} came out with it`,
  )
  await saved(page)
  await page.reload()
  await awake(page)
  await page.getByRole('button', { name: 'Replace', exact: true }).click()
  await expect(donor).toContainText('60 contacts left')
  await page.getByRole('button', { name: 'Seating and loose parts' }).click()
  await expect(page.locator('#ledger')).toContainText(`contact ${neighbour}, pulled out`)
  await page.goto(`${shop.url}/shelf`)
  await expect(page.getByRole('region', { name: 'Donor sockets' })).toContainText('60 left')
})

test('pins: does it drop in, which bind, where the blade runs', async ({ bench: page, shop }) => {
  await atSocket(page, shop, 'Q-0415')
  await page.getByRole('button', { name: 'Fit', exact: true }).click()
  await expect(page.getByRole('heading', { name: /lies flat: raise it first/ })).toBeVisible()
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /pins? out, scatter/ })
      .first(),
  ).toBeVisible()
  await expect(page.getByText(/^Along the (row|column) beside/).first()).toBeVisible()
})

test('needle practice: past the mark, let go, it springs back; snapped or home, there is another', async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${shop.url}/practice/needle`)
  await expect(page.getByRole('heading', { name: 'Needle practice' })).toBeVisible()
  const says = page.getByRole('status')
  await expect(async () => {
    await page.keyboard.press('ArrowLeft')
    await expect(page.getByText('taken to')).toBeVisible()
    await page.keyboard.press('Space')
    await expect(says).toHaveText(/sprang all the way back/, { timeout: 500 })
  }).toPass()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowLeft')
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Space')
  await expect(says).toHaveText(/Home/)
  const { violations } = await axe(page).analyze()
  expect(violations.map((v) => v.id)).toEqual([])
  await page.keyboard.press('Space')
  await expect(page.getByText(/^\d+, 1 contact$/)).toBeVisible()
})

test.describe('a field of the library', () => {
  const { id, name, contacts } = demoSockets.lg1284
  test('is edited into another: chosen by words and by dragging, undone, kept through a reload, named', async ({
    bench: page,
    shop,
  }) => {
    await page.goto(`${shop.url}/library/sockets/${id}`)
    await page.getByRole('link', { name: 'make another field from it' }).click()
    const choose = page.getByLabel('Choose')
    const said = page.getByRole('list', { name: 'Changes' }).getByRole('listitem')
    await choose.fill('A1 b9 Q')
    await choose.press('Enter')
    await expect(page.getByRole('alert').filter({ hasText: 'no contact' })).toContainText(
      'two corners (A1 H12)',
    )
    await choose.fill('A1 B2')
    await choose.press('Enter')
    await choose.press('Escape')
    await page.keyboard.press('Delete')
    await expect(said).toHaveText(['A1 … B2, 4 contacts taken out'])
    await expect(page.getByRole('heading', { level: 1 })).toContainText(
      (contacts.length - 4).toLocaleString(),
    )

    const picture = page.getByRole('img', { name: new RegExp(`^${name}`) })
    const box = (await picture.boundingBox())!
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    await page.mouse.move(middle.x - 130, middle.y + 90)
    await page.mouse.down()
    await page.mouse.move(middle.x - 60, middle.y + 140)
    await page.mouse.up()
    await expect(page.getByText(/contacts chosen\.$/)).toBeVisible()
    await page.getByLabel('Beams run to, degrees').fill('90')
    await page.getByRole('button', { name: 'Turn' }).click()
    await expect(said).toHaveCount(2)
    await page.keyboard.press('z')
    await expect(said).toHaveCount(1)
    await page.keyboard.press('Shift+Z')
    await expect(said.last()).toContainText('beams run to 90°')

    await choose.fill('A3')
    await choose.press('Enter')
    await page.getByLabel('Its name').fill('A4')
    await page.getByRole('button', { name: 'Rename' }).click()
    await expect(page.getByText('There is a contact A4 already.')).toBeVisible()
    await page.reload()
    await awake(page)
    await expect(said).toHaveCount(2)
    await expect(picture).toHaveAccessibleName(/4 taken out/)

    await page.getByLabel('Keep it as').fill(name)
    await page.getByRole('button', { name: 'Keep it' }).click()
    await expect(page.getByText(/give it another name/)).toBeVisible()
    await page.getByLabel('Keep it as').fill(`${name} with a gap`)
    await page.getByRole('button', { name: 'Keep it' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText(
      `${name} with a gap: ${(contacts.length - 4).toLocaleString()} contacts`,
    )
    const table = await page.request.get(
      `${shop.url}${await page.getByRole('link', { name: 'The table as CSV' }).getAttribute('href')}`,
    )
    const lines = (await table.text()).trim().split('\n')
    expect(lines).toHaveLength(contacts.length - 4 + 1)
    expect(lines.filter((l) => l.includes(',90,')).length).toBeGreaterThan(4)
    // What was edited is in the library; the next one begins anew.
    await page.goto(`${shop.url}/library/sockets/${id}/edit`)
    await expect(page.getByText('Nothing is changed yet')).toBeVisible()
  })
})

test('the bench reckons with the shop’s own figures; what is wrong is named, and nothing typed is lost', async ({
  page,
  shop,
}) => {
  await signIn(page, shop, 'Ines')
  await page.goto(`${shop.url}/library/bench`)
  await awake(page)
  const hour = page.getByLabel('an hour at the bench')
  const share = page.getByLabel('a board that runs with a function lost')
  await hour.fill('1 250,50')
  await share.fill('1.6')
  await page.getByRole('button', { name: 'Keep them' }).click()
  await expect(page.getByText('It should be a share from 0 to 1')).toBeVisible()
  await expect(hour).toHaveValue('1 250,50')
  await share.fill('')
  await page.getByRole('button', { name: 'Keep them' }).click()
  await expect(page.getByText('It counts on every job from now on')).toBeVisible()
  await expect(page.getByText(/1 of \d+ are this shop’s own/)).toBeVisible()

  await atSocket(page, shop, TAG)
  await marked(page, 'mark M32 snapped')
  await page.getByRole('button', { name: 'Replace', exact: true }).click()
  await expect(page.getByText(/hour counts 1,250.5 kr|hour counts 1,250.50 kr/)).toBeVisible()
  const each = page.getByRole('list', { name: 'One by one' })
  await expect(each.getByRole('button', { name: 'M32' })).toBeVisible()
  await expect(each.getByRole('listitem').filter({ hasText: 'M32' })).toContainText('left, it costs')
  await saved(page)
  await page.keyboard.press('$')
  await expect(page.getByLabel('An hour here, kr')).toHaveValue('1250.5')

  await page.goto(`${shop.url}/library/bench`)
  await awake(page)
  await page.getByRole('button', { name: 'Back to the defaults' }).click()
  await expect(page.getByText('All are bench defaults')).toBeVisible()
  const refused = await page.request.put(`${shop.url}/api/figures`, { data: { figures: { hour: 3 } } })
  expect([refused.status(), await refused.json()]).toMatchObject([422, { error: { field: 'hour' } }])
})
