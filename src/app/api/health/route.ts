import { pool } from '@/data/pool'

export const dynamic = 'force-dynamic'

/** Whether the application and its database answer; nothing else is told. */
export async function GET() {
  const good = await pool()
    .query('select 1')
    .then(
      () => true,
      () => false,
    )
  return Response.json(
    { application: 'answers', database: good ? 'answers' : 'does not answer' },
    {
      status: good ? 200 : 503,
      headers: { 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' },
    },
  )
}
