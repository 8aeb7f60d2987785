/** Once the server is up. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.DATABASE_URL) return
  const { eraseOwnersWhenDue } = await import('@/server/erase-owners')
  eraseOwnersWhenDue()
}
