import type { Station } from '@/core/board/station'
import { stations } from '@/core/board/station'

/** The station a path of the application shows, as in `/jobs/Q-0412/socket`. */
export const stationOfPath = (path: string): Station | null =>
  stations.find((s) => path.split('/')[3] === s) ?? null
