'use client'
import type { Shown } from '@/core/triage/model/shows'
import { useJob } from './JobProvider'

const NOT_SAID: Shown = {}

/** What boards of this model can show; what nobody said may be there. */
export const useShown = (): Shown => useJob((j) => j.setting.references.shows?.shown ?? NOT_SAID)
