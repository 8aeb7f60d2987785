/** What a power-up looked like. */
export interface Baseline {
  /** Restarts: they come on, go off and come on again by themselves. */
  readonly fans: 'off' | 'twitch' | 'restarts' | 'on' | 'not noted'
  /** Whether they stay at full speed or settle. */
  readonly fanSpeed?: 'full speed' | 'settle'
  readonly current: 'none' | 'standby' | 'steady' | 'cycling' | 'trips' | 'not noted'
  readonly amps: number | null
  readonly lamp: 'none' | 'cpu' | 'memory' | 'graphics' | 'boot' | 'in turn' | 'flashing' | 'not noted'
  readonly beeps: string
  readonly cpuHeat: 'cold' | 'warm' | 'hot' | 'not noted'
  readonly codes: readonly string[]
  readonly picture: 'none' | 'maker screen' | 'settings screen' | 'system loads' | 'not noted'
}

/** Whether what was seen of a start is a picture. */
export const isPicture = (seen: string): seen is 'maker screen' | 'settings screen' | 'system loads' =>
  seen === 'maker screen' || seen === 'settings screen' || seen === 'system loads'

/** Whether there was a picture: then it has run. */
export const hasPicture = ({ picture }: Baseline): boolean => isPicture(picture)

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
