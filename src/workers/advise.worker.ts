import { expose } from 'comlink'
import { orderWork } from '@/core/job/advise'
import type { ToAdvise } from '@/core/job/advise'
import type { Socket } from '@/core/socket/model/socket'
import { believe } from '@/core/triage/reason/belief'

let field: Socket | null = null

/** The last answer to a question, so that what has not changed is not computed again. */
function remembering<Q, A>(answer: (question: Q) => A) {
  let last: { key: string; answer: A } | null = null
  return (question: Q): A => {
    const key = JSON.stringify(question)
    if (last?.key !== key) last = { key, answer: answer(question) }
    return last.answer
  }
}
const belief = remembering(believe)
const order = remembering((asked: NonNullable<ToAdvise['order']>) => field && orderWork(field, asked))

const advise = {
  load(socket: Socket | null): void {
    field = socket
  },
  reckon: (asked: ToAdvise) => ({
    belief: asked.believe && belief(asked.believe),
    work: asked.order && order(asked.order),
  }),
}

export type AdviseWorker = typeof advise

expose(advise)
