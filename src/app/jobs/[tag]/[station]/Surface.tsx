'use client'
import { usePathname } from 'next/navigation'
import type { ComponentProps } from 'react'
import { FirmwareStation } from '@/stations/firmware/FirmwareStation'
import { HandBackStation } from '@/stations/hand-back/HandBackStation'
import { IntakeStation } from '@/stations/intake/IntakeStation'
import { stationOfPath } from '@/job/station-path'
import { PartsStation } from '@/stations/parts/PartsStation'
import { ProofStation } from '@/stations/proof/ProofStation'
import { SocketStation } from '@/stations/socket/SocketStation'
import { TriageStation } from '@/stations/triage/TriageStation'

/** The station the address names. All of them are here already, so that going to another asks no server. */
export function Surface(given: ComponentProps<typeof IntakeStation>) {
  switch (stationOfPath(usePathname())) {
    case 'intake':
      return <IntakeStation {...given} />
    case 'triage':
      return <TriageStation />
    case 'socket':
      return <SocketStation />
    case 'firmware':
      return <FirmwareStation />
    case 'parts':
      return <PartsStation />
    case 'proof':
      return <ProofStation />
    case 'hand-back':
      return <HandBackStation />
    case null:
      return null
  }
}
