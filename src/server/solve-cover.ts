import highsLoader from 'highs'
import type { Cover, SolveCover } from '@/core/firmware/route/kit'

/** Set covers solved exactly by HiGHS, as mixed-integer programmes. */
export async function coverSolver(): Promise<SolveCover> {
  const highs = await highsLoader()
  return (cover) => {
    if (cover.rows.some((r) => r.length === 0)) return null
    if (cover.rows.length === 0) return []
    const { Status, Columns } = highs.solve(asText(cover), {
      output_flag: false,
      mip_rel_gap: 0,
      mip_abs_gap: 0,
      threads: 1,
    })
    if (Status === 'Infeasible') return null
    if (Status !== 'Optimal') throw new Error(`the cover was not solved: ${Status}`)
    return cover.costs.flatMap((_, i) => ((Columns[`x${i}`]?.Primal ?? 0) > 0.5 ? [i] : []))
  }
}

/** The programme in LP format; lines are broken, since the format bounds their length. */
function asText({ costs, rows, atMost, within }: Cover): string {
  const sum = (of: readonly number[]) => wrapped(of.flatMap((c, i) => (c === 0 ? [] : [`+ ${c} x${i}`])))
  const used = new Set(rows.flat())
  const constraints = [
    ...rows.map((r, k) => ` r${k}: ${wrapped(r.map((i) => `+ x${i}`))} >= 1`),
    ...(atMost === null ? [] : [` most: ${sum(costs.map(() => 1))} <= ${atMost}`]),
    ...(within === null || within.costs.every((c) => c === 0)
      ? []
      : [` within: ${sum(within.costs)} <= ${within.most}`]),
  ]
  return [
    'Minimize',
    ` cost: ${sum(costs) || `0 x${[...used][0] ?? 0}`}`,
    'Subject To',
    ...constraints,
    'Binary',
    ` ${wrapped(costs.map((_, i) => `x${i}`))}`,
    'End',
    '',
  ].join('\n')
}

const wrapped = (terms: readonly string[]): string =>
  terms.map((t, i) => (i > 0 && i % 12 === 0 ? `\n  ${t}` : t)).join(' ')
