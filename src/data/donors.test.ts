import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { smallField } from '@/core/socket/model/field.testing'
import { describeDatabase, lay, line, somebody, someJob } from './database.testing'
import { donors, dropDonor, keepDonor } from './donors'
import { addSocket } from './sockets'
import { strokeRecord } from './stroke-record'
import { appendEntry } from './tape'

describeDatabase('donor sockets', () => {
  it('are counted down by each transplant and each practice pull, and up again when its line is struck', async () => {
    const [ines, id, name] = [await somebody('Ines'), randomUUID(), `donor ${randomUUID()}`]
    await addSocket({ ...smallField(), id, name: id }, 'test')
    await keepDonor(name, id, 40)
    const job = await someJob(ines)
    const replaced = { contact: 'A1', donor: name, holds: true, pulledOut: [] }
    await lay(job, ines, 'replaced', { ...replaced, how: 'transplant' })
    await lay(job, ines, 'replaced', { ...replaced, how: 'transplant', holds: false })
    await lay(job, ines, 'replaced', { ...replaced, how: 'stub raise' })
    await lay(job, ines, 'pull', { came: 'bent', donor: name })
    await lay(job, ines, 'pull', { came: 'whole' })
    expect(await donors(id)).toEqual([{ name, socketId: id, socketName: id, left: 37 }])
    await appendEntry(job.id, ines, line('strike', { why: 'wrong job' }, 5, 2))
    expect((await donors(id))[0]!.left).toBe(38)
    await keepDonor(name, id, 1)
    expect((await donors(id))[0]!.left).toBe(0)
    await dropDonor(name)
    expect(await donors(id)).toEqual([])
  })
})

describeDatabase('the record of strokes', () => {
  it('counts what was tried and what snapped by technique, damage, light and magnification; struck lines and lines without odds do not count', async () => {
    const ines = await somebody('Ines')
    const job = await someJob(ines)
    const technique = `push ${randomUUID().slice(0, 8)}`
    const stroke = {
      contact: 'A1',
      technique,
      tool: 'needle',
      from: null,
      strokes: 1,
      damage: 'lean' as const,
    }
    await lay(job, ines, 'stroke', { ...stroke, result: 'there', predictedSnaps: 0.1 })
    await lay(job, ines, 'stroke', { ...stroke, result: 'snapped', predictedSnaps: 0.2 })
    await lay(job, ines, 'stroke', {
      ...stroke,
      result: 'there',
      predictedSnaps: 0.4,
      snapFactor: 2,
      light: 'ring',
    })
    await lay(job, ines, 'stroke', { ...stroke, result: 'snapped', predictedSnaps: null })
    await lay(job, ines, 'stroke', { ...stroke, result: 'snapped', predictedSnaps: 0.4 })
    await appendEntry(job.id, ines, line('strike', { why: 'mistyped' }, 5, 5))
    const own = (await strokeRecord()).filter((t) => t.technique === technique)
    const of = { technique, damage: 'lean', magnification: null }
    expect(own).toEqual([
      { ...of, light: 'ring', tried: 1, snapped: 0, predicted: expect.closeTo(0.2, 9) as number },
      { ...of, light: null, tried: 2, snapped: 1, predicted: expect.closeTo(0.3, 9) as number },
    ])
  })
})
