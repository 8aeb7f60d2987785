import { execFileSync } from 'node:child_process'
import { ensureDatabase, layShop, startCluster } from '../scripts/cluster.mjs'
import { figure } from './figure'
import type { Figure } from './figure'

/** What a line costs to append at 50 and at 5,000 lines, and the ratio of the means: they alternate in one run. */
export async function appendFigures(): Promise<Figure[]> {
  const checkout = process.cwd()
  const cluster = await startCluster({ checkout, throwaway: true })
  try {
    const urls = await ensureDatabase(cluster, 'needle_append')
    layShop(checkout, urls.owner, ['--empty'])
    const said = execFileSync(
      process.execPath,
      ['--conditions=react-server', '--import', 'tsx', 'bench/append-lines.ts'],
      { cwd: checkout, env: { ...process.env, DATABASE_URL: urls.app }, maxBuffer: 1 << 24 },
    )
    const { short, long } = JSON.parse(String(said)) as { short: number[]; long: number[] }
    const mean = (samples: readonly number[]) => samples.reduce((a, b) => a + b, 0) / samples.length
    return [
      figure('a line on a tape of 50', short, 'ms', null),
      figure('a line on a tape of 5,000', long, 'ms', null),
      figure('ratio of the means', [mean(long) / mean(short)], '×', 1.5),
    ]
  } finally {
    await cluster.stop()
  }
}
