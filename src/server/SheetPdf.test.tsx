import { nothingRound } from '@/core/job/advice-setting'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, it } from 'vitest'
import { readVersion, sheetVersions } from '@/core/job/sheet-versions'
import { usualReader } from '@/core/reader'
import { tape } from '@/core/job/tape.testing'
import { smallField } from '@/core/socket/model/field.testing'
import { printSheet } from './SheetPdf'

const socket = smallField()

const now = '2026-11-24T12:00:00.000Z'

async function pagesOf(
  t: ReturnType<typeof tape>,
  owner = '',
  { forTechnician = false, of = sheetVersions(t.entries, socket, nothingRound).length } = {},
): Promise<string[]> {
  const chosen = sheetVersions(t.entries, socket, nothingRound)[of - 1]!
  const { sheet, words, technical, at } = readVersion(chosen, socket, now, nothingRound)
  const data = new Uint8Array(
    await printSheet({
      words,
      maps: sheet.maps,
      technical: forTechnician ? technical : null,
      version: chosen.version,
      signed: chosen.signed && { ...chosen.signed, png: null },
      tag: 'Q-0001',
      at,
      reader: usualReader,
      owner,
      socket,
    }),
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

it('every letter is there whatever was printed before it', async () => {
  // First of all, so that nothing but these few letters was printed in this thread.
  const part = { lines: ['abc'], none: '' }
  await printSheet({
    words: {
      title: '',
      complaint: '',
      outcome: '',
      parts: [
        { title: 'a', ...part },
        { title: 'b', ...part },
      ],
      minutes: 0,
      priceMinor: null,
    },
    maps: null,
    technical: null,
    version: 1,
    signed: null,
    tag: '',
    at: now,
    reader: usualReader,
    owner: '',
    socket: null,
  })
  const t = tape()
    .put('ticket', { set: { board: 'TW-K61', complaint: 'dark.' } })
    .put('rail', { rail: 'vcore', ohms: 0.3, cpu: 'out' })
    .put('part', { ref: 'C318', did: 'fitted', value: '12.5 µF' })
  const [page] = await pagesOf(t)
  for (const words of ['0.3 Ω to ground', 'brought in because: dark.']) expect(page).toContain(words)
  expect(page).toMatch(/12\.5 [µμ] ?F/)
})

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

it('a technical sheet has every reading by its line and no owner; one that was signed stays as it was', async () => {
  const t = tape()
    .put('ticket', { set: { board: 'TW-K61' } })
    .put('rail', { rail: 'vmem', ohms: 2.2, cpu: 'out' })
    .put('sheet signed', { signature: null, how: 'on paper' })
    .put('part', { ref: 'C318', did: 'fitted' })
  const technical = (await pagesOf(t, 'Åse', { forTechnician: true })).join(' ')
  expect(technical).toContain('technical sheet')
  expect(technical).toMatch(/2 memory rail to ground 2.2 Ω ?, CPU out/)
  expect(technical).not.toContain('Åse')
  const first = (await pagesOf(t, 'Åse', { of: 1 })).join(' ')
  expect(first).toContain('Received, on paper')
  expect(first).not.toContain('C318')
  const second = (await pagesOf(t, 'Åse')).join(' ')
  expect(second).toContain('version 2')
  expect(second).toContain('C318 fitted')
  expect(second).toContain('Received, with this sheet')
})
