'use client'
import { Chart, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js'
import { ink } from './ink'

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip)
Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', 'Noto Sans', sans-serif"
Chart.defaults.font.size = 13

/** A linear axis with its title, thin rules and soft figures. */
export const axis = (title: string) => ({
  type: 'linear' as const,
  title: { display: true, text: title, color: ink('soft') },
  grid: { color: ink('line'), lineWidth: 0.5 },
  ticks: { color: ink('soft') },
})

/** What each line is, above the chart. */
export const legend = () => ({
  display: true,
  labels: { usePointStyle: false, boxWidth: 26, boxHeight: 0, color: ink('ink'), padding: 8 },
})

/** Curves that are looked at and not touched, with a key above them. */
export const plainCurves = (
  x: string,
  y: string,
  range: { readonly x?: number; readonly y: number; readonly yFrom?: number },
) => ({
  animation: false as const,
  maintainAspectRatio: false,
  parsing: false as const,
  scales: {
    x: { ...axis(x), min: 0, ...(range.x === undefined ? {} : { suggestedMax: range.x }) },
    y: { ...axis(y), suggestedMin: range.yFrom, suggestedMax: range.y },
  },
  plugins: { legend: legend(), tooltip: { enabled: false } },
})
