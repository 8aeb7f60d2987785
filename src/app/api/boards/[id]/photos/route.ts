import { attachToBoard, FileRefused, storePicture } from '@/data/files'
import { boardById } from '@/data/boards'
import { forAccount, refuse } from '@/stations/job/answers'

interface Context {
  readonly params: Promise<{ id: string }>
}

/** A picture of a board model, for its landmarks. */
export async function POST(request: Request, { params }: Context) {
  const { id } = await params
  return forAccount(request, async () => {
    if (!(await boardById(id))) return refuse(404, 'The library has no such board.', 'id')
    if (!request.body) return refuse(400, 'The picture did not arrive. Drop it again.', 'file')
    try {
      const file = await storePicture(request.body, (db, stored) => attachToBoard(db, id, stored.sha256))
      return Response.json({ file })
    } catch (error) {
      if (error instanceof FileRefused) return refuse(error.status, error.message, 'file')
      throw error
    }
  })
}
