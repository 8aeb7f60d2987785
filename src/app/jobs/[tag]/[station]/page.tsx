import { notFound } from 'next/navigation'
import { stations } from '@/core/job/entry'
import type { Station } from '@/core/job/entry'
import { listBoards } from '@/data/boards'
import { listSockets } from '@/data/sockets'
import { FirmwareStation } from '@/stations/firmware/FirmwareStation'
import { HandBackStation } from '@/stations/hand-back/HandBackStation'
import { IntakeStation } from '@/stations/intake/IntakeStation'
import { PartsStation } from '@/stations/parts/PartsStation'
import { ProofStation } from '@/stations/proof/ProofStation'
import { SocketStation } from '@/stations/socket/SocketStation'
import { TriageStation } from '@/stations/triage/TriageStation'

export default async function StationPage({ params }: { params: Promise<{ tag: string; station: string }> }) {
  const station = (await params).station as Station
  if (!stations.includes(station)) notFound()
  switch (station) {
    case 'intake': {
      const [boards, sockets] = await Promise.all([listBoards(), listSockets()])
      return <IntakeStation boards={boards} sockets={sockets} />
    }
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
  }
}
