import type { TriageBodies } from '../bodies'

export interface RunsLine {
  readonly what: 'memory speed' | 'start time' | 'settings'
  readonly state: 'right' | 'not right' | 'not looked at'
  readonly say: string
}

/** Time to the maker's screen that is usual once memory is trained, s, and how far over it is still right (bench default). */
const USUAL_START_S = 25
const SLOW = 1.6
/** Share of its rated speed memory must run at; a figure on the screen is rounded (bench default). */
const RATED_SHARE = 0.98

/**
 * “It runs” is not “it runs right”: memory below its rated speed, slow starts, settings that do not stay.
 * @param usualStartS the board's usual time to its first picture, s
 * @param release what is in the chip, and the releases after it: either can be the release’s own
 */
export function runsRight(
  seen: TriageBodies['runs'] | null,
  usualStartS = USUAL_START_S,
  release: { readonly now: string; readonly newer: readonly string[] } | null = null,
): readonly RunsLine[] {
  const { ratedMTs = null, seenMTs = null, startS = null, settingsKept = null } = seen ?? {}
  const lines: RunsLine[] = []
  const orRelease =
    release && release.newer.length > 0
      ? `; or it is the release’s: ${release.now} is in the chip, ${release.newer.join(' and ')} ${release.newer.length > 1 ? 'are' : 'is'} newer`
      : ''
  const put = (what: RunsLine['what'], state: RunsLine['state'], say: string) =>
    lines.push({ what, state, say })
  if (seenMTs === null) put('memory speed', 'not looked at', 'read the memory speed on the settings screen')
  else if (ratedMTs === null)
    put('memory speed', 'not looked at', 'what are the modules rated for? It is on their label')
  else if (seenMTs >= RATED_SHARE * ratedMTs) put('memory speed', 'right', `${seenMTs} MT/s, as rated`)
  else
    put(
      'memory speed',
      'not right',
      `${seenMTs} of ${ratedMTs} MT/s: choose the rated speed in the settings; if it falls back or does not start, a memory contact has poor force or a module is the wrong one${orRelease}`,
    )
  if (startS === null)
    put('start time', 'not looked at', 'time a warm start from the button to the first picture')
  else if (startS <= SLOW * usualStartS) put('start time', 'right', `${startS} s to the first picture`)
  else
    put(
      'start time',
      'not right',
      `${startS} s, ${usualStartS} s is usual: it trains memory at every start, or waits for something that does not answer${orRelease}`,
    )
  if (settingsKept === null)
    put('settings', 'not looked at', 'change a setting, mains off for ten minutes, look whether it stayed')
  else if (settingsKept) put('settings', 'right', 'kept over mains off')
  else put('settings', 'not right', 'lost over mains off: measure the cell at the board, in its holder')
  return lines
}
