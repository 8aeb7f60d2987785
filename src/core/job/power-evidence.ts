import { contactVerdict } from '../socket/contact-force'
import { functionLaw } from '../socket/function-law'
import { isDamage, isGone } from '../socket/mark'
import { shorts } from '../socket/short'
import { fieldOf } from '../socket/socket'
import type { Contact, Socket } from '../socket/socket'
import type { PowerEvidence } from './power-gate'
import { currentPass, unaccounted } from './state'
import type { JobState } from './state'

/** The gate's evidence as the tape has it. */
export function powerEvidence(state: JobState, socket: Socket | null): PowerEvidence {
  const pass = currentPass(state)
  const marks = pass?.marks ?? {}
  const named = socket ? fieldOf(socket).named : new Map<string, Contact>()
  const looked = pass?.looked ?? {}
  const found = socket ? shorts(socket, marks).filter((s) => s.odds >= 0.15) : []
  const lostSense = Object.entries(marks)
    .filter(
      ([name, mark]) =>
        functionLaw[named.get(name)?.group ?? 'unknown'].effect === 'danger' &&
        isDamage(mark) &&
        (isGone(mark) || contactVerdict(mark, socket?.kind).makesContact < 0.9),
    )
    .map(([name]) => name)
  const chip = (field: 'chipVolts' | 'programmerVolts') =>
    state.firmware.findLast((f) => f[field] !== undefined)?.[field] ?? null
  const last = state.baselines.at(-1)
  const seen = new Map(state.looks.map((look) => [look.what, look]))
  return {
    rails: Object.values(state.rails).map(({ rail, ohms, cpu }) => ({ rail, ohms, cpu })),
    shorts: found.map((s) => ({
      a: s.a,
      b: s.b,
      nets: joinWords(named.get(s.a), named.get(s.b)),
      grade: s.grade,
      odds: s.odds,
    })),
    lostSense,
    notLooked: socket ? socket.contacts.filter((c) => !looked[c.name] && !marks[c.name]).length : 0,
    contacts: socket?.contacts.length ?? 0,
    cpuFitted: state.fitted.cpu !== null,
    heatsink: state.fitted.heatsink,
    unaccounted: unaccounted(state).map((i) => i.what),
    hazards: [...seen.values()]
      .filter((look) => !look.clear && /burn|liquid|corro|scorch/i.test(`${look.what} ${look.seen}`))
      .map((look) => `${look.what}: ${look.seen}`),
    chipVolts: chip('chipVolts'),
    programmerVolts: chip('programmerVolts'),
    clipOn: state.firmware.findLast((f) => f.clipOn !== undefined)?.clipOn ?? false,
    supplyLimitA: state.supplyLimitA,
    provedUnderLimit: state.limitedSinceTouch,
    tripped: last?.current === 'trips' && !Object.values(state.rails).some((r) => r.seq > last.seq),
  }
}

const groupWords: Readonly<Record<string, string>> = {
  'core power': 'core rail',
  'memory power': 'memory rail',
  'io power': 'input-output rail',
  ground: 'ground',
}

function joinWords(
  a: { group: string; net: string } | undefined,
  b: { group: string; net: string } | undefined,
): string {
  if (!a || !b) return 'what it carries is not known'
  const word = (c: { group: string; net: string }) =>
    groupWords[c.group] ?? (c.group === 'unknown' ? 'unknown' : `${c.group} (${c.net})`)
  return a.net === b.net ? `both ${word(a)}` : `${word(a)} to ${word(b)}`
}
