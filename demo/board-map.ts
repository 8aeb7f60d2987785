import { seeded } from '@/core/maths/seeded'
import { indexMap } from '@/core/parts/board-map/board-map'
import type { BoardPoint, BoardSide } from '@/core/parts/board-map/board-map'
import { sizeOf } from '@/core/parts/value/size-code'
import type { Socket } from '@/core/socket/model/socket'

/** What a made-up board is drawn from. */
interface Chip {
  readonly ref: string
  readonly xMm: number
  readonly yMm: number
  readonly pins: readonly string[]
  readonly stepMm: number
  readonly wideMm: number
}

const SIZE_MM = [244, 244] as const
/** Where the middle of the socket stands, from the lower left corner. */
const SOCKET_AT = [110, 165] as const

/** Pins down one side and up the other. */
function chipPoints({ ref, xMm, yMm, pins, stepMm, wideMm }: Chip, side: BoardSide = 'top'): BoardPoint[] {
  const half = pins.length / 2
  return pins.map((net, i) => {
    const right = i >= half
    const along = right ? pins.length - 1 - i : i
    return pad({
      net,
      ref,
      pin: String(i + 1),
      side,
      xMm: xMm + (right ? wideMm / 2 : -wideMm / 2),
      yMm: yMm + ((half - 1) / 2 - along) * stepMm,
      wMm: 1.2,
      hMm: 0.45,
    })
  })
}
const pad = (of: Partial<BoardPoint>): BoardPoint => ({
  net: '',
  ref: '',
  pin: '',
  kind: 'pad',
  side: 'top',
  xMm: 0,
  yMm: 0,
  wMm: 0.5,
  hMm: 0.5,
  drillMm: 0,
  plated: true,
  middle: false,
  ...of,
})

/** A part of two pads, lying or standing. */
function small(
  ref: string,
  [a, b]: readonly [string, string],
  [xMm, yMm]: readonly [number, number],
  code: string,
  upright: boolean,
  side: BoardSide,
): BoardPoint[] {
  const { padsMm, widthMm } = sizeOf(code)!
  return [a, b].map((net, i) => {
    const off = (i === 0 ? -padsMm : padsMm) / 2
    return pad({
      net,
      ref,
      pin: String(i + 1),
      side,
      xMm: xMm + (upright ? 0 : off),
      yMm: yMm + (upright ? off : 0),
      wMm: upright ? widthMm : padsMm * 0.6,
      hMm: upright ? padsMm * 0.6 : widthMm,
    })
  })
}

/**
 * A board round a socket, made up by rules: the socket’s own contacts, a chipset, the firmware chip with a resistor in each
 * of its lines, the core regulator and its sense lines, memory slots, capacitors underneath, vias and screw holes.
 */
export function madeBoard(socket: Socket, seed = 61): BoardPoint[] {
  const draw = seeded(seed)
  const points: BoardPoint[] = []
  for (const c of socket.contacts)
    points.push(
      pad({
        net: c.group === 'reserved' || c.group === 'unknown' ? '' : c.net,
        ref: 'XU1',
        pin: c.name,
        xMm: SOCKET_AT[0] + c.xMm,
        yMm: SOCKET_AT[1] + c.yMm,
      }),
    )
  const io = ['CS0#', 'IO2', 'IO3', 'MISO', 'MOSI', 'CLK'] as const
  points.push(
    ...chipPoints({
      ref: 'U7',
      xMm: 60,
      yMm: 60,
      stepMm: 1.27,
      wideMm: 5.4,
      pins: ['SPI_CS0#', 'SPI_MISO', 'SPI_IO2', 'GND', 'SPI_MOSI', 'SPI_CLK', 'SPI_IO3', 'P1V8_SPI'],
    }),
    ...chipPoints({
      ref: 'U3',
      xMm: 90,
      yMm: 62,
      stepMm: 0.8,
      wideMm: 16,
      pins: Array.from({ length: 40 }, (_, i) =>
        i < 6
          ? `PCH_${io[i]!}`
          : i < 20
            ? `PCH_GPIO${i}`
            : i < 26
              ? 'P1V05_PCH'
              : i < 34
                ? 'GND'
                : `PCH_USB${i}`,
      ),
    }),
    ...chipPoints({
      ref: 'U20',
      xMm: 60,
      yMm: 165,
      stepMm: 0.5,
      wideMm: 7,
      pins: [
        'VR_FB',
        'VCORE_SENSE_R',
        'VSS_SENSE_R',
        'VR_EN',
        'VR_PG',
        'VR_CLK',
        'PHASE1',
        'PHASE2',
        'PHASE3',
        'P5V',
        'P12V_CPU',
        'GND',
      ],
    }),
  )
  io.forEach((line, i) => {
    points.push(
      ...small(`R${211 + i}`, [`SPI_${line}`, `PCH_${line}`], [68 + 2.2 * i, 54], '0402', true, 'top'),
    )
  })
  points.push(
    ...small('R221', ['P1V8_SPI', 'SPI_IO2'], [54, 66], '0402', false, 'top'),
    ...small('R222', ['P1V8_SPI', 'SPI_IO3'], [54, 68], '0402', false, 'top'),
    ...small('C231', ['P1V8_SPI', 'GND'], [64, 66], '0402', false, 'top'),
    ...small('R301', ['VCORE_SENSE', 'VCORE_SENSE_R'], [66, 160], '0402', false, 'top'),
    ...small('R302', ['VSS_SENSE', 'VSS_SENSE_R'], [66, 158], '0402', false, 'top'),
    ...small('R303', ['VCORE', 'VR_FB'], [54, 160], '0402', false, 'top'),
    ...small('R304', ['GND', 'VR_FB'], [54, 158], '0402', false, 'top'),
    ...small('FB1', ['P3V3', 'P1V8_SPI'], [56, 52], '0603', false, 'top'),
  )
  // Under the socket and round it, as many as there is room for.
  const supplies = ['VCORE', 'VCORE', 'VCORE', 'VMEM', 'VSYS', 'VIO'] as const
  for (let i = 0; i < 96; i++) {
    const net = supplies[Math.floor(draw() * supplies.length)]!
    const at = [SOCKET_AT[0] - 18 + 3.2 * (i % 12), SOCKET_AT[1] - 13 + 3.6 * Math.floor(i / 12)] as const
    points.push(
      ...small(`C${401 + i}`, [net, 'GND'], at, i % 5 === 0 ? '0805' : '0402', i % 2 === 0, 'bottom'),
    )
  }
  for (let phase = 0; phase < 3; phase++)
    points.push(
      ...small(`L${phase + 1}`, [`PHASE${phase + 1}`, 'VCORE'], [76, 148 + 14 * phase], '2512', true, 'top'),
    )
  for (let slot = 0; slot < 4; slot++)
    for (let i = 0; i < 60; i++)
      points.push(
        pad({
          net: i % 4 === 0 ? 'GND' : i % 7 === 0 ? 'VMEM' : `M${slot < 2 ? 'A' : 'B'}_DQ${i}`,
          ref: `J${slot + 1}`,
          pin: String(i + 1),
          kind: 'through',
          side: 'both',
          xMm: 160 + 10 * slot,
          yMm: 100 + 2 * i,
          drillMm: 0.6,
          wMm: 1,
          hMm: 1,
        }),
      )
  for (let i = 0; i < 240; i++)
    points.push(
      pad({
        net: draw() < 0.5 ? 'GND' : 'VCORE',
        kind: 'via',
        side: 'both',
        xMm: 70 + 80 * draw(),
        yMm: 130 + 70 * draw(),
        drillMm: 0.3,
        wMm: 0.6,
        hMm: 0.6,
      }),
    )
  for (const [x, y] of [
    [6, 6],
    [SIZE_MM[0] - 6, 6],
    [6, SIZE_MM[1] - 6],
    [SIZE_MM[0] - 6, SIZE_MM[1] - 6],
  ] as const)
    points.push(
      pad({ kind: 'hole', side: 'both', plated: false, xMm: x, yMm: y, drillMm: 3.2, wMm: 0, hMm: 0 }),
    )
  return points
}

/** The placement list of the same board: values of the small parts round the firmware chip, but for the one that has gone. */
export function madePlacements(points: readonly BoardPoint[]): string {
  const value = (ref: string) =>
    /^R21[12356]$/.test(ref) ? '33' : /^R22/.test(ref) ? '10k' : /^C4/.test(ref) ? '22u' : ''
  const rows = [...indexMap({ points, units: '0.001 mm', unconnected: 0 }).parts.values()]
    .filter((part) => part.pins.length === 2)
    .map(({ ref, xMm, yMm, side }) => [ref, xMm.toFixed(3), yMm.toFixed(3), side, value(ref)].join(','))
  return ['part,x mm,y mm,side,value', ...rows, ''].join('\n')
}
