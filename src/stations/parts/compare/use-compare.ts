'use client'
import { proxy } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Compared, Mark } from '@/core/parts/compare/compare'
import { isFound } from '@/core/parts/found'
import type { PartPlace } from '@/core/parts/found'
import { useJob } from '@/job/JobProvider'
import { typedNumber } from '@/ui/typed-number'
import { useWorker } from '@/ui/use-worker'
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
/** What a person says of a place. */
export type Judged = 'missing' | 'moved' | 'nothing'
export const isOnTape = (judged: Judged | null | undefined): boolean =>
  judged === 'missing' || judged === 'moved'

/** What was compared last outlasts the tab: the two pictures and what differs. */
interface InHand {
  readonly pictures: Readonly<Partial<Record<Role, Picture>>>
  readonly wide: string
  readonly answer: { readonly is: Compared; readonly of: string } | null
  /** What each place was noted as on the tape, by its name; null for one that is nothing, which is not. */
  readonly said: Readonly<Record<number, string | null>>
  readonly chosen: number
}
const empty: InHand = { pictures: {}, wide: '', answer: null, said: {}, chosen: 0 }

const keyOf = ({ pictures: { photo, other }, wide }: InHand) => `${photo?.url} ${other?.url} ${wide}`

/** What a place is called that nobody named: by its number, and by another where that was a place of other photos. */
function nameOf(n: number, text: string, noted: readonly { ref: string; text?: string }[]): string {
  for (let again = 1; ; again++) {
    const ref = again === 1 ? `place ${n}` : `place ${n}, ${again}`
    if (noted.every((p) => p.ref !== ref || p.text === text)) return ref
  }
}

const startWorker = () =>
  new Worker(new URL('../../../workers/compare.worker.ts', import.meta.url), { type: 'module' })

/** Two photos of a board in hand, compared in a worker, and the marks gone through one by one. */
export function useCompare() {
  const append = useJob((j) => j.append)
  const noted = useJob((j) => j.state.parts.noted)
  const [hand, setHand] = useState(empty)
  const [share, setShare] = useState<number | null>(null)
  const [say, setSay] = useState<{ readonly field: Role | 'wide'; readonly text: string } | null>(null)
  const remote = useWorker<CompareWorker>(startWorker)
  const urls = useRef<string[]>([])
  useEffect(() => {
    const made = urls.current
    return () => {
      made.splice(0).forEach((url) => URL.revokeObjectURL(url))
    }
  }, [])

  const fresh = hand.answer !== null && hand.answer.of === keyOf(hand)
  const marks = useMemo((): readonly Mark[] => (fresh ? hand.answer!.is.marks : []), [fresh, hand.answer])
  const { photo, other } = hand.pictures
  const text = `${photo?.name} beside ${other?.name}`.slice(0, 200)
  /** What a place is, by the tape: what was taken back there is open again. */
  const judged = marks.map((_, i): Judged | null => {
    const name = hand.said[i]
    if (name === null) return 'nothing'
    const line = noted.findLast((p) => p.ref === name && p.text === text && isFound(p))
    return line === undefined ? null : line.did === 'found missing' ? 'missing' : 'moved'
  })
  const wideMm = typedNumber(hand.wide)
  const ready = photo && other && wideMm > 0 ? { photo, other, wideMm } : null

  const take = (role: Role, file: Blob, name: string, kept: boolean, wide?: number) => {
    const url = URL.createObjectURL(file)
    urls.current.push(url)
    setSay(null)
    setHand((h) => ({
      ...h,
      pictures: { ...h.pictures, [role]: { name, file, url, kept } },
      ...(wide === undefined ? {} : { wide: String(wide) }),
      said: {},
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
        setHand((h) => ({ ...h, answer: { is, of }, said: {}, chosen: 0 }))
      }
    } catch {
      setSay({ field: 'photo', text: 'they were not compared; pick them again' })
    }
    setShare(null)
  }
  const stop = () => void remote().stop()

  /**
   * Says what a place is, and goes on to the next that is open; what is missing or was moved stands on the tape at once, and
   * stays what it is until it is taken back there.
   */
  const judge = (as: Judged, told: { name: string; side: 'top' | 'bottom'; place: PartPlace | '' }) => {
    const { chosen } = hand
    if (!marks[chosen] || isOnTape(judged[chosen])) return null
    const ref = as === 'nothing' ? null : told.name.trim() || nameOf(chosen + 1, text, noted)
    if (ref !== null)
      append('part', {
        ref,
        did: as === 'missing' ? 'found missing' : 'found damaged',
        ...(as === 'moved' ? { how: 'off its pads' as const } : {}),
        side: told.side,
        ...(told.place === '' ? {} : { place: told.place }),
        text,
      })
    const after = marks.map((_, i) => (chosen + 1 + i) % marks.length).slice(0, -1)
    setHand((h) => ({
      ...h,
      said: { ...h.said, [chosen]: ref },
      chosen: after.find((i) => !judged[i]) ?? chosen,
    }))
    return ref
  }
  return {
    ...hand,
    marks,
    judged,
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
