import { partDamages, partPlaces } from '../parts/found'
import { railTold } from '../board/bodies'
import type { Bodies, Kind } from '../slices'
import { swapParts, swapPlaces } from '../triage/bodies'
import { strokeResults } from '../socket/bodies'
import { stations } from '../board/station'
import { rails } from '../board/rail'
import { fates, outcomes } from '../hand-back/bodies'
import { reassemblyChecks } from '../hand-back/reassembly'
import { historyItems } from '../board/history-item'
import fc from 'fast-check'
import { anyMark } from '../socket/model/field.testing'
import { drops } from '../socket/seat/seat-reading'
import { lookHazards } from '../board/hazard'
import { chance, proofBodies } from '../proof/bodies.testing'

const words = fc.string({ minLength: 1, maxLength: 12 }).map((s) => `x${s.trim()}`)
const maybeWords = fc.oneof(fc.constant(''), words)
const contact = fc.constantFrom('A1', 'A2', 'B5', 'C4', 'D1', 'H8')
const contacts = fc.uniqueArray(contact, { minLength: 1, maxLength: 4 })
const figure = (min: number, max: number) =>
  fc.integer({ min: min * 100, max: max * 100 }).map((n) => n / 100)
const ownNames = ['chipset', 'vref'] as const
const ownRail = fc.record({
  rail: fc.constantFrom(...ownNames),
  ohmsOut: figure(1, 900),
  ohmsIn: fc.option(figure(1, 900), { nil: null }),
  volts: fc.option(figure(0, 12), { nil: null }),
})
const money = fc.option(fc.nat({ max: 1_000_000 }), { nil: null })
const minutes = fc.option(fc.nat({ max: 500 }), { nil: null })
/** A line of the tape. */
export const line = fc.integer({ min: 1, max: 30 })
const hash = fc.constant('ab'.repeat(32))
const codes = fc.array(fc.constantFrom('4C', '31', 'A0FF'), { minLength: 1, maxLength: 5 })
const inOut = fc.constantFrom('in' as const, 'out' as const)
const [release, cpu] = [fc.constantFrom(null, '1.40', '1.52'), fc.constantFrom(null, 'Orrin 44', 'Orrin 53')]
const pair = fc.record({ release, cpu })
const some = <T extends object>(fields: { [K in keyof T]: fc.Arbitrary<T[K]> }) =>
  fc.record(fields, { requiredKeys: [] }).filter((body) => Object.keys(body).length > 0) as fc.Arbitrary<
    Partial<T>
  >

/** A body of every kind, as the edge would let it in. */
export const bodies: { readonly [K in Kind]: fc.Arbitrary<Bodies[K]> } = {
  ticket: some<Bodies['ticket']['set']>({
    board: maybeWords,
    revision: maybeWords,
    complaint: maybeWords,
    cpu: maybeWords,
    rails: fc.uniqueArray(ownRail, { maxLength: 2, selector: (r) => r.rail }),
    history: fc.uniqueArray(fc.constantFrom(...historyItems), { maxLength: 3 }),
    limitMinor: money,
    minutesPromised: minutes,
    promisedAt: fc.constantFrom(null, '2026-11-24T15:00:00.000Z'),
    warranty: fc.constantFrom('unknown', 'none', 'in warranty', 'paid repair offered'),
    diskLock: fc.constantFrom('unknown', 'no', 'yes, owner told'),
  }).map((set) => ({ set, ...(set.promisedAt ? { kept: 0.8 } : {}) })),
  claim: fc.record(
    { text: words, opinion: fc.record({ asked: line, by: words }) },
    { requiredKeys: ['text'] },
  ),
  'opinion asked': fc.record({ text: words, of: maybeWords, photos: fc.uniqueArray(hash, { maxLength: 2 }) }),
  'claim weighed': fc.record({
    claim: line,
    test: fc.constant('cell'),
    outcome: fc.constantFrom('low', 'good'),
    reliability: figure(0, 1),
    knows: fc.constantFrom('saw it', 'heard of it'),
  }),
  'claim checked': fc.record({
    claim: line,
    verdict: fc.constantFrom('holds', 'wrong', 'cannot tell'),
    how: maybeWords,
  }),
  consent: fc.record({
    risks: fc.array(words, { maxLength: 3 }),
    limitMinor: money,
    signature: fc.option(hash, { nil: null }),
    how: maybeWords,
  }),
  offer: fc.record({ text: words, limitMinor: money, minutes }),
  'offer answered': fc.record({ offer: line, approved: fc.boolean(), how: maybeWords }),
  photo: fc.record({
    file: hash,
    name: words,
    type: fc.constant('image/png'),
    bytes: fc.nat(),
    caption: maybeWords,
  }),
  note: fc.record({ text: words }),
  decision: fc.constantFrom(
    { text: 'x' },
    { text: 'x', goingOn: { minutes: 60, spentMinutes: 9, runs: 0.7 } },
  ),
  rail: fc.oneof(
    fc.record({ rail: fc.constantFrom(...rails, ...ownNames), ohms: figure(0, 900), cpu: inOut }),
    fc.record({
      rail: fc.constantFrom(...rails),
      ohms: fc.constant(null),
      is: fc.constantFrom(...railTold),
      cpu: fc.constantFrom('in' as const, 'out' as const, null),
    }),
  ),
  volts: fc.oneof(
    fc.record({ rail: fc.constantFrom(...rails, ...ownNames), volts: figure(-12, 13) }),
    fc.record({
      rail: fc.constantFrom(...rails),
      volts: fc.constant(null),
      is: fc.constantFrom('missing' as const, 'there' as const),
    }),
  ),
  cell: fc.oneof(
    fc.record(
      {
        volts: figure(0, 4),
        where: fc.constantFrom('by itself' as const, 'at the board' as const),
        isNew: fc.boolean(),
      },
      { requiredKeys: ['volts'] },
    ),
    fc.record({ volts: fc.constant(null), is: fc.constantFrom('low' as const, 'good' as const) }),
  ),
  codes: fc.record({ codes, watchedS: figure(0, 900) }, { requiredKeys: ['codes'] }),
  current: fc.record({
    name: words,
    samples: fc.integer({ min: 20, max: 500_000 }),
    pattern: fc.constantFrom('none', 'standby', 'steady', 'cycling', 'trips'),
    standbyA: fc.option(figure(0, 1), { nil: null }),
    plateauA: fc.option(figure(0, 9), { nil: null }),
    peakA: figure(0, 20),
    periodS: fc.option(figure(0, 30), { nil: null }),
    segments: fc.constant([{ kind: 'steady' as const, fromS: 0, toS: 1, amps: 0.4, periodS: null }]),
    curve: fc.constant({ s: [0, 1], a: [0.1, 0.4] }),
  }),
  swap: fc.record(
    {
      what: fc.constantFrom(...swapParts),
      part: words,
      place: fc.constantFrom('A', 'B'),
      where: fc.constantFrom(...swapPlaces),
      knownGood: fc.boolean(),
      outcome: fc.constantFrom('nothing', 'memory lamp', 'fans, dark', 'system loads'),
      listed: fc.constantFrom('yes', 'no', 'not known'),
    },
    { requiredKeys: ['what', 'part', 'place', 'knownGood', 'outcome'] },
  ),
  runs: fc.record({
    ratedMTs: fc.option(fc.integer({ min: 800, max: 9000 }), { nil: null }),
    seenMTs: fc.option(fc.integer({ min: 800, max: 9000 }), { nil: null }),
    startS: fc.option(figure(1, 300), { nil: null }),
    settingsKept: fc.option(fc.boolean(), { nil: null }),
  }),
  baseline: fc.record({
    fans: fc.constantFrom('off', 'twitch', 'on', 'not noted'),
    current: fc.constantFrom('none', 'standby', 'steady', 'cycling', 'trips', 'not noted'),
    amps: fc.option(figure(0, 9), { nil: null }),
    lamp: fc.constantFrom('none', 'cpu', 'memory', 'graphics', 'boot', 'not noted'),
    beeps: maybeWords,
    cpuHeat: fc.constantFrom('cold', 'warm', 'hot', 'not noted'),
    codes: fc.oneof(fc.constant([]), codes),
    picture: fc.constantFrom('none', 'maker screen', 'system loads', 'not noted'),
  }),
  fitted: some<Bodies['fitted']>({
    cpu: fc.option(words, { nil: null }),
    heatsink: fc.boolean(),
    modules: fc.array(words, { maxLength: 2 }),
    card: fc.option(words, { nil: null }),
  }),
  supply: fc.record({ limitA: fc.option(figure(1, 9), { nil: null }) }),
  look: fc.oneof(
    fc.record({ what: words, seen: words, clear: fc.boolean() }),
    fc.record({
      what: fc.constantFrom('outside', 'outside of the board', 'round the socket'),
      seen: words,
      clear: fc.constant(false),
      hazard: fc.constantFrom(...lookHazards),
    }),
  ),
  pass: fc.record({ name: words }),
  looked: fc.record({ contacts: fc.oneof(fc.constant('all' as const), contacts) }),
  mark: fc.record({ contacts, mark: anyMark }),
  stroke: fc.record({
    contact,
    technique: fc.constantFrom('lift', 'push'),
    tool: words,
    from: fc.constantFrom(null, 'west'),
    strokes: fc.integer({ min: 1, max: 9 }),
    result: fc.constantFrom(...strokeResults),
    predictedSnaps: fc.option(figure(0, 1), { nil: null }),
    snapFactor: figure(0.01, 20),
  }),
  left: fc.record({ contact, why: words }),
  replaced: fc.record({
    contact,
    how: fc.constantFrom('stub raise', 'transplant', 'whole socket'),
    holds: fc.boolean(),
    pulledOut: fc.array(contact, { maxLength: 2 }),
  }),
  school: fc.record({ school: fc.constantFrom('A', 'B') }),
  seat: fc.record({
    cpu: words,
    drop: fc.constantFrom(...drops),
    heatsink: fc.boolean(),
  }),
  missing: fc.record({ what: words, from: words }),
  accounted: fc.record({
    item: fc.oneof(
      line,
      fc.tuple(line, fc.nat({ max: 2 })).map(([seq, i]) => `${seq}/${i}`),
    ),
    where: words,
  }),
  firmware: some<Bodies['firmware']>({
    version: words,
    chip: words,
    chipVolts: fc.constantFrom(1.8, 3.3),
    programmerVolts: fc.constantFrom(1.8, 3.3),
    clipOn: fc.boolean(),
    chipId: fc.constantFrom('FFFFFF', '7F7F336015'),
    did: words,
    wrote: words,
    wroteBy: fc.constantFrom('clip', 'desoldered'),
  }),
  'chip moved': fc.record({
    to: fc.constantFrom('off', 'on'),
    by: fc.constantFrom('hot air', 'iron', 'hand'),
    despite: fc.constantFrom([], ['unplugged, coin cell out, standby gone']),
  }),
  refit: some<Bodies['refit']>({
    orientation: fc.constantFrom('right', 'turned'),
    pads: fc.constantFrom('whole', 'lifted'),
    joints: fc.constantFrom('sound', 'open or bridged'),
    reflowed: fc.constant(true as const),
    seated: fc.boolean(),
    lines: fc.constantFrom({ CS: 33 }, { DO: null, GND: 0.3 }),
  }),
  route: fc.record({
    want: fc.constantFrom({ release: null, cpu: 'Orrin 53' }, { release: '1.52', cpu: null }),
    by: fc.constantFrom('time', 'risk', 'purchase'),
    hand: fc.constantFrom([], ['Orrin 44']),
    ways: fc.constant(['the built-in updater']),
    steps: fc.array(
      fc.record({
        say: words,
        do: fc.constantFrom('fit', 'write', 'switch'),
        cpu: fc.constantFrom(null, 'Orrin 44'),
        release: fc.constantFrom(null, '1.52'),
        before: pair,
        after: pair,
        dark: fc.boolean(),
        way: fc.constantFrom(null, 'updater', 'programmer'),
        by: fc.constantFrom(null, 'clip'),
        minutes: fc.constantFrom(6, 12.5),
      }),
      { maxLength: 3 },
    ),
    minutes: fc.constantFrom(0, 36),
    risk: fc.constantFrom(0, 0.05),
    price: fc.constantFrom(0, 90),
    trust: fc.constantFrom(0.7, 1),
    unstable: fc.boolean(),
  }),
  image: fc.record({
    file: hash,
    name: words,
    bytes: fc.constantFrom(0, 2_097_152),
    role: fc.constantFrom('read', 'release', 'older release'),
    versions: fc.constantFrom([], ['1.40']),
  }),
  written: fc.record({
    image: hash,
    release: fc.option(hash, { nil: null }),
    backup: fc.option(hash, { nil: null }),
    id: words,
    erased: fc.nat(512),
    programmed: fc.nat(8192),
    despite: fc.constantFrom([], ['no photo of the place']),
  }),
  compared: fc.record({
    original: hash,
    second: fc.constant(null),
    release: hash,
    older: fc.constant(null),
    label: fc.constantFrom(null, '1.40'),
    verdict: fc.constantFrom('same code', 'broken off', 'damaged', 'another release', 'cannot tell'),
    say: words,
    why: fc.constantFrom([], ['two reads of the chip are equal']),
    places: fc.constantFrom([], [{ from: 4096, to: 8192 }]),
  }),
  pads: fc.record({
    ref: fc.constantFrom('R1', 'C2'),
    a: fc.constantFrom({}, { groundOhm: 0.2 }, { groundOhm: 'open' as const, net: 'SPI_MISO' }),
    b: fc.constantFrom(
      {},
      { rails: { '3v3': 0.3 } },
      { pins: [{ pin: 'U7.5', does: 'data' as const, ohms: 0.4 }] },
    ),
  }),
  recipe: fc.record({
    ref: fc.constantFrom('U7', 'R1'),
    board: fc.constant({ wideMm: 170, highMm: 170 }),
    target: fc.constantFrom('firmware chip', 'small part', 'socket'),
    solder: fc.constantFrom('lead-free', 'leaded'),
    nozzleMm: fc.constantFrom(5, 10),
    distanceMm: fc.constant(8),
    roomC: fc.constant(23),
    spared: fc.constantFrom([], [{ what: 'the slot', atMm: 12, bearsC: 200 }]),
    steps: fc.constant([{ seconds: 180, airC: null, flow: 0, preheatWm2: 1500 }]),
    floatsAtS: fc.constantFrom(null, 52),
  }),
  'parts counted': fc.record({ place: fc.constantFrom(...partPlaces), count: fc.nat(9), of: fc.nat(9) }),
  awaited: fc.record({ what: words, expectedOn: fc.constantFrom(null, '2026-12-01') }),
  'awaited settled': fc.record({ awaited: line, how: fc.constantFrom('arrived', 'not coming') }),
  deferred: fc.record({ text: words }),
  'deferred settled': fc.record({
    deferred: line,
    how: fc.constantFrom('done', 'signed off'),
    why: maybeWords,
  }),
  pull: fc.record({ came: fc.constantFrom('whole', 'bent', 'broken') }),
  stock: fc.record({
    item: fc.constantFrom('33 Ω 0402', 'flux'),
    did: fc.constantFrom('reserved', 'released', 'used'),
  }),
  thermocouple: fc.constantFrom({ at: 'board', s: 90, c: 112.5 }, { at: 'joint', s: 0, c: 23 }),
  part: fc.record(
    {
      ref: fc.constantFrom('R1', 'C2'),
      did: fc.constantFrom('found missing', 'found damaged', 'taken off', 'fitted', 'measured'),
      value: words,
      side: fc.constantFrom('top', 'bottom'),
      text: words,
      how: fc.constantFrom(...partDamages),
      place: fc.constantFrom(...partPlaces),
      net: fc.constantFrom('SPI_MISO', 'VCORE_SENSE', 'GND'),
      stock: fc.constantFrom('33 Ω 0402'),
    },
    { requiredKeys: ['ref', 'did'] },
  ),
  trial: fc.constantFrom(
    { test: 'cell', outcome: 'low' },
    { test: 'as it came', outcome: 'memory lamp' },
    { test: 'ohms 12v', outcome: 'short' },
    { test: 'current', outcome: 'trips' },
    { test: 'outside', outcome: 'scorched at a rail' },
    { test: 'round the chip', outcome: 'a resistor gone' },
    { test: 'socket', outcome: 'power contacts touch' },
    { test: 'CPU proud', outcome: 'proud' },
  ),
  'odds said': fc.record({ odds: figure(0, 1), reckoned: fc.option(figure(0, 1), { nil: null }) }),
  mended: fc.record(
    {
      fault: fc.constantFrom('module', '12 V short'),
      takes: chance,
    },
    { requiredKeys: ['fault'] },
  ),
  ...proofBodies,
  advice: fc.record({ text: words }),
  'hand-back': fc.record(
    {
      outcome: fc.constantFrom(...outcomes),
      priceMinor: money,
      text: maybeWords,
      left: fc.constantFrom(0, 0.08, 1),
      fate: fc.constantFrom(...fates),
      exchangedFor: fc.constantFrom('Q-0407', 'Q-0353'),
    },
    { requiredKeys: ['outcome', 'priceMinor', 'text'] },
  ),
  'sheet signed': fc.record(
    {
      signature: fc.option(hash, { nil: null }),
      how: words,
      words: fc.record({
        ...{ title: maybeWords, complaint: maybeWords, outcome: maybeWords },
        parts: fc.array(fc.record({ title: words, lines: fc.array(words), none: words }), { maxLength: 3 }),
        minutes: fc.nat(10_000),
        priceMinor: fc.option(fc.nat(1_000_000), { nil: null }),
      }),
    },
    { requiredKeys: ['signature', 'how'] },
  ),
  machine: fc.record({ came: fc.boolean() }),
  reassembled: fc.record({ check: fc.constantFrom(...reassemblyChecks), ok: fc.boolean(), note: maybeWords }),
  'late outcome': fc.record({ text: words, holds: fc.boolean() }),
  clock: fc.record({ run: fc.constantFrom(...stations, null) }),
  station: fc.record({
    station: fc.constantFrom(...stations),
    mark: fc.constantFrom('settled', 'passed over', 'open'),
    why: maybeWords,
  }),
  strike: fc.record({ why: words }),
}
