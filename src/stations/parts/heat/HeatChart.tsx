'use client'
import { Chart, Filler } from 'chart.js'
import type { Plugin } from 'chart.js'
import dragData from 'chartjs-plugin-dragdata'
import { Line } from 'react-chartjs-2'
import type { HeatRun } from '@/core/parts/heat/heat-run'
import { liquidusC, OVER_K, PLASTIC_C } from '@/core/parts/heat/set-up'
import type { HeatStep, SetUp } from '@/core/parts/heat/set-up'
import { axis, legend } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

Chart.register(Filler)
// It registers itself for every chart, and would let the curves of all others be dragged: it is for this one alone.
Chart.unregister(dragData)

const MOST_POINTS = 240

/** Joint, body and neighbours against time, the window between melting and harm, and the air as handles to drag. */
export function HeatChart({
  setUp,
  steps,
  run,
  readings,
  onDrag,
}: {
  setUp: SetUp
  steps: readonly HeatStep[]
  run: HeatRun
  readings: readonly { readonly s: number; readonly c: number }[]
  /** A step’s air was dragged to so many degrees, its end to so many seconds after its beginning. */
  onDrag: (step: number, airC: number, seconds: number) => void
}) {
  const theme = useTheme()
  const every = Math.max(1, Math.ceil(run.s.length / MOST_POINTS))
  const curve = (of: Float64Array) =>
    [...of.keys()]
      .filter((i) => i % every === 0 || i === of.length - 1)
      .map((i) => ({ x: run.s[i]!, y: of[i]! }))
  const ends = steps.reduce<number[]>((all, s) => [...all, (all.at(-1) ?? 0) + s.seconds], [])
  const last = ends.at(-1)!
  const across = (y: number) => [
    { x: 0, y },
    { x: last, y },
  ]
  const handles = steps.flatMap(({ airC }, i) => (airC === null ? [] : [{ x: ends[i]!, y: airC, step: i }]))
  const line = { borderWidth: 2, pointRadius: 0, tension: 0, dragData: false }
  return (
    <div className="h-[17.5rem]" key={theme}>
      <Line
        role="img"
        aria-label="Temperatures against time; the figures stand below"
        plugins={[dragData as Plugin<'line'>]}
        data={{
          datasets: [
            {
              ...line,
              label: `melted through, ${liquidusC[setUp.solder] + OVER_K} °C`,
              data: across(liquidusC[setUp.solder] + OVER_K),
              borderColor: ink('verd'),
              borderWidth: 1,
              borderDash: [2, 3],
              backgroundColor: ink('verd-bg'),
              fill: '+1',
            },
            {
              ...line,
              label: `plastic bears ${PLASTIC_C} °C`,
              data: across(PLASTIC_C),
              borderColor: ink('ember'),
              borderWidth: 1,
              borderDash: [6, 3],
            },
            { ...line, label: 'joint', data: curve(run.jointC), borderColor: ink('brass'), borderWidth: 3 },
            { ...line, label: 'body', data: curve(run.bodyC), borderColor: ink('ink'), borderDash: [7, 3] },
            ...setUp.spared.map(({ what }, i) => ({
              ...line,
              label: what,
              data: curve(run.sparedC[i]!),
              borderColor: ink('slate'),
              borderDash: [2, 2 + i],
            })),
            ...(readings.length > 0
              ? [
                  {
                    ...line,
                    label: 'read',
                    data: readings.map(({ s, c }) => ({ x: s, y: c })),
                    borderColor: ink('ink'),
                    showLine: false,
                    pointRadius: 6,
                    pointStyle: 'crossRot' as const,
                    borderWidth: 2.5,
                  },
                ]
              : []),
            {
              ...line,
              label: 'air, drag it',
              data: handles,
              borderColor: ink('soft'),
              borderWidth: 1,
              stepped: 'after' as const,
              pointRadius: 7,
              pointHitRadius: 12,
              pointStyle: 'rectRounded' as const,
              backgroundColor: ink('sheet'),
              pointBorderWidth: 2,
              dragData: true,
            },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: { ...axis('seconds'), min: 0, suggestedMax: last },
            y: { ...axis('°C'), min: 0, suggestedMax: 300 },
          },
          plugins: {
            legend: legend(),
            tooltip: { enabled: false },
            dragData: {
              dragX: true,
              round: 0,
              showTooltip: false,
              onDragEnd: (_event: unknown, _dataset: number, index: number, value: unknown) => {
                const handle = handles[index]
                const at = value as { readonly x: number; readonly y: number }
                if (handle)
                  onDrag(
                    handle.step,
                    Math.max(30, Math.min(600, Math.round(at.y / 5) * 5)),
                    Math.max(5, Math.min(1800, Math.round(at.x - (ends[handle.step - 1] ?? 0)))),
                  )
              },
            },
          },
        }}
      />
    </div>
  )
}
