import { forJob } from '@/server/answers'
import { sendFile } from '@/server/pictures'

interface Context {
  readonly params: Promise<{ tag: string; sha: string }>
}

export async function GET(request: Request, { params }: Context) {
  const { tag, sha } = await params
  return forJob(tag, request, (job) => sendFile({ jobId: job.id }, sha, request))
}
