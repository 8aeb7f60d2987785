'use client'
import { Line } from 'react-chartjs-2'
import { BELOW_K, sayTemperature } from '@/core/proof/temperature'
import type { KeptTemperature } from '@/core/proof/temperature'
import { plainCurves } from '@/ui/chart'
import { ink } from '@/ui/ink'
import { useTheme } from '@/ui/use-theme'

/** The log as it was read, where it goes on by the fit, and what it must stay below. */
export function TemperatureCurve({ kept }: { kept: KeptTemperature }) {
  const theme = useTheme()
  const points = ({ s, c }: KeptTemperature['read']) => s.map((x, i) => ({ x: x / 60, y: c[i]! }))
  const last = kept.curve.s.at(-1)! / 60
  const well = kept.bearsC - BELOW_K
  return (
    <div className="h-56" key={theme}>
      <Line
        role="img"
        aria-label={`Temperature against time: ${sayTemperature(kept)}`}
        data={{
          datasets: [
            {
              label: `at most ${well} °C`,
              data: [
                { x: 0, y: well },
                { x: last, y: well },
              ],
              borderColor: ink('ember'),
              borderWidth: 1,
              borderDash: [6, 3],
              pointRadius: 0,
            },
            {
              label: 'fitted, and on',
              data: points(kept.curve),
              borderColor: ink('brass'),
              borderWidth: 1.5,
              borderDash: [7, 3],
              pointRadius: 0,
            },
            {
              label: kept.name,
              data: points(kept.read),
              borderColor: ink('ink'),
              borderWidth: 2,
              pointRadius: 0,
            },
          ],
        }}
        options={plainCurves('minutes', '°C', { y: well + 5 })}
      />
    </div>
  )
}
