import { forJob } from '@/stations/job/answers'
import { sendFile } from '@/stations/job/pictures'

interface Context {
  readonly params: Promise<{ tag: string; sha: string }>
}

export async function GET(request: Request, { params }: Context) {
  const { tag, sha } = await params
  return forJob(tag, request, (job) => sendFile({ jobId: job.id }, sha, request))
}
