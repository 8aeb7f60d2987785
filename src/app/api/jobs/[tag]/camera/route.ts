import { hiddenBoardOf } from '@/data/hidden-boards'
import { jobNow } from '@/data/job-now'
import { afterStrokes } from '@/simulated-bench/hidden-contacts'
import { heavy } from '@/server/heavy'
import { forJob, refuse } from '@/server/answers'
import { cameraRequest, shotOf } from '@/stations/socket/photo/camera-shot'
import type { CameraRequest } from '@/stations/socket/photo/camera-shot'

/** A photo by the simulated microscope camera of this job's hidden contacts, as they are after the strokes so far. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job, account) => {
    const { error, value } = cameraRequest.validate(Object.fromEntries(new URL(request.url).searchParams))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'view'))
    const hidden = await hiddenBoardOf(job.id)
    if (!hidden)
      return refuse(404, 'This board is on a real bench: there is no simulated camera over it.', 'tag')
    const { state, socket } = await jobNow(job.id)
    if (!socket) return refuse(409, 'The camera needs to know the socket: choose it in the ticket.', 'tag')
    const jpeg = await heavy(
      account.id,
      'camera',
      {
        socket,
        marks: afterStrokes(hidden.marks, state.socket.strokes),
        shot: shotOf(socket, value as CameraRequest, state.seq),
      },
      request.signal,
    )
    return new Response(new Uint8Array(jpeg), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'no-store',
        'x-content-type-options': 'nosniff',
      },
    })
  })
}
