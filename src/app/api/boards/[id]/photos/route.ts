import { attachToBoard } from '@/data/files'
import { boardById } from '@/data/boards'
import { forAccount, refuse } from '@/server/answers'
import { takePicture } from '@/server/pictures'

interface Context {
  readonly params: Promise<{ id: string }>
}

/** A picture of a board model, for its landmarks. */
export async function POST(request: Request, { params }: Context) {
  const { id } = await params
  return forAccount(request, async (account) => {
    if (!(await boardById(id))) return refuse(404, 'The library has no such board.', 'id')
    return takePicture(request, account.id, (db, sha256) => attachToBoard(db, id, sha256))
  })
}
