'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { keepPutFirst } from '@/data/put-first'
import { BENCH_PAGE } from './bench-order'
import { signedIn } from '@/server/signed-in'

const ids = Joi.array().items(Joi.string().uuid()).unique().max(BENCH_PAGE).required()

/**
 * Keeps which jobs come first on the bench, in their order; none for the bench’s own order. Says what is wrong, or nothing.
 * @param seen which came first when it was moved
 */
export async function putFirstAction(first: readonly string[], seen: readonly string[]): Promise<string> {
  await signedIn('/')
  if (ids.validate(first).error ?? ids.validate(seen).error)
    return 'This order is none: load the bench again.'
  const kept = await keepPutFirst(first, seen)
  revalidatePath('/')
  return kept
    ? ''
    : 'Somebody moved jobs meanwhile: this is their order. Move yours again if it still matters.'
}
