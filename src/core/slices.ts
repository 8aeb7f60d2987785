import { board } from './board/slice'
import type { BoardBodies } from './board/bodies'
import { firmware } from './firmware/slice'
import type { FirmwareBodies } from './firmware/bodies'
import { handBack } from './hand-back/slice'
import type { HandBackBodies } from './hand-back/bodies'
import { intake } from './intake/slice'
import type { IntakeBodies } from './intake/bodies'
import { parts } from './parts/slice'
import type { PartsBodies } from './parts/bodies'
import { proof } from './proof/slice'
import type { ProofBodies } from './proof/bodies'
import { socket } from './socket/slice'
import type { SocketBodies } from './socket/bodies'
import { triage } from './triage/slice'
import type { TriageBodies } from './triage/bodies'
import { work } from './work/slice'
import type { WorkBodies } from './work/bodies'

/** THE list of slices. The board hears first: what the others ask about a line is what it was before. */
export const slices = [board, work, intake, triage, socket, firmware, parts, proof, handBack] as const

/** The typed body of every kind of line. */
export interface Bodies
  extends
    BoardBodies,
    WorkBodies,
    IntakeBodies,
    TriageBodies,
    SocketBodies,
    FirmwareBodies,
    PartsBodies,
    ProofBodies,
    HandBackBodies {}

export type Kind = keyof Bodies
