import { catalogueTerminal, kilnController, schoolDisplays, tideGauge } from './firmware-jobs'
import { demoNow } from './job'
import type { DemoJob } from './job'
import { filmClub, harbourOffice, lighthouseBefore, lighthouseMuseum, timetableMaster } from './other-jobs'
import { birdObservatory, cameraServer, choirMachine, ticketKiosk } from './socket-jobs'

export { lighthouseBefore }

/** The twelve jobs of the demo shop, each showing one thing. */
export function demoJobs(now: Date): DemoJob[] {
  const clock = demoNow(now)
  return [
    filmClub,
    harbourOffice,
    timetableMaster,
    catalogueTerminal,
    schoolDisplays,
    birdObservatory,
    kilnController,
    cameraServer,
    choirMachine,
    tideGauge,
    ticketKiosk,
    lighthouseMuseum,
  ].map((job) => job(clock))
}
