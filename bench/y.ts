import { demoSockets } from '../demo/sockets'
import { runOut, drawSetting, clicksOn } from './photo'
import { drawDamage } from '@/stand-ins/drawn-damage'
import { takePhoto } from '@/stand-ins/microscope-camera'
import { locate } from '@/core/socket/photo/locate'
import { tipHeights } from '@/core/socket/photo/tip-height'
const socket = demoSockets.lg1716
for (let s=100;s<104;s++){
  const set = drawSetting(s)
  const marks = drawDamage(socket, s, set.damage)
  const a = runOut(takePhoto(socket, marks, set.shot))
  const la = runOut(locate(socket, a.image, clicksOn(socket, a, marks, 4, s)))
  const tilt = {tiltDeg: 35, towardsDeg: 80}
  const b = runOut(takePhoto(socket, marks, {...set.shot, tiltDeg:35, tiltTowardsDeg:80, seed: s+5000}))
  const t0=performance.now()
  const lb = runOut(locate(socket, b.image, clicksOn(socket, b, marks, 4, s+1), {known: la.located!}))
  console.log(performance.now()-t0, lb.faults, la.located?.fitted, lb.located?.fitted, lb.located?.spreadMm)
  if(!la.located||!lb.located) continue
  const h = new Map(tipHeights(socket, la.located, lb.located, tilt).map(x=>[x.name,x]))
  let sq=0,n=0, sqd=0,nd=0
  for (const t of a.tips){const x=h.get(t.name); if(!x||t.gone) continue; const e=x.heightMm-t.heightMm; sq+=e*e;n++; if(t.heightMm!==0){sqd+=e*e;nd++; if(Math.abs(e)>.08)console.log(t.name,marks[t.name],x.heightMm.toFixed(2))} else if(Math.abs(e)>.1) console.log(t.name,marks[t.name],x.heightMm.toFixed(2), la.located.tips.find(q=>q.name===t.name), lb.located.tips.find(q=>q.name===t.name))}
  console.log(s,'rms all',Math.sqrt(sq/n),n,'rms of off-level',Math.sqrt(sqd/nd),nd)
}
