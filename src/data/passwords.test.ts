import { expect, it } from 'vitest'
import { hashPassword, isPassword, passwordFault, TooBusy } from './passwords'

it.each(['short', 'password1234', '123456789012', 'aaaaaaaaaaaa', 'qwertyuiop12', 'x'.repeat(201)])(
  '“%s” is refused as a password',
  (password) => expect(passwordFault(password)).toMatch(/.{10}/),
)
it('a name repeated is no password, a sentence is', () => {
  expect(passwordFault('tollivertolliver', ['tolliver'])).toMatch(/guessed/)
  expect(passwordFault('a long enough word', ['tolliver'])).toBeNull()
  expect(passwordFault('quay-bench-demo')).toBeNull()
})
it('hashes a few at once and refuses beyond what waits', async () => {
  const all = await Promise.allSettled(Array.from({ length: 40 }, () => hashPassword('a long enough word')))
  const refused = all.filter((a) => a.status === 'rejected')
  expect(refused).toHaveLength(14)
  for (const r of refused) expect(r.reason).toBeInstanceOf(TooBusy)
  const first = all.find((a) => a.status === 'fulfilled')!
  expect(await isPassword(first.value, 'a long enough word')).toBe(true)
  expect(await isPassword(first.value, 'another')).toBe(false)
})
