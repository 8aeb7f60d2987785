import { socketById } from '@/data/sockets'
import { forAccount, refuse } from '@/server/answers'
import { download } from '@/job/download'
import { contactCsv } from '@/tables/contact-csv'

interface Context {
  readonly params: Promise<{ id: string }>
}

/** The contact table as CSV, in the columns it is read in. */
export async function GET(request: Request, { params }: Context) {
  const { id } = await params
  return forAccount(request, async () => {
    const socket = await socketById(id)
    if (!socket) return refuse(404, 'The library has no such socket.', 'id')
    return download(contactCsv(socket), 'text/csv; charset=utf-8', `${socket.name}.csv`)
  })
}
