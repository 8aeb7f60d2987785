'use server'
import { revalidatePath } from 'next/cache'
import { eraseDue, keepMonthsKept } from '@/data/retention'
import { signedIn } from '@/server/signed-in'

export interface RetentionAnswer {
  readonly fault: string
  readonly typed: string | null
  readonly say: string
}

const MOST = 240

/** Keeps for how long owners’ names are kept, and erases those that are over it. */
export async function retentionAction(_: RetentionAnswer, form: FormData): Promise<RetentionAnswer> {
  const { role } = await signedIn('/people')
  const raw = form.get('months')
  const typed = typeof raw === 'string' ? raw.trim().slice(0, 40) : ''
  if (role !== 'lead') return { fault: '', typed, say: 'The lead changes this: it holds for the whole shop.' }
  const months = typed === '' ? null : Number(typed)
  if (months !== null && !(/^\d+$/.test(typed) && months >= 1 && months <= MOST))
    return { fault: `Whole months, 1 to ${MOST}, like 24; empty until somebody erases them.`, typed, say: '' }
  await keepMonthsKept(months)
  const erased = await eraseDue(new Date().toISOString())
  revalidatePath('/people')
  return {
    fault: '',
    typed: null,
    say:
      months === null
        ? 'Kept until somebody erases them.'
        : `Kept for ${months} ${months === 1 ? 'month' : 'months'}. ${erased === 0 ? 'Nobody is over it.' : `Of ${erased} ${erased === 1 ? 'job' : 'jobs'} the owner is erased.`}`,
  }
}
