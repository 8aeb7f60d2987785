import { jobState } from '@/core/job/job-state'

// npm run bench: every figure beside its target. `-- browser` adds pages and the map in a real browser,
// `-- 5000` works all 5,000 boards instead of 300.
import { gateOf } from '@/core/job/gate'
import { seeded } from '@/core/maths/seeded'
import { assess } from '@/core/socket/damage/assess'
import { displayList } from '@/core/socket/map/display-list'
import type { Mark } from '@/core/socket/damage/mark'
import { plan } from '@/core/socket/straighten/plan'
import { reckon } from '@/core/socket/straighten/reckon'
import { shorts } from '@/core/socket/damage/short'
import { demoJobs } from '../demo/jobs'
import { demoSockets } from '../demo/sockets'
import { appendFigures } from './append'
import { timed } from './figure'
import { kitFigures, routeFigures, routesAgainstAll, versionFigures } from './route'
import { compareFigures } from './compare'
import { decideFigures } from './decide'
import { heatFigures } from './heat'
import { imageFigures, imageFuzz, sameCodeFigures } from './firmware'
import type { Figure } from './figure'
import { insertionFigures } from './insertion'
import { mapFigures, partsFigures } from './parts'
import { photoFigures } from './photo'
import { proofFigures } from './proof'
import { pushFigures } from './push'
import { secondJudge } from './second-judge'
import { recordFigures } from './record'
import { readyDates, usualHours } from '@/core/shop/promise'
import { temperatureFigures } from './temperature'
import { triageFigures } from './triage'

function print(figures: readonly Figure[]): void {
  for (const f of figures) {
    const verdict =
      f.target === null
        ? ''
        : f.p95 <= f.target
          ? `  target ≤ ${f.target}: met`
          : `  target ≤ ${f.target}: MISSED`
    console.log(
      `${f.what.padEnd(62)} ${f.median.toFixed(1).padStart(8)} ${f.p95.toFixed(1).padStart(8)} ${f.unit}${verdict}`,
    )
  }
}

/** A queue of 200 jobs, three people. */
const promiseFigure = (): Figure => {
  const queue = Array.from({ length: 200 }, (_, i) => ({
    id: String(i),
    minutesLeft: 20 + ((i * 37) % 160),
    notBefore: i % 9 === 0 ? '2026-12-10T09:00' : null,
    promisedAt: '2026-12-20T12:00',
  }))
  const hours = { ...usualHours, people: 3 }
  return timed('200 jobs: when each is ready', 200, () => readyDates(queue, hours, '2026-11-30T09:00'))
}

/** Sixty damaged contacts of all kinds, half of them in a crater, drawn with a seed of their own. */
function damagedField() {
  const socket = demoSockets.lg1716
  const draw = seeded(60)
  const marks: Record<string, Mark> = {}
  const first = socket.contacts.findIndex((c) => c.name === 'M33')
  for (let i = 0; i < 30; i++)
    marks[socket.contacts[first + (i % 6) + 44 * Math.floor(i / 6)]!.name] = {
      kind: 'low',
      heightMm: -0.08 - 0.15 * draw(),
      leanMm: [0.2 * (draw() - 0.5), 0.2 * (draw() - 0.5)],
    }
  while (Object.keys(marks).length < 60) {
    const c = socket.contacts[Math.floor(draw() * socket.contacts.length)]!
    const kind = (['lean', 'twisted', 'folded', 'snapped'] as const)[Math.floor(draw() * 4)]!
    marks[c.name] = {
      kind,
      ...(kind === 'lean' ? { leanMm: [0.6 * (draw() - 0.5), 0.6 * (draw() - 0.5)] as const } : {}),
    }
  }
  return { socket, marks }
}

function core(): Figure[] {
  const { socket, marks } = damagedField()
  const looked = socket.contacts.slice(0, 1500).map((c) => c.name)
  const kiosk = demoJobs(new Date('2026-11-24T15:00:00Z')).find((j) => j.tape.tag === 'Q-0417')!.tape.entries
  const names = demoSockets.lg1284.contacts.map((c) => c.name)
  const state = jobState(kiosk, names)
  return [
    timed('assessment, 1,716 contacts, 60 damaged, 2,000 draws', 200, () =>
      assess(socket, marks, { looked: new Set(looked) }),
    ),
    timed('order of work, the same field', 1000, () => plan(socket, marks)),
    timed('all that the map asks for after a mark (in a worker)', null, () =>
      reckon(socket, { marks, looked, school: 'A', left: {}, strokes: {} }),
    ),
    timed('shorts alone (on the page, after each mark)', null, () => shorts(socket, marks)),
    timed('display list of the field', null, () => displayList(socket, { marks, looked: {} })),
    timed(`state of a tape of ${kiosk.length} lines`, null, () => jobState(kiosk, names)),
    timed('power gate with its evidence', null, () => gateOf(state, demoSockets.lg1284)),
  ]
}

console.log(`${'figure'.padEnd(62)} ${'median'.padStart(8)} ${'p95'.padStart(8)}`)
print(core())
print(await appendFigures())
photoFigures(24)
pushFigures(200)
await insertionFigures(10)
print(imageFigures())
imageFuzz(100_000)
sameCodeFigures(500)
print(routeFigures())
routesAgainstAll(1000)
print(await kitFigures())
versionFigures(4000)
partsFigures()
recordFigures()
decideFigures(process.argv.includes('5000') ? 1000 : 150)
temperatureFigures()
proofFigures()
print([promiseFigure()])
print(mapFigures())
compareFigures(process.argv.includes('5000') ? 60 : 16)
print(heatFigures())
triageFigures(process.argv.includes('5000') ? 5000 : 300)
secondJudge(process.argv.includes('5000') ? 300 : 40)
if (process.argv.includes('browser')) {
  const { browserFigures } = await import('./browser')
  print(await browserFigures())
}
