import { expose } from 'comlink'
import { believe } from '@/core/triage/belief'
import { practiceScore } from '@/core/triage/practice-score'

const desk = { believe, practiceScore }

export type BeliefDesk = typeof desk

expose(desk)
