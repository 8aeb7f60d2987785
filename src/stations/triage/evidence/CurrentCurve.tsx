'use client'
import type { Bodies } from '@/core/slices'

import type { Plugin } from 'chart.js'
import { Line } from 'react-chartjs-2'
import { axis } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

/** Names the stretches along the top, with a thin rule where one ends. */
function named(
  segments: Bodies['current']['segments'],
  colour: { line: string; soft: string },
): Plugin<'line'> {
  return {
    id: 'stretches',
    afterDraw({ ctx, chartArea, scales }) {
      const x = scales.x!
      ctx.save()
      ctx.font = '13px "Atkinson Hyperlegible Next Variable", sans-serif'
      ctx.textBaseline = 'top'
      for (const s of segments) {
        const [from, to] = [x.getPixelForValue(s.fromS), x.getPixelForValue(s.toS)]
        ctx.strokeStyle = colour.line
        ctx.setLineDash([3, 3])
        ctx.beginPath()
        ctx.moveTo(to, chartArea.top)
        ctx.lineTo(to, chartArea.bottom)
        ctx.stroke()
        ctx.fillStyle = colour.soft
        if (to - from > ctx.measureText(s.kind).width + 8) ctx.fillText(s.kind, from + 4, chartArea.top + 2)
      }
      ctx.restore()
    },
  }
}

const points = ({ s, a }: Bodies['current']['curve'] | { s: readonly number[]; a: readonly number[] }) =>
  s.map((x, i) => ({ x, y: a[i]! }))

/** The curve against time, the good board's behind it. */
export function CurrentCurve({
  current,
  good,
}: {
  current: Bodies['current']
  good: { readonly s: readonly number[]; readonly a: readonly number[] } | null
}) {
  const theme = useTheme()
  const colour = { line: ink('line'), soft: ink('soft'), brass: ink('brass'), slate: ink('slate') }
  const line = { pointRadius: 0, borderWidth: 1.6, fill: false, tension: 0 }
  return (
    <div className="h-56" key={theme}>
      <Line
        aria-label={`Current against time: ${current.pattern}, peak ${current.peakA.toFixed(2)} A; the stretches stand below in words`}
        role="img"
        data={{
          datasets: [
            { ...line, label: 'this board', data: points(current.curve), borderColor: colour.brass },
            ...(good
              ? [
                  {
                    ...line,
                    label: 'a good board',
                    data: points(good),
                    borderColor: colour.slate,
                    borderDash: [5, 4],
                  },
                ]
              : []),
          ],
        }}
        plugins={[named(current.segments, colour)]}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          normalized: true,
          interaction: { mode: 'nearest', axis: 'x', intersect: false },
          scales: { x: axis('seconds'), y: { ...axis('amperes'), min: 0 } },
          plugins: {
            legend: { display: false },
            tooltip: {
              callbacks: {
                title: (items) => `${items[0]!.parsed.x!.toFixed(2)} s`,
                label: (item) => `${item.dataset.label}: ${item.parsed.y!.toFixed(3)} A`,
              },
            },
          },
        }}
      />
      {good && <p className="sr-only">The dashed line is a good board of the same model.</p>}
    </div>
  )
}
