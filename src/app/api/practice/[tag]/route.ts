import { showBoard } from '@/data/hidden-boards'
import { forJob, refuse } from '@/server/answers'

/** Ends a practice: what was wrong is shown, and what comes after does not count. */
export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job) => {
    if (!job.practice) return refuse(409, `${job.tag} is a real job: nothing is hidden in it.`, 'tag')
    await showBoard(job.id)
    return Response.json({ tag: job.tag })
  })
}
