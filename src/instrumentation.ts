const SIX_HOURS = 6 * 3_600_000
const SOON = 10_000

/** Once the server is up, and every six hours from then on: owners who have been kept long enough are erased. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.DATABASE_URL) return
  const { eraseDue } = await import('@/data/retention')
  // A database that is not there yet is asked again soon.
  const sweep = () =>
    void eraseDue(new Date().toISOString()).then(
      () => setTimeout(sweep, SIX_HOURS).unref(),
      (error: unknown) => {
        process.stderr.write(`owners who are due could not be erased yet: ${String(error)}\n`)
        setTimeout(sweep, SOON).unref()
      },
    )
  sweep()
}
