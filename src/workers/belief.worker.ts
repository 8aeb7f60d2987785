import { expose } from 'comlink'
import { believe } from '@/core/triage/belief'

const desk = { believe }

export type BeliefDesk = typeof desk

expose(desk)
