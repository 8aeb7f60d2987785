import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { readGlossary } from '@/core/tables/glossary'
import { forAccount } from '@/server/answers'

/** The words of the trade, from the page that keeps them. */
export async function GET(request: Request) {
  return forAccount(request, async () =>
    Response.json(readGlossary(await readFile(join(process.cwd(), 'docs', 'words.md'), 'utf8'))),
  )
}
