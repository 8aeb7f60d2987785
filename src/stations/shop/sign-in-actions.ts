'use server'
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import Joi from 'joi'
import {
  anyAccount,
  createAccount,
  createFirstLead,
  openSession,
  revokeSession,
  setAccountOpen,
  signIn,
  signOut,
} from '@/data/accounts'
import { SESSION_COOKIE, sessionToken, signedIn } from '@/stations/job/signed-in'

/** What a form shows after a refusal; what was typed comes back, passwords never. */
export interface FormState {
  readonly faults: Readonly<Record<string, string>>
  readonly typed: Readonly<Record<string, string>>
  readonly done?: string
}

const login = Joi.string()
  .trim()
  .lowercase()
  .pattern(/^[a-z0-9._-]{2,40}$/)
  .required()
  .messages({ '*': 'Two to forty letters, figures, dots or dashes.' })
const name = Joi.string()
  .trim()
  .min(1)
  .max(60)
  .required()
  .messages({ '*': 'How is this person called at the bench?' })
const word = Joi.string()
  .min(10)
  .max(200)
  .required()
  .messages({ '*': 'At least ten characters; a short sentence is easiest.' })
const role = Joi.valid('lead', 'technician').required().messages({ '*': 'Lead or technician.' })

function read(form: FormData, schema: Joi.ObjectSchema) {
  const typed = Object.fromEntries(
    [...form.entries()]
      .filter(([k, v]) => typeof v === 'string' && !k.startsWith('$') && k !== 'password')
      .map(([k, v]) => [k, String(v)]),
  )
  const { error, value } = schema.validate(Object.fromEntries(form.entries()), {
    abortEarly: false,
    allowUnknown: true,
    stripUnknown: true,
  })
  const faults = Object.fromEntries(error?.details.map((d) => [String(d.path[0]), d.message]) ?? [])
  return { typed, faults, value: value as Record<string, string>, ok: !error }
}

async function keepSession(token: string, expires: Date): Promise<void> {
  const secure = (await headers()).get('x-forwarded-proto') === 'https'
  ;(await cookies()).set(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure,
    path: '/',
    expires,
  })
}

const localPath = (path: unknown) => (typeof path === 'string' && /^\/(?![/\\])/.test(path) ? path : '/')

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const back = localPath(form.get('back'))
  const typed = { login: String(form.get('login') ?? '') }
  const password = String(form.get('password') ?? '')
  if (!typed.login || !password) return { typed, faults: { login: 'Name and word, please.' } }
  const head = await headers()
  const address = head.get('x-forwarded-for')?.split(',')[0] ?? 'local'
  const answer = await signIn(typed.login, password, address, head.get('user-agent') ?? '')
  if (!answer.ok)
    return {
      typed,
      faults: {
        login:
          answer.why === 'wrong'
            ? 'Name and word do not go together.'
            : 'Too many tries. Wait ten minutes, or ask the lead.',
      },
    }
  await keepSession(answer.token, answer.expires)
  redirect(back)
}

export async function firstLeadAction(_: FormState, form: FormData): Promise<FormState> {
  const { typed, faults, value, ok } = read(form, Joi.object({ login, name, password: word }))
  if (!ok) return { typed, faults }
  const account = await createFirstLead(value.login!, value.name!, value.password!)
  if (!account) return { typed, faults: { login: 'This shop has its lead already. Sign in instead.' } }
  const { token, expires } = await openSession(account.id, (await headers()).get('user-agent') ?? '')
  await keepSession(token, expires)
  redirect('/')
}

export async function addAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const me = await signedIn('/people')
  const { typed, faults, value, ok } = read(form, Joi.object({ login, name, role, password: word }))
  if (me.role !== 'lead') return { typed, faults: { login: 'Only the lead adds people.' } }
  if (!ok) return { typed, faults }
  try {
    await createAccount(value.login!, value.name!, value.role as 'lead' | 'technician', value.password!)
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === '23505')
      return { typed, faults: { login: 'This sign-in name is taken.' } }
    throw error
  }
  return { typed: {}, faults: {}, done: `${value.name} can sign in now.` }
}

export async function setAccountOpenAction(form: FormData): Promise<void> {
  const me = await signedIn('/people')
  if (me.role !== 'lead') return
  await setAccountOpen(String(form.get('id')), form.get('open') === 'true')
  redirect('/people')
}

export async function revokeSessionAction(form: FormData): Promise<void> {
  const me = await signedIn('/people')
  await revokeSession(me.id, String(form.get('session')))
  redirect('/people')
}

export async function signOutAction(): Promise<void> {
  await signOut(await sessionToken())
  ;(await cookies()).delete(SESSION_COOKIE)
  redirect('/sign-in')
}

export async function shopIsEmpty(): Promise<boolean> {
  return !(await anyAccount())
}
