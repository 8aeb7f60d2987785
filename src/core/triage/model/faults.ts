import { socketFaults } from './faults-at-the-socket'
import { boardFaults } from './faults-of-the-board'

/** Every fault the reasoner knows. Figures are bench defaults; the shop's record replaces them. */
export const faults = { ...boardFaults, ...socketFaults }
export type FaultId = keyof typeof faults
export const faultIds = Object.keys(faults) as FaultId[]
