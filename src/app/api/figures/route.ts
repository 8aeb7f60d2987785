import { figureFault, figureNames } from '@/core/socket/straighten/bench-figures'
import type { FigureName } from '@/core/socket/straighten/bench-figures'
import { keepFigures } from '@/data/bench-figures'
import { bodyJson } from '@/server/body'
import { forLead, refuse } from '@/server/answers'

/** Takes the shop's own figures, all or nothing; those not among them are bench defaults again. */
export async function PUT(request: Request) {
  return forLead(request, async () => {
    const asked = (await bodyJson(request)) as { figures?: unknown } | null
    if (typeof asked?.figures !== 'object' || asked.figures === null)
      return refuse(422, 'The figures did not arrive whole. Send them again.', 'figures')
    const figures = asked.figures as Record<string, unknown>
    for (const [name, value] of Object.entries(figures)) {
      if (!(figureNames as readonly string[]).includes(name))
        return refuse(422, `There is no figure ${name}.`, name)
      const fault = typeof value === 'number' ? figureFault(name as FigureName, value) : 'a number'
      if (fault) return refuse(422, `It should be ${fault}.`, name)
    }
    await keepFigures(figures as Partial<Record<FigureName, number>>)
    return Response.json({ kept: true })
  })
}
