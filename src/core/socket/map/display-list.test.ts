import { describe, expect, it } from 'vitest'
import { displayList, plainView } from './display-list'
import { smallField } from '../model/field.testing'
import { damageKinds } from '../damage/mark'
import { comparePasses, passMarks } from '../damage/pass'
import { toSvg } from './svg'
import { zonesOf } from '../model/zones'

const socket = smallField()
const looked = Object.fromEntries(socket.contacts.map((c) => [c.name, true as const]))
const inked = (marks: Parameters<typeof displayList>[1]) =>
  new Map(displayList(socket, marks).paths.map((p) => [p.ink, p.d]))
const circles = (d: string | undefined) => (d?.match(/M/g) ?? []).length

describe('displayList', () => {
  it('draws each healthy contact as a dot, dotted while nobody has looked', () => {
    expect(circles(inked(null).get('healthy'))).toBe(60)
    expect(circles(inked({ marks: {}, looked: {} }).get('unseen'))).toBe(60)
    const some = inked({ marks: {}, looked: { A1: true } })
    expect([circles(some.get('healthy')), circles(some.get('unseen'))]).toEqual([1, 59])
  })
  it('gives each kind of damage a drawing of its own', () => {
    const drawn = damageKinds.slice(1).map((kind) => {
      const paths = inked({
        marks: {
          B2: {
            kind,
            leanMm: [0.1, 0],
            ...(kind === 'touching' || kind === 'folded' ? { touches: 'B3' } : {}),
          },
        },
        looked,
      })
      expect(circles(paths.get('healthy'))).toBe(59)
      return ['stroke', 'head', 'ring', 'danger stroke', 'danger head', 'tie']
        .map((ink) => paths.get(ink as 'stroke') ?? '')
        .join('|')
    })
    expect(new Set(drawn).size).toBe(damageKinds.length - 1)
  })
  it('draws the lean as the stroke, exaggerated, and turns and mirrors it with the view', () => {
    const stroke = (view: typeof plainView) =>
      displayList(socket, { marks: { B2: { kind: 'lean', leanMm: [0.1, 0] } }, looked }, view).paths.find(
        (p) => p.ink === 'stroke',
      )!.d
    expect(stroke({ ...plainView, exaggeration: 2 })).toBe('M-2.5 -2.5L-2.3 -2.5')
    expect(stroke({ ...plainView, exaggeration: 2, mirrored: true })).toBe('M2.5 -2.5L2.3 -2.5')
    expect(stroke({ ...plainView, exaggeration: 2, quarterTurns: 1 })).toBe('M2.5 -2.5L2.5 -2.3')
  })
  it('lays the ground of contacts side by side as one piece, covering what each of them did', () => {
    const guessed = smallField('land-grid', 'region')
    const paths = new Map(displayList(guessed, null).ground.map((p) => [p.ink, p.d]))
    const zones = zonesOf(guessed)
    for (const zone of ['memory', 'power'] as const) {
      const d = paths.get(`zone ${zone}`) ?? ''
      const wide = [...d.matchAll(/M\S+ \S+h(\S+?)v/g)].reduce((sum, m) => sum + Number(m[1]), 0)
      expect(wide).toBeCloseTo(zones.filter((z) => z === zone).length * guessed.pitchMm, 6)
      expect(circles(d)).toBeLessThan(zones.filter((z) => z === zone).length / 2 + 1)
    }
    const lines = [...paths.get('untrusted')!.matchAll(/M(\S+) (\S+?)L(\S+) (\S+?)(?=M|$)/g)]
    const pitches = lines.reduce((sum, [, x0, , x1]) => sum + (Number(x1) - Number(x0)), 0)
    expect(pitches).toBeCloseTo(guessed.contacts.length * guessed.pitchMm, 6)
    expect(lines.length).toBeLessThan(guessed.contacts.length / 2)
    for (const [, x0, y0, x1, y1] of lines)
      expect(Number(x1) - Number(x0)).toBeCloseTo(Number(y0) - Number(y1), 6)
  })
  it('gives the dots by their places too, and as paths only when asked', () => {
    const { dots, ground, marked, paths } = displayList(socket, { marks: {}, looked: { A1: true } })
    expect([dots.healthy.at.length, dots.unseen.at.length]).toEqual([2, 118])
    const [a1, a2] = socket.contacts
    expect([...dots.healthy.at]).toEqual([a1!.xMm, -a1!.yMm])
    expect([...dots.unseen.at.subarray(0, 2)]).toEqual([a2!.xMm, -a2!.yMm])
    expect(ground.some((p) => p.ink === 'healthy' || p.ink === 'unseen')).toBe(false)
    expect(marked).toEqual([])
    expect(paths.length).toBe(ground.length + 2)
    // The ground is drawn again only when it is another.
    expect(displayList(socket, { marks: { A1: { kind: 'low' } }, looked: {} }).ground).toBe(ground)
  })
  it('tells apart what nobody inspected, what was inspected and what was marked sound', () => {
    const { dots, paths } = displayList(socket, {
      marks: { A1: { kind: 'intact' }, A2: { kind: 'low' } },
      looked: { A3: true },
    })
    expect([dots.sound.at.length, dots.healthy.at.length, dots.unseen.at.length]).toEqual([2, 2, 114])
    expect(paths.map((p) => p.ink)).toContain('sound')
  })
  it('hatches what is only guessed', () => {
    expect(inked(null).has('untrusted')).toBe(false)
    expect(
      displayList(smallField('land-grid', 'region'), null).paths.some((p) => p.ink === 'untrusted'),
    ).toBe(true)
  })
})

it('zones let a ground belong to what stands round it', () => {
  const zones = zonesOf(socket)
  expect(zones[socket.contacts.findIndex((c) => c.name === 'A1')]).toBe('memory')
  expect(zones[socket.contacts.findIndex((c) => c.name === 'C1')]).toBe('memory')
  expect(zones[socket.contacts.findIndex((c) => c.name === 'F2')]).toBeNull()
})

it('toSvg is one picture with its title escaped', () => {
  const svg = toSvg(displayList(socket, null), 1, 'scope', 'a <b> & "c"')
  expect(svg).toMatch(/^<svg [^>]*viewBox="/)
  expect(svg).toContain('<title>a &lt;b&gt; &amp; &quot;c&quot;</title>')
  expect(svg).not.toContain('NaN')
})

describe('passes', () => {
  const low = { kind: 'low', heightMm: -0.1 } as const
  it('are compared contact by contact, in the order a person reads', () => {
    const changes = comparePasses(
      { B2: low, B10: low, C1: low },
      { B2: low, C1: { kind: 'snapped' }, D1: low },
    )
    expect(changes.map((c) => [c.contact, c.change])).toEqual([
      ['B2', 'same'],
      ['B10', 'mended'],
      ['C1', 'other'],
      ['D1', 'new'],
    ])
  })
  it('stand for what was found, the last for what is there now', () => {
    const pass = { name: 'x', at: '', looked: {}, found: { A1: low }, marks: {} }
    expect(passMarks([pass, pass], 0)).toEqual({ A1: low })
    expect(passMarks([pass, pass], 1)).toEqual({})
    expect(passMarks([], 0)).toEqual({})
  })
})
