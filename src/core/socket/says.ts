import { functionGroups } from '../board/function-group'
import { unaccounted } from '../board/slice'
import type { BoardState } from '../board/slice'
import type { StationSays } from '../board/station-says'
import { isDamage } from './damage/mark'
import type { Socket } from './model/socket'
import { lostGroups } from './lost-groups'
import { currentPass } from './slice'
import type { SocketState } from './slice'

interface View {
  readonly socket: SocketState
  readonly board: BoardState
  readonly field: Socket | null
}

export const socketSays: StationSays<View> = {
  note: ({ socket }) => {
    const pass = currentPass(socket)
    return pass
      ? `inspection ${socket.passes.length}, ${Object.values(pass.marks).filter(isDamage).length} marked`
      : ''
  },
  blocksHandBack: ({ board }) =>
    unaccounted(board).map((item) => ({
      text: `${item.what} is not accounted for`,
      at: { station: 'socket', part: 'ledger' },
    })),
  /** Every contact that was ever marked damaged, in any pass. */
  touches: ({ socket, field }) => {
    const ever = new Set(socket.strokes.map((s) => s.contact))
    for (const pass of socket.passes)
      for (const [name, mark] of Object.entries(pass.found)) if (isDamage(mark)) ever.add(name)
    // Another socket is another of every contact.
    const whole = socket.replaced.some((r) => r.how === 'whole socket')
    const groups = new Set(
      (field?.contacts ?? []).filter((c) => whole || ever.has(c.name)).map((c) => c.group),
    )
    return {
      groups: functionGroups.filter((g) => groups.has(g)),
      contacts: ever.size,
      lost: field && ever.size > 0 ? lostGroups(socket, field) : {},
    }
  },
}
