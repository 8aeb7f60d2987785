import { gateOf } from '@/core/job/gate'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { referencesOf } from '@/data/references'
import { jobNow } from '@/data/job-now'
import { SimulatedBoard } from '@/simulated-bench/simulated-board'
import { bodyJson } from '@/server/body'
import { forJob, refuse } from '@/server/answers'
import { faultsNow } from '@/server/hidden-faults'
import {
  asksForPower,
  simulatedEntries,
  simulatedRequest,
} from '@/stations/triage/simulated/simulated-entries'
import type { SimulatedRequest } from '@/stations/triage/simulated/simulated-entries'

/** Takes an instrument of the simulated bench to this job's hidden board; the lines are the asker's to put on the tape. */
export async function POST(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = simulatedRequest.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'ask'))
    const wanted = value as SimulatedRequest
    const hidden = await hiddenBoardOf(job.id)
    if (!hidden) return refuse(404, 'This board is on a real bench: there is nothing to simulate.', 'tag')
    const { state, socket } = await jobNow(job.id)
    // A test of the list is made with the CPU as it is.
    const asked = wanted.ask === 'test' ? { ...wanted, cpu: state.board.power.cpu ?? 'out' } : wanted
    const gate = gateOf(state, socket)
    if (asksForPower(asked) && gate.lamp === 'do not power')
      return refuse(409, `The gate says do not power: ${gate.reasons[0]!.text}.`, 'ask')
    const references = await referencesOf(state.intake.ticket.boardModelId)
    const faults = faultsNow(hidden, state, socket, references)
    const board = new SimulatedBoard({ seed: hidden.seed, faults, ...references }, [], state.seq)
    if (wanted.ask === 'temperature' && !board.starts())
      return refuse(409, 'It does not start: nothing can be put under load.', 'ask')
    return Response.json({ entries: simulatedEntries(board, asked, state.board.supplyLimitA) })
  })
}
