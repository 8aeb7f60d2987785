import { jobState } from '@/core/job/job-state'
import { renderToBuffer } from '@react-pdf/renderer'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, it } from 'vitest'
import { handBackSheet } from '@/core/job/sheet'
import { usualReader } from '@/core/reader'
import { tape } from '@/core/job/tape.testing'
import { smallField } from '@/core/socket/model/field.testing'
import { SheetPdf } from './SheetPdf'

const socket = smallField()

async function pagesOf(t: ReturnType<typeof tape>, owner = ''): Promise<string[]> {
  const state = jobState(
    t.entries,
    socket.contacts.map((c) => c.name),
  )
  const sheet = handBackSheet(state, socket, '2026-11-24T12:00:00.000Z')
  const data = new Uint8Array(
    await renderToBuffer(
      SheetPdf({ sheet, tag: 'Q-0001', at: '2026-11-24T12:00:00.000Z', reader: usualReader, owner, socket }),
    ),
  )
  const pdf = await getDocument({ data, verbosity: 0 }).promise
  const pages: string[] = []
  for (let n = 1; n <= pdf.numPages; n++) {
    const { items } = await (await pdf.getPage(n)).getTextContent()
    pages.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' '),
    )
  }
  return pages
}

it('an empty job makes a sheet that claims nothing', async () => {
  const [page] = await pagesOf(tape())
  expect(page).toContain('no board named')
  expect(page).toContain('nothing noted')
  expect(page).toContain('page 1 of 1')
})

it('letters the reading face lacks are there all the same', async () => {
  const t = tape()
    .put('ticket', { set: { board: 'Smørås', complaint: 'mörk – “död”' } })
    .put('rail', { rail: 'vmem', ohms: 2.2, cpu: 'out' })
    .put('part', { ref: 'C318', did: 'fitted', value: '10 µF' })
  const [page] = await pagesOf(t, 'Åse')
  for (const words of ['Smørås', 'mörk – “död”', '2.2 Ω to ground', 'for Åse']) expect(page).toContain(words)
  expect(page).toMatch(/10 [µμ] ?F/)
})

it('a long record goes over several pages, each numbered, with nothing lost', async () => {
  const t = tape().put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
  for (let i = 0; i < 70; i++)
    t.put('firmware', { did: `step ${i} of a long evening at the bench, read back and compared` })
  const pages = await pagesOf(t)
  expect(pages.length).toBeGreaterThan(1)
  const all = pages.join(' ')
  for (let i = 0; i < 70; i++) expect(all).toContain(`tep ${i} of a long evening`)
  pages.forEach((page, i) => expect(page).toContain(`page ${i + 1} of ${pages.length}`))
})
