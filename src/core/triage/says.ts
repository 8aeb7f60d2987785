import { railsOf } from '../board/rail'
import type { Rail } from '../board/rail'
import { railState } from '../board/rail-limits'
import { isLentCpu, railsRead } from '../board/slice'
import type { BoardState } from '../board/slice'
import { exchangeable } from '../board/station-says'
import type { StationSays, Touched } from '../board/station-says'
import { faultIds } from './model/faults'
import type { FaultId } from './model/faults'
import { provedBy, suppliedBy } from './model/repair'
import { takesNow } from './model/repair-record'
import type { RepairTally } from './model/repair-record'
import { stageReached } from './model/stage'
import type { TriageState } from './slice'

interface View {
  readonly board: BoardState
  readonly triage: TriageState
  readonly intake: { readonly ticket: { readonly cpu: string } }
  /** What came of repairs, over all jobs. */
  readonly repairs: readonly RepairTally[]
}

export const triageSays: StationSays<View> = {
  note: ({ board }) => {
    const baseline = board.baselines.at(-1)
    if (baseline) return stageReached(baseline).say
    return railsRead(board).size > 0 ? 'rails measured' : ''
  },
  touches: ({ board, triage, intake, repairs }) => ({
    cell:
      board.cellLog.some((c) => c.volts < 2.8) ||
      board.told.cells.some((c) => c.is === 'low') ||
      board.changed.cell > 0,
    cellAlone: board.changed.cell > 0 && board.changedElse === 0,
    intermittent: board.baselines.some((b) => b.current === 'cycling'),
    repaired: mendedOf(triage).map((fault) => ({
      of: provedBy(fault),
      fails: 1 - takesOf(triage, fault, repairs),
    })),
    rails: railsToProve(board, mendedOf(triage)),
    exchanged: exchangedOf(board, mendedOf(triage), intake.ticket.cpu),
  }),
}

/** Faults that were repaired, each once. */
const mendedOf = ({ mended }: TriageState): readonly FaultId[] =>
  faultIds.filter((id) => mended.some(({ fault }) => fault === id))

const takesOf = ({ mended }: TriageState, fault: FaultId, record: readonly RepairTally[]): number =>
  takesNow(fault, mended.findLast((m) => m.fault === fault)?.takes, record)

/** Rails that read short or low at any time, and those whose supply was repaired. */
function railsToProve(board: BoardState, mended: readonly FaultId[]): Rail[] {
  const bad = new Set<Rail>(mended.flatMap((fault) => suppliedBy(fault) ?? []))
  for (const reading of board.railLog)
    if (railState(reading, board.ownRails) !== 'good') bad.add(reading.rail)
  for (const { rail, is } of board.told.rails) if (is !== 'good') bad.add(rail)
  return railsOf(board.ownRails).filter((rail) => bad.has(rail))
}

/** Whole things that were exchanged: by their repair, or another CPU than the owner’s left in the socket. */
function exchangedOf(board: BoardState, mended: readonly FaultId[], ownCpu: string): Touched['exchanged'] {
  const { cpu } = board.fitted
  const fitted = (cpu ?? '').toLowerCase()
  // “its own Orrin 41” is an Orrin 41.
  const own = ownCpu.trim().toLowerCase()
  const another = fitted !== '' && !isLentCpu(cpu) && own !== '' && !fitted.includes(own)
  return exchangeable.filter((thing) => mended.includes(thing) || (thing === 'CPU' && another))
}
