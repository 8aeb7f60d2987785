import { refuse } from '@/server/answers'
import { openedQuestion } from '@/server/opinion'
import { sendFile } from '@/server/pictures'

interface Context {
  readonly params: Promise<{ token: string; sha: string }>
}

/** A photo that goes with the question a link opens; no other of the job. */
export async function GET(request: Request, { params }: Context) {
  const { token, sha } = await params
  const question = await openedQuestion(token)
  if (!question || !question.sees.photos.some((p) => p.file === sha))
    return refuse(404, 'There is no such photo here.', 'sha256')
  return sendFile({ jobId: question.jobId }, sha, request)
}
