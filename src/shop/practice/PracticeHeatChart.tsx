'use client'
import { Line } from 'react-chartjs-2'
import type { HeatRun } from '@/core/parts/heat/heat-run'
import { PLASTIC_C } from '@/core/parts/heat/set-up'
import { plainCurves } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

/** What the thermocouple read; once it is over, the joint as it was, and as it would have been were the board as reckoned. */
export function PracticeHeatChart({
  reads,
  truly,
  reckoned,
  meltsC,
}: {
  reads: readonly { readonly s: number; readonly c: number }[]
  truly: HeatRun | null
  reckoned: HeatRun | null
  meltsC: number
}) {
  const theme = useTheme()
  const last = Math.max(120, reads.at(-1)?.s ?? 0)
  const line = { borderWidth: 2, pointRadius: 0, tension: 0 }
  const curve = (run: HeatRun, of: Float64Array) =>
    [...of.keys()].filter((i) => i % 3 === 0 || i === of.length - 1).map((i) => ({ x: run.s[i]!, y: of[i]! }))
  const across = (y: number) => [
    { x: 0, y },
    { x: last, y },
  ]
  return (
    <div className="h-[19rem]" key={theme}>
      <Line
        role="img"
        aria-label="Temperatures against time; the figures stand beside it"
        data={{
          datasets: [
            {
              ...line,
              label: `liquid from ${meltsC} °C`,
              data: across(meltsC),
              borderColor: ink('verd'),
              borderWidth: 1,
              borderDash: [2, 3],
            },
            {
              ...line,
              label: `plastic bears ${PLASTIC_C} °C`,
              data: across(PLASTIC_C),
              borderColor: ink('ember'),
              borderWidth: 1,
              borderDash: [6, 3],
            },
            {
              ...line,
              label: 'thermocouple beside it',
              data: reads.map(({ s, c }) => ({ x: s, y: c })),
              borderColor: ink('ink'),
            },
            ...(truly
              ? [
                  {
                    ...line,
                    label: 'the joint',
                    data: curve(truly, truly.jointC),
                    borderColor: ink('brass'),
                    borderWidth: 3,
                  },
                ]
              : []),
            ...(reckoned
              ? [
                  {
                    ...line,
                    label: 'as reckoned',
                    data: curve(reckoned, reckoned.jointC),
                    borderColor: ink('brass'),
                    borderWidth: 1,
                    borderDash: [7, 3],
                  },
                ]
              : []),
          ],
        }}
        options={plainCurves('seconds', '°C', { x: last, y: 300, yFrom: 0 })}
      />
    </div>
  )
}
