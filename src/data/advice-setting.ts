import 'server-only'
import type { ShelfItem } from '@/core/board/shelf-items'
import type { Ticket } from '@/core/intake/bodies'
import { nothingRound } from '@/core/job/advice-setting'
import type { AdviceSetting } from '@/core/job/advice-setting'
import type { References } from '@/core/job/references'
import { figuresOf } from '@/core/socket/straighten/bench-figures'
import { ownFigures } from './bench-figures'
import { ownFaultOdds } from './fault-odds'
import { jobNow } from './job-now'
import { earlierJobs, jobById } from './jobs'
import type { EarlierJob, Job } from './jobs'
import { referencesOf } from './references'
import { repairRecord } from './repair-record'
import { shelf } from './shelf'
import { strokeRecord } from './stroke-record'

/** What a shop knows round a job: all of it. */
export interface ShopSetting extends AdviceSetting {
  readonly references: References
  readonly earlier: readonly EarlierJob[]
  readonly shelf: readonly ShelfItem[]
}

/** What is the same round every job. */
export async function settingOfShop(): Promise<Pick<ShopSetting, 'own' | 'record' | 'repairs' | 'figures'>> {
  const [own, record, repairs, figures] = await Promise.all([
    ownFaultOdds(),
    strokeRecord(),
    repairRecord(),
    ownFigures(),
  ])
  return { own, record, repairs, figures: figuresOf(figures) }
}

/** What stands round a job and bears on its advice, as the shop has it now. */
export async function adviceSettingOf(
  job: Job,
  { boardModelId, serial }: Pick<Ticket, 'boardModelId' | 'serial'>,
  shop?: Awaited<ReturnType<typeof settingOfShop>>,
): Promise<ShopSetting> {
  const [references, earlier, atHand, everywhere] = await Promise.all([
    referencesOf(boardModelId),
    earlierJobs(job, serial),
    shelf(job.tag),
    shop ?? settingOfShop(),
  ])
  return { references, earlier, shelf: atHand, ...everywhere }
}

/** The same of a job by its id, as its tape names the board now; nothing round one that is not there. */
export async function settingOfJob(jobId: string): Promise<AdviceSetting> {
  const job = await jobById(jobId)
  return job ? adviceSettingOf(job, (await jobNow(jobId)).state.intake.ticket) : nothingRound
}
