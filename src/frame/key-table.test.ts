import { describe, expect, it } from 'vitest'
import { keyFault, keyIds, keysOf, moveOf, sayKey } from './key-table'
import { keyGiven } from './use-keys'

const press = (key: string, code: string, shiftKey = false) => ({ key, code, shiftKey }) as KeyboardEvent

describe('the table of keys', () => {
  it('gives no two moves of a place one key, and none that counts everywhere in a job', () => {
    for (const id of keyIds) expect(keyFault(id, moveOf(id).key, {}), id).toBeNull()
  })
  it('refuses a key that another move has, and says which', () => {
    expect(keyFault('sweep', 'r', {})).toBe('r is “turn the view” in socket; give that another key first')
    expect(keyFault('sweep', 'r', { turn: 'f13' })).toBeNull()
    expect(keyFault('sweep', 'z', {})).toMatch(/undo/)
    expect(keyFault('sweep', 'g', {})).toMatch(/go to intake/)
    // What counts at another place only may have the same key.
    expect(keyFault('sweep', 'p', { 'mark.paste': 'q' })).toBeNull()
    expect(keyFault('sweep', 'tab', {})).toMatch(/from field to field/)
  })
  it('has a key’s own name on a button', () => {
    expect(['g 1', 'shift+z', 'shift+arrowleft', ' ', '-', '+'].map(sayKey)).toEqual([
      'g 1',
      'shift z',
      'shift ←',
      'space',
      '−',
      '+',
    ])
  })
  it('has the keys of the bench over the usual ones and what stands beside them', () => {
    expect(keysOf('sweep', {})).toEqual(['w'])
    expect(keysOf('sweep', { sweep: 'f13' })).toEqual(['f13'])
    expect(keysOf('raise', {})).toEqual(['+', '='])
    expect(keysOf('raise', { raise: 'f14' })).toEqual(['f14'])
    expect(keyFault('lower', '=', {})).toMatch(/^= is “raise it by 0.05 mm”/)
    expect(keyFault('lower', '=', { raise: 'f14' })).toBeNull()
  })
})

describe('a press', () => {
  it('is what the key gives, whatever the layout', () => {
    expect(keyGiven(press('Z', 'KeyY', true))).toBe('shift+z')
    // Figures that want shift, and a minus that stands elsewhere.
    expect(keyGiven(press('1', 'Digit1', true))).toBe('1')
    expect(keyGiven(press('ArrowLeft', 'ArrowLeft', true))).toBe('shift+arrowleft')
    expect(keyGiven(press('F13', 'F13'))).toBe('f13')
  })
  it('is the Latin letter at its place where the layout has other letters, and a letter of its own beside them', () => {
    expect(keyGiven(press('ч', 'KeyX'))).toBe('x')
    expect(keyGiven(press('χ', 'KeyX'))).toBe('x')
    expect(keyGiven(press('ö', 'Semicolon'))).toBe('ö')
    expect(keyGiven(press('a', 'KeyQ'))).toBe('a')
  })
})
