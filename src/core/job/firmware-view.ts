import type { FirmwareView } from '../firmware/view'
import type { JobState } from './job-state'
import { lastIron } from './last-iron'

/** A job as the firmware station reads it. */
export const firmwareView = ({ firmware, board, parts, intake, work }: JobState): FirmwareView => ({
  iron: lastIron({ parts, firmware })?.seq ?? 0,
  firmware,
  board,
  partFitted: parts.noted.findLast((p) => p.did === 'fitted')?.seq ?? 0,
  counted: parts.counts.findLast((c) => c.place === 'at the firmware chip') ?? null,
  diskLock: intake.ticket.diskLock,
  photos: work.photos.map((p) => p.seq),
})
