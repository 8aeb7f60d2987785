import type { HistoryItem } from '../board/history-item'
import { tellsOfRework } from '../board/hazard'
import type { JobState } from './job-state'

const BY_OTHERS = 'worked on by others'
/** The history as it was told, and what looks tell of it: traces of earlier work are as good as told. */
export function historyOf({ intake, board }: JobState): readonly HistoryItem[] {
  const { history } = intake.ticket
  return history.includes(BY_OTHERS) || !board.looks.some(tellsOfRework) ? history : [...history, BY_OTHERS]
}
