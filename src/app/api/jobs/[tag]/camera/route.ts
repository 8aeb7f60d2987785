import sharp from 'sharp'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { foldTape, readTape } from '@/data/tape'
import { afterStrokes } from '@/stand-ins/hidden-contacts'
import { takePhoto } from '@/stand-ins/microscope-camera'
import { forJob, refuse } from '@/stations/job/answers'
import { cameraRequest, shotOf } from '@/stations/socket/camera-shot'
import type { CameraRequest } from '@/stations/socket/camera-shot'

/** A photo by the simulated microscope camera of this job's hidden contacts, as they are after the strokes so far. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = cameraRequest.validate(Object.fromEntries(new URL(request.url).searchParams))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'view'))
    const hidden = await hiddenBoardOf(job.id)
    if (!hidden)
      return refuse(404, 'This board is on a real bench: there is no simulated camera over it.', 'tag')
    const { state, socket } = await foldTape(await readTape(job.id))
    if (!socket) return refuse(409, 'The camera needs to know the socket: choose it in the ticket.', 'tag')
    const work = takePhoto(
      socket,
      afterStrokes(hidden.marks, state.strokes),
      shotOf(socket, value as CameraRequest, state.seq),
    )
    let step = work.next()
    while (!step.done) {
      // Others are let in between the parts of the picture; who went away needs none.
      await new Promise((resolve) => setImmediate(resolve))
      if (request.signal.aborted) return new Response(null, { status: 499 })
      step = work.next()
    }
    const { widthPx: width, heightPx: height, grey } = step.value.image
    const jpeg = await sharp(grey, { raw: { width, height, channels: 1 } })
      .jpeg({ quality: 88 })
      .toBuffer()
    return new Response(new Uint8Array(jpeg), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'no-store',
        'x-content-type-options': 'nosniff',
      },
    })
  })
}
