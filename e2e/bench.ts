import { test as base, expect } from '@playwright/test'
import type { BrowserContext, Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { answersOn } from '../scripts/cluster.mjs'

/** The built application on a port of its own, which can be killed and started again. */
export class Shop {
  private child: ChildProcess | null = null
  /** Any that is free at first; the same again when it is started again. */
  private port = 0
  private constructor(readonly databaseUrl: string) {}

  static async open(databaseUrl: string): Promise<Shop> {
    const shop = new Shop(databaseUrl)
    await shop.start()
    return shop
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    const env = {
      ...process.env,
      DATABASE_URL: this.databaseUrl,
      DEMO_SIGN_IN: '1',
      NODE_ENV: 'production' as const,
      NEXT_TELEMETRY_DISABLED: '1',
    }
    this.child = spawn(process.execPath, ['scripts/serve.mjs'], {
      env: { ...env, PORT: String(this.port), HOST: '127.0.0.1' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    })
    this.port = await answersOn(this.child)
  }

  /** The plug is pulled: no goodbye to open requests. */
  async kill(): Promise<void> {
    const child = this.child
    this.child = null
    if (!child || child.exitCode !== null) return
    const gone = new Promise((resolve) => child.on('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }
}

/** Runs SQL as the owner of a shop’s database: what an administrator or a clock would do. */
export async function sql(databaseUrl: string, text: string, values: unknown[] = []): Promise<void> {
  const owner = new URL(process.env.E2E_OWNER_URL!)
  owner.pathname = new URL(databaseUrl).pathname
  const client = new pg.Client({ connectionString: owner.href })
  await client.connect()
  await client.query(text, values)
  await client.end()
}

/** A shop, and the cookies of a session as Tolliver in it. */
interface Kept {
  readonly file: string
  readonly shop: Shop
  readonly signedIn: Awaited<ReturnType<BrowserContext['storageState']>>
}
interface Worker {
  /** The shop of a test file: what one file does to the boards of the demo, no other sees, whichever worker runs it. */
  readonly shopOf: (file: string) => Promise<Kept>
}
interface Each {
  readonly shop: Shop
  /** Cookies of a session as Tolliver. */
  readonly signedIn: Kept['signedIn']
  /** A page signed in as Tolliver. */
  readonly bench: Page
}

/** A shop with a database to itself, copied from the one that was laid. */
export async function ownShop(name: string | number): Promise<Shop> {
  const url = new URL(process.env.E2E_APP_URL!)
  const laid = url.pathname.slice(1)
  url.pathname = `${laid}_${name}`
  await sql(process.env.E2E_EMPTY_URL!, `create database ${laid}_${name} template ${laid}`)
  return Shop.open(url.href)
}

export const test = base.extend<Each, Worker>({
  shopOf: [
    async ({ browser }, use, { workerIndex }) => {
      let kept: Kept | null = null
      let files = 0
      await use(async (file) => {
        if (kept?.file === file) return kept
        await kept?.shop.kill()
        const shop = await ownShop(`${workerIndex}_${files++}`)
        const context = await browser.newContext()
        await signIn(await context.newPage(), shop, 'Tolliver')
        kept = { file, shop, signedIn: await context.storageState() }
        await context.close()
        return kept
      })
      // Assigned within the function above, which the compiler does not follow.
      await (kept as Kept | null)?.shop.kill()
    },
    { scope: 'worker' },
  ],
  shop: async ({ shopOf }, use, { file }) => use((await shopOf(file)).shop),
  signedIn: async ({ shopOf }, use, { file }) => use((await shopOf(file)).signedIn),
  bench: async ({ page, context, signedIn }, use) => {
    await context.addCookies(signedIn.cookies)
    await use(page)
  },
})

export async function signIn(page: Page, shop: Shop, who: string): Promise<void> {
  await page.goto(`${shop.url}/sign-in`)
  await page.getByRole('button', { name: new RegExp(`^${who}`) }).click()
  await expect(page).toHaveURL(`${shop.url}/`)
}

/** Waits until the page listens: what is pressed before that is lost. */
export async function awake(page: Page): Promise<void> {
  // A page inside its frame comes and listens later than the frame: every control of it has to. Hidden fields never do.
  await page.waitForFunction(() => {
    const controls = [
      ...document.querySelectorAll('main, main button, main input:not([type=hidden]), main a'),
    ]
    return (
      controls.length > 0 &&
      document.querySelector('main [aria-busy=true]') === null &&
      controls.every((control) => Object.keys(control).some((key) => key.startsWith('__reactFiber')))
    )
  })
}

/** A new job, with these lines on its tape. */
export async function newJob(
  page: Page,
  shop: Pick<Shop, 'url'>,
  lines: readonly { readonly kind: string; readonly body: object }[] = [],
): Promise<string> {
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(`${shop.url}/api/jobs${path}`, { data })
    expect(answer.ok(), await answer.text()).toBe(true)
    return (await answer.json()) as { tag: string }
  }
  const { tag } = await post('', { id: randomUUID() })
  for (const [basis, line] of lines.entries())
    await post(`/${tag}/tape`, {
      id: randomUUID(),
      at: new Date().toISOString(),
      strikes: null,
      basis,
      ...line,
    })
  return tag
}

/** Takes in a new board, goes to a station of its job and gives its tag. */
export async function takeIn(page: Page, shop: Pick<Shop, 'url'>, station = 'intake'): Promise<string> {
  const tag = await newJob(page, shop)
  await atStation(page, shop, tag, station)
  return tag
}

/** Goes to a station of a job, and waits until it listens. */
export async function atStation(
  page: Page,
  shop: Pick<Shop, 'url'>,
  tag: string,
  station: string,
): Promise<void> {
  // Whoever leaves a job in the middle of a line has it sent when the job is opened again, and not before.
  await saved(page)
  await page.goto(`${shop.url}/jobs/${tag}/${station}`)
  await awake(page)
}

/** A line typed on the tape. */
export async function type(page: Page, line: string): Promise<void> {
  const input = page.getByRole('textbox', { name: 'Quick entry on the tape' })
  await input.fill(line)
  await input.press('Enter')
  await expect(input).toHaveValue('')
  await input.press('Escape')
}

/** What lies under the map, by its name. */
export const drawer = (page: Page, name: string) => page.getByRole('region', { name, exact: true })

/** Whether everybody can use what is shown; no page of ours has a foreign frame in it, for which a page of its own would be opened. */
export const axe = (page: Page) =>
  new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] })

/** Opens what lies under the map. */
export async function draw(page: Page, name: string): Promise<void> {
  await page.getByRole('group', { name: 'Under the map' }).getByRole('button', { name, exact: true }).click()
}

export const tapeLines = (page: Page) =>
  page.getByRole('list', { name: 'Lines of the tape' }).getByRole('listitem')

/** Waits until every line that was entered is on the server. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByText('not saved yet, kept here')).toHaveCount(0)
}

interface Shift extends PerformanceEntry {
  readonly value: number
  readonly sources: readonly { readonly node: Node | null }[]
}

/** How much has moved by itself since, as the browser measures it, the hand’s own moves included, and what. */
export async function watchShifts(page: Page): Promise<() => Promise<{ score: number; moved: string[] }>> {
  await page.evaluate(() => {
    const seen = window as unknown as {
      shifts: { score: number; moved: string[] }
      watch?: PerformanceObserver
    }
    const shifts = { score: 0, moved: [] as string[] }
    seen.shifts = shifts
    seen.watch?.disconnect()
    seen.watch = new PerformanceObserver((list) => {
      for (const { value, sources } of list.getEntries() as Shift[]) {
        shifts.score += value
        for (const { node } of sources)
          shifts.moved.push(`${node?.nodeName} ${node?.textContent?.slice(0, 40)} by ${value.toFixed(4)}`)
      }
    })
    seen.watch.observe({ type: 'layout-shift' })
  })
  return () =>
    page.evaluate(() => (window as unknown as { shifts: { score: number; moved: string[] } }).shifts)
}

/** Nothing has moved that the hand did not move. */
export async function nothingMoved(shifted: Awaited<ReturnType<typeof watchShifts>>): Promise<void> {
  const { score, moved } = await shifted()
  expect(score, moved.join('; ')).toBeLessThanOrEqual(0.01)
}

export { expect }
