import { forAccount } from '@/server/answers'
import { sendFile } from '@/server/pictures'

interface Context {
  readonly params: Promise<{ id: string; sha: string }>
}

export async function GET(request: Request, { params }: Context) {
  const { id, sha } = await params
  return forAccount(request, () => sendFile({ boardModelId: id }, sha, request))
}
