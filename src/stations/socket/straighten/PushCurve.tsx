'use client'
import { Line } from 'react-chartjs-2'
import type { PushAdvice } from '@/core/socket/straighten/push'
import { axis } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

/** Odds of contact and odds of having lost it, stroke by stroke. */
export function PushCurve({ advice }: { advice: PushAdvice }) {
  const theme = useTheme()
  const lost = advice.curve.map((c) => ({ x: c.stroke, y: 100 * c.lostByThen }))
  const makes = advice.curve.map((c) => ({ x: c.stroke, y: 100 * c.makesContact }))
  const line = { borderWidth: 1.8, pointRadius: 3.5, tension: 0 }
  return (
    <div className="h-52" key={theme}>
      <Line
        role="img"
        aria-label="Odds of contact and of having lost it, stroke by stroke; the figures stand beside it"
        data={{
          datasets: [
            {
              ...line,
              label: 'makes contact',
              data: [{ x: 0, y: 100 * advice.makesContactNow }, ...makes],
              borderColor: ink('verd'),
              pointStyle: 'circle',
            },
            {
              ...line,
              label: 'lost by then',
              data: [{ x: 0, y: 0 }, ...lost],
              borderColor: ink('ember'),
              borderDash: [5, 4],
              pointStyle: 'crossRot',
            },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: { ...axis('strokes from here'), min: 0, ticks: { color: ink('soft'), precision: 0 } },
            y: { ...axis('%'), min: 0, max: 100 },
          },
          plugins: { legend: { display: true, labels: { usePointStyle: true, color: ink('ink') } } },
        }}
      />
    </div>
  )
}
