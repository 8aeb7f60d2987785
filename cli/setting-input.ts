import Joi from 'joi'
import { shelfItems } from '@/core/board/shelf-items'
import type { ShelfItem } from '@/core/board/shelf-items'
import { nothingRound } from '@/core/job/advice-setting'
import type { AdviceSetting } from '@/core/job/advice-setting'
import type { Finding, Row } from '@/core/tables/finding'
import { readFaultTable } from '@/core/triage/model/fault-table'
import { faultIds } from '@/core/triage/model/faults'
import type { RepairTally } from '@/core/triage/model/repair-record'
import { signals } from '@/core/triage/model/shows'
import type { Shown } from '@/core/triage/model/shows'
import { readCsv } from '@/tables/read-csv'
import { BadInput, readFile } from './operation'

/** What the board can show; what is left out may be. */
export const shown = Joi.object(Object.fromEntries(signals.map((s) => [s, Joi.boolean()])))

/** What came of repairs in the shop. */
export const repairs = Joi.array()
  .items(
    Joi.object({
      fault: Joi.valid(...faultIds).required(),
      tried: Joi.number().integer().min(0).required(),
      took: Joi.number().integer().min(0).max(Joi.ref('tried')).required(),
    }),
  )
  .default([])

/** A table by path, as rows. @throws BadInput with the first line that is wrong */
export function tableOf<T extends { readonly findings: readonly Finding[] }>(
  path: string,
  field: string,
  read: (rows: readonly Row[], columns: readonly string[]) => T,
): T {
  const { rows, columns, uneven } = readCsv(readFile(path, field).toString('utf8'))
  const table = read(rows, columns)
  const wrong = [...uneven, ...table.findings].find((f) => f.level === 'error')
  if (wrong) throw new BadInput(field, `line ${wrong.line}, ${wrong.field}: ${wrong.text}`)
  return table
}

/** What a shop knows round a job, as far as it is given. */
export interface SettingInput {
  readonly shown?: Shown
  /** What the shop has at hand; everything when left out. */
  readonly shelf?: readonly ShelfItem[]
  /** A shop's own odds of faults: a fault table by path. */
  readonly faults?: string
  readonly repairs: readonly RepairTally[]
}

export const settingFields = {
  shown,
  shelf: Joi.array()
    .items(Joi.valid(...shelfItems))
    .unique(),
  faults: Joi.string(),
  repairs,
}

export const settingOf = ({ shown, shelf, faults, repairs }: SettingInput): AdviceSetting => ({
  ...nothingRound,
  ...(shown ? { references: { shows: { name: '', shown } } } : {}),
  ...(shelf ? { shelf } : {}),
  ...(faults === undefined ? {} : { own: tableOf(faults, 'faults', readFaultTable).odds! }),
  repairs,
})
