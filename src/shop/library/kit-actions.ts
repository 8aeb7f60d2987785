'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { readMoney } from '@/core/reader'
import { keepBenchCpu } from '@/data/bench-cpus'
import { readerOf } from '@/server/reader'
import { signedIn } from '@/server/signed-in'

const form = Joi.object({
  cpu: Joi.string().trim().min(1).max(60).required(),
  price: Joi.string().trim().allow('').max(30).default(''),
  owned: Joi.string().allow('').default(''),
}).unknown()

export interface KitAnswer {
  readonly fault: string
}

/** Notes whether the shop owns a CPU, and what it would cost. */
export async function benchCpuAction(_: KitAnswer, data: FormData): Promise<KitAnswer> {
  await signedIn('/library/kit')
  const { error, value } = form.validate(Object.fromEntries(data))
  if (error) return { fault: error.message }
  const { cpu, price, owned } = value as { cpu: string; price: string; owned: string }
  const priceMinor = price === '' ? null : readMoney(await readerOf(), price)
  if (price !== '' && (priceMinor === null || !(priceMinor >= 0 && priceMinor <= 1e9)))
    return { fault: `“${price}” is no price: a number such as 120, or empty where it is not known.` }
  await keepBenchCpu({ cpu, owned: owned === 'yes', priceMinor })
  revalidatePath('/library/kit')
  return { fault: '' }
}
