import type { Ticket } from '@/core/intake/bodies'
import type { HistoryItem } from '@/core/board/history-item'
import { readMoney } from '@/core/reader'

/** The ticket as it is typed; figures are text until they make sense. */
export interface TicketForm {
  boardModelId: string
  board: string
  revision: string
  serial: string
  socketId: string
  rails: Ticket['rails']
  use: string
  complaint: string
  cpu: string
  memory: string
  history: HistoryItem[]
  value: string
  limit: string
  minutes: string
  promised: string
  warranty: Ticket['warranty']
  warrantyDecision: string
  diskLock: Ticket['diskLock']
}

const two = (n: number) => String(n).padStart(2, '0')

/** A moment as `datetime-local` wants it, in the reader's zone. */
export function localMoment(iso: string | null): string {
  if (!iso) return ''
  const d = new Date(iso)
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}T${two(d.getHours())}:${two(d.getMinutes())}`
}

const amount = (minor: number | null) => (minor === null ? '' : String(minor / 100))

export const formOf = (t: Ticket): TicketForm => ({
  boardModelId: t.boardModelId ?? '',
  board: t.board,
  revision: t.revision,
  serial: t.serial,
  socketId: t.socketId ?? '',
  rails: t.rails,
  use: t.use,
  complaint: t.complaint,
  cpu: t.cpu,
  memory: t.memory,
  history: [...t.history],
  value: amount(t.valueMinor),
  limit: amount(t.limitMinor),
  minutes: t.minutesPromised === null ? '' : String(t.minutesPromised),
  promised: localMoment(t.promisedAt),
  warranty: t.warranty,
  warrantyDecision: t.warrantyDecision,
  diskLock: t.diskLock,
})

/** What of the form differs from the ticket, as the tape takes it. */
export function ticketChanges(form: TicketForm, ticket: Ticket, currency: string): Partial<Ticket> {
  const text = (s: string) => s.trim()
  const typed: Ticket = {
    boardModelId: form.boardModelId || null,
    board: text(form.board),
    revision: text(form.revision),
    serial: text(form.serial),
    socketId: form.socketId || null,
    rails: form.rails,
    use: text(form.use),
    complaint: text(form.complaint),
    cpu: text(form.cpu),
    memory: text(form.memory),
    history: form.history,
    valueMinor: readMoney({ currency }, form.value),
    limitMinor: readMoney({ currency }, form.limit),
    minutesPromised: form.minutes === '' ? null : Number(form.minutes),
    promisedAt: form.promised === '' ? null : new Date(form.promised).toISOString(),
    warranty: form.warranty,
    warrantyDecision: text(form.warrantyDecision),
    diskLock: form.diskLock,
  }
  const sameMinute = form.promised === localMoment(ticket.promisedAt)
  const entries = Object.entries(typed).filter(([field, value]) =>
    field === 'promisedAt'
      ? !sameMinute
      : JSON.stringify(value) !== JSON.stringify(ticket[field as keyof Ticket]),
  )
  return Object.fromEntries(entries)
}
