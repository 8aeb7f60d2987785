'use client'
import { Button } from '@/ui/Button'
import type { SimulatedRequest } from './simulated-entries'
import { useSimulated } from './use-simulated'

/** A press that takes an instrument of the simulated bench to the board; nothing where the board is a real one. */
export function Simulated({
  asks,
}: {
  asks: readonly (readonly [words: string, Partial<SimulatedRequest>])[]
}) {
  const { there, busy, say, ask } = useSimulated()
  if (!there) return null
  return (
    <div className="mt-2">
      <div className="flex flex-wrap gap-2">
        {asks.map(([words, request]) => (
          <Button key={words} onClick={() => void ask(request)} disabled={busy} className="py-1!">
            {words}
          </Button>
        ))}
      </div>
      <p className="text-[0.88rem] text-soft">on the simulated bench</p>
      {say && (
        <p role="alert" className="font-semibold text-ember">
          {say}
        </p>
      )}
    </div>
  )
}
