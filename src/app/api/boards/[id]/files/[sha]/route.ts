import { forAccount } from '@/stations/job/answers'
import { sendFile } from '@/stations/job/pictures'

interface Context {
  readonly params: Promise<{ id: string; sha: string }>
}

export async function GET(request: Request, { params }: Context) {
  const { id, sha } = await params
  return forAccount(request, () => sendFile({ boardModelId: id }, sha, request))
}
