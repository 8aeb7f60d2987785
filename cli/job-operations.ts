import type { Entry, JobState } from '@/core/job/job-state'
import { contactsOf, jobState, tapeFindings } from '@/core/job/job-state'
import Joi from 'joi'
import type { Socket } from '@/core/socket/model/socket'
import type { Belief } from '@/core/triage/reason/belief'
import { unpackJob } from '@/server/job-zip'
import { jobZipSchema } from '@/server/job-zip-schema'
import { randomUUID } from 'node:crypto'
import { readVersion, sheetVersions } from '@/core/job/sheet-versions'
import { goingOn } from '@/core/job/going-on'
import { jobRecord } from '@/core/record/job-record'
import { handBackBlockers, proofStanding } from '@/core/job/stations-say'
import { gateOf } from '@/core/job/gate'
import { reckonAdvice, toAdvise } from '@/core/job/advise'
import { nextStep, stepAt } from '@/core/job/next-step'
import { stations } from '@/core/board/station'
import { unknownContact } from '@/core/socket/model/socket'
import { checkEntry } from '@/entry-schemas/entry-schema'
import { optionalField, socketOf } from './field-input'
import type { FieldInput } from './field-input'
import { BadInput, operation, readFile } from './operation'
import { settingFields, settingOf } from './setting-input'
import type { SettingInput } from './setting-input'
import type { Operation } from './operation'

interface ReadInput extends FieldInput, SettingInput {
  readonly tape: string | readonly Record<string, unknown>[]
}

const line = Joi.object({ kind: Joi.string().required(), body: Joi.object().required() }).unknown(true)
const lines = Joi.array().items(line).max(100_000)

interface Tape {
  readonly lines: readonly Record<string, unknown>[]
  /** The field that came with it, in a job’s ZIP. */
  readonly socket: Socket | null
}

/** A tape, from the request or from a file: a JSON array, JSON lines, or a job’s ZIP. */
async function tapeOf(tape: ReadInput['tape']): Promise<Tape> {
  if (typeof tape !== 'string') return { lines: tape, socket: null }
  const bytes = readFile(tape, 'tape')
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    const { job, findings } = await unpackJob(bytes)
    if (!job) throw new BadInput('tape', `${tape}: ${findings[0]?.text ?? 'is no job'}`)
    return { lines: job.entries as unknown as Record<string, unknown>[], socket: job.socket }
  }
  const { error, value } = lines.validate(jsonOf(bytes.toString('utf8'), tape))
  if (error) throw new BadInput(`tape.${error.details[0]!.path.join('.')}`, error.details[0]!.message)
  return { lines: value as Record<string, unknown>[], socket: null }
}

function jsonOf(text: string, path: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    // Not one value: a line each, then.
  }
  return text
    .split('\n')
    .flatMap((line, i) => (line.trim() === '' ? [] : [{ line, i }]))
    .map(({ line, i }): unknown => {
      try {
        return JSON.parse(line)
      } catch {
        throw new BadInput('tape', `${path}, line ${i + 1}, is not JSON`)
      }
    })
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

/** The likeliest faults, what is in no list, and the verdict. */
const oddsOf = (belief: Belief | null) =>
  belief && {
    faults: belief.faults.map(({ fault, odds }) => ({ fault, odds })),
    somethingElse: belief.somethingElse,
    verdict: belief.verdict,
    next: belief.next.map((s) => s.test.id),
  }

/** A tape that is in order, and what it says, with the contacts of its socket where there is one. */
async function jobOf(
  input: ReadInput,
): Promise<{ entries: Entry[]; state: JobState; socket: Socket | null }> {
  const tape = await tapeOf(input.tape)
  const entries = entriesOf(tape.lines)
  const wrong = tapeFindings(entries)[0]
  if (wrong) throw new BadInput(`tape.${wrong.line - 1}.${wrong.field}`, wrong.text)
  const socket = input.table === undefined && input.contacts === undefined ? tape.socket : socketOf(input)
  if (socket)
    entries.forEach((entry, i) => {
      const stranger = unknownContact(socket, contactsOf(entry))
      if (stranger) throw new BadInput(`tape.${i}.contact`, stranger)
    })
  const state = jobState(
    entries,
    socket?.contacts.map((c) => c.name),
  )
  return { entries, state, socket }
}

export const jobOperations: Readonly<Record<string, Operation>> = {
  'job.read': operation<ReadInput>(
    'Reads a tape: its state, the power gate with its reasons, the next step and each station’s, evidence and odds, the proof owed and what holds the hand-back.',
    optionalField({
      tape: Joi.alternatives(Joi.string(), lines).required(),
      ...settingFields,
    }),
    async (input) => {
      const { entries, state, socket } = await jobOf(input)
      const gate = gateOf(state, socket)
      const setting = settingOf(input)
      const asked = toAdvise(state, socket, gate, setting)
      const reckoned = reckonAdvice(socket, asked)
      const advised = { state, field: socket, gate, setting, ...reckoned }
      const standing = proofStanding(state, socket, setting)
      return {
        lines: entries.length,
        state,
        gate,
        next: nextStep(advised),
        steps: Object.fromEntries(stations.map((station) => [station, stepAt(station, advised)])),
        evidence: (asked.believe?.evidence ?? []).map(({ test, outcome }) => ({ test, outcome })),
        odds: oddsOf(reckoned.belief),
        toDecide: goingOn(state, socket, setting).weighed,
        lacking: reckoned.belief?.lacking ?? [],
        made: reckoned.belief?.made ?? [],
        proof: {
          owed: standing.tests
            .filter((t) => t.result === null)
            .map(({ id, test, again }) => ({ id, test, again })),
          failed: standing.tests.filter((t) => t.result === 'fail').map(({ id, test }) => ({ id, test })),
          left: standing.left,
        },
        handBack: { holds: handBackBlockers(state).map((h) => h.text) },
        record: jobRecord(state),
      }
    },
  ),

  'job.sheet': operation<ReadInput & { version?: number; whose: 'owner' | 'technician' }>(
    'The hand-back sheet of a tape, part by part: the owner’s or the technical one; the one that stands now, or one that was signed.',
    optionalField({
      tape: Joi.alternatives(Joi.string(), lines).required(),
      ...settingFields,
      whose: Joi.valid('owner', 'technician').default('owner'),
      version: Joi.number().integer().min(1),
    }),
    async (input) => {
      const { entries, socket } = await jobOf(input)
      const setting = settingOf(input)
      const versions = sheetVersions(entries, socket, setting)
      const version = versions.find((v) => v.version === (input.version ?? versions.length))
      if (!version) throw new BadInput('version', `there are versions 1 to ${versions.length}`)
      const { words, technical } = readVersion(version, socket, entries.at(-1)?.at ?? '', setting)
      return {
        versions: versions.length,
        version: version.version,
        signed: version.signed,
        title: words.title,
        outcome: words.outcome,
        parts: input.whose === 'owner' ? words.parts : technical,
      }
    },
  ),

  'job.schema': operation<object>(
    'The JSON Schema of a job’s ZIP as it is written today, file by file.',
    Joi.object({}),
    () => jobZipSchema(),
  ),
}
