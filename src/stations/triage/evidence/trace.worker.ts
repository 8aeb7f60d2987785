import type { Bodies } from '@/core/slices'
import { expose } from 'comlink'
import type { Finding } from '@/core/tables/finding'
import { keptCurrent, readCurrent, readTrace } from '@/core/triage/instruments/current-trace'
import { readCsv } from '@/tables/read-csv'

export interface TraceRead {
  readonly body: Bodies['current'] | null
  readonly findings: readonly Finding[]
}

/** A recorded current as CSV, read off the main thread: it may have hundreds of thousands of samples. */
function read(name: string, csv: string): TraceRead {
  const { rows, columns, uneven } = readCsv(csv)
  const { trace, findings } = readTrace(rows, columns)
  const bad = trace === null || uneven.length > 0
  return {
    body: bad ? null : keptCurrent(name, trace, readCurrent(trace)),
    findings: [...findings, ...uneven],
  }
}

const worker = { read }

export type TraceWorker = typeof worker

expose(worker)
