import { nothingRound } from '../job/advice-setting'
import { jobState } from '../job/job-state'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lifted, measured, tape } from '../job/tape.testing'
import { smallField } from '../socket/model/field.testing'
import { functionGroups } from '../board/function-group'
import { doubtsOf } from './doubt'
import { proofStep } from './next-step'
import { isUnpowered, proofPlan, standingOf } from './plan'
import { evidenceOf } from '../job/evidence'
import { proofStanding, touchedBy } from '../job/stations-say'
import { exchangeable, untouched } from '../board/station-says'
import { nothingNoted } from '../board/baseline'
import type { ShelfItem } from '../board/shelf-items'
import type { Touched } from '../board/station-says'

const ids = (t: Partial<Touched>) => proofPlan({ ...untouched, ...t }).map((p) => p.id)

describe('proofPlan', () => {
  it('always asks for cold starts, temperature, memory and a system', () => {
    expect(ids({}).sort()).toEqual(['cold starts', 'memory amount', 'system', 'temperature'])
  })
  it.each([
    [{ groups: ['memory B'] }, ['memory B slots', 'memory test']],
    [{ groups: ['card lanes'] }, ['card width']],
    [{ groups: ['ground'] }, ['load']],
    [{ groups: ['sense'] }, ['core volts']],
    [{ groups: ['unknown'] }, ['ports']],
    [{ firmware: true }, ['version', 'settings']],
    [{ parts: true }, ['continuity']],
  ] as const)('adds what %j touches', (t, wanted) =>
    expect(ids(t)).toEqual(expect.arrayContaining([...wanted])),
  )
  it('says each test whole: of what, why, how long, and when it passes', async () => {
    const said = (what: string, t: Partial<Touched>) =>
      [
        `${what}:`,
        ...proofPlan({ ...untouched, ...t }).map((p) =>
          [
            `  ${p.id}`,
            p.test,
            p.why,
            p.limit,
            `${p.minutes} min`,
            `finds something in ${(100 * p.finds).toFixed(1)} %`,
            p.needs.join(', '),
          ].join(' | '),
        ),
      ].join('\n')
    const all = [
      said('nothing', {}),
      ...functionGroups.map((group) => said(group, { groups: [group] })),
      said('display, own graphics', { groups: ['display'], ownGraphics: true }),
      said('firmware', { firmware: true }),
      said('the cell, and nothing else', { cell: true, cellAlone: true }),
      said('the cell', { cell: true }),
      said('the cell and firmware', { cell: true, firmware: true }),
      said('parts', { parts: true }),
      said('what came and went', { intermittent: true }),
      said('rails that had read low', { rails: ['3v3', 'vcore'] }),
      ...exchangeable.map((thing) => said(`another ${thing}`, { exchanged: [thing] })),
      said('the core supply, repaired', { repaired: [{ of: 'core power', fails: 0.2 }] }),
      said('the card slot, repaired', { repaired: [{ of: 'card lanes', fails: 0.15 }] }),
      said('storage, repaired', { repaired: [{ of: 'storage lanes', fails: 0.1 }] }),
      said('channels, repaired', {
        repaired: [
          { of: 'memory A', fails: 0.15 },
          { of: 'memory B', fails: 0.15 },
        ],
      }),
      said('what keeps settings, repaired', { repaired: [{ of: 'settings kept', fails: 0.1 }] }),
      said('display, repaired', { repaired: [{ of: 'display', fails: 0.1 }] }),
      said('firmware, and it came up since', { firmware: true, cameUp: true }),
    ]
    await expect(all.join('\n\n')).toMatchFileSnapshot('__snapshots__/plan.txt')
  })
  it('of a new cell alone asks for two starts and the settings, and for all of it once anything else was done', () => {
    expect(ids({ cell: true, cellAlone: true })).toEqual(['cold starts', 'settings'])
    for (const more of [
      { contacts: 1 },
      { groups: ['sense'] },
      { firmware: true },
      { parts: true },
      { intermittent: true },
    ] as const)
      expect(ids({ cell: true, cellAlone: true, ...more })).toEqual(expect.arrayContaining(ids(more)))
    const owed = (t: ReturnType<typeof tape>) =>
      proofStanding(jobState(t.entries), null, nothingRound).tests.map((test) => test.id)
    const changed = () => tape().put('cell', { volts: 3.1, isNew: true })
    expect(owed(changed())).toEqual(['cold starts', 'settings'])
    // However it is noted: as a new cell, as the repair of a weak one, or both.
    const mended = tape().put('mended', { fault: 'cell weak' })
    expect(owed(mended).sort()).toEqual(['cold starts', 'settings'])
    expect(owed(changed().put('mended', { fault: 'cell weak' })).sort()).toEqual(['cold starts', 'settings'])
    expect(owed(mended.put('mended', { fault: 'settings' }))).toContain('temperature')
    // A cell that only reads low was not changed; a module that was tried, a repair, a CPU seated are more than a cell.
    expect(owed(tape().put('cell', { volts: 2.1 }))).toContain('temperature')
    const tried = {
      what: 'module',
      part: 'new module',
      place: 'A',
      knownGood: true,
      outcome: 'system loads',
    } as const
    expect(owed(changed().put('swap', tried))).toContain('memory amount')
    expect(owed(changed().put('mended', { fault: 'cell holder' }))).toContain('temperature')
    expect(owed(changed().put('seat', { cpu: 'x', drop: 'flat', heatsink: true }))).toContain('temperature')
    expect(owed(changed().put('trial', { test: 'reseated', outcome: 'system loads' }))).toContain(
      'temperature',
    )
  })
  it('asks for one test that shows what is suspected and was never repaired, where none is owed yet', () => {
    const suspect = (...suspected: Touched['suspected']) => proofPlan({ ...untouched, suspected })
    const settings = { of: 'settings kept', odds: 0.3, say: 'coin cell weak' } as const
    expect(suspect(settings).find((t) => t.id === 'settings')?.why).toBe(
      'suspected and never repaired: coin cell weak',
    )
    const added = (...suspected: Touched['suspected']) =>
      suspect(...suspected)
        .map((t) => t.id)
        .filter((id) => !ids({}).includes(id))
    // Memory is tried of every board; of a test for two things one is enough.
    expect(added({ of: 'memory A', odds: 0.1, say: 'slot A' })).toEqual([])
    expect(added(settings, { ...settings, say: 'settings that do not suit' })).toEqual(['settings'])
    expect(added({ of: 'volts vmem', odds: 0.1, say: 'memory controller' })).toEqual(['volts vmem'])
    expect(added({ of: 'display', odds: 0.1, say: 'display contact open' })).toEqual(['own graphics'])
    // A cell that was changed is still no hour of load where only what it keeps is suspected.
    expect(ids({ cell: true, cellAlone: true, suspected: [settings] }).sort()).toEqual([
      'cold starts',
      'settings',
    ])
    expect(
      ids({ cell: true, cellAlone: true, suspected: [{ of: 'storage lanes', odds: 0.1, say: 'drive' }] }),
    ).toEqual(expect.arrayContaining(['temperature', 'storage ports']))
  })
  it('suspects what triage does of a board that came to a picture, and no more once it is repaired', () => {
    const kept = {
      ...nothingNoted,
      fans: 'on',
      current: 'steady',
      code: 'picture',
      picture: 'system loads',
    } as const
    const up = () => measured().put('cell', { volts: 2.2 }).put('baseline', kept)
    const of = (t: ReturnType<typeof tape>) => touchedBy(jobState(t.entries), null, nothingRound).suspected
    expect(of(up()).map((s) => s.of)).toContain('settings kept')
    expect(of(up())[0]!.odds).toBeGreaterThan(0.3)
    expect(of(up().put('mended', { fault: 'cell weak' })).map((s) => s.say)).not.toContain('coin cell weak')
    // What keeps a board dark is not a proof’s to find.
    expect(of(measured().put('cell', { volts: 2.2 }))).toEqual([])
    expect(of(tape())).toEqual([])
  })
  it('keeps what was made already, whatever it was owed for: what failed still failed', () => {
    const made = ['storage ports', 'volts vmem', 'settings', 'no such test']
    const kept = (t: Partial<Touched>) => proofPlan({ ...untouched, ...t }, made).map((test) => test.id)
    expect(kept({}).sort()).toEqual([...ids({}), 'settings', 'storage ports', 'volts vmem'].sort())
    expect(kept({ cell: true, cellAlone: true }).sort()).toEqual(
      ['cold starts', 'settings', 'storage ports', 'volts vmem'].sort(),
    )
    const failed = tape().put('proof', { test: 'storage ports', result: 'fail', reading: '' })
    expect(proofStanding(jobState(failed.entries), null, nothingRound)).toMatchObject({ failed: 1 })
  })
  it('asks for the same, for the same reasons, once what it asks for was made', () => {
    const odds = { odds: 0.2, say: 'something' }
    const some = fc.subarray<Touched['suspected'][number]['of']>([
      'settings kept',
      'starts',
      'volts vmem',
      'version',
      'storage lanes',
      'cooling',
    ])
    const cells = fc.boolean()
    fc.assert(
      fc.property(some, cells, cells, fc.nat(), (of, cell, firmware, n) => {
        const t = {
          ...untouched,
          cell,
          cellAlone: cell && !firmware,
          firmware,
          suspected: of.map((of) => ({ of, ...odds })),
        }
        const said = (made: readonly string[]) => proofPlan(t, made).map(({ id, why }) => `${id}: ${why}`)
        const asked = proofPlan(t).map(({ id }) => id)
        expect(said(asked.slice(0, n % (asked.length + 1)))).toEqual(said([]))
      }),
    )
  })
  it('doubts a repair by what the shop’s record said when it was made, the last of each fault', () => {
    const of = (t: ReturnType<typeof tape>) => touchedBy(jobState(t.entries), null, nothingRound).repaired
    expect(of(tape().put('mended', { fault: 'slot A' }))).toEqual([
      { of: 'memory A', fails: expect.closeTo(0.28, 9) },
    ])
    const told = tape().put('mended', { fault: 'slot A', takes: 0.4 })
    expect(of(told)).toEqual([{ of: 'memory A', fails: expect.closeTo(0.6, 9) }])
    expect(evidenceOf(jobState(told.entries), null).changes).toMatchObject([{ fault: 'slot A', takes: 0.4 }])
    expect(of(told.put('mended', { fault: 'slot A', takes: 0.5 }))).toEqual([
      { of: 'memory A', fails: expect.closeTo(0.5, 9) },
    ])
  })
  it('asks for more starts of what came and went', () => {
    expect(proofPlan({ ...untouched, intermittent: true }).map((p) => p.test)).toContainEqual(
      expect.stringMatching(/^11 cold starts/),
    )
  })
  it('touching more never asks for less, and every test says why and when it passes', () => {
    const groups = fc.uniqueArray(fc.constantFrom(...functionGroups))
    fc.assert(
      fc.property(groups, fc.constantFrom(...functionGroups), (some, more) => {
        const after = ids({ groups: [...some, more] })
        for (const id of ids({ groups: some })) expect(after).toContain(id)
        for (const test of proofPlan({ ...untouched, groups: some })) {
          expect(test.why.length * test.limit.length).toBeGreaterThan(0)
          expect(test.minutes).toBeGreaterThan(0)
        }
      }),
    )
  })
})

describe('proofStanding', () => {
  const socket = smallField()
  const bent = () => tape().put('mark', { contacts: ['A5'], mark: { kind: 'low' } })
  const stroke = lifted('A5')
  it('remembers what was bent once it is straight', () => {
    const state = jobState(bent().put('stroke', stroke).entries)
    expect(touchedBy(state, socket, nothingRound)).toMatchObject({ groups: ['memory B'], contacts: 1 })
    expect(proofStanding(state, socket, nothingRound).tests.map((t) => t.id)).toContain('memory B slots')
  })
  it('owes a test again when something was changed after it', () => {
    const t = bent().put('stroke', stroke).put('proof', { test: 'system', result: 'pass', reading: 'log-in' })
    const system = () =>
      proofStanding(jobState(t.entries), socket, nothingRound).tests.find((p) => p.id === 'system')!
    expect(system()).toMatchObject({ result: 'pass', again: false })
    t.put('seat', { cpu: 'x', drop: 'flat', heatsink: true })
    expect(system()).toMatchObject({ result: null, again: true, reading: 'log-in' })
  })
  it.each([
    ['firmware', ['cold starts', 'temperature', 'settings', 'version', 'system']],
    ['cpu', ['cold starts', 'temperature', 'system']],
    ['cell', ['cold starts', 'settings']],
    ['lastTouched', ['cold starts', 'temperature', 'settings', 'version', 'continuity', 'system']],
  ] as const)('owes again what another %s could undo, and nothing else', (what, owed) => {
    const planned = proofPlan({ ...untouched, firmware: true, parts: true }).filter(
      (t) => t.id !== 'memory amount',
    )
    const results = Object.fromEntries(
      planned.map((t) => [
        t.id,
        { id: t.id, at: '', by: '', test: t.id, result: 'pass', reading: 'as it should', seq: 5 } as const,
      ]),
    )
    const after = (seq: number) => {
      const none = { firmware: 0, cpu: 0, cell: 0 }
      return standingOf(
        planned,
        doubtsOf(untouched),
        { results, starts: [], temperatures: [] },
        {
          lastTouched: what === 'lastTouched' ? seq : 0,
          changed: what === 'lastTouched' ? none : { ...none, [what]: seq },
        },
        { start: { seq: 1, came: true } },
      )
    }
    const again = ({ tests }: ReturnType<typeof after>) => tests.filter((t) => t.again).map((t) => t.id)
    expect(again(after(6)).sort()).toEqual([...owed].sort())
    expect(after(6)).toMatchObject({ owed: owed.length, failed: 0 })
    expect(again(after(4))).toEqual([])
    expect(again(after(5))).toEqual([])
  })
  it('counts cold starts one by one, since anything that could have undone them', () => {
    const t = tape()
    const is = () =>
      proofStanding(jobState(t.entries), null, nothingRound).tests.find((p) => p.id === 'cold starts')!
    const start = (came: boolean) => t.put('cold start', { came })
    expect(is()).toMatchObject({ id: 'cold starts', starts: 4, result: null, reading: '' })
    start(true)
    start(true)
    expect(is()).toMatchObject({ result: null, reading: '2 of 2', counted: { made: 2, failed: 0 } })
    const say = () =>
      proofStep(proofStanding(jobState(t.entries), null, nothingRound), {
        lamp: 'clear',
        reasons: [],
      } as never).say
    expect(say()).toBe('Cold start 3 of 4: mains off a minute, then start it.')
    start(true)
    start(true)
    expect(is()).toMatchObject({ result: 'pass', reading: '4 of 4' })
    start(false)
    expect(is()).toMatchObject({ result: 'fail', reading: '4 of 5' })
    // Somebody who knows why says otherwise of all of them: they are counted anew from there.
    t.put('proof', { test: 'cold starts', result: 'pass', reading: 'the strip was off' })
    expect(is()).toMatchObject({ result: 'pass', reading: 'the strip was off' })
    start(true)
    expect(is()).toMatchObject({ result: 'pass', reading: 'the strip was off' })
    start(false)
    expect(is()).toMatchObject({ result: 'fail', reading: '1 of 2' })
    // What was changed since makes them all owed again.
    t.put('cell', { volts: 3.1, isNew: true })
    expect(is()).toMatchObject({ result: null })
    start(true)
    expect(is().counted).toMatchObject({ made: 1, failed: 0 })
  })
  it('knows nothing of a test that was not done', () => {
    const none = { lastTouched: 9, changed: { firmware: 9, cpu: 9, cell: 9 } }
    const { tests, owed } = standingOf(
      proofPlan(untouched),
      doubtsOf(untouched),
      { results: {}, starts: [], temperatures: [] },
      none,
      { start: null },
    )
    expect(owed).toBe(tests.length)
    for (const test of tests) expect(test).toMatchObject({ result: null, reading: '', again: false })
  })
  it('only continuity is read without power', () => {
    const planned = proofPlan({ ...untouched, firmware: true, parts: true, groups: [...functionGroups] })
    expect(planned.filter((t) => isUnpowered(t.id)).map((t) => t.id)).toEqual(['continuity'])
  })
  it('counts what is owed and what failed', () => {
    const t = tape()
      .put('proof', { test: 'system', result: 'fail', reading: '' })
      .put('proof', { test: 'temperature', result: 'cannot run here', reading: '' })
    expect(proofStanding(jobState(t.entries), null, nothingRound)).toMatchObject({ owed: 2, failed: 1 })
  })
  const touched = { ...untouched, groups: ['memory B'], contacts: 1, cameUp: true } as const
  const passing = (test: string, seq = 5) =>
    ({ id: test, at: '', by: '', test, result: 'pass', reading: '', seq }) as const
  const none = { firmware: 0, cpu: 0, cell: 0 }
  const stands = (
    passed: readonly string[],
    board: Parameters<typeof standingOf>[4] = { start: { seq: 1, came: true } },
  ) =>
    standingOf(
      proofPlan(touched),
      doubtsOf(touched),
      { results: Object.fromEntries(passed.map((id) => [id, passing(id)])), starts: [], temperatures: [] },
      { lastTouched: 0, changed: none },
      board,
    )
  const oddsLeft = (standing: ReturnType<typeof stands>) => {
    if ('notKnown' in standing.left) throw new Error(standing.left.notKnown)
    return standing.left
  }
  it('comes to what can still be bad: less by every pass, said of what', () => {
    const all = proofPlan(touched).map((t) => t.id)
    const odds = all.map((_, i) => oddsLeft(stands(all.slice(0, i))).odds)
    expect(oddsLeft(stands([])).of[0]!.what).toBe('memory B')
    for (let i = 1; i < odds.length; i++) expect(odds[i]).toBeLessThanOrEqual(odds[i - 1]!)
    expect(oddsLeft(stands(all)).odds).toBeLessThan(odds[0]! / 2)
  })
  it('says of a test that was not made, or cannot be, what it would find still', () => {
    const by = Object.fromEntries(stands(['system']).tests.map((test) => [test.id, test.untold]))
    expect(by.system).toBe(0)
    expect(by['memory test']).toBeGreaterThan(0.01)
  })
  it.each([
    ['never came up', { start: null }, /has not come up/],
    ['stayed dark last', { start: { seq: 9, came: false } }, /stayed dark/],
    ['may not be powered', { start: { seq: 9, came: true }, closed: true }, /may not be powered/],
  ] as const)('promises nothing small of a board that %s', (_, board, why) => {
    const passed = board.start === null ? [] : ['system']
    const { left, tests } = stands(passed, board)
    expect(left).toMatchObject({ notKnown: expect.stringMatching(why) })
    for (const t of tests) expect(t.untold).toBe(t.result === 'pass' ? 0 : null)
  })
  it('knows it of a job by its last start and its gate: a swap that came up counts, a rail at ground after it too', () => {
    const t = measured()
    const left = () => proofStanding(jobState(t.entries), null, nothingRound).left
    expect(left()).toMatchObject({ notKnown: expect.stringContaining('has not come up') })
    t.put('baseline', { ...nothingNoted, picture: 'none' })
    expect(left()).toMatchObject({ notKnown: expect.stringContaining('stayed dark') })
    const swap = { what: 'module', part: 'lent', place: 'A', knownGood: true } as const
    t.put('swap', { ...swap, outcome: 'system loads' })
    expect(left()).toHaveProperty('odds')
    t.put('swap', { ...swap, outcome: 'memory lamp' })
    expect(left()).toMatchObject({ notKnown: expect.stringContaining('stayed dark') })
    t.put('swap', { ...swap, outcome: 'system loads' }).put('rail', { rail: '12v', ohms: 0.3, cpu: 'out' })
    expect(left()).toMatchObject({ notKnown: expect.stringContaining('may not be powered') })
    t.put('proof', { test: 'system', result: 'fail', reading: '' })
    expect(left()).toMatchObject({ notKnown: expect.stringContaining('failed') })
  })
  it('is in the same order whatever of it was made: its own starts change nothing of the plan', () => {
    const t = measured().put('baseline', { ...nothingNoted, picture: 'maker screen' })
    const ids = () => proofStanding(jobState(t.entries), null, nothingRound).tests.map((test) => test.id)
    const before = ids()
    t.put('cold start', { came: true }).put('proof', { test: 'system', result: 'pass', reading: '' })
    t.put('cold start', { came: false })
    expect(ids()).toEqual(before)
  })
  it('puts last what lacks something; the board’s own modules and drive serve', () => {
    const t = tape()
    const step = (shelf?: readonly ShelfItem[]) =>
      proofStep(proofStanding(jobState(t.entries), null, { ...nothingRound, ...(shelf ? { shelf } : {}) }), {
        lamp: 'clear',
        reasons: [],
      } as never)
    const bare = () => proofStanding(jobState(t.entries), null, { ...nothingRound, shelf: ['meter'] }).tests
    expect(bare().find((p) => p.id === 'memory amount')!.lacks).toEqual([
      'known-good module',
      'second known-good module',
    ])
    expect(step().takes).not.toContain('not at hand')
    for (let i = 0; i < 4; i++) t.put('cold start', { came: true })
    expect(step().proves).toBe('system')
    expect(step(['meter']).proves).toBe('temperature')
    t.put('proof', { test: 'temperature', result: 'pass', reading: '' })
    expect(step(['meter'])).toMatchObject({ takes: expect.stringContaining('not at hand: known-good') })
    t.put('fitted', { modules: ['A', 'B'], drive: 'own' })
    expect(bare().flatMap((p) => p.lacks)).toEqual([])
  })
  it.each([
    ['another CPU', { cpu: 'Orrin 36' }, { cpu: 'Orrin 53' }, ['CPU']],
    ['its own CPU', { cpu: 'Orrin 36' }, { cpu: 'Orrin 36' }, []],
    ['its own CPU, in other words', { cpu: 'Orrin 36' }, { cpu: 'own orrin 36' }, []],
    ['a lent CPU', { cpu: 'Orrin 36' }, { cpu: 'bench Orrin 53' }, []],
  ] as const)('of %s', (_, set, fitted, exchanged) => {
    const t = tape().put('ticket', { set }).put('fitted', fitted)
    expect(touchedBy(jobState(t.entries), null, nothingRound).exchanged).toEqual(exchanged)
  })
  it('a rail that had read low is proved under load, and so is one whose supply was repaired', () => {
    const t = tape()
      .put('rail', { rail: '3v3', ohms: 0.4, cpu: 'out' })
      .put('rail', { rail: '3v3', ohms: 265, cpu: 'out' })
      .put('mended', { fault: 'core regulator part' })
      .put('mended', { fault: 'module' })
    const touched = touchedBy(jobState(t.entries), null, nothingRound)
    expect(touched).toMatchObject({ rails: ['3v3', 'vcore'], exchanged: ['module'], cameUp: false })
    expect(touched.repaired.map((r) => r.of)).toEqual(['core power', 'memory A'])
    t.put('baseline', { ...nothingNoted, picture: 'maker screen' })
    expect(touchedBy(jobState(t.entries), null, nothingRound).cameUp).toBe(true)
    t.put('seat', { cpu: 'x', drop: 'flat', heatsink: true })
    expect(touchedBy(jobState(t.entries), null, nothingRound).cameUp).toBe(false)
  })
})
