import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { indexMap, socketOnMap, twinsOf } from '@/core/parts/board-map/board-map'
import { readNetlist } from '@/core/parts/board-map/netlist'
import { padsByMap } from '@/core/parts/board-map/known-of-part'
import { placementsIn } from '@/tables/read-board-map'
import { writeNetlist } from '@/core/parts/board-map/write-netlist'
import { madeBoard, madePlacements } from './board-map'
import { demoSockets } from './sockets'

describe('the made-up board', () => {
  const text = writeNetlist(madeBoard(demoSockets.lg1284))
  it('is the example of the documents', () => {
    expect(readFileSync('docs/examples/k61.ipc', 'utf8')).toBe(text)
  })
  it('is read without a finding, its socket joined contact by contact', () => {
    const { map, findings } = readNetlist(text)
    expect(findings).toEqual([])
    const of = indexMap(map!)
    const contacts = demoSockets.lg1284.contacts
    const socket = socketOnMap(
      of,
      contacts.map((c) => c.name),
    )!
    expect(socket).toMatchObject({ ref: 'XU1', unknown: 0 })
    for (const c of contacts)
      expect(socket.nets.get(c.name)).toBe(c.group === 'reserved' || c.group === 'unknown' ? '' : c.net)
    expect(twinsOf(of, 'R213')).toContain('R212')
  })
  it('has a list of its small parts that is read without a finding, each with its value but for the one that has gone', () => {
    const { placements, findings } = placementsIn(madePlacements(madeBoard(demoSockets.lg1284)))
    expect(findings).toEqual([])
    const of = indexMap(readNetlist(text).map!, placements)
    expect(of.parts.get('R213')!.value).toBe('33')
    expect(of.parts.get('R214')!.value).toBe('')
    // The clock’s own resistor stands in the same row, and is no twin of a data line’s.
    expect(padsByMap(of, 'R216')!.twins).toEqual([])
    expect(padsByMap(of, 'R214')).toMatchObject({ a: 'SPI_MISO', b: 'PCH_MISO' })
    expect(padsByMap(of, 'R214')!.twins.map((t) => t.ref)).toEqual(['R211', 'R212', 'R213', 'R215'])
  })
})
