import { attachToJob } from '@/data/files'
import { forJob } from '@/server/answers'
import { takePicture } from '@/server/pictures'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** A picture of the job's board; `?purpose=signature` marks the owner's signature. */
export async function POST(request: Request, { params }: Context) {
  const purpose = new URL(request.url).searchParams.get('purpose') === 'signature' ? 'signature' : 'photo'
  return forJob((await params).tag, request, (job, account) =>
    takePicture(request, account.id, (db, sha256) => attachToJob(db, job.id, sha256, purpose)),
  )
}
