import type { Step } from '../board/step'
import { chipOff, refitPoints } from './chip/refit'
import { comparedNow, contentsSince, identityNow, lastNoted, writtenNow } from './slice'
import type { FirmwareView } from './view'

const step = (part: string, say: string, why: string, takes?: string): Step => ({
  station: 'firmware',
  part,
  say,
  why,
  ...(takes ? { takes } : {}),
})

/** Starts since the chip was written or fitted, or anything else was changed: how many came to a picture, and how many stayed dark. */
export function startsSince({ firmware, board }: Pick<FirmwareView, 'firmware' | 'board'>): {
  readonly came: number
  readonly dark: number
} {
  const since = Math.max(contentsSince(firmware), firmware.moves.at(-1)?.seq ?? 0, board.power.changed)
  const seen = board.baselines.filter((b) => b.seq > since && b.picture !== 'not noted')
  const came = seen.filter((b) => b.picture !== 'none').length
  return { came, dark: seen.length - came }
}

/** One start alone proves nothing. */
const ENOUGH = 2

/**
 * What comes before the first start of a chip that was off the board: it is fitted, and looked at point by point. Null
 * where it was never off, and where nothing of it is open.
 */
export function fittingStep({ firmware }: FirmwareView): Step | null {
  const moved = firmware.moves.at(-1)
  if (!moved) return null
  if (chipOff(firmware)) {
    const wrote = contentsSince(firmware) > moved.seq
    const compared = comparedNow(firmware)
    const same = compared !== null && compared.seq > moved.seq && compared.verdict === 'same code'
    return wrote || same
      ? step(
          'chip-fit',
          'Fit the chip again: its dot where it stood, at the mark of pin 1.',
          wrote ? 'It is written and read back.' : 'It holds the same code: it is not the firmware.',
          '8 min',
        )
      : null
  }
  const point =
    refitPoints(firmware).find((p) => p.is === 'no') ?? refitPoints(firmware).find((p) => p.is === 'open')
  if (!point) return null
  return step(
    'refit',
    said(point.say.endsWith('?') ? point.say : `${point.say}.`),
    'Turned, a lifted pad, an open joint: each looks just like dead firmware, and one of them ends the chip.',
    point.point === 'lines' ? '4 min, a meter' : '1 min',
  )
}
const said = (text: string) => text[0]!.toUpperCase() + text.slice(1)

/**
 * After a write or a refit: two or three starts, then the judgement. Where it stays dark the last step is looked at
 * first, and an original that was sound is put back.
 * @param closed what forbids power; null when nothing does
 */
export function afterWrite(view: FirmwareView, closed: string | null): Step {
  const { firmware } = view
  const { came, dark } = startsSince(view)
  if (dark >= ENOUGH && came === 0) return staysDark(view)
  if (lastNoted(firmware, 'clipOn'))
    return step(
      'after-write',
      'Clip off, then start it two or three times before you judge.',
      'A settings screen, a key asked for, a restart or two by itself are normal now.',
      '6 min',
    )
  if (came > 0 && dark > 0 && came + dark > ENOUGH)
    return step(
      'to-triage',
      `It came up ${came} of ${came + dark} times: whatever that is, it comes and goes.`,
      'A joint, a contact or the supply does that; what is in the chip does not.',
    )
  if (came >= ENOUGH)
    return step(
      'to-proof',
      `It came up ${came} times. Note the version that it shows, and go on at proof.`,
      'A release is sometimes not what its label says.',
    )
  return step(
    'after-write',
    closed !== null
      ? `Do not power yet: ${closed}.`
      : came + dark === 0
        ? 'Start it two or three times before you judge.'
        : `${came ? 'It came up' : 'It stayed dark'} once. Start it again before you judge.`,
    'A settings screen, a key asked for, a restart or two by itself are normal now.',
    '6 min',
  )
}

/** Dark after the write: the last step first. */
function staysDark({ firmware }: FirmwareView): Step {
  const since = contentsSince(firmware)
  const written = writtenNow(firmware)
  const was =
    written && firmware.compares.findLast((c) => c.seq >= firmware.chipSince && c.seq < written.seq)?.verdict
  const seated = firmware.refits.findLast((r) => r.seq > since && r.seated !== undefined)?.seated
  if (seated !== true)
    return step(
      'seated',
      'Dark since the write. The last step first: does all that was moved sit home?',
      'Modules, cards, plugs, cell: what was moved for the clip is a likelier fault now than a new one.',
      '2 min',
    )
  const asked = firmware.steps.findLast((s) => s.chipId !== undefined && s.seq > since)
  if (!asked)
    return step(
      'id',
      'Dark since the write: read the chip’s ID. Does it answer as it did?',
      'A chip that does not answer is a joint, a clip or a dead chip, whatever was written.',
      '3 min, the clip on',
    )
  if (!identityNow(firmware)?.answers)
    return step(
      'chip',
      'The chip does not answer since it was written: its joints, or the clip.',
      'It is no matter of releases. Seat the clip again; if it stays so, look at every joint.',
    )
  if (written?.release && written.backup && (was === 'same code' || was === 'another release'))
    return step(
      'put-back',
      'Put the original back: it was sound, and the board is no better.',
      `Before the write it was ${was === 'same code' ? 'the same code' : 'another release, whole'}: it was not what kept the board dark.`,
      '8 min, the clip on',
    )
  return step(
    'to-triage',
    written && written.release === null
      ? 'The original is back and it stays dark: it is not the firmware.'
      : 'It stays dark, and the chip answers: go on at triage, the last step first.',
    'What the write can have left undone is counted there.',
  )
}
