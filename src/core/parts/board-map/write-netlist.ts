import type { BoardPoint } from './board-map'

const code: Readonly<Record<BoardPoint['kind'], string>> = {
  pad: '327',
  through: '317',
  via: '307',
  hole: '367',
}
const access = { both: '00', top: '01', bottom: '02' } as const

/** Writes points as an IPC-D-356A netlist in thousandths of a millimetre; long names of nets stand as parameters. */
export function writeNetlist(points: readonly BoardPoint[]): string {
  const long = [...new Set(points.map((p) => p.net).filter((net) => net.length > 14))]
  const alias = new Map(long.map((net, i) => [net, `NNAME${i + 1}`]))
  const um = (mm: number) => Math.round(mm * 1000)
  const signed = (mm: number) => `${um(mm) < 0 ? '-' : '+'}${String(Math.abs(um(mm))).padStart(6, '0')}`
  const size = (letter: string, mm: number) => `${letter}${String(um(mm)).padStart(4, '0')}`
  const lines = points.map((p) => {
    const net = (p.net === '' ? 'N/C' : (alias.get(p.net) ?? p.net)).padEnd(17)
    const part = (p.kind === 'via' ? 'VIA' : p.ref).padEnd(6)
    const pin = (p.kind === 'via' || p.pin === '' ? '' : `-${p.pin}`).padEnd(5)
    const hole = p.drillMm > 0 ? `${size('D', p.drillMm)}${p.plated ? 'P' : 'U'}` : '      '
    const turn = p.wMm > 0 ? `${size('X', p.wMm)}${size('Y', p.hMm)}R000` : ''
    return `${code[p.kind]}${net}${part}${pin}${p.middle ? 'M' : ' '}${hole}A${access[p.side]}X${signed(p.xMm)}Y${signed(p.yMm)}${turn}`
  })
  return [
    'C  written in thousandths of a millimetre',
    'P  UNITS CUST 1',
    ...[...alias].map(([net, name]) => `P  ${name} ${net}`),
    ...lines,
    '999',
    '',
  ].join('\n')
}
