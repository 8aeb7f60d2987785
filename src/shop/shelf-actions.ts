'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { shelfItems } from '@/core/board/shelf-items'
import { dropDonor, keepDonor } from '@/data/donors'
import { putOnShelf } from '@/data/shelf'
import { socketById } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'

const donorForm = Joi.object({
  name: Joi.string()
    .trim()
    .min(2)
    .max(80)
    .required()
    .messages({ '*': 'Name it, so that it is found in the drawer.' }),
  socket: Joi.string().max(120).allow('').default(''),
  contacts: Joi.number()
    .integer()
    .min(1)
    .max(6500)
    .default(1)
    .messages({ '*': 'Contacts left on it: a whole number from 1 to 6,500.' }),
  off: Joi.string().allow('').default(''),
}).unknown()

/** Says that something of the shelf is at hand, or away. */
export async function shelfAction(form: FormData): Promise<void> {
  await signedIn('/shelf')
  const item = shelfItems.find((known) => known === form.get('item'))
  if (item) await putOnShelf(item, form.get('there') === 'yes')
  revalidatePath('/shelf')
}

export interface DonorAnswer {
  readonly fault: string
}

/** Puts a socket kept for its contacts on the shelf, or takes it off. */
export async function donorAction(_: DonorAnswer, form: FormData): Promise<DonorAnswer> {
  await signedIn('/shelf')
  const { error, value } = donorForm.validate(Object.fromEntries(form))
  if (error) return { fault: error.message }
  const { name, socket, contacts, off } = value as {
    name: string
    socket: string
    contacts: number
    off: string
  }
  if (off) await dropDonor(name)
  else if ((await socketById(socket)) === null) return { fault: 'Choose which kind of socket it is.' }
  else await keepDonor(name, socket, contacts)
  revalidatePath('/shelf')
  return { fault: '' }
}
