import { stock } from '@/data/stock'
import { forJob } from '@/server/answers'

/** What lies on the shelf, and what each job holds of it. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async () => Response.json(await stock()))
}
