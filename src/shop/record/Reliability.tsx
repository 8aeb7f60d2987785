'use client'
import { Line } from 'react-chartjs-2'
import { corrected } from '@/core/record/calibration'
import type { Calibration } from '@/core/record/calibration'
import { plainCurves } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

/** Odds said against the share that came true, each tenth with where it lies with 90 %; on the diagonal they are right. */
export function Reliability({ of: { deciles, correction, few } }: { of: Calibration }) {
  const theme = useTheme()
  const there = deciles.filter((d) => d !== null)
  const smooth = Array.from({ length: 49 }, (_, i) => (i + 1) / 50)
  const right = { borderColor: ink('soft'), borderDash: [3, 4], borderWidth: 1, pointRadius: 0 }
  return (
    <div className="h-[22rem]" key={theme}>
      <Line
        role="img"
        aria-label="Share that came true against the odds said; the figures stand beside it"
        data={{
          datasets: [
            {
              ...right,
              label: 'right',
              data: [
                { x: 0, y: 0 },
                { x: 100, y: 100 },
              ],
            },
            ...(few
              ? []
              : [
                  {
                    label: 'as the record corrects them',
                    data: smooth.map((x) => ({ x: 100 * x, y: 100 * corrected(x, correction) })),
                    borderColor: ink('brass'),
                    borderWidth: 1.5,
                    pointRadius: 0,
                  },
                ]),
            {
              label: 'where that lies, with 90 %',
              // Each range is a stroke of its own: a gap follows it.
              data: there.flatMap(({ said, low, high }) => [
                { x: 100 * said, y: 100 * low },
                { x: 100 * said, y: 100 * high },
                { x: 100 * said, y: NaN },
              ]),
              borderColor: ink('ink'),
              borderWidth: 1.5,
              pointRadius: 0,
            },
            {
              label: 'came true',
              data: there.map(({ said, came }) => ({ x: 100 * said, y: 100 * came })),
              borderColor: ink('ink'),
              backgroundColor: ink('ink'),
              pointRadius: 5,
              borderWidth: 2,
              showLine: false,
            },
          ],
        }}
        options={plainCurves('said, %', 'came true, %', { x: 100, y: 100, yFrom: 0 })}
      />
    </div>
  )
}
