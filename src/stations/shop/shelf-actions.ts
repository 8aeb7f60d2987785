'use server'
import { revalidatePath } from 'next/cache'
import { shelfItems } from '@/core/triage/bench-test'
import { putOnShelf } from '@/data/shelf'
import { signedIn } from '@/stations/job/signed-in'

/** Says that something of the shelf is at hand, or away. */
export async function shelfAction(form: FormData): Promise<void> {
  await signedIn('/shelf')
  const item = shelfItems.find((known) => known === form.get('item'))
  if (item) await putOnShelf(item, form.get('there') === 'yes')
  revalidatePath('/shelf')
}
