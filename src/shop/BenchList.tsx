'use client'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import type { Announcements, DragEndEvent } from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { GripVertical } from 'lucide-react'
import { useState, useTransition } from 'react'
import type { ReactNode } from 'react'
import { firstByHand } from '@/core/shop/working-order'
import { Button } from '@/ui/Button'
import { putFirstAction } from './order-actions'

interface BenchRow {
  readonly id: string
  readonly tag: string
  /** It waits for its owner: nobody takes it up, wherever it lies. */
  readonly waits: boolean
  readonly said: ReactNode
}

/** The jobs of the bench, one under the other; one that is dragged comes before the bench’s own order. */
export function BenchList({
  rows,
  putFirst,
  fixed,
}: {
  rows: readonly BenchRow[]
  /** Those that were put first, in their order, off the bench meanwhile or not. */
  putFirst: readonly string[]
  /** A later page: it keeps its order. */
  fixed: boolean
}) {
  const [moved, setMoved] = useState<{
    readonly of: typeof rows
    readonly ids: readonly string[]
    readonly first: readonly string[]
  } | null>(null)
  const [fault, setFault] = useState('')
  const [busy, start] = useTransition()
  const sensors = useSensors(
    // A press that does not move is a press.
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const byId = new Map(rows.map((row) => [row.id, row]))
  // As it was dragged, until the bench has come back with it.
  const underWay = moved?.of === rows ? moved : null
  const first = underWay?.first ?? putFirst
  const byHand = first.filter((id) => byId.get(id)?.waits === false)
  const ids = underWay?.ids ?? rows.map((row) => row.id)
  const keep = (next: readonly string[], shown: readonly string[]) => {
    setMoved({ of: rows, ids: shown, first: next })
    setFault('')
    start(async () => {
      try {
        const wrong = await putFirstAction(next, first)
        if (wrong) setMoved(null)
        setFault(wrong)
      } catch {
        setMoved(null)
        setFault('The server does not answer: the order is as it was.')
      }
    })
  }
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const id = String(active.id)
    const list = arrayMove([...ids], ids.indexOf(id), ids.indexOf(String(over.id)))
    keep(firstByHand(list, byHand, id), list)
  }
  const tagOf = (id: string | number) => byId.get(String(id))?.tag ?? ''
  const place = (id: string | number | undefined) => (id === undefined ? '' : ids.indexOf(String(id)) + 1)
  const announcements: Announcements = {
    onDragStart: ({ active }) =>
      `${tagOf(active.id)} lifted. Arrow keys move it, space puts it down, Escape leaves it.`,
    onDragOver: ({ active, over }) => `${tagOf(active.id)} is at place ${place(over?.id)}.`,
    onDragEnd: ({ active, over }) => `${tagOf(active.id)} put down at place ${place(over?.id)}.`,
    onDragCancel: ({ active }) => `${tagOf(active.id)} stays where it was.`,
  }
  return (
    <>
      <p role="status" className="min-h-[1.5em] text-soft">
        {fault ? (
          <span className="font-semibold text-ember">{fault}</span>
        ) : (
          byHand.length > 0 && (
            <>
              {byHand.length === 1 ? 'The first is' : `The first ${byHand.length} are`} put there by hand.{' '}
              <Button look="bare" disabled={busy} onClick={() => keep([], ids)}>
                Back to the bench’s own order
              </Button>
            </>
          )
        )}
      </p>
      <DndContext
        id="bench"
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements }}
      >
        <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
          <ol>
            {ids.map((id, i) => (
              <Row key={id} row={byId.get(id)!} first={i === 0} fixed={fixed} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </>
  )
}

function Row({
  row: { id, tag, waits, said },
  first,
  fixed,
}: {
  row: BenchRow
  first: boolean
  fixed: boolean
}) {
  const still = fixed || waits
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({
      id,
      disabled: still,
    })
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
      className={`relative grid items-baseline gap-x-6 gap-y-1 py-3 pl-7 hover:bg-sheet sm:grid-cols-[6.6rem_minmax(0,1fr)] lg:grid-cols-[6.6rem_minmax(0,1fr)_11.5rem_10rem] ${first ? 'border-t-2 border-brass' : 'border-t border-line'} ${isDragging ? 'z-20 bg-sheet shadow-[0_0_0_2px_var(--color-brass)]' : ''}`}
    >
      {!still && (
        <button
          ref={setActivatorNodeRef}
          type="button"
          {...attributes}
          {...listeners}
          aria-label={`Move ${tag}`}
          className="absolute top-3 left-0 z-10 cursor-grab touch-none p-1 text-soft hover:text-ink"
        >
          <GripVertical size={18} aria-hidden="true" />
        </button>
      )}
      {said}
    </li>
  )
}
