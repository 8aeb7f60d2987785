import type { Verdict } from '../firmware/image/same-code'
import { readHexBytes, readId, sameId } from '../firmware/chip/jedec-id'
import { refitChanges, sayLines } from '../firmware/chip/refit'
import type { ChipWanted } from '../firmware/chip/substitute'
import { wantedOf } from '../firmware/chip/taken-chips'
import { listedAt } from '../firmware/route/listed'
import { namedIn, releasesKnown } from '../firmware/route/on-route'
import { startsNow, stayedDark } from '../firmware/route/starts'
import { supportOf } from '../firmware/route/support-table'
import type { JobState } from './job-state'
import type { References } from './references'
import { currentSays, startedAs, startOutcome } from './start-evidence'
import { currentPass } from '../socket/slice'
import type { Bodies } from '../slices'
import { saysNone } from '../board/commands'
import { isUsual } from '../board/rail'
import { placeOf, tellsOfRework } from '../board/hazard'
import type { LookHazard } from '../board/hazard'
import { functionLaw } from '../socket/contact/function-law'
import { isDamage } from '../socket/damage/mark'
import type { Marks } from '../socket/damage/mark'
import { shorts } from '../socket/damage/short'
import { fieldOf } from '../socket/model/socket'
import type { Socket } from '../socket/model/socket'
import type { FunctionGroup } from '../board/function-group'
import { outcomesMeant } from '../triage/model/bench-test'
import { inSocket } from '../triage/model/bench-tests'
import { readCodes } from '../triage/instruments/code-tape'
import { faultIds } from '../triage/model/faults'
import { changedBy, mendedBy } from '../triage/model/repair'
import type { FaultId } from '../triage/model/faults'
import type { Change } from '../triage/model/repair'
import type { Evidence } from '../triage/reason/likelihood'
import { asItCounts } from '../triage/reason/likelihood'
import { testOf } from '../triage/reason/hypotheses'
import { judgeRails } from '../triage/instruments/rail-table'
import { swapWorks } from '../triage/instruments/swap-grid'
import { countedShort } from '../parts/count'
import { isFound, placeOfPart } from '../parts/found'
import { testOfSwap } from '../triage/test-line'
import { cellState } from '../triage/model/stage'

export interface Dated extends Evidence {
  /** Line of the tape it comes from. */
  readonly seq: number
}

/** What the chip’s contents say of corrupt firmware, and how far that is believed: sound by its own sums is not yet compared. */
const contentsSay: Readonly<Record<Verdict, readonly [outcome: string, reliability: number] | null>> = {
  'same code': ['alike', 1],
  'broken off': ['differ', 1],
  damaged: ['differ', 1],
  'another release': ['alike', 0.6],
  'cannot tell': null,
}
/** How far what was read only once is believed. */
const READ_ONCE = 0.8

/** How far a claim is believed that was checked and holds. */
const HOLDS = 0.95

/** What was found by looking, in the words of the tests; null when it says nothing the reasoner knows. */
function lookSays({
  what,
  seen,
  clear,
  hazard,
}: Bodies['look']): readonly [test: string, outcome: string] | null {
  const place = placeOf(what)
  // Older lines say what it is in words alone.
  const is = (kind: LookHazard, words: RegExp) => (hazard ? hazard === kind : words.test(seen))
  if (place === 'outside of the board') {
    if (clear) return ['outside', 'clear']
    if (is('burnt', /burn|scorch/i)) return ['outside', 'scorched at a rail']
    if (/\b(coin )?cell\b|holder/i.test(seen)) return ['outside', 'cell holder green']
    if (is('part gone', /missing|gone/i)) return ['outside', 'a part missing']
  }
  if (place === 'round the firmware chip') {
    if (clear) return ['round the chip', 'clear']
    const gone = hazard === 'part gone' || /\bgone\b|missing/i.test(seen)
    if (!gone && tellsOfRework({ seen, clear })) return ['round the chip', 'chip reworked']
    if (!gone && hazard) return null
    return ['round the chip', /resistor/i.test(seen) ? 'a resistor gone' : 'another part gone']
  }
  if (place === 'round the socket') {
    if (clear) return ['round the socket', 'clear']
    if (is('cracked', /crack|broken/i) || hazard === 'part gone' || hazard === 'burnt')
      return ['round the socket', 'part broken at the regulator']
    if (hazard !== 'harmless' && /scratch|cut\b|\blines?\b|trace/i.test(seen))
      return ['round the socket', 'traces scratched']
  }
  if (place === 'wiring, supply, cooler') {
    if (clear) return ['front wiring', 'right']
    if (/cooler|pump/i.test(seen)) return ['outside', 'cooler loose']
  }
  return null
}

/** A part that is missing or broken, as a look at its place finds it; null where no look tells of it, as of a bridge elsewhere. */
function partSays(part: Bodies['part']): readonly [test: string, outcome: string] | null {
  const place = placeOfPart(part)
  const burnt = part.how === 'burnt'
  if (part.how === 'bridged')
    return place === 'at the firmware chip' ? ['round the chip', 'chip reworked'] : null
  switch (place) {
    case 'at the firmware chip':
      return ['round the chip', /^R/i.test(part.ref) ? 'a resistor gone' : 'another part gone']
    case 'at the core regulator':
      return ['round the socket', 'part broken at the regulator']
    case 'at memory':
    case 'at the chipset':
      return ['outside', burnt ? 'scorched at a controller' : 'a part missing']
    case 'elsewhere':
      return ['outside', burnt ? 'scorched at a rail' : 'a part missing']
  }
}

/** The fault that a missing or broken part is, by what a look says of it, where there is one that it is. */
const partFault: Readonly<Partial<Record<string, FaultId>>> = {
  'a resistor gone': 'chip resistor',
  'another part gone': 'chip supply part',
  'chip reworked': 'chip joint',
  'part broken at the regulator': 'core regulator part',
}

const offSays: Readonly<Partial<Record<FunctionGroup, string>>> = {
  sense: 'sense contact off',
  control: 'control contact off',
  clock: 'control contact off',
  reset: 'control contact off',
  'memory A': 'memory A contact off',
  'memory B': 'memory B contact off',
  display: 'display contact off',
  'card lanes': 'card contacts off',
}
/** The gravest first: what a single look at the map is told by. */
const gravity = { danger: 0, dead: 1, function: 2, width: 3, nothing: 4 } as const

/** What marks say as one look over the socket: the gravest of them; `clear` when the whole was looked at, else null. */
function marksSay(socket: Socket, marks: Marks, whole: boolean): string | null {
  const { named } = fieldOf(socket)
  const grave = shorts(socket, marks).filter((s) => s.odds > 0.5 && s.grade !== 'harmless')
  if (grave.some((s) => s.grade === 'gravest')) return 'power contacts touch'
  if (grave.length > 0) return 'signal contacts touch'
  const groups = Object.entries(marks).flatMap(([name, mark]) =>
    isDamage(mark) ? [named.get(name)?.group ?? 'unknown'] : [],
  )
  const worst = groups
    .filter((g) => offSays[g])
    .sort((a, b) => gravity[functionLaw[a].effect] - gravity[functionLaw[b].effect])[0]
  if (worst) return offSays[worst]!
  if (groups.filter((g) => functionLaw[g].kind === 'parallel').length >= 8) return 'power contacts open'
  return whole ? 'clear' : null
}

/** The map before and after straightening: what it said, which fault the strokes put right, what it says now. */
function mapEvidence(state: JobState, socket: Socket | null) {
  const pass = currentPass(state.socket)
  if (!socket || !pass) return { was: null, now: null, mended: null }
  const looked = socket.contacts.filter((c) => pass.looked[c.name]).length
  const now = marksSay(socket, pass.marks, looked >= socket.contacts.length * 0.98)
  if (state.socket.strokes.length === 0) return { was: null, now, mended: null }
  const was = marksSay(socket, Object.assign({}, ...state.socket.passes.map((p) => p.found)) as Marks, false)
  const mended = faultIds.find((id) => was !== null && was !== now && inSocket[id] === was) ?? null
  return { was, now, mended }
}

/**
 * What the last ID that was read of the chip, and of the one before it, says: an ID that answers is right only where the
 * board is known to take it, and wrong only where the board looks at it. A chip with a wrong one that was changed for
 * another is put right.
 */
function idEvidence(
  { firmware }: JobState,
  wanted: ChipWanted | null,
): readonly { readonly seq: number; readonly outcome: 'none' | 'another' | 'right' }[] {
  const { steps, chipSince } = firmware
  const ofEach = [false, true].map((now) =>
    steps.findLast((f) => f.chipId !== undefined && f.seq >= chipSince === now),
  )
  const said = (chipId: string): 'none' | 'another' | 'right' | null => {
    const bytes = readHexBytes(chipId)
    const read = bytes && readId(bytes)
    if (read?.is !== 'read') return 'none'
    if (wanted?.takes.some((known) => sameId(known, read.id))) return 'right'
    return wanted?.checksId ? 'another' : null
  }
  const answers = (chipId: string) => readId(readHexBytes(chipId) ?? new Uint8Array(0)).is === 'read'
  return ofEach.flatMap((step) => {
    const outcome = step && said(step.chipId!)
    // That the one before did not answer may have been the clip.
    const counts = outcome && (step.seq >= chipSince || answers(step.chipId!))
    return counts ? [{ seq: step.seq, outcome }] : []
  })
}

/**
 * Lines on which a release was written over contents that were found broken, and not taken back: over sound ones it puts
 * nothing right.
 */
function writtenOverBroken({ firmware: { compares, writes, steps } }: JobState): readonly number[] {
  const all = [
    ...writes.map(({ seq, release }) => ({ seq, back: release === null })),
    ...steps.filter((s) => s.wrote !== undefined).map(({ seq }) => ({ seq, back: false })),
  ].sort((a, b) => a.seq - b.seq)
  return all.flatMap(({ seq, back }, i) => {
    const before = compares.findLast((c) => c.seq < seq)
    const broken =
      before && before.seq > (all[i - 1]?.seq ?? 0) && contentsSay[before.verdict]?.[0] === 'differ'
    return broken && !back && !all[i + 1]?.back ? [seq] : []
  })
}

/** How far a table is believed that does not name a release for a CPU. */
const UNNAMED = 0.9

/**
 * Whether what the chip held at each time runs the CPU that is in question, by the board’s table: the one that is wanted,
 * else the one that stayed dark, else the one that is fitted. Written to a release that runs it, that is mended.
 */
function releaseEvidence(
  state: JobState,
  { releases, cpus }: Partial<References>,
): {
  readonly known: readonly { readonly seq: number; readonly outcome: string; readonly trust: number }[]
  readonly mended: number | null
} {
  const support = releases && cpus ? supportOf({ releases, cpus }) : null
  const { firmware, board } = state
  const asked = firmware.route?.want.cpu ?? stayedDark(state) ?? board.fitted.cpu
  const cpu = asked === null ? null : namedIn(asked, support?.cpus.map((c) => c.cpu) ?? [])
  if (!support || cpu === null) return { known: [], mended: null }
  const known = releasesKnown(firmware).flatMap(({ release, seq, wrote }) => {
    const at = release === null ? undefined : support.releaseAt.get(release)
    if (at === undefined) return []
    const row = support.rowOf(at, cpu)
    return [{ seq, outcome: row ? 'runs it' : 'does not run it', trust: row ? row.trust : UNNAMED, wrote }]
  })
  // A start is no matter of tables: what is in the chip now runs it.
  const ran = startsNow(state).some((s) => s.saw === 'starts' && namedIn(s.cpu, [cpu]) !== null)
  const last = known.at(-1)
  if (ran && last) known[known.length - 1] = { ...last, outcome: 'runs it', trust: 1 }
  const after = known.findIndex(
    (k, i) => i > 0 && k.wrote && k.outcome === 'runs it' && known[i - 1]!.outcome !== 'runs it',
  )
  return { known, mended: after < 0 ? null : known[after]!.seq }
}

/**
 * The tape as evidence of the reasoner: readings, power-ups, looks, the map and the tests carried out, each with what
 * had been done by then that a fault hangs on. Of starts and of a meter’s readings between two changes each counts; of
 * anything else the last. Limits: a current and codes that were
 * recorded by themselves are taken as those of the board as it came; codes say nothing while they may still be training; of a map only its gravest finding counts, and it is mended once the strokes have
 * taken it off the map.
 */
export function evidenceOf(
  state: JobState,
  socket: Socket | null,
  reference: Partial<References> = {},
): {
  readonly evidence: readonly Dated[]
  readonly changes: readonly Change[]
  readonly mended: readonly FaultId[]
} {
  const map = mapEvidence(state, socket)
  const lastStroke = state.socket.strokes.at(-1)?.seq ?? 0
  const changes: (Change & { readonly seq: number })[] = []
  const mend = (seq: number, fault: FaultId, takes?: number) =>
    changes.push({ seq, is: 'mended', fault, ...(takes === undefined ? {} : { takes }) })
  for (const { seq, fault, takes } of state.triage.mended) if (isFault(fault)) mend(seq, fault, takes)
  if (map.mended) mend(lastStroke, map.mended)
  if (lastStroke > 0) changes.push({ seq: lastStroke, is: 'left', fault: 'signal contacts touch' })
  for (const seq of writtenOverBroken(state)) mend(seq, 'firmware corrupt')
  changes.push(...refitChanges(state.firmware))
  for (const { seq, ref, did } of state.parts.noted) {
    const found = state.parts.noted.findLast((p) => p.ref === ref && isFound(p) && p.seq < seq)
    const fault = did === 'fitted' && found && partFault[partSays(found)?.[1] ?? '']
    if (fault) mend(seq, fault)
  }
  const runsCpu = releaseEvidence(state, reference)
  if (runsCpu.mended !== null) mend(runsCpu.mended, 'CPU unsupported')
  const ids = idEvidence(state, reference.chips ? wantedOf(reference.chips) : null)
  const { chipSince } = state.firmware
  if (ids.findLast((i) => i.seq < chipSince)?.outcome === 'another') mend(chipSince, 'firmware chip')
  if (chipSince > 0) changes.push({ seq: chipSince, is: 'made', fault: 'firmware chip' })
  for (const { seq, test } of state.triage.trials)
    for (const change of changedBy(test)) changes.push({ seq, ...change })
  for (const swap of state.triage.swaps)
    for (const change of changedBy(testOfSwap(swap)?.test ?? '')) changes.push({ seq: swap.seq, ...change })
  changes.sort((a, b) => a.seq - b.seq)
  const seen: Dated[] = []
  const doneBy = (seq: number) => changes.filter((c) => c.seq < seq).length
  const hasBeeper = reference.shows?.shown.beeper === true
  const put = (seq: number, test: string, outcome: string, since = seq, reliability = 1, of?: string) => {
    if (outcomesMeant(testOf(test), outcome).length === 0) return
    const after = doneBy(since)
    seen.push({
      seq,
      test,
      outcome,
      ...(after > 0 ? { after } : {}),
      ...(reliability < 1 ? { reliability } : {}),
      ...(of !== undefined && of !== test ? { of } : {}),
    })
  }
  const { ownRails } = state.board
  const others = new Map<string, 'short' | 'low' | 'good'>()
  const { railLog } = state.board
  for (const reading of railLog) {
    const { rail, cpu, seq } = reading
    // What is read with the CPU in is no second reading of what was read with it out: the last counts.
    if (railLog.some((r) => r.rail === rail && r.seq > seq && r.cpu !== cpu && doneBy(r.seq) === doneBy(seq)))
      continue
    const judged = judgeRails({ ohms: { [rail]: reading }, volts: {} }, reference.rails ?? null, ownRails)[0]!
    const state = judged.ohms!.state === 'high' ? 'good' : judged.ohms!.state
    if (isUsual(rail)) put(reading.seq, `ohms ${rail}`, state)
    else {
      others.set(rail, state)
      // The worst of them counts; that all are good, once each was read.
      const states = [...others.values()]
      const worst = (['short', 'low'] as const).find((s) => states.includes(s))
      if (worst) put(reading.seq, 'ohms other', worst)
      else if (ownRails.every((r) => others.has(r.rail))) put(reading.seq, 'ohms other', 'good')
    }
  }
  for (const { seq, rail, volts } of state.board.voltsLog) {
    if (!isUsual(rail)) continue
    const judged = judgeRails({ ohms: {}, volts: { [rail]: Math.abs(volts) } }, reference.rails ?? null)[0]!
    put(seq, `volts ${rail}`, judged.volts!.state === 'missing' ? 'missing' : 'there')
  }
  const { told } = state.board
  for (const { seq, rail, is } of told.rails.filter((r) => isUsual(r.rail)))
    put(seq, `ohms ${rail}`, is ?? 'good')
  for (const { seq, rail, is } of told.volts.filter((r) => isUsual(r.rail)))
    put(seq, `volts ${rail}`, is ?? 'there')
  for (const { seq, is, where, isNew } of told.cells)
    put(
      seq,
      where !== 'at the board' ? 'cell' : isNew ? 'new cell under load' : 'cell under load',
      is ?? 'good',
    )
  for (const cell of state.board.cellLog) {
    const outcome = cellState(cell.volts).state === 'good' ? 'good' : 'low'
    if (cell.where !== 'at the board') put(cell.seq, 'cell', outcome)
    else put(cell.seq, cell.isNew ? 'new cell under load' : 'cell under load', outcome)
  }
  for (const run of state.triage.codeLog) {
    const { outcome } = readCodes(run, reference.codes ?? null)
    if (outcome) put(run.seq, 'codes', outcome)
  }
  for (const curve of state.board.currents) put(curve.seq, 'current', currentSays[curve.pattern])
  for (const swap of state.triage.swaps) {
    const listed =
      swap.what === 'CPU'
        ? (listedAt(state.firmware, reference, swap.part, swap.seq)?.listed ?? swap.listed)
        : undefined
    // A CPU that the release does not run stays dark in any board.
    const said = listed !== 'no' || swapWorks(swap) ? testOfSwap(swap) : null
    if (said) put(swap.seq, said.test, said.outcome)
  }
  if (state.triage.runs?.settingsKept != null)
    put(state.triage.runs.seq, 'settings kept', state.triage.runs.settingsKept ? 'kept' : 'lost')
  for (const part of state.parts.noted) {
    const said = isFound(part) ? partSays(part) : null
    // Of a part that is nowhere near what the reasoner knows, its being fitted ends what it said.
    const fitted = state.parts.noted.some((p) => p.ref === part.ref && p.did === 'fitted' && p.seq > part.seq)
    if (said && (!fitted || partFault[said[1]])) put(part.seq, ...said)
  }
  // A place that was counted short has lost a part that nobody has named yet.
  for (const count of countedShort(state.parts)) {
    const said = partSays({ ref: '', did: 'found missing', place: count.place })
    if (said) put(count.seq, ...said)
  }
  for (const look of state.board.looks) {
    const said = look.test === undefined ? lookSays(look) : ([look.test, look.seen] as const)
    if (said) put(look.seq, ...said)
  }
  for (const b of state.board.baselines) {
    const outcome = startOutcome(b)
    const start = startedAs(b, state, reference)
    const read = (test: string, is: string) =>
      put(b.seq, test, is, b.seq, 1, start === 'as it came' ? undefined : start)
    if (outcome) put(b.seq, start, outcome)
    if (b.fanSpeed) read('fans settle', b.fanSpeed)
    // What beeps is past its first steps; what is silent without memory is not, if it has a beeper.
    const beeps = b.beeps.trim()
    const silent = /^silent\b/i.test(beeps) || saysNone(beeps)
    if (beeps !== '' && !silent) read('beeps', 'beeps or memory code')
    else if (silent && start === 'no memory' && hasBeeper) read('beeps', 'silent')
    if (b.current !== 'not noted') read('current', currentSays[b.current])
    if (b.cpuHeat !== 'not noted') read('warmth', b.cpuHeat === 'cold' ? 'cold' : 'warm')
  }
  for (const seat of state.socket.seats) put(seat.seq, 'CPU proud', seat.drop === 'flat' ? 'flush' : 'proud')
  // What strokes did not take away is one finding, not one before them and one after.
  if (map.was && map.was !== map.now) put(state.socket.strokes[0]!.seq, 'socket', map.was)
  if (map.now && state.socket.lastMapped > lastStroke) put(state.socket.lastMapped, 'socket', map.now)
  // What strokes left behind, or broke, is known as well; that nothing is left takes another look.
  else if (map.now && map.now !== 'clear' && lastStroke > 0)
    put(lastStroke, 'socket', map.now, lastStroke + 1)
  for (const { seq, test, outcome } of state.triage.trials) put(seq, test, outcome)
  for (const { seq, outcome } of ids) put(seq, 'chip id', outcome)
  for (const refit of state.firmware.refits) {
    const is = sayLines(refit)
    if (is) put(refit.seq, 'chip lines', is)
  }
  for (const { seq, verdict, second } of state.firmware.compares) {
    const said = contentsSay[verdict]
    if (said) put(seq, 'chip contents', said[0], seq, Math.min(said[1], second === null ? READ_ONCE : 1))
  }
  for (const { seq, outcome, trust } of runsCpu.known)
    put(seq, 'version', outcome, runsCpu.mended !== null && seq >= runsCpu.mended ? seq + 1 : seq, trust)
  // A claim counts for what it says, as far as it is believed, until the same was seen here.
  const seenHere = new Set(seen.map((e) => e.test))
  const claimed = state.intake.claims.flatMap(({ seq, weighed, checked }): Dated[] => {
    if (!weighed || checked?.verdict === 'wrong' || seenHere.has(weighed.test)) return []
    if (outcomesMeant(testOf(weighed.test), weighed.outcome).length === 0) return []
    const reliability =
      checked?.verdict === 'holds' ? Math.max(HOLDS, weighed.reliability) : weighed.reliability
    return [{ seq, test: weighed.test, outcome: weighed.outcome, reliability }]
  })
  const here = asItCounts(seen.sort((a, b) => a.seq - b.seq))
  const evidence = [...here, ...claimed].sort((a, b) => a.seq - b.seq)
  return {
    evidence,
    changes: changes.map(({ seq: _, ...change }) => change),
    mended: mendedBy(changes),
  }
}

const isFault = (fault: string): fault is FaultId => faultIds.some((id) => id === fault)
