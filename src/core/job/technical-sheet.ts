import { sayProved } from '../board/proved'
import { stations } from '../board/station'
import { percent } from '../maths/percent'
import type { AdviceSetting } from './advice-setting'
import { proofStanding } from './stations-say'
import { sayEntry, stationOf } from './job-state'
import type { Entry, JobState } from './job-state'
import type { SheetPart } from '../hand-back/sheet-words'
import type { PassChange } from '../socket/damage/pass'
import type { Socket } from '../socket/model/socket'
import { struckBy } from '../tape/line'

const titles: Readonly<Partial<Record<(typeof stations)[number], string>>> = {
  triage: 'Readings, looks and starts',
  socket: 'Work at the socket',
  firmware: 'Work on the firmware',
  parts: 'Small parts and heat',
}

/** Lines that say how the work went on, and not what was read or done. */
const leftOut: ReadonlySet<Entry['kind']> = new Set([
  'looked',
  'school',
  'odds said',
  'pass',
  'stock',
  'pull',
])

/**
 * What the next technician reads beside the sheet: each contact before and after, each test with its limit, and every reading
 * and step as the tape has it, by its line; nothing of what was struck, nor who wrote it.
 */
export function technicalParts(
  entries: readonly Entry[],
  state: JobState,
  socket: Socket | null,
  { parts, changes }: { readonly parts: readonly SheetPart[]; readonly changes: readonly PassChange[] },
  setting: AdviceSetting,
): SheetPart[] {
  const struck = struckBy(entries)
  const standing = entries.filter((e) => e.strikes === null && !struck.has(e.seq) && !leftOut.has(e.kind))
  const byStation = stations.flatMap((station) => {
    const title = titles[station]
    const lines = standing.filter((e) => stationOf(e) === station).map((e) => `${e.seq}  ${sayEntry(e)}`)
    return title === undefined || lines.length === 0 ? [] : [{ title, lines, none: '' }]
  })
  const { tests: proof, left } = proofStanding(state, socket, setting)
  const tests = proof.map((t) =>
    [
      `${t.test} (${t.why}; passes when: ${t.limit})`,
      `${t.result ?? (t.again ? 'owed again' : 'not done')}${t.reading ? `, ${t.reading}` : ''}`,
    ].join(': '),
  )
  const contacts = changes.map((c) => `${c.contact}: ${c.before} → ${c.after}`)
  return [
    ...parts.filter(({ title }) => title !== 'Advice' && title !== 'Warranty'),
    ...(contacts.length > 0
      ? [{ title: 'Each contact, as found → as it is left', lines: contacts, none: '' }]
      : []),
    { title: 'Every test of the proof', lines: tests, none: '' },
    ...('notKnown' in left
      ? []
      : [
          {
            title: 'Could still be wrong, thing by thing',
            lines: left.of.map(({ what, odds }) => `${sayProved(what)}: ${percent(odds)}`),
            none: 'nothing worth a figure',
          },
        ]),
    ...byStation,
  ]
}
