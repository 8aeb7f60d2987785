import { addSocket, socketById } from '@/data/sockets'
import { bodyJson } from '@/server/body'
import { heavy } from '@/server/heavy'
import { forAccount, refuse } from '@/server/answers'
import { socketRequest } from '@/tables/read-socket'
import type { SocketRequest } from '@/tables/read-socket'

/** Looks at a contact table or a grid and, if asked and sound, keeps it in the library. */
export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const { error, value } = socketRequest.validate(await bodyJson(request, 5 * 1024 * 1024))
    if (error) return refuse(422, error.message, String(error.details[0]?.path.at(-1) ?? 'name'))
    const asked = value as SocketRequest
    const { socket, findings, table } = await heavy(account.id, 'socket', asked, request.signal)
    if (!socket || asked.look) return Response.json({ kept: null, socket, findings, table })
    if (await socketById(socket.id)) return Response.json({ kept: socket.id, socket: null, findings })
    try {
      await addSocket(socket, asked.csv === undefined ? 'grid' : 'CSV')
    } catch (fault) {
      if (fault instanceof Error && 'code' in fault && fault.code === '23505')
        return refuse(
          409,
          `There is a socket ${socket.name} with another table already; give this one another name.`,
          'name',
        )
      throw fault
    }
    return Response.json({ kept: socket.id, socket: null, findings })
  })
}
