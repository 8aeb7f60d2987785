import { median } from '../../maths/median'
import { Matrix, solve } from 'ml-matrix'
import { biweight } from '../../photo/projection'
import type { Point } from '../../photo/projection'

/** A tip that is likely in place: where it should be, which way its beam runs, and how far off it was found, mm. */
export interface Shifted {
  readonly mm: Point
  readonly beamDeg: number
  readonly offMm: Point
}

/** The shift that light and lens give to every tip alike, mm, at a place of the field and for a direction of beam. */
export type LightField = (mm: Point, beamDeg: number) => Point

/** Terms up to the third order, in units of the field's size. */
const terms = (x: number, y: number): readonly number[] => [
  1,
  x,
  y,
  x * x,
  x * y,
  y * y,
  x * x * x,
  x * x * y,
  x * y * y,
  y * y * y,
]

/**
 * Smooth shift of all tips: a polynomial of third order over the field with one constant more for each further
 * direction of beam, fitted by least squares with the biweight. It starts from the median of each direction, so that a
 * swath that was dragged alike, being a small part of its direction, carries no weight from the first round on.
 * @returns the field of shifts and the spread of what is left, σ of one coordinate, mm
 */
export function lightField(tips: readonly Shifted[]): { readonly at: LightField; readonly spreadMm: number } {
  const directions = [...new Set(tips.map((t) => t.beamDeg))]
  const sizeMm = Math.max(1e-6, ...tips.map((t) => Math.max(Math.abs(t.mm[0]), Math.abs(t.mm[1]))))
  const row = (mm: Point, beamDeg: number) => [
    ...terms(mm[0] / sizeMm, mm[1] / sizeMm),
    ...directions.slice(1).map((d) => Number(d === beamDeg)),
  ]
  const rows = tips.map((t) => row(t.mm, t.beamDeg))
  const p = rows[0]?.length ?? 0
  let spreadMm = 0.01
  const usual = directions.map((d) => {
    const own = tips.filter((t) => t.beamDeg === d)
    return [median(own.map((t) => t.offMm[0])), median(own.map((t) => t.offMm[1]))] as const
  })
  let left = tips.map((t): Point => {
    const u = usual[directions.indexOf(t.beamDeg)]!
    return [t.offMm[0] - u[0], t.offMm[1] - u[1]]
  })
  let fitted: readonly Float64Array[] | null = null
  for (let round = 0; round < 6 && tips.length > 3 * p; round++) {
    spreadMm = Math.max(0.002, median(left.map((q) => Math.hypot(...q))) / 1.177)
    const normal = Matrix.zeros(p, p)
    const right = Matrix.zeros(p, 2)
    rows.forEach((r, i) => {
      const weight = biweight(Math.hypot(...left[i]!), spreadMm)
      if (weight === 0) return
      for (let j = 0; j < p; j++) {
        const wj = weight * r[j]!
        right.set(j, 0, right.get(j, 0) + wj * tips[i]!.offMm[0])
        right.set(j, 1, right.get(j, 1) + wj * tips[i]!.offMm[1])
        for (let l = 0; l < p; l++) normal.set(j, l, normal.get(j, l) + wj * r[l]!)
      }
    })
    // A ridge far below any real shift keeps terms that a narrow strip of field cannot settle from running away.
    for (let j = 0; j < p; j++) normal.set(j, j, normal.get(j, j) + 1e-3)
    const solved = solve(normal, right, true)
    fitted = [0, 1].map((axis) => Float64Array.from(solved.getColumn(axis)))
    left = tips.map((t, i): Point => {
      const [sx, sy] = fitted!.map((q) => rows[i]!.reduce((sum, v, j) => sum + v * q[j]!, 0))
      return [t.offMm[0] - sx!, t.offMm[1] - sy!]
    })
  }
  spreadMm = Math.max(0.002, median(left.map((q) => Math.hypot(...q))) / 1.177)
  const at: LightField = (mm, beamDeg) => {
    if (!fitted) return usual[directions.indexOf(beamDeg)] ?? [0, 0]
    const r = row(mm, beamDeg)
    return [
      r.reduce((s, v, j) => s + v * fitted![0]![j]!, 0),
      r.reduce((s, v, j) => s + v * fitted![1]![j]!, 0),
    ]
  }
  return { at, spreadMm }
}
