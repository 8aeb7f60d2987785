import { figureFault, figureNames } from '@/core/socket/straighten/bench-figures'
import type { FigureName } from '@/core/socket/straighten/bench-figures'
import { keepFigures } from '@/data/bench-figures'
import { keepCurrency } from '@/data/shop-currency'
import { forgetCurrency } from '@/server/reader'
import { bodyJson } from '@/server/body'
import { forLead, refuse } from '@/server/answers'

/** Takes the shop's own figures, all or nothing; those not among them are bench defaults again. */
export async function PUT(request: Request) {
  return forLead(request, async () => {
    const asked = (await bodyJson(request)) as { figures?: unknown; currency?: unknown } | null
    if (typeof asked?.figures !== 'object' || asked.figures === null)
      return refuse(422, 'The figures did not arrive whole. Send them again.', 'figures')
    const figures = asked.figures as Record<string, unknown>
    for (const [name, value] of Object.entries(figures)) {
      if (!(figureNames as readonly string[]).includes(name))
        return refuse(422, `There is no figure ${name}.`, name)
      const fault = typeof value === 'number' ? figureFault(name as FigureName, value) : 'a number'
      if (fault) return refuse(422, `It should be ${fault}.`, name)
    }
    const { currency } = asked
    if (currency !== undefined && (typeof currency !== 'string' || !/^[\p{L}\p{Sc}.]{1,8}$/u.test(currency)))
      return refuse(422, 'One to eight letters or a currency sign, such as kr.', 'currency')
    await keepFigures(figures as Partial<Record<FigureName, number>>)
    if (currency !== undefined) {
      await keepCurrency(currency)
      forgetCurrency()
    }
    return Response.json({ kept: true })
  })
}
