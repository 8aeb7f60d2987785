import { expose } from 'comlink'
import { practiceScore } from '@/core/triage/practice/practice-score'

const review = { practiceScore }

export type PracticeWorker = typeof review

expose(review)
