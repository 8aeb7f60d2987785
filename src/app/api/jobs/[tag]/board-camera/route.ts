import { hiddenBoardOf } from '@/data/hidden-boards'
import { heavy } from '@/server/heavy'
import { forJob, refuse } from '@/server/answers'
import { boardPhotos, SHOWN_MM } from '@/simulated-bench/board-photos'

/** A photo by the simulated camera of this job’s hidden board, or of a good one of its model. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job, account) => {
    const asked = new URL(request.url).searchParams.get('of')
    const of = boardPhotos.find((one) => one === asked)
    if (!of) return refuse(422, `Of which board: ${boardPhotos.join(' or ')}?`, 'of')
    const hidden = await hiddenBoardOf(job.id)
    if (!hidden)
      return refuse(404, 'This board is on a real bench: there is no simulated camera over it.', 'tag')
    const jpeg = await heavy(account.id, 'boardCamera', { seed: hidden.seed, of }, request.signal)
    return new Response(new Uint8Array(jpeg), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'no-store',
        'x-content-type-options': 'nosniff',
        'x-wide-mm': String(SHOWN_MM[0]),
      },
    })
  })
}
