/** A board as a plate that has one temperature through its thickness; square cells, no heat over its edges. */
export interface Plate {
  readonly nx: number
  readonly ny: number
  readonly cellMm: number
  readonly thicknessMm: number
  /** Conductivity in the plane, W/mK: copper and resin together (bench default 25). */
  readonly conducts: number
  /** Heat capacity, J/m³K (bench default 1.9·10⁶). */
  readonly holds: number
}

export const benchPlate = { thicknessMm: 1.6, conducts: 25, holds: 1.9e6 } as const

/** What a plate exchanges in each cell: h·(to − T) + flux, both faces together. */
export interface Exchange {
  /** W/m²K. */
  readonly h: Float64Array
  /** h times the temperature it goes to, W/m². */
  readonly hTo: Float64Array
  /** W/m². */
  readonly flux: Float64Array
}

export const noExchange = ({ nx, ny }: Pick<Plate, 'nx' | 'ny'>): Exchange => ({
  h: new Float64Array(nx * ny),
  hTo: new Float64Array(nx * ny),
  flux: new Float64Array(nx * ny),
})

/**
 * Transient conduction in the plate: ρ·c·d·∂T/∂t = k·d·∇²T + h·(T∞ − T) + q, by Douglas’ alternating-direction scheme
 *
 *   (1 − θ·Δt·Aₓ)·Y = T + Δt·((1 − θ)·Aₓ + A_y)·T + Δt·s,   (1 − θ·Δt·A_y)·T′ = Y − θ·Δt·A_y·T,
 *
 * with half of the exchange in each direction. θ = ½ is of second order in the step; θ = 1 damps what a sudden change
 * leaves behind (the first steps after one). Both are stable at any step. Source: Douglas (1962); any text on parabolic
 * equations. Errors: of the grid O(cell²), of the step O(step²).
 */
export class PlateHeat {
  private readonly middle: Float64Array
  private readonly sweep: Float64Array
  private readonly held: Float64Array

  constructor(
    readonly plate: Plate,
    /** Temperatures, °C, row by row. */
    readonly t: Float64Array,
  ) {
    const cells = plate.nx * plate.ny
    this.middle = new Float64Array(cells)
    this.sweep = new Float64Array(cells)
    this.held = new Float64Array(cells)
  }

  /** One step of so many seconds. */
  step(exchange: Exchange, seconds: number, theta = 0.5): void {
    const { nx, ny, cellMm, thicknessMm, conducts, holds } = this.plate
    const { t, middle, sweep, held } = this
    const { h, hTo, flux } = exchange
    const capacity = (holds * thicknessMm) / 1000
    // Between two cells, as a share of the capacity of one, per second.
    const d = conducts / holds / (cellMm / 1000) ** 2
    const dt = seconds
    const cells = nx * ny
    // held = A_y·T; middle = T + Δt·((1 − θ)·Aₓ·T + A_y·T + s).
    for (let j = 0; j < ny; j++) {
      const row = j * nx
      for (let i = 0; i < nx; i++) {
        const c = row + i
        const half = (0.5 * h[c]!) / capacity
        const here = t[c]!
        const up = j > 0 ? t[c - nx]! - here : 0
        const down = j < ny - 1 ? t[c + nx]! - here : 0
        const left = i > 0 ? t[c - 1]! - here : 0
        const right = i < nx - 1 ? t[c + 1]! - here : 0
        const ay = d * (up + down) - half * here
        const ax = d * (left + right) - half * here
        held[c] = ay
        middle[c] = here + dt * ((1 - theta) * ax + ay + (hTo[c]! + flux[c]!) / capacity)
      }
    }
    const k = theta * dt * d
    // Along each row: Thomas’ algorithm.
    for (let j = 0; j < ny; j++) {
      const row = j * nx
      let before = 0
      for (let i = 0; i < nx; i++) {
        const c = row + i
        const ends = i === 0 || i === nx - 1 ? (nx === 1 ? 0 : 1) : 2
        const diagonal = 1 + k * ends + (theta * dt * 0.5 * h[c]!) / capacity
        const denominator = diagonal - (i === 0 ? 0 : k * before)
        before = i === nx - 1 ? 0 : k / denominator
        sweep[c] = before
        middle[c] = (middle[c]! + (i === 0 ? 0 : k * middle[c - 1]!)) / denominator
      }
      for (let i = nx - 2; i >= 0; i--) middle[row + i]! += sweep[row + i]! * middle[row + i + 1]!
    }
    // Along all columns at once, row after row.
    for (let c = 0; c < cells; c++) middle[c]! -= theta * dt * held[c]!
    for (let j = 0; j < ny; j++) {
      const ends = j === 0 || j === ny - 1 ? (ny === 1 ? 0 : 1) : 2
      for (let i = 0; i < nx; i++) {
        const c = j * nx + i
        const diagonal = 1 + k * ends + (theta * dt * 0.5 * h[c]!) / capacity
        const denominator = diagonal - (j === 0 ? 0 : k * sweep[c - nx]!)
        sweep[c] = j === ny - 1 ? 0 : k / denominator
        middle[c] = (middle[c]! + (j === 0 ? 0 : k * middle[c - nx]!)) / denominator
      }
    }
    for (let j = ny - 2; j >= 0; j--)
      for (let i = 0; i < nx; i++) {
        const c = j * nx + i
        middle[c]! += sweep[c]! * middle[c + nx]!
      }
    t.set(middle)
  }
}
