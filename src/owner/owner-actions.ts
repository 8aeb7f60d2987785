'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { openOffers } from '@/core/intake/slice'
import type { JobState } from '@/core/job/job-state'
import { ownerSees } from '@/core/job/owner-sees'
import type { Bodies } from '@/core/slices'
import { jobNow } from '@/data/job-now'
import { openedForOwner } from '@/data/job-links'
import { putByLink } from '@/server/put-by-link'
import { sameOrigin } from '@/server/signed-in'

export interface OwnerAnswer {
  readonly say: string
  readonly fault: string
}

const GONE = 'This link opens nothing any more. Ask the workshop for another.'

/** Puts what an owner says on the tape of their job, and nothing else. */
async function put<K extends 'offer answered' | 'late outcome'>(
  token: string,
  kind: K,
  bodyOf: (state: JobState) => Bodies[K] | null,
): Promise<OwnerAnswer> {
  const link = await openedForOwner(token)
  if (!link || !(await sameOrigin())) return { say: '', fault: GONE }
  const { state } = await jobNow(link.jobId)
  const body = bodyOf(state)
  if (!body) return { say: '', fault: 'This was answered already.' }
  const fault = await putByLink(link, 'the owner', state.seq, kind, body)
  if (fault) return { say: '', fault }
  revalidatePath(`/owner/${token}`)
  return { say: 'Thank you. The workshop sees it at once.', fault: '' }
}

const answer = Joi.object({
  token: Joi.string().required(),
  offer: Joi.number().integer().min(1).required(),
  approved: Joi.valid('yes', 'no').required(),
}).unknown()

/** The owner’s answer to a changed offer. */
export async function answerOfferAction(_: OwnerAnswer, form: FormData): Promise<OwnerAnswer> {
  const { error, value } = answer.validate(Object.fromEntries(form))
  if (error) return { say: '', fault: 'Say yes or no.' }
  const { token, offer, approved } = value as { token: string; offer: number; approved: string }
  return put(token, 'offer answered', ({ intake }) =>
    openOffers(intake).some((o) => o.seq === offer)
      ? { offer, approved: approved === 'yes', how: 'through their link' }
      : null,
  )
}

const report = Joi.object({
  token: Joi.string().required(),
  holds: Joi.valid('yes', 'no').required().messages({ '*': 'Does it still run? Yes or no.' }),
  text: Joi.string().trim().max(300).allow('').default(''),
}).unknown()

/** How it went on at home. */
export async function reportAction(_: OwnerAnswer, form: FormData): Promise<OwnerAnswer> {
  const { error, value } = report.validate(Object.fromEntries(form))
  if (error) return { say: '', fault: error.message }
  const { token, holds, text } = value as { token: string; holds: string; text: string }
  return put(token, 'late outcome', (state) =>
    ownerSees(state).mayReport
      ? {
          holds: holds === 'yes',
          text: `the owner: ${text || (holds === 'yes' ? 'it runs' : 'it fails again')}`,
        }
      : null,
  )
}
