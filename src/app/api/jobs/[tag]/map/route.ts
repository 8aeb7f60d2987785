import { displayList, plainView } from '@/core/socket/map/display-list'
import type { View } from '@/core/socket/map/display-list'
import { passMarks } from '@/core/socket/damage/pass'
import { toSvg } from '@/core/socket/map/svg'
import { jobNow } from '@/data/job-now'
import { heavy } from '@/server/heavy'
import { forJob, refuse } from '@/server/answers'
import { download } from '@/job/download'
import { marksCsv } from '@/tables/contact-csv'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** The contact map of a pass, as SVG, PNG or a CSV of the marked contacts: `?as=svg&pass=2&turn=1&mirror=1`. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const asked = new URL(request.url).searchParams
    const { state, socket } = await jobNow(job.id)
    if (!socket) return refuse(404, 'This job has no socket yet. Choose it in the ticket.', 'socket')
    const last = state.socket.passes.length
    const n = asked.has('pass') ? Number(asked.get('pass')) : last
    if (!Number.isInteger(n) || n < (last === 0 ? 0 : 1) || n > last)
      return refuse(400, `There are ${last} passes; ask for one of them.`, 'pass')
    const pass =
      n === 0 ? null : { ...state.socket.passes[n - 1]!, marks: passMarks(state.socket.passes, n - 1) }
    const name = `${job.tag}-pass-${n}`
    const as = asked.get('as') ?? 'svg'
    if (as === 'csv') return download(marksCsv(socket, pass), 'text/csv; charset=utf-8', `${name}.csv`)
    const view: View = {
      ...plainView,
      quarterTurns: ((((Number(asked.get('turn')) || 0) % 4) + 4) % 4) as View['quarterTurns'],
      mirrored: asked.get('mirror') === '1',
    }
    const theme = asked.get('theme') === 'scope' ? 'scope' : 'paper'
    const title = `${job.tag} ${job.board}: ${socket.name}, ${pass ? `pass ${n}, ${pass.name}` : 'not looked at'}`
    const svg = toSvg(displayList(socket, pass, view), socket.pitchMm, theme, title)
    if (as === 'svg') return download(svg, 'image/svg+xml', `${name}.svg`)
    if (as === 'png')
      return download(await heavy(account.id, 'png', { svg }, request.signal), 'image/png', `${name}.png`)
    return refuse(400, `“${as}” is not made here; ask for svg, png or csv.`, 'as')
  })
}
