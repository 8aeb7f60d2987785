import { calibrate, corrected } from '@/core/record/calibration'
import type { Said } from '@/core/record/calibration'
import { seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import { line, percent } from './figure'

/** What comes true of odds p in shops that are off in ways of their own; none is drawn as the record corrects. */
const shops: Readonly<Record<string, (p: number) => number>> = {
  right: (p) => p,
  'too sure': (p) => 0.5 + 0.6 * (p - 0.5),
  'not sure enough': (p) => Math.min(0.99, Math.max(0.01, 0.5 + 1.35 * (p - 0.5))),
  'always too high': (p) => p ** 1.7,
  'always too low': (p) => 1 - (1 - p) ** 1.5,
  'right but for sure things': (p) => (p > 0.85 ? 0.78 : p),
}
const RECORDS = [300, 1000, 3000, 10_000]
const UNSEEN = 20_000
const SEEDS = 20

/** Odds as they are said aloud: in twentieths, more often likely than not. */
const drawn = (draw: Uniform, comes: (p: number) => number): Said => {
  const odds = Math.min(0.95, Math.max(0.05, Math.round(20 * (0.1 + 0.9 * Math.sqrt(draw()))) / 20))
  return { odds, came: draw() < comes(odds) }
}

/** Odds that are said, and how often it truly comes: of a simulated shop that is known, where a share counted has its own error. */
interface Truly {
  readonly said: number
  readonly comes: number
}

/** Deciles of said odds that come true within five points, of those that hold at least one in fifty. */
function within(all: readonly Truly[]): readonly [met: number, of: number] {
  const tenths = Array.from({ length: 10 }, (_, i) =>
    all.filter(({ said }) => Math.min(9, Math.floor(said * 10 + 1e-9)) === i),
  ).filter((tenth) => tenth.length >= all.length / 50)
  const off = (tenth: readonly Truly[]) =>
    Math.abs(tenth.reduce((sum, { said, comes }) => sum + said - comes, 0) / tenth.length)
  return [tenths.filter((tenth) => off(tenth) <= 0.05).length, tenths.length]
}

/** Odds as they are said in simulated shops, and as a record of so many corrects them, on others that it has not seen. */
export function recordFigures(): void {
  for (const size of RECORDS) {
    let [met, of] = [0, 0]
    for (const [name, comes] of Object.entries(shops)) {
      let [raw, mended, deciles, after] = [0, 0, 0, 0]
      for (let seed = 0; seed < SEEDS; seed++) {
        const draw = seeded(8_200_000 + seed)
        const { correction } = calibrate(Array.from({ length: size }, () => drawn(draw, comes)))
        const unseen = Array.from({ length: UNSEEN }, () => drawn(draw, comes).odds)
        const [r, n] = within(unseen.map((said) => ({ said, comes: comes(said) })))
        const [m, k] = within(
          unseen.map((said) => ({ said: corrected(said, correction), comes: comes(said) })),
        )
        raw += r
        deciles += n
        mended += m
        after += k
      }
      met += mended
      of += after
      line(`  ${size} odds, shop ${name}: deciles within 5 points, as said`, percent(raw / deciles))
      line(`  ${size} odds, shop ${name}: as the record corrects them`, percent(mended / after))
    }
    line(
      `Record of ${size} odds: deciles within 5 points in all shops`,
      percent(met / of),
      `all: ${met === of ? 'met' : 'MISSED'}`,
    )
  }
}
