import { describe, expect, it } from 'vitest'
import { photoOwed } from './photo-owed'
import { parts } from './slice'

const state = (
  ...noted: readonly (readonly [seq: number, ref: string, did: 'fitted' | 'taken off' | 'measured'])[]
) => ({
  ...parts.initial(),
  noted: noted.map(([seq, ref, did]) => ({ seq, at: '', by: '', id: String(seq), ref, did })),
})

describe('a photo before the iron', () => {
  it('is owed while there is none, and again after each part that was lifted or soldered', () => {
    expect(photoOwed([], state())).toBe('No photo of this board yet')
    expect(photoOwed([{ seq: 4 }], state())).toBeNull()
    expect(photoOwed([{ seq: 4 }], state([3, 'R1', 'fitted']))).toBeNull()
    expect(photoOwed([{ seq: 4 }], state([6, 'U7', 'taken off']))).toBe('No photo since U7 was taken off')
    expect(
      photoOwed([{ seq: 4 }, { seq: 8 }], state([6, 'U7', 'taken off'], [9, 'R1', 'measured'])),
    ).toBeNull()
  })
})
