import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import { expect, it } from 'vitest'
import { addBoard } from './boards'
import { describeDatabase, lay, somebody, someJob } from './database.testing'
import { keepBenchCpu } from './bench-cpus'
import { keepFigures, ownFigures } from './bench-figures'
import { keepFaultOdds, ownFaultOdds } from './fault-odds'
import { hiddenBoardOf, hideBoard, showBoard } from './hidden-boards'
import { createJob, earlierJobs, jobById, jobByTag, openJobs, practiceBoards } from './jobs'
import { shelfItems } from '@/core/board/shelf-items'
import { putOnShelf, shelf } from './shelf'
import { keepStock, stock } from './stock'
import type { Bodies } from '@/core/slices'
import { noReferences } from '@/core/job/references'
import { dropMapFile, keepMapFile, keptMapOf, mapFileOf } from './board-maps'
import { dropReference, keepReference, referencesOf } from './references'

const codes = (name: string) => ({
  name,
  codes: [{ code: '4C', stage: 'memory training' as const, say: 'trains', restS: 60 }],
})

describeDatabase('what is known of a board model', () => {
  it('is kept by kind, the newest of each, and can be dropped', async () => {
    const id = randomUUID()
    await addBoard({ id, maker: 'Tarnworks', name: id, revision: '', socketId: null, notes: '' })
    expect(await referencesOf(id)).toEqual(noReferences)
    await keepReference(id, 'codes', codes('first'))
    await keepReference(id, 'codes', codes('second'))
    await keepReference(id, 'rails', { name: 'a good one', rails: {} })
    expect(await referencesOf(id)).toEqual({
      ...noReferences,
      codes: codes('second'),
      rails: { name: 'a good one', rails: {} },
    })
    await dropReference(id, 'codes')
    expect((await referencesOf(id)).codes).toBeNull()
    expect(await referencesOf(null)).toEqual(noReferences)
  })
})

describeDatabase('what lies on the shelf', () => {
  it('is counted down by what jobs fit and use, held by those that are open, and counted anew', async () => {
    const items = [
      { item: 'R 33', kind: 'resistor' as const, value: 33, place: 'drawer', count: 5, low: 1 },
      { item: 'flux', kind: 'consumable' as const, value: null, place: 'shelf', count: 2, low: 0 },
    ]
    await keepStock(items)
    const there = async () =>
      (await stock()).map(({ item, left, held }) => [item, left, held.map((h) => h.count)])
    expect(await there()).toEqual([
      ['R 33', 5, []],
      ['flux', 2, []],
    ])
    const who = await somebody('Maren')
    const job = await someJob(who)
    const write = <K extends 'stock' | 'part'>(kind: K, body: Bodies[K]) => lay(job, who, kind, body)
    // Used before it was held: what is held after it is held.
    await write('stock', { item: 'R 33', did: 'used' })
    await write('stock', { item: 'R 33', did: 'reserved' })
    await write('stock', { item: 'R 33', did: 'reserved' })
    await write('part', { ref: 'R1', did: 'fitted', stock: 'R 33' })
    await write('part', { ref: 'R1', did: 'found missing', stock: 'R 33' })
    await write('stock', { item: 'flux', did: 'reserved' })
    await write('stock', { item: 'flux', did: 'released' })
    expect(await there()).toEqual([
      ['R 33', 3, [1]],
      ['flux', 2, []],
    ])
    await keepStock(items.slice(0, 1))
    expect(await there()).toEqual([['R 33', 5, [1]]])
  })
  it('says what tests find at hand: a CPU of the kit that another job holds is not', async () => {
    await keepStock([])
    await keepBenchCpu({ cpu: 'Orrin 43', owned: true, priceMinor: null })
    const who = await somebody('Ines')
    const [job, other] = [await someJob(who), await someJob(who)]
    const revision = async () => (await jobById(other.id))?.settings
    const before = await revision()
    await lay(job, who, 'note', { text: 'nothing moves' })
    expect(await revision()).toBe(before)
    await lay(job, who, 'stock', { item: 'Orrin 43', did: 'reserved' })
    expect(await revision()).not.toBe(before)
    expect(await shelf(job.tag)).toContain('known-good CPU')
    expect(await shelf(other.tag)).not.toContain('known-good CPU')
    const held = await revision()
    await lay(job, who, 'stock', { item: 'Orrin 43', did: 'released' })
    expect(await revision()).not.toBe(held)
    expect(await shelf(other.tag)).toContain('known-good CPU')
  })
})

describeDatabase('the files of a board’s map', () => {
  it('come back byte for byte, the newest of each kind; dropped, they are gone', async () => {
    const id = randomUUID()
    await addBoard({ id, maker: 'Tarnworks', name: id, revision: '', socketId: null, notes: '' })
    const text = readFileSync('docs/examples/k61.ipc', 'utf8')
    const out = async () => gunzipSync((await mapFileOf(id, 'netlist'))!.gzip).toString()
    expect(await keptMapOf(id)).toEqual({ netlist: null, placements: null })
    expect(await mapFileOf(id, 'netlist')).toBeNull()
    await keepMapFile(id, 'netlist', { name: 'old', say: '1 part', text: 'old' })
    await keepMapFile(id, 'netlist', { name: 'k61', say: '121 parts', text })
    await keepMapFile(id, 'placements', { name: '', say: '90 parts', text: 'part,x,y' })
    expect(await out()).toBe(text)
    expect(await keptMapOf(id)).toEqual({ netlist: 'k61: 121 parts', placements: '90 parts' })
    await dropMapFile(id, 'netlist')
    expect(await keptMapOf(id)).toEqual({ netlist: null, placements: '90 parts' })
  })
})

describeDatabase('the shelf', () => {
  it('has everything until something is said to be away, and has it again', async () => {
    expect(await shelf()).toEqual(shelfItems)
    await putOnShelf('scope', false)
    await putOnShelf('scope', false)
    expect(await shelf()).not.toContain('scope')
    await putOnShelf('scope', true)
    expect(await shelf()).toEqual(shelfItems)
  })
})

describeDatabase('a shop’s own odds', () => {
  it('take the place of those it had, and go', async () => {
    await keepFaultOdds({ module: 0.2, CPU: 0.01 })
    await keepFaultOdds({ module: 0.1 })
    expect(await ownFaultOdds()).toEqual({ module: 0.1 })
    await expect(keepFaultOdds({ module: 1.5 })).rejects.toThrow()
    expect(await ownFaultOdds()).toEqual({ module: 0.1 })
    await keepFaultOdds({})
    expect(await ownFaultOdds()).toEqual({})
  })
  it('keeps the figures of its bench, all or nothing; what it does not say is the default again', async () => {
    await keepFigures({ hourMinor: 90_000, withALoss: 0.5 })
    expect(await ownFigures()).toEqual({ hourMinor: 90_000, withALoss: 0.5 })
    await expect(keepFigures({ hourMinor: 'much' as never })).rejects.toThrow()
    expect(await ownFigures()).toEqual({ hourMinor: 90_000, withALoss: 0.5 })
    await keepFigures({})
    expect(await ownFigures()).toEqual({})
  })
})

describeDatabase('a hidden board', () => {
  it('hides once, is shown once, and remembers the line it was shown at', async () => {
    const ines = await somebody('Ines')
    const job = await someJob(ines)
    expect(await hiddenBoardOf(job.id)).toBeNull()
    const best = { minutes: 41.5, right: 0.8, draws: 5 }
    await hideBoard(job.id, { faults: ['module'], seed: 4, best })
    await hideBoard(job.id, { faults: ['CPU'], seed: 5 })
    expect(await hiddenBoardOf(job.id)).toEqual({
      faults: ['module'],
      seed: 4,
      marks: {},
      best,
      shownSeq: null,
    })
    await lay(job, ines, 'note', { text: 'one' })
    await showBoard(job.id)
    await lay(job, ines, 'note', { text: 'two' })
    await showBoard(job.id)
    expect((await hiddenBoardOf(job.id))?.shownSeq).toBe(1)
  })
  it('of a practice board stands neither on the bench nor among a board’s earlier jobs', async () => {
    const ines = await somebody('Ines')
    const tag = await createJob(randomUUID(), ines.id, undefined, null, true)
    const practice = (await jobByTag(tag))!
    expect(tag).toMatch(/^P-\d{4}$/)
    const serial = randomUUID()
    await lay(practice, ines, 'ticket', { set: { serial } })
    const job = await someJob(ines)
    await lay(job, ines, 'ticket', { set: { serial } })
    expect((await openJobs()).map((j) => j.tag)).not.toContain(tag)
    expect((await practiceBoards()).map((j) => j.tag)).toContain(tag)
    expect(await earlierJobs(job, serial)).toEqual([])
  })
})

describeDatabase('a board that comes back', () => {
  it('finds its earlier jobs by serial, with what was done', async () => {
    const ines = await somebody('Ines')
    const serial = randomUUID()
    const before = await someJob(ines)
    await lay(before, ines, 'ticket', { set: { serial, complaint: 'dark' } })
    await lay(before, ines, 'mended', { fault: '12 V short' })
    await lay(before, ines, 'part', { ref: 'C14', did: 'fitted', value: '22 µF' })
    await lay(before, ines, 'part', { ref: 'C15', did: 'measured' })
    await lay(before, ines, 'advice', { text: 'keep it dry' })
    const now = await someJob(ines)
    await lay(now, ines, 'ticket', { set: { serial } })
    expect(await earlierJobs(now, serial)).toMatchObject([
      {
        tag: before.tag,
        complaint: 'dark',
        outcome: null,
        mended: ['12 V short'],
        parts: ['C14 22 µF'],
        contacts: 0,
        advice: ['keep it dry'],
      },
    ])
    expect(await earlierJobs(before, serial)).toEqual([])
    expect(await earlierJobs(now, ' ')).toEqual([])
  })
})
