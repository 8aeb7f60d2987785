import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMarks, smallField } from '../model/field.testing'
import { clearance, contactCapsule, segmentDistance, shorts } from './short'
import { forbidPower, gradeForPower, possibleShorts, weighShorts } from './closing-shorts'
import { benchBeam } from '../contact/contact-force'
import type { Mark } from './mark'
import { fieldOf } from '../model/socket'
import type { Contact } from '../model/socket'

const at = fc.integer({ min: -2000, max: 2000 }).map((n) => n / 1000)
const point = fc.tuple(at, at, at)
type Point = readonly [number, number, number]

/** Distance by refining a grid over both segments. */
function searched(p1: Point, q1: Point, p2: Point, q2: Point): number {
  const on = (p: Point, q: Point, t: number) => p.map((v, i) => v + (q[i]! - v) * t)
  let [s0, t0, width] = [0.5, 0.5, 0.5]
  let best = Infinity
  for (let round = 0; round < 40; round++) {
    let [bs, bt] = [s0, t0]
    for (let i = -4; i <= 4; i++)
      for (let j = -4; j <= 4; j++) {
        const s = Math.min(1, Math.max(0, s0 + (i / 4) * width))
        const t = Math.min(1, Math.max(0, t0 + (j / 4) * width))
        const [a, b] = [on(p1, q1, s), on(p2, q2, t)]
        const d = Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!)
        if (d < best) [best, bs, bt] = [d, s, t]
      }
    ;[s0, t0, width] = [bs, bt, width * 0.7]
  }
  return best
}

describe('segmentDistance', () => {
  it('equals the searched least distance', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        // The search ends a little above the least, the more so the nearer the two come.
        const [exact, found] = [segmentDistance(a, b, c, d), searched(a, b, c, d)]
        expect(exact).toBeLessThanOrEqual(found + 1e-9)
        expect(found - exact).toBeLessThan(0.005)
      }),
      { numRuns: 200 },
    )
  })
  it('does not mind the order of the two or of their ends, nor points and parallels', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        const distance = segmentDistance(a, b, c, d)
        expect(segmentDistance(c, d, a, b)).toBeCloseTo(distance, 9)
        expect(segmentDistance(b, a, d, c)).toBeCloseTo(distance, 9)
      }),
    )
    expect(segmentDistance([0, 0, 0], [0, 0, 0], [3, 4, 0], [3, 4, 0])).toBe(5)
    expect(segmentDistance([0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0])).toBe(1)
  })
})

describe('segments that are points, at their ends or beside them', () => {
  const from: Point = [0, 0, 0]
  const to: Point = [2, 0, 0]
  it.each<[string, Point, Point, number]>([
    ['a point above the middle', [1, 3, 0], [1, 3, 0], 3],
    ['a point beyond the end', [5, 4, 0], [5, 4, 0], 5],
    ['a point before the beginning', [-3, 4, 0], [-3, 4, 0], 5],
    ['one that ends above it', [1, 2, 0], [1, 5, 0], 2],
    ['one that begins above it', [1, 5, 0], [1, 2, 0], 2],
    ['one beyond its end', [5, 4, 0], [5, 9, 0], 5],
    ['one beyond its end, the other way round', [5, 9, 0], [5, 4, 0], 5],
    ['one before its beginning', [-3, 4, 0], [-3, 9, 0], 5],
    ['one that crosses it, a height above', [1, -1, 2], [1, 1, 2], 2],
    ['one along it, further on', [4, 0, 0], [6, 0, 0], 2],
    ['one along it, further back', [-6, 0, 0], [-4, 0, 0], 4],
  ])('%s', (_, a, b, distance) => {
    expect(segmentDistance(from, to, a, b)).toBeCloseTo(distance, 12)
    expect(segmentDistance(a, b, from, to)).toBeCloseTo(distance, 12)
    expect(segmentDistance(to, from, b, a)).toBeCloseTo(distance, 12)
  })
})

describe('a contact as a rod', () => {
  const contact = { ...smallField().contacts[0]!, xMm: 3, yMm: 2, beamDeg: 30 }
  const [cos, sin] = [Math.sqrt(3) / 2, 0.5]
  const foot = [3 - 0.45 * cos, 2 - 0.45 * sin, 0]
  const near = (of: readonly number[]) => of.map((v) => expect.closeTo(v, 9) as number)
  const of = (mark?: Mark, kind?: 'land-grid' | 'pin-grid', towards?: Contact) =>
    contactCapsule(contact, mark, towards, kind)
  const strip = benchBeam.widthMm / 2
  it.each<[string, () => ReturnType<typeof of>, object | null]>([
    ['sound', () => of(), { from: near(foot), to: near([3, 2, 0.5]), radiusMm: strip }],
    [
      'a sound pin',
      () => of(undefined, 'pin-grid'),
      { from: near([3, 2, 0]), to: near([3, 2, 0.5]), radiusMm: benchBeam.pinRadiusMm },
    ],
    ['snapped', () => of({ kind: 'snapped' }), null],
    [
      'its tip gone',
      () => of({ kind: 'tip gone' }),
      { from: near(foot), to: near([(foot[0]! + 3) / 2, (foot[1]! + 2) / 2, 0.25]), radiusMm: strip },
    ],
    [
      'leaning',
      () => of({ kind: 'lean', leanMm: [0.1, -0.2] }),
      { from: near(foot), to: near([3.1, 1.8, 0.5]), radiusMm: strip },
    ],
    [
      'a little low: the CPU presses it level with the rest',
      () => of({ kind: 'low', heightMm: -0.1 }),
      { to: near([3, 2, 0.5]) },
    ],
    [
      'far too low: it stays below',
      () => of({ kind: 'low', heightMm: -0.4 }),
      { to: near([3, 2, 0.5 + benchBeam.workingDeflectionMm - 0.4]) },
    ],
    [
      'folded back over nobody',
      () => of({ kind: 'folded' }),
      { from: near(foot), to: near([foot[0]! - 0.45 * cos, foot[1]! - 0.45 * sin, 0.2]) },
    ],
    [
      'folded over a neighbour',
      () => of({ kind: 'folded' }, 'land-grid', { ...contact, xMm: 4, yMm: 5 }),
      { from: near(foot), to: near([4, 5, 0.3]) },
    ],
  ])('%s', (_, rod, is) => {
    if (is === null) expect(rod()).toBeNull()
    else expect(rod()).toMatchObject(is)
  })
})

describe('what may touch, judged for power', () => {
  const socket = smallField()
  const [one, other] = [socket.contacts[0]!, socket.contacts[1]!]
  const same = (a: Contact['trust'], b: Contact['trust']) =>
    gradeForPower({ ...one, trust: a, net: 'N' }, { ...other, trust: b, net: 'N' })
  it('that two share a net is believed of a table, not of a painted region', () => {
    const trusts = [...new Set(['table', 'region', 'none', one.trust])] as Contact['trust'][]
    for (const a of trusts)
      for (const b of trusts) {
        const guessed = [a, b].some((t) => t === 'region' || t === 'none')
        expect(same(a, b), `${a} and ${b}`).toBe(guessed ? 'unknown' : 'harmless')
      }
    expect(
      gradeForPower(
        { ...one, trust: 'region', group: 'core power', net: 'V' },
        { ...other, group: 'ground', net: 'G' },
      ),
    ).toBe('gravest')
  })
  it('forbids power for each that closes alone, and for all that close together', () => {
    const touching = { C4: { kind: 'touching', touches: 'C5' } } as const
    expect([...forbidPower(socket, touching)].sort()).toEqual(['C4', 'C5'])
    expect(forbidPower(socket, {}).size).toBe(0)
    const leaning: Record<string, Mark> = { C4: { kind: 'lean', leanMm: [0.52, 0] } }
    const { alone, together } = weighShorts(possibleShorts(socket, leaning))
    const closed = (['harmful', 'signal'] as const).filter((h) => together[h].level === 'closed')
    const wanted = [...alone, ...closed.flatMap((h) => together[h].pairs)].flatMap((s) => [s.a, s.b])
    expect([...forbidPower(socket, leaning)].sort()).toEqual([...new Set(wanted)].sort())
  })
  it('forbids power for several that close together only', () => {
    // Pairs side by side between supplies, far enough from each other, whose tips lean at one another by so much.
    const pairs = socket.contacts.flatMap((a) =>
      socket.contacts.flatMap((b) => {
        const side = Math.abs(b.xMm - a.xMm - socket.pitchMm) < 1e-6 && Math.abs(b.yMm - a.yMm) < 1e-6
        return side && ['gravest', 'grave'].includes(gradeForPower(a, b)) ? [[a.name, b.name] as const] : []
      }),
    )
    const used = new Set<string>()
    const apart = pairs.filter((pair) => {
      const free = pair.every((n) => !used.has(n))
      if (free) for (const n of pair) used.add(n)
      return free
    })
    const leaning = (some: typeof apart, mm: number): Record<string, Mark> =>
      Object.fromEntries(
        some.flatMap(([a, b]) => [
          [a, { kind: 'lean', leanMm: [mm, 0] }],
          [b, { kind: 'lean', leanMm: [-mm, 0] }],
        ]),
      )
    expect(apart.length).toBeGreaterThan(1)
    const two = apart.slice(0, 2)
    const odds = (mm: number) => possibleShorts(socket, leaning(two.slice(0, 1), mm))[0]?.odds ?? 0
    const mm = Array.from({ length: 400 }, (_, i) => 0.2 + i * 0.0005).find(
      (m) => odds(m) > 0.065 && odds(m) < 0.09,
    )!
    expect(forbidPower(socket, leaning(two.slice(0, 1), mm)).size).toBe(0)
    expect([...forbidPower(socket, leaning(two, mm))].sort()).toEqual(two.flat().sort())
  })
  it('weighs together what does not close alone, by harm, leaving what is harmless out', () => {
    const pair = (odds: number, grade: 'gravest' | 'signal' | 'harmless') => ({ a: 'A', b: 'B', odds, grade })
    const level = (...pairs: ReturnType<typeof pair>[]) => {
      const { alone, together } = weighShorts(pairs)
      return [alone.length, together.harmful.level, together.signal.level]
    }
    expect(level(pair(1, 'harmless'), pair(0.5, 'harmless'))).toEqual([0, 'nothing', 'nothing'])
    expect(level(pair(0.019, 'gravest'))).toEqual([0, 'nothing', 'nothing'])
    expect(level(pair(0.02, 'gravest'))).toEqual([0, 'limit', 'nothing'])
    expect(level(pair(0.06, 'gravest'), pair(0.06, 'gravest'))).toEqual([0, 'closed', 'nothing'])
    expect(level(pair(0.1, 'gravest'))).toEqual([1, 'nothing', 'nothing'])
    expect(level(pair(0.05, 'signal'))).toEqual([0, 'nothing', 'limit'])
    expect(level(pair(0.5, 'signal'))).toEqual([0, 'nothing', 'limit'])
    expect(level(pair(0.51, 'signal'))).toEqual([1, 'nothing', 'nothing'])
    expect(level(pair(0.4, 'signal'), pair(0.4, 'signal'))).toEqual([0, 'nothing', 'closed'])
  })
  it('says each pair whole: who, how, how far apart, how likely', async () => {
    const cases: readonly (readonly [string, 'land-grid' | 'pin-grid', Readonly<Record<string, Mark>>])[] = [
      ['seen', 'land-grid', { C4: { kind: 'touching', touches: 'C5' } }],
      [
        'seen from both ends',
        'land-grid',
        { C4: { kind: 'touching', touches: 'C5' }, C5: { kind: 'touching', touches: 'C4', unsure: true } },
      ],
      ['seen, not sure', 'land-grid', { C4: { kind: 'touching', touches: 'C5', unsure: true } }],
      [
        'may touch',
        'land-grid',
        { C4: { kind: 'lean', leanMm: [0.2, 0], maybe: 'touching', touches: 'C5' } },
      ],
      ['touches itself', 'land-grid', { C4: { kind: 'touching', touches: 'C4' } }],
      ['touches nobody named', 'land-grid', { C4: { kind: 'touching' } }],
      ['touches one that is not there', 'land-grid', { C4: { kind: 'touching', touches: 'Z99' } }],
      ['a lean', 'land-grid', { C4: { kind: 'lean', leanMm: [0.45, 0.1] } }],
      ['a lean the other way', 'land-grid', { C4: { kind: 'lean', leanMm: [-0.45, -0.3] } }],
      [
        'two that lean at each other',
        'land-grid',
        { C4: { kind: 'lean', leanMm: [0.3, 0] }, C5: { kind: 'lean', leanMm: [-0.3, 0] } },
      ],
      ['folded over nobody named', 'land-grid', { C4: { kind: 'folded' } }],
      ['may be folded', 'land-grid', { C4: { kind: 'snapped', maybe: 'folded' } }],
      ['folded over one two away', 'land-grid', { C4: { kind: 'folded', touches: 'D6' } }],
      ['tip gone, leaning', 'land-grid', { C4: { kind: 'tip gone', leanMm: [0.5, 0] } }],
      ['snapped', 'land-grid', { C4: { kind: 'snapped' } }],
      ['one that is no contact', 'land-grid', { Z99: { kind: 'folded' } }],
      ['a pin that leans', 'pin-grid', { C4: { kind: 'lean', leanMm: [0.7, 0] } }],
      ['a pin laid flat', 'pin-grid', { C4: { kind: 'folded' } }],
      ['a pin that may lie flat', 'pin-grid', { C4: { kind: 'lean', leanMm: [0.3, 0], maybe: 'folded' } }],
    ]
    const said = cases.map(([what, kind, marks]) => {
      const of = smallField(kind)
      return [
        `${what}, ${kind}: power forbidden by ${[...forbidPower(of, marks)].sort().join(' ') || 'nothing'}`,
        ...shorts(of, marks).map(
          (p) =>
            `  ${p.a} ${p.b} | ${p.how} | ${p.grade} | ${p.clearanceMm.toFixed(4)} mm | ${p.odds.toFixed(4)}`,
        ),
      ].join('\n')
    })
    // Where contacts stand closer than a strip is long, one that is folded reaches further than its neighbours; a pin does not.
    for (const kind of ['land-grid', 'pin-grid'] as const) {
      const wide = smallField(kind)
      const dense = {
        ...wide,
        pitchMm: wide.pitchMm / 3,
        contacts: wide.contacts.map((c) => ({ ...c, xMm: c.xMm / 3, yMm: c.yMm / 3 })),
      }
      for (const mark of [
        { kind: 'folded' },
        { kind: 'touching' },
        { kind: 'snapped', maybe: 'folded' },
        { kind: 'lean', leanMm: [0.05, 0], maybe: 'touching' },
      ] as const) {
        const found = shorts(dense, { C4: mark })
        const reach = found.filter((f) => f.how === 'reach')
        said.push(
          `${JSON.stringify(mark)}, dense ${kind}: ${reach.length} in reach, ${reach[0]?.odds.toFixed(4)} each; ${found.length - reach.length} near`,
        )
      }
    }
    await expect(`${said.join('\n')}\n`).toMatchFileSnapshot('__snapshots__/shorts.txt')
  })
})

describe('shorts', () => {
  const socket = smallField()
  it('finds none in a healthy field', () => {
    expect(shorts(socket, {})).toEqual([])
    expect(shorts(smallField('pin-grid'), {})).toEqual([])
  })
  it('takes a contact that was seen to touch as certain, and grades the join', () => {
    const [short] = shorts(socket, { C4: { kind: 'touching', touches: 'C5' } })
    expect(short).toMatchObject({ a: 'C4', b: 'C5', how: 'seen', odds: 1, grade: 'gravest' })
    expect(shorts(socket, { C4: { kind: 'touching', touches: 'C5', unsure: true } })[0]!.odds).toBe(0.6)
    expect(shorts(socket, { C1: { kind: 'touching', touches: 'C2' } })[0]!.grade).toBe('harmless')
  })
  it('finds, without being told, a tip dragged onto its neighbour', () => {
    const found = shorts(socket, { C4: { kind: 'lean', leanMm: [0.9, 0] } })
    expect(found.find((s) => s.b === 'C5')?.odds).toBeGreaterThan(0.9)
  })
  it('finds two that meet over a third, however far apart their feet are', () => {
    const found = shorts(socket, {
      A1: { kind: 'folded', touches: 'B2' },
      C3: { kind: 'folded', touches: 'B2' },
    })
    expect(found.map((s) => [s.a, s.b].sort().join(' '))).toContain('A1 C3')
  })
  it('agrees with looking at every pair', () => {
    const { named } = fieldOf(socket)
    fc.assert(
      fc.property(anyMarks(socket), (marks) => {
        const capsule = (name: string) => {
          const mark = marks[name]
          return contactCapsule(named.get(name)!, mark, mark?.touches ? named.get(mark.touches) : undefined)
        }
        const found = new Set(shorts(socket, marks).map((s) => [s.a, s.b].sort().join(' ')))
        for (const name of Object.keys(marks))
          for (const other of socket.contacts) {
            const [one, two] = [capsule(name), capsule(other.name)]
            if (other.name === name || !one || !two || clearance(one, two) > 0) continue
            expect(found).toContain([name, other.name].sort().join(' '))
          }
      }),
      { numRuns: 30 },
    )
  })
})
