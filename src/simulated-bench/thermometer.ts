import { normalDraw, seeded } from '@/core/maths/seeded'

/** A machine under steady load, as heat flows: die, heatsink, and what stands round it, each with what it holds and passes on. */
export interface Machine {
  readonly roomC: number
  readonly watts: number
  /** J/K. */
  readonly holds: readonly [die: number, heatsink: number, round: number]
  /** W/K: die to heatsink, heatsink to what is round it, and that to the room. */
  readonly passes: readonly [mount: number, fins: number, room: number]
}

export function drawMachine(seed: number): Machine {
  const draw = seeded(seed * 17 + 5)
  const between = (least: number, most: number) => least * (most / least) ** draw()
  // One mount in five is poor: paste dry, cooler not down.
  const poor = draw() < 0.2
  return {
    roomC: 18 + 8 * draw(),
    watts: between(28, 95),
    holds: [between(8, 25), between(120, 420), between(500, 1800)],
    passes: [poor ? between(0.9, 2.2) : between(3, 9), between(2.2, 6), between(6, 16)],
  }
}

/** Where it levels off, °C: all of the heat through one after another. */
export const levelOf = ({ roomC, watts, passes }: Machine): number =>
  roomC + watts * passes.reduce((sum, p) => sum + 1 / p, 0)

/** Its sensor, read every few seconds: steps of half a degree or a whole one, noise, a slip now and then, a gap. */
export function logOf(
  { roomC, watts, holds, passes }: Machine,
  seed: number,
  seconds: number,
): { readonly s: number; readonly c: number }[] {
  const draw = seeded(seed * 29 + 11)
  const every = [1, 2, 5][Math.floor(draw() * 3)]!
  const step = draw() < 0.5 ? 0.5 : 1
  const noise = 0.2 + 0.6 * draw()
  const gap = draw() < 0.3 ? seconds * (0.2 + 0.5 * draw()) : -1
  // It came from triage: not always cold.
  const before = draw() * 0.3
  const t = [roomC, roomC, roomC].map((c, i) => c + before * watts * (i === 0 ? 0.2 : 0.1)) as [
    number,
    number,
    number,
  ]
  const log: { s: number; c: number }[] = []
  const dt = 0.1
  for (let n = 0; n * dt <= seconds; n++) {
    const s = n * dt
    if (n % Math.round(every / dt) === 0 && !(gap >= 0 && s > gap && s < gap + 40)) {
      const slip = draw() < 0.004
      log.push({
        s: Math.round(s),
        c: slip
          ? [0, 127][Math.floor(draw() * 2)]!
          : Math.round((t[0] + noise * normalDraw(draw)) / step) * step,
      })
    }
    const flows = [(t[0] - t[1]) * passes[0], (t[1] - t[2]) * passes[1], (t[2] - roomC) * passes[2]] as const
    t[0] += (dt * (watts - flows[0])) / holds[0]
    t[1] += (dt * (flows[0] - flows[1])) / holds[1]
    t[2] += (dt * (flows[1] - flows[2])) / holds[2]
  }
  return log
}
