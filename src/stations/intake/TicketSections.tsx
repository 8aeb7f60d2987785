'use client'
import { Count, useReader } from '@/ui/reader'
import { historyItems } from '@/core/board/history-item'

import type { FocusEvent, ReactNode } from 'react'
import type { UseFormReturn } from 'react-hook-form'
import type { BoardModel } from '@/data/boards'
import type { SocketSummary } from '@/data/sockets'
import { TicketLine } from '@/ui/TicketLine'
import { PromiseSays } from './PromiseSays'
import type { TicketForm } from './ticket-form'
import type { Promised } from './use-promise'

interface SectionProps {
  readonly form: UseFormReturn<TicketForm>
  readonly keep: () => Promise<void>
}

/** A part of the ticket; it goes on the tape when the focus leaves it. */
function Section({
  title,
  id,
  keep,
  children,
}: {
  title: string
  id: string
  keep: () => Promise<void>
  children: ReactNode
}) {
  const onBlur = (event: FocusEvent<HTMLFieldSetElement>) => {
    if (!event.currentTarget.contains(event.relatedTarget)) void keep()
  }
  return (
    <fieldset id={id} onBlur={onBlur} className="border-t border-line pt-2.5 pb-4">
      <legend className="float-left mb-1 w-full font-semibold">{title}</legend>
      <div className="clear-both flex flex-col gap-0.5">{children}</div>
    </fieldset>
  )
}

export function BoardSection({
  form,
  keep,
  boards,
  sockets,
}: SectionProps & { boards: readonly BoardModel[]; sockets: readonly SocketSummary[] }) {
  const { register, setValue } = form
  const model = register('boardModelId')
  return (
    <Section title="The board" id="board" keep={keep}>
      <TicketLine label="Model">
        <select
          {...model}
          onChange={(event) => {
            void model.onChange(event)
            const board = boards.find((b) => b.id === event.target.value)
            if (!board) return
            const dirty = { shouldDirty: true }
            setValue('board', `${board.maker} ${board.name}`, dirty)
            setValue('revision', board.revision, dirty)
            setValue('socketId', board.socketId ?? '', dirty)
            setValue('rails', board.rails, dirty)
            void keep()
          }}
        >
          <option value="">not in the library</option>
          {boards.map((b) => (
            <option key={b.id} value={b.id}>
              {b.maker} {b.name}
              {b.revision && ` rev ${b.revision}`}
            </option>
          ))}
        </select>
      </TicketLine>
      <TicketLine label="Board">
        <input {...register('board')} placeholder="maker and model as printed on it" />
      </TicketLine>
      <div className="grid grid-cols-[1.15fr_1fr] gap-x-5">
        <TicketLine label="Revision">
          <input {...register('revision')} />
        </TicketLine>
        <TicketLine narrow label="Serial">
          <input {...register('serial')} />
        </TicketLine>
      </div>
      <TicketLine label="Socket">
        <select {...register('socketId')}>
          <option value="">not known yet</option>
          {sockets.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}, <Count n={s.contactCount} /> contacts
            </option>
          ))}
        </select>
      </TicketLine>
      <div className="grid grid-cols-[1.15fr_1fr] gap-x-5">
        <TicketLine label="CPU">
          <input {...register('cpu')} placeholder="as the owner says" />
        </TicketLine>
        <TicketLine narrow label="Memory">
          <input {...register('memory')} placeholder="2 × 8 GB" />
        </TicketLine>
      </div>
    </Section>
  )
}

export function FaultSection({ form, keep }: SectionProps) {
  const { register } = form
  return (
    <Section title="What is wrong with it" id="fault" keep={keep}>
      <TicketLine label="Owner’s words">
        <textarea
          rows={2}
          {...register('complaint')}
          placeholder="dark since a driver bit fell into the socket"
        />
      </TicketLine>
      <TicketLine label="Used as">
        <input {...register('use')} placeholder="ticket kiosk" />
      </TicketLine>
      <div
        role="group"
        aria-label="What happened just before"
        className="mt-1.5 grid grid-cols-[6.6rem_minmax(0,1fr)] gap-x-3"
      >
        <span className="text-[0.94rem] text-soft">Just before</span>
        <div className="grid grid-cols-2 gap-x-3 gap-y-0.5">
          {historyItems.map((item) => (
            <label
              key={item}
              className="flex items-center gap-2 py-0.5 leading-tight has-checked:font-semibold"
            >
              <input type="checkbox" className="shrink-0" value={item} {...register('history')} />
              {item}
            </label>
          ))}
        </div>
      </div>
    </Section>
  )
}

export function TermsSection({ form, keep, promise }: SectionProps & { promise: Promised | null }) {
  const { currency } = useReader()
  const { register, formState, watch, setValue, setFocus } = form
  const { errors } = formState
  const inWarranty = watch('warranty') === 'in warranty' || watch('warranty') === 'paid repair offered'
  return (
    <Section title="Worth, limit, promise" id="terms" keep={keep}>
      <div className="grid grid-cols-[1.15fr_1fr] gap-x-5">
        <TicketLine label="Worth" error={errors.value?.message}>
          <input inputMode="decimal" className="num" placeholder={currency} {...register('value')} />
        </TicketLine>
        <TicketLine narrow label="Limit" error={errors.limit?.message}>
          <input inputMode="decimal" className="num" placeholder={currency} {...register('limit')} />
        </TicketLine>
        <TicketLine label="Minutes" error={errors.minutes?.message}>
          <input inputMode="numeric" className="num" placeholder="at the bench" {...register('minutes')} />
        </TicketLine>
      </div>
      <TicketLine label="Promised">
        <input type="datetime-local" className="num" {...register('promised')} />
      </TicketLine>
      <PromiseSays
        of={promise}
        typed={watch('promised')}
        onPromise={(promised) => {
          setValue('promised', promised, { shouldDirty: true })
          // It goes on the tape like any other, when the section is left.
          setFocus('promised')
        }}
      />
      <TicketLine
        label="Warranty"
        hint={
          inWarranty
            ? 'The maker may repair it for nothing; opening it can end that. Decide before anything is touched; worth it? ($) weighs both.'
            : undefined
        }
      >
        <select {...register('warranty')}>
          <option value="unknown">not asked yet</option>
          <option value="none">none left</option>
          <option value="in warranty">in warranty</option>
          <option value="paid repair offered">maker offers paid repair</option>
        </select>
      </TicketLine>
      {inWarranty && (
        <TicketLine label="Decided">
          <input
            {...register('warrantyDecision')}
            placeholder="owner wants it repaired here, knows the warranty ends"
          />
        </TicketLine>
      )}
      <TicketLine
        label="Disk lock"
        hint="A rewrite or exchange can lock disks that a security module protects."
      >
        <select {...register('diskLock')}>
          <option value="unknown">not asked yet</option>
          <option value="no">no lock in use</option>
          <option value="yes, owner told">in use; owner told and has the recovery key</option>
        </select>
      </TicketLine>
    </Section>
  )
}
