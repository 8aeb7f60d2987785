'use server'
import { revalidatePath } from 'next/cache'
import { readHours, weekdays } from '@/core/shop/hours'
import type { TypedHours } from '@/core/shop/hours'
import { keepShopHours } from '@/data/shop-hours'
import { signedIn } from '@/server/signed-in'

export interface HoursAnswer {
  readonly faults: Readonly<Record<string, string>>
  /** What was typed, so that nothing of it is lost; null once it is kept. */
  readonly typed: TypedHours | null
  readonly say: string
}

const MOST = 40_000

/** Keeps when the bench is worked. */
export async function hoursAction(_: HoursAnswer, form: FormData): Promise<HoursAnswer> {
  const { role } = await signedIn('/library/hours')
  const text = (name: string) => {
    const value = form.get(name)
    return typeof value === 'string' ? value.slice(0, MOST) : ''
  }
  const typed: TypedHours = {
    week: weekdays.map((day) => [text(`${day} from`), text(`${day} to`)]),
    closed: text('closed'),
    people: text('people'),
  }
  if (role !== 'lead')
    return { faults: {}, typed, say: 'The lead changes this: it holds for the whole shop.' }
  const { hours, faults } = readHours(typed)
  if (!hours) return { faults, typed, say: '' }
  await keepShopHours(hours)
  revalidatePath('/library/hours')
  return { faults: {}, typed: null, say: 'Kept. The bench list and the calendar reckon with it.' }
}
