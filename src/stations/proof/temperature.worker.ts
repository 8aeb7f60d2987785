import { expose } from 'comlink'
import { keptTemperature, readTemperature } from '@/core/proof/temperature'
import type { KeptTemperature } from '@/core/proof/temperature'
import type { Finding } from '@/core/tables/finding'
import { readCsv } from '@/tables/read-csv'

export interface TemperatureRead {
  readonly body: KeptTemperature | null
  readonly findings: readonly Finding[]
}

/** A log of temperatures as CSV, read and fitted off the main thread. */
function read(name: string, csv: string, bearsC: number): TemperatureRead {
  const { rows, columns, uneven } = readCsv(csv)
  const { log, findings } = readTemperature(rows, columns)
  return {
    body: log && uneven.length === 0 ? keptTemperature(name, log, bearsC) : null,
    findings: [...findings, ...uneven],
  }
}

const worker = { read }

export type TemperatureWorker = typeof worker

expose(worker)
