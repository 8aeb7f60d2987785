import { landmarksOf } from '@/data/boards'
import { foldTape, readTape } from '@/data/tape'
import { forJob } from '@/stations/job/answers'

/** What stands round a job outside its tape: the socket of its board, and where things are on it. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job) => {
    const { state, socket } = await foldTape(await readTape(job.id))
    return Response.json({ socket, landmarks: await landmarksOf(state.ticket.boardModelId) })
  })
}
