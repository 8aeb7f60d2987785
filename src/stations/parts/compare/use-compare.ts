'use client'
import { proxy, wrap } from 'comlink'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Compared, Mark } from '@/core/parts/compare/compare'
import type { PartPlace } from '@/core/parts/found'
import { useJob } from '@/job/JobProvider'
import { typedNumber } from '@/ui/typed-number'
import type { CompareWorker } from '@/workers/compare.worker'

/** A picture in hand, one of the two that are compared. */
export interface Picture {
  readonly name: string
  readonly file: Blob
  readonly url: string
  /** It hangs on the job already. */
  readonly kept: boolean
}
export type Role = 'photo' | 'other'
/** What a person says of a mark. */
export type Judged = 'missing' | 'moved' | 'nothing'

/** What was compared last outlasts the tab: the two pictures, what differs, and what was said of it. */
interface InHand {
  readonly pictures: Readonly<Partial<Record<Role, Picture>>>
  readonly wide: string
  readonly answer: { readonly is: Compared; readonly of: string } | null
  readonly judged: Readonly<Record<number, Judged>>
  readonly chosen: number
}
const empty: InHand = { pictures: {}, wide: '', answer: null, judged: {}, chosen: 0 }

const keyOf = ({ pictures: { photo, other }, wide }: InHand) => `${photo?.url} ${other?.url} ${wide}`

/** What a place is called that nobody named: by its number, and by another where that was a place of other photos. */
function nameOf(n: number, text: string, noted: readonly { ref: string; text?: string }[]): string {
  for (let again = 1; ; again++) {
    const ref = again === 1 ? `place ${n}` : `place ${n}, ${again}`
    if (noted.every((p) => p.ref !== ref || p.text === text)) return ref
  }
}

/** Two photos of a board in hand, compared in a worker, and the marks gone through one by one. */
export function useCompare() {
  const append = useJob((j) => j.append)
  const noted = useJob((j) => j.state.parts.noted)
  const [hand, setHand] = useState(empty)
  const [share, setShare] = useState<number | null>(null)
  const [say, setSay] = useState<{ readonly field: Role | 'wide'; readonly text: string } | null>(null)
  const worker = useRef<{ thread: Worker; remote: Remote<CompareWorker> } | null>(null)
  const urls = useRef<string[]>([])
  const remote = useCallback(() => {
    if (!worker.current) {
      const thread = new Worker(new URL('../../../workers/compare.worker.ts', import.meta.url), {
        type: 'module',
      })
      worker.current = { thread, remote: wrap<CompareWorker>(thread) }
    }
    return worker.current.remote
  }, [])
  useEffect(() => {
    const made = urls.current
    return () => {
      worker.current?.thread.terminate()
      worker.current = null
      made.splice(0).forEach((url) => URL.revokeObjectURL(url))
    }
  }, [])

  const fresh = hand.answer !== null && hand.answer.of === keyOf(hand)
  const marks = useMemo((): readonly Mark[] => (fresh ? hand.answer!.is.marks : []), [fresh, hand.answer])
  const wideMm = typedNumber(hand.wide)
  const ready =
    hand.pictures.photo && hand.pictures.other && wideMm > 0
      ? { photo: hand.pictures.photo, other: hand.pictures.other, wideMm }
      : null

  const take = (role: Role, file: Blob, name: string, kept: boolean, wide?: number) => {
    const url = URL.createObjectURL(file)
    urls.current.push(url)
    setSay(null)
    setHand((h) => ({
      ...h,
      pictures: { ...h.pictures, [role]: { name, file, url, kept } },
      ...(wide === undefined ? {} : { wide: String(wide) }),
      judged: {},
      chosen: 0,
    }))
  }
  const compare = async () => {
    if (!ready || share !== null) return
    const of = keyOf(hand)
    setShare(0)
    setSay(null)
    try {
      const answer = await remote().compare(ready.photo.file, ready.other.file, ready.wideMm, proxy(setShare))
      if (answer?.fault)
        setSay({
          field: answer.fault.field === 'pxPerMm' ? 'wide' : answer.fault.field,
          text: answer.fault.text,
        })
      else if (answer?.compared) {
        const is = answer.compared
        setHand((h) => ({ ...h, answer: { is, of }, judged: {}, chosen: 0 }))
      }
    } catch {
      setSay({ field: 'photo', text: 'they were not compared; pick them again' })
    }
    setShare(null)
  }
  const stop = () => void remote().stop()

  /** Says what a mark is; what is missing or was moved stands on the tape at once. */
  const judge = (as: Judged, told: { name: string; side: 'top' | 'bottom'; place: PartPlace | '' }) => {
    const mark = marks[hand.chosen]
    if (!mark) return null
    const { photo, other } = hand.pictures
    const text = `${photo!.name} beside ${other!.name}`.slice(0, 200)
    const ref = told.name.trim() || nameOf(hand.chosen + 1, text, noted)
    if (as !== 'nothing' && hand.judged[hand.chosen] !== as)
      append('part', {
        ref,
        did: as === 'missing' ? 'found missing' : 'found damaged',
        ...(as === 'moved' ? { how: 'off its pads' as const } : {}),
        side: told.side,
        ...(told.place === '' ? {} : { place: told.place }),
        text,
      })
    setHand((h) => {
      const judged = { ...h.judged, [h.chosen]: as }
      const open = (i: number) => judged[i] === undefined
      const order = marks.map((_, i) => (h.chosen + 1 + i) % marks.length)
      return { ...h, judged, chosen: order.find(open) ?? h.chosen }
    })
    return as === 'nothing' ? null : ref
  }
  return {
    ...hand,
    marks,
    compared: fresh ? hand.answer!.is : null,
    ready: ready !== null,
    share,
    say,
    take,
    compare,
    stop,
    judge,
    setWide: (wide: string) => setHand((h) => ({ ...h, wide })),
    choose: (chosen: number) => setHand((h) => ({ ...h, chosen })),
    kept: (role: Role) =>
      setHand((h) => {
        const picture = h.pictures[role]
        return picture ? { ...h, pictures: { ...h.pictures, [role]: { ...picture, kept: true } } } : h
      }),
  }
}

export type Comparing = ReturnType<typeof useCompare>
