/** What a power-up looked like. */
export interface Baseline {
  readonly fans: 'off' | 'twitch' | 'on' | 'not noted'
  readonly current: 'none' | 'standby' | 'steady' | 'cycling' | 'trips' | 'not noted'
  readonly amps: number | null
  readonly lamp: 'none' | 'cpu' | 'memory' | 'graphics' | 'boot' | 'not noted'
  readonly beeps: string
  readonly cpuHeat: 'cold' | 'warm' | 'hot' | 'not noted'
  readonly codes: readonly string[]
  readonly picture: 'none' | 'maker screen' | 'system loads' | 'not noted'
}

/** A power-up of which nothing is noted yet. */
export const nothingNoted: Baseline = {
  fans: 'not noted',
  current: 'not noted',
  amps: null,
  lamp: 'not noted',
  beeps: '',
  cpuHeat: 'not noted',
  codes: [],
  picture: 'not noted',
}
