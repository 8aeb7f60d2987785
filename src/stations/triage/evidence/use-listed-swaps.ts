'use client'
import { useMemo } from 'react'
import { listedAt } from '@/core/firmware/route/listed'
import type { Swap } from '@/core/triage/instruments/swap-grid'
import { useJob } from '@/job/JobProvider'

/** The trials, each CPU beside the table of the board: whether what was in the chip then runs it. */
export function useListedSwaps(): readonly Swap[] {
  const swaps = useJob((j) => j.state.triage.swaps)
  const firmware = useJob((j) => j.state.firmware)
  const references = useJob((j) => j.setting.references)
  return useMemo(
    () =>
      swaps.map((s) =>
        s.what === 'CPU'
          ? { ...s, listed: listedAt(firmware, references, s.part, s.seq)?.listed ?? s.listed ?? 'not known' }
          : s,
      ),
    [swaps, firmware, references],
  )
}
