import type { DisplayList, Ink } from './display-list'

/** How each ink is put down: fill or line, and the line's width in pitches. */
export const inkStyle: Readonly<
  Record<Ink, { readonly fill: boolean; readonly width: number; readonly dash?: readonly [number, number] }>
> = {
  'zone power': { fill: true, width: 0 },
  'zone memory': { fill: true, width: 0 },
  'zone lanes': { fill: true, width: 0 },
  'zone control': { fill: true, width: 0 },
  pattern: { fill: false, width: 0.05 },
  untrusted: { fill: false, width: 0.06 },
  healthy: { fill: true, width: 0 },
  unseen: { fill: false, width: 0.06, dash: [0.1, 0.1] },
  sound: { fill: true, width: 0 },
  tie: { fill: false, width: 0.09, dash: [0.18, 0.12] },
  stroke: { fill: false, width: 0.14 },
  head: { fill: true, width: 0 },
  ring: { fill: false, width: 0.14 },
  'danger stroke': { fill: false, width: 0.15 },
  'danger head': { fill: true, width: 0 },
  'pin 1': { fill: true, width: 0 },
}

/** Colours of the two themes, for drawings that leave the screen (SVG, PNG, PDF). */
export const inkColours: Readonly<
  Record<'paper' | 'scope', Readonly<Record<Ink, string>> & { readonly ground: string }>
> = {
  paper: {
    ground: '#fbf8f1',
    'zone power': '#f3e2d0',
    'zone memory': '#dcebe0',
    'zone lanes': '#e8e0f1',
    'zone control': '#dce6f0',
    pattern: '#c9b9a0',
    untrusted: '#d5cdbb',
    healthy: '#8a9096',
    unseen: '#8a9096',
    sound: '#2b665d',
    tie: '#a8341a',
    stroke: '#1f262d',
    head: '#1f262d',
    ring: '#1f262d',
    'danger stroke': '#a8341a',
    'danger head': '#a8341a',
    'pin 1': '#94651a',
  },
  scope: {
    ground: '#191e22',
    'zone power': '#33261a',
    'zone memory': '#172d28',
    'zone lanes': '#292238',
    'zone control': '#182a38',
    pattern: '#39413f',
    untrusted: '#30373b',
    healthy: '#72797d',
    unseen: '#8b9296',
    sound: '#7fc0b2',
    tie: '#ee8565',
    stroke: '#e4dfd2',
    head: '#e4dfd2',
    ring: '#e4dfd2',
    'danger stroke': '#ee8565',
    'danger head': '#ee8565',
    'pin 1': '#dcab58',
  },
}

/** The list as a stand-alone SVG drawing, 1 user unit = 1 mm. */
export function toSvg(list: DisplayList, pitchMm: number, theme: 'paper' | 'scope', title: string): string {
  const [x, y, w, h] = list.box
  const colours = inkColours[theme]
  const body = list.paths.map(({ ink, d }) => {
    const style = inkStyle[ink]
    if (style.fill) return `<path d="${d}" fill="${colours[ink]}"/>`
    const dash = style.dash ? ` stroke-dasharray="${style.dash.map((v) => n(v * pitchMm)).join(' ')}"` : ''
    return `<path d="${d}" fill="none" stroke="${colours[ink]}" stroke-width="${n(style.width * pitchMm)}" stroke-linecap="round"${dash}/>`
  })
  const safe = title.replace(
    /[<>&"]/g,
    (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' })[c]!,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${[x, y, w, h].map(n).join(' ')}" width="${n(w * 4)}mm" height="${n(h * 4)}mm" role="img"><title>${safe}</title><rect x="${n(x)}" y="${n(y)}" width="${n(w)}" height="${n(h)}" fill="${colours.ground}"/>${body.join('')}</svg>\n`
}

const n = (v: number) => String(Math.round(v * 1000) / 1000)
