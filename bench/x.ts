import { demoSockets } from '../demo/sockets'
import { runOut, drawSetting, clicksOn, count, nothingCounted } from './photo'
import { drawDamage, usualDamage } from '@/stand-ins/drawn-damage'
import { takePhoto } from '@/stand-ins/microscope-camera'
import { locate } from '@/core/socket/photo/locate'
const n = Number(process.argv[2] ?? 4),
  first = Number(process.argv[3] ?? 100)
const socket = demoSockets.lg1716
const all = nothingCounted(); const err: Record<string, number[]> = {}
for (let s = first; s < first + n; s++) {
  const set = drawSetting(s)
  const marks = drawDamage(socket, s, set.damage)
  const photo = runOut(takePhoto(socket, marks, set.shot))
  const t0 = performance.now()
  const ans = runOut(locate(socket, photo.image, clicksOn(socket, photo, marks, set.clickPx, s)))
  const ms = performance.now() - t0
  const one = nothingCounted()
  photo.tips.forEach((t,i)=>{const q=ans.located?.tips[i]; const k=marks[t.name]?.kind; if(q?.as==='displaced'&&k&&Math.hypot(...t.offsetMm)>=.15) (err[k]??=[]).push(Math.hypot(q.offsetMm![0]-t.offsetMm[0],q.offsetMm![1]-t.offsetMm[1]))})
  count(one, photo, ans)
  count(all, photo, ans)
  console.log(
    s,
    ms.toFixed(0),
    'ms',
    ans.located
      ? `fitted ${ans.located.fitted.toFixed(3)} spread ${ans.located.spreadMm.toFixed(4)}`
      : JSON.stringify(ans.faults),
    'disp',
    one.found,
    '/',
    one.displaced,
    'prec',
    one.right,
    '/',
    one.said,
    'gone',
    one.goneFound,
    '/',
    one.gone,
    'prec',
    one.goneRight,
    '/',
    one.goneSaid,
    'amb',
    one.ambiguous,
  )
  if (process.argv[4])
    photo.tips.forEach((t, i) => {
      const seen = ans.located?.tips[i]
      const off = Math.hypot(...t.offsetMm)
      const want = !t.inside
        ? 'out'
        : t.gone
          ? 'missing'
          : off >= 0.15
            ? 'displaced'
            : off > 0.09
              ? 'between'
              : 'in place'
      if (seen && want !== 'between' && want !== seen.as)
        console.log(
          '   ',
          t.name,
          marks[t.name]?.kind,
          'off',
          off.toFixed(2),
          'want',
          want,
          'said',
          seen.as,
          'off',
          seen.offsetMm && Math.hypot(...seen.offsetMm).toFixed(2),
          'shine',
          seen.shine.toFixed(2),
          'conf',
          seen.confidence.toFixed(2),
        )
    })
}
console.log(
  'recall',
  all.found / all.displaced,
  'precision',
  all.right / all.said,
  'rms',
  Math.sqrt(all.square / all.measured / 1),
  'gone recall',
  all.goneFound / all.gone,
  'prec',
  all.goneRight / all.goneSaid,
  'amb',
  all.ambiguous / all.contacts,
)

for(const [k,v] of Object.entries(err)) console.log(k,v.length,'rms',Math.sqrt(v.reduce((a,b)=>a+b*b,0)/v.length).toFixed(4),'max',Math.max(...v).toFixed(3))
