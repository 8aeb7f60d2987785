import { describe, expect, it } from 'vitest'
import { localPath, sessionCookie } from './signed-in'

describe('where a sign-in goes back to', () => {
  it.each(['/record', '/jobs/Q-0417/socket', '/record?words=x%20y'])('%s is ours', (path) =>
    expect(localPath(path)).toBe(path),
  )
  it.each([
    '//host',
    '/\\host',
    '/\t/host',
    '/\n/host',
    '/%09/host\u0000',
    'https://host',
    'record',
    '',
    null,
    '/ /host',
    '/\u2028/host',
  ])('%j is not', (path) => expect(localPath(path)).toBe('/'))
})

it('behind TLS the cookie is bound to the host', () => {
  expect(sessionCookie(true)).toMatch(/^__Host-/)
  expect(sessionCookie(false)).not.toMatch(/^__Host-/)
})
