import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { damageKinds } from './mark'
import { compass } from './open-side'
import { readMark } from './read-mark'

const read = (line: string) => readMark(line.split(' '))
const contact = fc
  .tuple(fc.constantFrom('A', 'M', 'AC', 'p', 'bb'), fc.integer({ min: 1, max: 60 }))
  .map(([row, column]) => `${row}${column}`)

describe('a mark as it is typed', () => {
  it.each([
    ['', /“” is no contact; say it like M31/],
    ['31M low', /“31M” is no contact/],
    ['M31', /what is wrong with M31\? one of intact, lean, low/],
    ['M31 bent', /what is wrong with M31\?/],
    ['M31 lean', /how far does it lean, and which way\?/],
    ['M31 lean west', /how far does it lean, and which way\?/],
    ['M31 low much', /“much” is no distance in mm/],
    ['M31 low 19', /“19” is no distance in mm/],
    ['M31 low 0.19 garbage', /“garbage” is one too many/],
    ['M31 low 0.19 west', /low has no way/],
    ['M31 lean 0.2', /how far does it lean, and which way/],
    ['M31 lean 0.2 nowhere', /“nowhere” is one too many/],
    ['M31 lean -0.2 west', /how far does it lean/],
    ['M31 snapped 0.2', /snapped is not measured/],
    ['M31 snapped on M32', /touches nothing/],
    ['M31 touching on M32 hard', /“hard” is not understood/],
    ['M31 lowland', /what is wrong with M31/],
    ['M31 low 0.2V', /“0.2v” is no distance in mm/],
    ['M31 touching', /which contact does M31 touch\? end with: on P14/],
    ['M31 touching on', /on which contact\? “” is none/],
    ['M31 folded on top', /on which contact\? “top” is none/],
    ['M31 folded on m31', /M31 cannot touch itself/],
  ])('“%s” is answered with what is missing', (line, say) => {
    expect(read(line)).toMatch(say)
  })
  it.each([
    ['A1 lean 0.2 nw', [-0.141, 0.141]],
    ['A1 lean 0.2 southeast', [0.141, -0.141]],
    ['A1 lean w .2mm', [-0.2, 0]],
  ])('“%s” leans that way', (line, leanMm) => {
    expect(read(line)).toEqual({ contact: 'A1', mark: { kind: 'lean', leanMm } })
  })
  it('an angle is kept with what is twisted', () => {
    expect(read('A1 twisted 45')).toEqual({ contact: 'A1', mark: { kind: 'twisted', twistDeg: 45 } })
    expect(read('A1 twisted')).toEqual({ contact: 'A1', mark: { kind: 'twisted' } })
  })
  it('keeps every word that was said of it', () => {
    const line = fc.record({
      contact,
      other: contact,
      kind: fc.constantFrom('lean', 'low', 'high', 'touching', 'folded'),
      way: fc.constantFrom(...compass),
      hundredths: fc.integer({ min: 1, max: 60 }),
      comma: fc.boolean(),
      on: fc.boolean(),
    })
    fc.assert(
      fc.property(line, ({ contact: name, other, kind, way, hundredths, comma, on }) => {
        fc.pre(name.toUpperCase() !== other.toUpperCase())
        const touches = on || kind === 'touching'
        const figure = (hundredths / 100).toFixed(2).replace('.', comma ? ',' : '.')
        const measured = kind === 'touching' || kind === 'folded' ? [] : [figure]
        const said = [name, kind, ...measured, ...(kind === 'lean' ? [way] : [])]
        const parsed = read([...said, ...(touches ? ['on', other] : [])].join(' '))
        if (typeof parsed === 'string') throw new Error(parsed)
        expect(parsed.contact).toBe(name.toUpperCase())
        expect(parsed.mark.kind).toBe(kind)
        expect(parsed.mark.touches).toBe(touches ? other.toUpperCase() : undefined)
        if (kind === 'low') expect(parsed.mark.heightMm).toBeCloseTo(-hundredths / 100, 9)
        if (kind === 'high') expect(parsed.mark.heightMm).toBeCloseTo(hundredths / 100, 9)
        if (kind === 'lean') {
          const [x, y] = parsed.mark.leanMm!
          expect(Math.hypot(x, y)).toBeCloseTo(hundredths / 100, 2)
          expect(Math.sign(Math.round(x * 1000))).toBe(
            way.includes('east') ? 1 : way.includes('west') ? -1 : 0,
          )
          expect(Math.sign(Math.round(y * 1000))).toBe(
            way.includes('north') ? 1 : way.includes('south') ? -1 : 0,
          )
        }
      }),
    )
  })
  it('answers any words with a mark or a sentence', () => {
    const word = fc.oneof(contact, fc.constantFrom(...damageKinds, ...compass, 'on', '0.2'), fc.string())
    fc.assert(
      fc.property(fc.array(word, { maxLength: 7 }), (words) => {
        const parsed = readMark(words)
        if (typeof parsed === 'string') expect(parsed).not.toMatch(/undefined|NaN/)
        else {
          expect(damageKinds).toContain(parsed.mark.kind)
          expect(parsed.mark.touches).not.toBe(parsed.contact)
          for (const figure of [parsed.mark.heightMm ?? 0, ...(parsed.mark.leanMm ?? [])])
            expect(Math.abs(figure)).toBeLessThanOrEqual(5)
        }
      }),
      { numRuns: 500 },
    )
  })
})
