import type { Entry } from './job-state'
import { kinds, sayEntry, tapeFindings } from './job-state'
import { describe, expect, it } from 'vitest'
import { temperatureKept } from '../proof/bodies.testing'
import { canonical } from '../tape/canonical'
import { lifted, tape } from './tape.testing'
const good = () =>
  tape()
    .put('claim', { text: 'x' })
    .put('claim checked', { claim: 1, verdict: 'holds', how: '' })
    .put('strike', { why: 'y' }, 2)
const changed = (i: number, change: Partial<Entry>): Entry[] =>
  good().entries.map((e, k) => (k === i ? ({ ...e, ...change } as Entry) : e))

describe('tapeFindings', () => {
  it('finds nothing in a whole tape', () => expect(tapeFindings(good().entries)).toEqual([]))
  it.each([
    ['a gap', 1, { seq: 5 }, 'line 2 is numbered 5'],
    ['a doubled id', 1, { id: good().entries[0]!.id }, 'it has the id of line 1'],
    ['a strike of the future', 2, { strikes: 3 }, 'it strikes line 3, which is not before it'],
    [
      'an answer to another kind',
      1,
      { kind: 'offer answered', body: { offer: 1, approved: true, how: '' } },
      'it answers line 1, which is a claim',
    ],
    [
      'an answer to nothing',
      1,
      { body: { claim: 9, verdict: 'holds', how: '' } },
      'it answers line 9, which is not before it',
    ],
  ] as const)('finds %s', (_, i, change, text) => {
    expect(tapeFindings(changed(i, change as Partial<Entry>)).map((f) => f.text)).toContain(text)
  })
})

it('canonical text is equal for equal values, whatever the order of keys, and drops undefined', () => {
  expect(canonical({ b: [1, { d: 2, c: undefined }], a: null })).toBe(
    canonical({ a: null, b: [1, { d: 2 }] }),
  )
  expect(canonical({ a: 1 })).not.toBe(canonical({ a: '1' }))
})

it('every kind of entry has its words', () => {
  const t = tape()
    .put('ticket', { set: { cpu: 'x', memory: 'y' } })
    .put('claim', { text: 'it worked' })
    .put('claim weighed', { claim: 2, test: 'cell', outcome: 'low', reliability: 0.4 })
    .put('claim checked', { claim: 2, verdict: 'wrong', how: 'salt' })
    .put('consent', { risks: ['a'], limitMinor: null, signature: null, how: 'by telephone' })
    .put('offer', { text: 'more', limitMinor: 1, minutes: 1 })
    .put('offer answered', { offer: 5, approved: false, how: 'by telephone' })
    .put('photo', { file: '', name: 'a.png', type: 'image/png', bytes: 1, caption: '' })
    .put('note', { text: 'n' })
    .put('decision', { text: 'straighten' })
    .put('rail', { rail: 'vmem', ohms: 221, cpu: 'out' })
    .put('pads', { ref: 'R1', a: { groundOhm: 0.2 }, b: {} })
    .put('recipe', {
      ref: 'U7',
      board: { wideMm: 170, highMm: 170 },
      target: 'firmware chip',
      solder: 'lead-free',
      nozzleMm: 10,
      distanceMm: 8,
      roomC: 23,
      spared: [],
      steps: [{ seconds: 180, airC: 340, flow: 40, preheatWm2: 1500 }],
      floatsAtS: 165,
    })
    .put('parts counted', { place: 'at the firmware chip', count: 14, of: 15 })
    .put('awaited', { what: 'two capacitors', expectedOn: '2026-12-01' })
    .put('awaited settled', { awaited: 3, how: 'arrived' })
    .put('deferred', { text: 'second header burnt' })
    .put('deferred settled', { deferred: 3, how: 'signed off', why: 'no header here' })
    .put('pull', { came: 'whole', donor: 'kiosk board' })
    .put('stock', { item: 'flux', did: 'reserved' })
    .put('thermocouple', { at: 'board', s: 90, c: 112 })
    .put('volts', { rail: '12v', volts: 12 })
    .put('cell', { volts: 3 })
    .put('codes', { codes: ['4C', '31'], watchedS: 90.4 })
    .put('current', {
      name: 'a.csv',
      samples: 900,
      pattern: 'cycling',
      standbyA: 0.05,
      plateauA: null,
      peakA: 1.24,
      periodS: 2.41,
      segments: [],
      curve: { s: [0, 1], a: [0, 1] },
    })
    .put('swap', { what: 'module', part: 'own', place: 'A', knownGood: false, outcome: 'memory lamp' })
    .put('runs', { ratedMTs: 2667, seenMTs: 2133, startS: 41, settingsKept: false })
    .put('baseline', {
      fans: 'on',
      current: 'steady',
      amps: 1,
      lamp: 'cpu',
      beeps: 'long',
      cpuHeat: 'warm',
      codes: ['4C'],
      picture: 'none',
    })
    .put('fitted', { cpu: null, heatsink: true, modules: ['A1'], card: null })
    .put('supply', { limitA: null })
    .put('look', { what: 'outside', seen: 'flux', clear: false })
    .put('pass', { name: 'before' })
    .put('looked', { contacts: ['A1', 'A2'] })
    .put('mark', {
      contacts: ['A1'],
      mark: { kind: 'low', heightMm: -0.19, leanMm: [0.1, 0.1], touches: 'A2', unsure: true },
    })
    .put('stroke', lifted('A1'))
    .put('left', { contact: 'A1', why: 'redundant' })
    .put('replaced', { contact: 'A1', how: 'transplant', donor: 'old LG', holds: true, pulledOut: [] })
    .put('school', { school: 'B' })
    .put('seat', { cpu: 'x', drop: 'flat', heatsink: true })
    .put('missing', { what: 'tip', from: 'socket' })
    .put('accounted', { item: 26, where: 'dish' })
    .put('image', { file: '', name: 'read.bin', bytes: 2_097_152, role: 'read', versions: ['1.40'] })
    .put('written', {
      image: '',
      release: null,
      backup: null,
      id: '33 60 15',
      erased: 1,
      programmed: 2,
      despite: [],
    })
    .put('compared', {
      original: '',
      second: null,
      release: '',
      older: null,
      label: null,
      verdict: 'same code',
      say: 'Same code.',
      why: [],
      places: [],
    })
    .put('firmware', {
      version: '1.40',
      chip: 'LSN',
      chipVolts: 1.8,
      programmerVolts: 1.8,
      clipOn: true,
      did: 'read',
    })
    .put('chip moved', { to: 'off', by: 'hot air', despite: [] })
    .put('refit', {
      orientation: 'right',
      pads: 'whole',
      joints: 'sound',
      seated: true,
      reflowed: true,
      lines: { CS: 33, GND: null },
    })
    .put('route', {
      want: { cpu: 'Orrin 53', release: null },
      by: 'time',
      hand: [],
      ways: [],
      steps: [],
      minutes: 0,
      risk: 0,
      price: 0,
      trust: 1,
      unstable: false,
    })
    .put('part', { ref: 'R1', did: 'fitted', value: '33 Ω', text: 'twin' })
    .put('opinion asked', { text: 'is it the light?', of: '', photos: [] })
    .put('trial', { test: 'cell', outcome: 'low' })
    .put('mended', { fault: 'module' })
    .put('odds said', { odds: 0.7, reckoned: 0.55 })
    .put('temperature', temperatureKept)
    .put('cold start', { came: false })
    .put('proof', { test: 'system', result: 'pass', reading: 'ok' })
    .put('advice', { text: 'no cloth' })
    .put('hand-back', { outcome: 'fixed', priceMinor: 1, text: '' })
    .put('sheet signed', { signature: null, how: 'on paper' })
    .put('machine', { came: true })
    .put('reassembled', { check: 'front wiring', ok: false, note: 'reset pinched' })
    .put('late outcome', { text: 'runs', holds: true })
    .put('clock', { run: null })
    .put('station', { station: 'parts', mark: 'passed over', why: 'none missing' })
    .put('strike', { why: 'wrong' }, 1)
  expect(t.entries.map((e) => e.kind).sort()).toEqual([...kinds].sort())
  expect(t.entries.map(sayEntry)).toMatchInlineSnapshot(`
    [
      "ticket: CPU, memory",
      "it worked",
      "line 2 means cell: low, believed 40 %",
      "checked line 2: wrong, salt",
      "owner agreed to 1 risk, by telephone",
      "changed offer: more",
      "owner refuses the offer (by telephone)",
      "photo, a.png",
      "n",
      "decided: straighten",
      "memory rail to ground 221 Ω, CPU out",
      "R1: pad A 0.2 Ω to ground; pad B not read",
      "heat recipe, firmware chip U7, nozzle 10 mm at 8 mm, preheat 0.15 W/cm², air to 340 °C, floats at 2:45",
      "14 small parts counted, at the firmware chip, of 15: 1 missing",
      "awaited: two capacitors, expected on 2026-12-01",
      "line 3: arrived",
      "left for later: second header burnt",
      "line 3 signed off: no header here",
      "practice pull from kiosk board: came whole",
      "shelf: flux reserved",
      "thermocouple at the board: 112 °C at 90 s",
      "12 V rail at 12 V",
      "cell 3 V",
      "codes 4C 31, watched 90 s",
      "current recorded: cycles every 2.4 s, peak 1.24 A",
      "module own in A: memory LED",
      "runs: memory at 2133 of 2667 MT/s, starts in 41 s, settings lost",
      "powered: fans on, current steady 1 A, debug LED CPU, beeps long, CPU warm, codes 4C, picture none",
      "fitted: CPU out, heatsink on, memory in A1, no card",
      "supply: limit off",
      "looked at outside: flux",
      "inspection: before",
      "2 contacts inspected",
      "A1 low by 0.19 mm, leaning 0.14 mm, on A2, not sure",
      "A1 lift, 1 stroke, straight",
      "A1 left as it is: redundant",
      "A1: transplant from old LG, it holds",
      "order: worst first",
      "seated x: flat",
      "to be accounted for: tip",
      "line 26 accounted for: dish",
      "chip read: read.bin, 2 MiB, version 1.40",
      "backup put back on the chip, every byte read back, 1 blocks erased",
      "chip beside the release: Same code.",
      "version 1.40 seen, chip LSN, 1.8 V chip, programmer at 1.8 V, clip on, read",
      "firmware chip off the board, by hot air",
      "fitted chip: pin 1 right, reflowed, pads whole, joints sound, all that was moved is home, to the far end CS 33 Ω, GND open",
      "wanted: Orrin 53; route of 0 steps, 0 min",
      "R1 fitted, 33 Ω, twin",
      "second opinion asked: is it the light?",
      "cell low",
      "repaired: module",
      "said before the start: 70 % that there is a picture, reckoned 55 %",
      "temperature under load, log.csv: levels off at 61 °C (60 °C to 63 °C), 85 °C is the most",
      "cold start: stayed dark",
      "system: pass, ok",
      "advice: no cloth",
      "handed back: fixed",
      "sheet signed, on paper",
      "its machine is here",
      "Front-panel wiring: not in order, reset pinched",
      "later: runs",
      "clock paused",
      "parts skipped: none missing",
      "struck line 1: wrong",
    ]
  `)
})
