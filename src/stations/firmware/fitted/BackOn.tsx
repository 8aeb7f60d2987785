import { movedBy } from '@/core/firmware/bodies'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

const say = {
  'hot air': 'Soldered back, by hot air',
  iron: 'Soldered back, by iron',
  hand: 'Back in its socket',
} as const

/** A chip that is off comes back; the way it came off stands out. */
export function BackOn() {
  const append = useJob((j) => j.append)
  const last = useJob((j) => j.state.firmware.moves.at(-1)?.by ?? 'hot air')
  return movedBy.map((by) => (
    <Button
      key={by}
      look={by === last ? 'first' : 'quiet'}
      className="px-2.5! py-0.5! text-[0.92rem]"
      onClick={() => append('chip moved', { to: 'on', by, despite: [] })}
    >
      {say[by]}
    </Button>
  ))
}
