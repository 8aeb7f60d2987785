import 'server-only'
import { unknownBuild } from '@/core/shop/build'
import { matches, toBuy } from '@/core/shop/exchange'
import type { Exchange, Kept, Model } from '@/core/shop/exchange'
import type { Ticket } from '@/core/intake/bodies'
import { boardOf } from '@/core/intake/slice'
import { releaseNow } from '@/core/firmware/route/on-route'
import { supportOf } from '@/core/firmware/route/support-table'
import { speaksAgainst } from '@/core/job/asks-first'
import { adviceSettingOf, settingOfShop } from '@/data/advice-setting'
import { listBoards } from '@/data/boards'
import { jobNow } from '@/data/job-now'
import { jobById } from '@/data/jobs'
import { referencesOf } from '@/data/references'
import { verifiedStock } from '@/data/verified-stock'

/** Boards of verified stock for what is wanted, and what could be bought instead. A board is proved by its own tape as it stands today. */
export async function exchangeFor(ticket: Ticket, notThis: string): Promise<Exchange> {
  const models = await Promise.all(
    (await listBoards()).map(async ({ id, maker, name, revision, socketId, build }): Promise<Model> => ({
      id,
      name: `${maker} ${name}`,
      board: boardOf({ board: `${maker} ${name}`, revision }),
      socketId,
      support: supportOf(await referencesOf(id)),
      build,
    })),
  )
  const byId = new Map(models.map((m) => [m.id, m]))
  const kept: Kept[] = []
  const shop = await settingOfShop()
  for (const { id, tag } of await verifiedStock()) {
    if (id === notThis) continue
    const { state, socket } = await jobNow(id)
    const { boardModelId, revision } = state.intake.ticket
    const model = boardModelId === null ? undefined : byId.get(boardModelId)
    const { done } = state.handBack
    const job = await jobById(id)
    if (!model || !done || !job) continue
    const setting = await adviceSettingOf(job, state.intake.ticket, shop)
    kept.push({
      tag,
      model,
      revision,
      release: releaseNow(state.firmware).release,
      unproved: speaksAgainst('hand-back', { ...done, priceMinor: null }, state, socket, setting),
    })
  }
  const own = ticket.boardModelId === null ? undefined : byId.get(ticket.boardModelId)
  const wanted = { ...ticket, name: own?.name ?? null, build: own?.build ?? unknownBuild }
  return { matches: matches(wanted, kept), toBuy: toBuy(wanted, models) }
}
