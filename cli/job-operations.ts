import { currentPass } from '@/core/socket/slice'
import type { Entry } from '@/core/job/job-state'
import { contactsOf, jobState, tapeFindings } from '@/core/job/job-state'
import Joi from 'joi'
import { randomUUID } from 'node:crypto'
import { handBackHolds } from '@/core/hand-back/holds'
import { gateOf } from '@/core/job/gate'
import { nextStation, nextStep, socketWork } from '@/core/job/way'
import { proofStanding } from '@/core/proof/plan'
import { strangerIn } from '@/core/socket/socket'
import { checkEntry } from '@/stations/job/entry-schema'
import { optionalField, socketOf } from './field-input'
import type { FieldInput } from './field-input'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

interface ReadInput extends FieldInput {
  readonly tape: string | readonly Record<string, unknown>[]
}

const line = Joi.object({ kind: Joi.string().required(), body: Joi.object().required() }).unknown(true)
const lines = Joi.array().items(line).max(100_000)

/** The lines of a tape, from the request or from a file: JSON, as an array or as a job’s ZIP keeps it. */
function linesOf(tape: ReadInput['tape']): readonly Record<string, unknown>[] {
  if (typeof tape !== 'string') return tape
  let raw: unknown
  try {
    raw = JSON.parse(readFile(tape, 'tape').toString('utf8'))
  } catch (error) {
    if (error instanceof BadInput) throw error
    throw new BadInput('tape', `${tape} is not JSON`)
  }
  const { error, value } = lines.validate(raw)
  if (error) throw new BadInput(`tape.${error.details[0]!.path.join('.')}`, error.details[0]!.message)
  return value as Record<string, unknown>[]
}

/** Ids, numbers and times are filled in where they are not given; a minute lies between two lines. */
function entriesOf(tape: readonly Record<string, unknown>[]): Entry[] {
  const began = Date.UTC(2026, 0, 1, 9)
  return tape.map((raw, i) => {
    const { seq: _, v: __, by = 'bench', ...rest } = raw
    const filled = {
      id: randomUUID(),
      at: new Date(began + i * 60_000).toISOString(),
      strikes: null,
      ...rest,
    }
    const read = checkEntry(filled)
    if (!read.ok) throw new BadInput(`tape.${i}.${read.fault.field}`, read.fault.text)
    return { ...read.value, seq: i + 1, by: String(by), v: 1 } as unknown as Entry
  })
}

export const jobOperations: Readonly<Record<string, Operation>> = {
  'job.read': operation<ReadInput>(
    'Reads a tape: the power gate with its reasons, the next step, the proof owed and what holds the hand-back.',
    optionalField({
      tape: Joi.alternatives(Joi.string(), lines).required(),
    }),
    (input) => {
      const entries = entriesOf(linesOf(input.tape))
      const wrong = tapeFindings(entries)[0]
      if (wrong) throw new BadInput(`tape.${wrong.line - 1}.${wrong.field}`, wrong.text)
      const socket = input.table === undefined && input.contacts === undefined ? null : socketOf(input)
      if (socket)
        entries.forEach((entry, i) => {
          const stranger = strangerIn(socket, contactsOf(entry))
          if (stranger) throw new BadInput(`tape.${i}.contact`, stranger)
        })
      const state = jobState(
        entries,
        socket?.contacts.map((c) => c.name),
      )
      const gate = gateOf(state, socket)
      const station = nextStation(state, socket)
      const pass = currentPass(state.socket)
      const work = socket && pass ? socketWork(socket, pass.marks, state.socket.school) : null
      const standing = proofStanding(state, socket)
      return {
        lines: entries.length,
        gate,
        next: { station, ...nextStep(station, state, socket, gate, work) },
        proof: {
          owed: standing.tests
            .filter((t) => t.result === null)
            .map(({ id, test, again }) => ({ id, test, again })),
          failed: standing.tests.filter((t) => t.result === 'fail').map(({ id, test }) => ({ id, test })),
        },
        handBack: { holds: handBackHolds(state).map((h) => h.text) },
      }
    },
  ),
}
