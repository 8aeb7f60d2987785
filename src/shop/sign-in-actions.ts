'use server'
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import Joi from 'joi'
import {
  anyAccount,
  changePassword,
  createAccount,
  createFirstLead,
  openSession,
  resetPassword,
  revokeSession,
  setAccountOpen,
  signIn,
  signOut,
} from '@/data/accounts'
import { passwordFault, TooBusy } from '@/data/passwords'
import { oddText } from '@/core/tables/plain-text'
import { connection, localPath, sessionCookie, sessionToken, signedIn } from '@/server/signed-in'

/** What a form shows after a refusal; what was typed comes back, passwords and codes never. */
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
  .custom((value: string, helpers) => (oddText(value) === null ? value : helpers.error('any.invalid')))
  .messages({ '*': 'How is this person called at the bench?' })
const password = Joi.string()
  .required()
  .custom((value: string, helpers) => {
    const { login: own, name: called } = helpers.state.ancestors[0] as { login?: string; name?: string }
    const fault = passwordFault(value, [own ?? '', called ?? ''])
    return fault ? helpers.error('password.weak', { fault }) : value
  })
  .messages({ 'password.weak': '{{#fault}}', '*': 'A password, please; a short sentence is easiest.' })
const role = Joi.valid('lead', 'technician').required().messages({ '*': 'Lead or technician.' })
const code = Joi.string()
  .trim()
  .min(1)
  .required()
  .messages({ '*': 'The code that the start command printed.' })
const id = Joi.string().uuid().required().messages({ '*': 'Whose account?' })

const BUSY = 'Too many sign in at this moment. Try again in a few seconds.'

function read(form: FormData, schema: Joi.ObjectSchema) {
  const typed = Object.fromEntries(
    [...form.entries()]
      .filter(([k, v]) => typeof v === 'string' && !k.startsWith('$') && !/password|before|code/.test(k))
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

/** What a form shows when the work it asks for was refused for a reason that can be told. */
async function orFaults(
  typed: FormState['typed'],
  field: string,
  work: () => Promise<FormState>,
): Promise<FormState> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof TooBusy) return { typed, faults: { [field]: BUSY } }
    const { code: sqlState, constraint } = error as { code?: string; constraint?: string }
    if (sqlState !== '23505') throw error
    return constraint === 'account_name'
      ? {
          typed,
          faults: { name: 'Somebody here is called so already: two of one name cannot be told apart.' },
        }
      : { typed, faults: { login: 'This sign-in name is taken.' } }
  }
}

async function keepSession(token: string, expires: Date): Promise<void> {
  const { tls } = await connection()
  ;(await cookies()).set(sessionCookie(tls), token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: tls,
    path: '/',
    expires,
  })
}

const agent = async () => (await headers()).get('user-agent') ?? ''

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const back = localPath(form.get('back'))
  const typed = { login: String(form.get('login') ?? '') }
  const given = String(form.get('password') ?? '')
  if (!typed.login || !given) return { typed, faults: { login: 'Name and password, please.' } }
  const { address } = await connection()
  const answer = await signIn(typed.login, given, address, await agent())
  if (!answer.ok)
    return {
      typed,
      faults: {
        login: {
          wrong: 'Name and password do not go together.',
          'too many': 'Too many tries. Wait ten minutes, or ask the lead.',
          busy: BUSY,
        }[answer.why],
      },
    }
  await keepSession(answer.token, answer.expires)
  redirect(back)
}

export async function firstLeadAction(_: FormState, form: FormData): Promise<FormState> {
  const { typed, faults, value, ok } = read(form, Joi.object({ login, name, password, code }))
  if (!ok) return { typed, faults }
  const answer = await orFaults(typed, 'password', async (): Promise<FormState> => {
    const account = await createFirstLead(value.login!, value.name!, value.password!, value.code!)
    if (account === 'has a lead')
      return { typed, faults: { login: 'This shop has its lead already. Sign in instead.' } }
    if (account === 'wrong code')
      return {
        typed,
        faults: { code: 'This is not the code. Each start prints a new one; the last one printed holds.' },
      }
    const { address } = await connection()
    const { token, expires } = await openSession(account.id, await agent(), address)
    await keepSession(token, expires)
    return { typed: {}, faults: {}, done: account.name }
  })
  if (answer.done) redirect('/')
  return answer
}

export async function addAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const me = await signedIn('/people')
  const { typed, faults, value, ok } = read(form, Joi.object({ login, name, role, password }))
  if (me.role !== 'lead') return { typed, faults: { login: 'Only the lead adds people.' } }
  if (!ok) return { typed, faults }
  return orFaults(typed, 'password', async (): Promise<FormState> => {
    await createAccount(value.login!, value.name!, value.role as 'lead' | 'technician', value.password!)
    return { typed: {}, faults: {}, done: `${value.name} can sign in now.` }
  })
}

/** Another password for myself. */
export async function changePasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const me = await signedIn('/people')
  const before = Joi.string().required().messages({ '*': 'Your password as it is now.' })
  const own = new FormData()
  for (const [key, value] of form.entries()) own.set(key, value)
  own.set('login', me.login)
  own.set('name', me.name)
  const { faults, value, ok } = read(own, Joi.object({ login, name, before, password }))
  if (!ok) return { typed: {}, faults }
  return orFaults({}, 'password', async (): Promise<FormState> => {
    const done = await changePassword(me, value.before!, value.password!, await sessionToken())
    return done === 'wrong'
      ? { typed: {}, faults: { before: 'This is not your password as it is now.' } }
      : { typed: {}, faults: {}, done: 'Changed. You are signed out everywhere else.' }
  })
}

/** A lead sets somebody's password anew. */
export async function resetPasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const me = await signedIn('/people')
  if (me.role !== 'lead') return { typed: {}, faults: { password: 'Only the lead resets passwords.' } }
  const { faults, value, ok } = read(form, Joi.object({ id, password }))
  if (!ok) return { typed: {}, faults }
  return orFaults({}, 'password', async (): Promise<FormState> => {
    await resetPassword(value.id!, value.password!)
    return { typed: {}, faults: {}, done: 'Reset; every session of that account is ended.' }
  })
}

export async function setAccountOpenAction(form: FormData): Promise<void> {
  const me = await signedIn('/people')
  const { error, value } = id.validate(form.get('id'))
  if (me.role === 'lead' && !error) await setAccountOpen(value as string, form.get('open') === 'true', me.id)
  redirect('/people')
}

export async function revokeSessionAction(form: FormData): Promise<void> {
  const me = await signedIn('/people')
  const session = String(form.get('session'))
  if (/^[0-9a-f]{64}$/.test(session)) await revokeSession(me.id, session)
  redirect('/people')
}

export async function signOutAction(): Promise<void> {
  await signOut(await sessionToken())
  ;(await cookies()).delete(sessionCookie((await connection()).tls))
  redirect('/sign-in')
}

export async function shopIsEmpty(): Promise<boolean> {
  return !(await anyAccount())
}
