import { transaction } from '@/data/pool'
import { attachToJob, storeImage } from '@/data/files'
import { forJob } from '@/server/answers'
import { receiveImage } from '@/server/uploads'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** A firmware image of this job, kept byte for byte under its hash. */
export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, (job, account) =>
    receiveImage(request, account.id, async (path) => {
      const file = await transaction(async (db) => {
        const stored = await storeImage(db, path)
        await attachToJob(db, job.id, stored.sha256, 'image')
        return stored
      })
      return Response.json({ file })
    }),
  )
}
