import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { yieldDeflection } from '../contact/bend'
import {
  bookPush,
  drawContact,
  HOME_MM,
  practiceKinds,
  practiceResult,
  pushContact,
} from './practice-contact'
import type { PracticeContact } from './practice-contact'

const seed = fc.integer({ min: 1, max: 1e6 })
const kind = fc.constantFrom(...practiceKinds)
const worked = (contact: PracticeContact, pushes: readonly number[]) =>
  pushes.reduce((c, mm) => pushContact(c, mm), contact)

describe('a simulated contact', () => {
  it('springs back all the way within yield, and never farther than it was taken', () => {
    fc.assert(
      fc.property(seed, kind, between(-1.2, 1.2), (s, k, mm) => {
        const before = drawContact(s, k)
        const after = pushContact(before, mm)
        const stayed = after.offMm - before.offMm
        expect(Math.abs(stayed)).toBeLessThanOrEqual(Math.abs(mm) + 1e-9)
        expect(stayed * mm).toBeGreaterThanOrEqual(0)
        if (
          Math.abs(mm) <
          0.7 *
            yieldDeflection({
              modulusMPa: 131_000,
              yieldMPa: 1100,
              widthMm: 0.35,
              thicknessMm: 0.08,
              lengthMm: 1.8,
            } as never)
        ) {
          expect(stayed).toBe(0)
          expect(after.lifeUsed).toBe(before.lifeUsed)
        }
      }),
    )
  })
  it('tires with every push that stays, and a snapped one stays as it is', () => {
    fc.assert(
      fc.property(seed, kind, fc.array(between(-1, 1), { maxLength: 12 }), (s, k, pushes) => {
        let contact = drawContact(s, k)
        for (const mm of pushes) {
          const next = pushContact(contact, mm)
          expect(next.lifeUsed).toBeGreaterThanOrEqual(contact.lifeUsed)
          if (contact.snapped) expect(next).toBe(contact)
          contact = next
        }
        const { score, risked } = practiceResult(contact)
        expect(score >= 0 && score <= 100 && risked >= 0 && risked <= 1).toBe(true)
        if (contact.snapped) expect(score).toBe(0)
      }),
    )
  })
  it('comes home by the book in few pushes', () => {
    fc.assert(
      fc.property(seed, fc.constantFrom('a slight lean' as const, 'a wide lean' as const), (s, k) => {
        let contact = drawContact(s, k)
        for (let i = 0; i < 5 && Math.abs(contact.offMm) > HOME_MM; i++)
          contact = pushContact(contact, bookPush(contact))
        expect(contact.snapped || Math.abs(contact.offMm) <= HOME_MM).toBe(true)
        if (!contact.snapped) expect(practiceResult(contact)).toMatchObject({ done: true, score: 100 })
      }),
    )
  })
  it('a fold opened in small steps risks less than one opened at once', () => {
    const risk = (contact: PracticeContact) => practiceResult({ ...contact, snapped: false }).risked
    for (let s = 1; s < 20; s++) {
      const fold = drawContact(s, 'folded flat')
      let small = fold
      for (let i = 0; i < 12 && Math.abs(small.offMm) > HOME_MM; i++)
        small = { ...pushContact(small, bookPush(small)), snapped: false }
      expect(risk(small)).toBeLessThan(risk(pushContact(fold, -1.1)))
    }
  })
  it('says what came of the last push', () => {
    const lean = drawContact(4, 'a wide lean')
    expect(practiceResult(lean).say).toMatch(/springs back/)
    expect(practiceResult(worked(lean, [-0.1])).say).toMatch(/sprang all the way back/)
    expect(practiceResult(worked(lean, [-1.2])).say).toMatch(/past it/)
    expect(practiceResult(worked(lean, [-0.5])).say).toMatch(/mm still off/)
  })
  it('the same seed is the same contact', () =>
    expect(drawContact(9, 'folded flat')).toEqual(drawContact(9, 'folded flat')))
})
