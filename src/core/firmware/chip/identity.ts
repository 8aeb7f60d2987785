import { readHexBytes, readId, sayId } from './jedec-id'
import { readSfdp } from './sfdp'
import type { Sfdp } from './sfdp'

/** What is known of the chip by what it said itself, as it is noted on the tape. */
export interface Identity {
  /** In words; what it is not where it gave no ID. */
  readonly say: string
  readonly answers: boolean
  readonly sfdp: Sfdp | null
  /** What is odd in what it said. */
  readonly findings: readonly string[]
}

const bytesOf = (hex: string) => readHexBytes(hex) ?? new Uint8Array(0)

export function identityOf(chipId: string, sfdp: string | undefined): Identity {
  const read = readId(bytesOf(chipId))
  const table = sfdp === undefined ? null : readSfdp(bytesOf(sfdp))
  return {
    say: read.is === 'read' ? sayId(read.id) : read.say,
    answers: read.is === 'read',
    sfdp: table?.sfdp ?? null,
    findings: table?.findings.map((f) => f.text) ?? [],
  }
}

export function sayIdRead(chipId: string): string {
  const { say, answers } = identityOf(chipId, undefined)
  return answers ? `ID ${say}` : `no ID: ${say}`
}
