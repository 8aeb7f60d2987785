'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { keepPutFirst } from '@/data/put-first'
import { BENCH_PAGE } from './bench-order'
import { signedIn } from '@/server/signed-in'

const ids = Joi.array().items(Joi.string().uuid()).unique().max(BENCH_PAGE).required()

/** Keeps which jobs come first on the bench, in their order; none for the bench’s own order. Says what is wrong, or nothing. */
export async function putFirstAction(first: readonly string[]): Promise<string> {
  await signedIn('/')
  if (ids.validate(first).error) return 'This order is none: load the bench again.'
  await keepPutFirst(first)
  revalidatePath('/')
  return ''
}
