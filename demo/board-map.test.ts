import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { indexMap, socketOnMap, twinsOf } from '@/core/parts/board-map/board-map'
import { readNetlist } from '@/core/parts/board-map/netlist'
import { writeNetlist } from '@/core/parts/board-map/write-netlist'
import { madeBoard } from './board-map'
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
    expect(twinsOf(of, 'R213')).toContain('R216')
  })
})
