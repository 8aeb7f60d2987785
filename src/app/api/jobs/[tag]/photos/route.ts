import { attachToJob, FileRefused, MAX_PHOTO_BYTES, storePicture } from '@/data/files'
import { forJob, refuse } from '@/stations/job/answers'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** Takes a picture as it streams in and hangs it on the job; `?purpose=signature` marks the owner's signature. */
export async function POST(request: Request, { params }: Context) {
  const purpose = new URL(request.url).searchParams.get('purpose') === 'signature' ? 'signature' : 'photo'
  return forJob((await params).tag, request, async (job) => {
    if (!request.body) return refuse(400, 'The picture did not arrive. Drop it again.', 'file')
    const announced = Number(request.headers.get('content-length') ?? 0)
    if (announced > MAX_PHOTO_BYTES) {
      const most = MAX_PHOTO_BYTES / 1_048_576
      return refuse(413, `This picture is larger than ${most} MB. Save it smaller, or crop it to the socket.`, 'file')
    }
    try {
      const file = await storePicture(request.body, (db, stored) => attachToJob(db, job.id, stored.sha256, purpose))
      return Response.json({ file })
    } catch (error) {
      if (error instanceof FileRefused) return refuse(error.status, error.message, 'file')
      throw error
    }
  })
}
