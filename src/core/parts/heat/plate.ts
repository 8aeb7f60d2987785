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
  // Of all cells, row by row; then of one row.
  private readonly middle: Float64Array
  private readonly down: Float64Array
  private readonly ahead: Float64Array
  private readonly along: Float64Array
  private readonly held: Float64Array

  constructor(
    readonly plate: Plate,
    /** Temperatures, °C, row by row. */
    readonly t: Float64Array,
  ) {
    this.middle = new Float64Array(plate.nx * plate.ny)
    this.down = new Float64Array(plate.nx * plate.ny)
    this.ahead = new Float64Array(plate.nx)
    this.along = new Float64Array(plate.nx)
    this.held = new Float64Array(plate.nx)
  }

  /** One step of so many seconds. */
  step(exchange: Exchange, seconds: number, theta = 0.5): void {
    const { nx, ny, cellMm, thicknessMm, conducts, holds } = this.plate
    const { t, middle, down, ahead, along, held } = this
    const { h, hTo, flux } = exchange
    const capacity = (holds * thicknessMm) / 1000
    // Between two cells, as a share of the capacity of one, per second.
    const d = conducts / holds / (cellMm / 1000) ** 2
    const dt = seconds
    const perCapacity = 1 / capacity
    const halves = 0.5 * perCapacity
    const explicit = 1 - theta
    const k = theta * dt * d
    const share = theta * dt * halves
    for (let j = 0; j < ny; j++) {
      const row = j * nx
      const [above, below] = [j > 0 ? nx : 0, j < ny - 1 ? nx : 0]
      // held = A_y·T; ahead = T + Δt·((1 − θ)·Aₓ·T + A_y·T + s).
      for (let i = 0; i < nx; i++) {
        const c = row + i
        const here = t[c]!
        const loses = halves * h[c]! * here
        const ay = d * (t[c - above]! + t[c + below]! - 2 * here) - loses
        const ax = d * (t[i > 0 ? c - 1 : c]! + t[i < nx - 1 ? c + 1 : c]! - 2 * here) - loses
        held[i] = ay
        ahead[i] = here + dt * (explicit * ax + ay + (hTo[c]! + flux[c]!) * perCapacity)
      }
      // Along the row: Thomas’ algorithm.
      let before = 0
      let last = 0
      for (let i = 0; i < nx; i++) {
        const back = i === 0 ? 0 : k
        const on = i === nx - 1 ? 0 : k
        const per = 1 / (1 + back + on + share * h[row + i]! - back * before)
        before = on * per
        along[i] = before
        last = (ahead[i]! + back * last) * per
        ahead[i] = last
      }
      for (let i = nx - 2; i >= 0; i--) {
        last = ahead[i]! + along[i]! * last
        ahead[i] = last
      }
      // Down the columns, all of them row after row.
      const back = j === 0 ? 0 : k
      const on = j === ny - 1 ? 0 : k
      for (let i = 0; i < nx; i++) {
        const c = row + i
        const per = 1 / (1 + back + on + share * h[c]! - back * down[c - above]!)
        down[c] = on * per
        middle[c] = (ahead[i]! - theta * dt * held[i]! + back * middle[c - above]!) * per
      }
    }
    for (let c = nx * ny - 1; c >= (ny - 1) * nx; c--) t[c] = middle[c]!
    for (let c = (ny - 1) * nx - 1; c >= 0; c--) t[c] = middle[c]! + down[c]! * t[c + nx]!
  }
}
