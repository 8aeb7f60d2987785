'use client'
import { proxy } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { LocateAnswer, Located } from '@/core/socket/photo/locate'
import type { Part } from '@/core/socket/photo/clicks'
import { mergePhotos } from '@/core/socket/photo/merge'
import type { Merged } from '@/core/socket/photo/merge'
import { tipHeights } from '@/core/socket/photo/tip-height'
import type { Tilt } from '@/core/socket/photo/tip-height'
import type { Point } from '@/core/photo/projection'
import type { Socket } from '@/core/socket/model/socket'
import { useWorker } from '@/ui/use-worker'
import type { PhotoWorker } from '@/workers/photo.worker'
import { dropInHand, inHandOf, keepInHand } from './kept-photos'
import type { PhotoInHand } from './photo-in-hand'

const startWorker = () =>
  new Worker(new URL('../../../workers/photo.worker.ts', import.meta.url), { type: 'module' })

/** Photos in hand, read in a worker: clicks in, one map out. They outlast the page until they are on the map. */
export function usePhotoMap(tag: string, socket: Socket) {
  const [photos, setPhotos] = useState<readonly PhotoInHand[]>([])
  const [chosen, setChosen] = useState<string | null>(null)
  /** A contact to click that somebody has typed. */
  const [typed, setTyped] = useState('')
  const remote = useWorker<PhotoWorker>(startWorker)
  const urls = useRef<string[]>([])

  useEffect(() => {
    const made = urls.current
    return () => {
      made.splice(0).forEach((url) => URL.revokeObjectURL(url))
    }
  }, [])
  const change = useCallback(
    (id: string, next: Partial<PhotoInHand>) =>
      setPhotos((all) => all.map((p) => (p.id === id ? { ...p, ...next } : p))),
    [],
  )

  const take = useCallback(
    async (photo: PhotoInHand) => {
      urls.current.push(photo.url)
      setPhotos((all) => (all.some((p) => p.id === photo.id) ? all : [...all, photo]))
      const opened = await remote()
        .open(photo.id, photo.file)
        .catch(() => ({ fault: 'It was not opened: put it away and pick it again.' }))
      change(photo.id, 'fault' in opened ? { fault: opened.fault } : { size: opened })
    },
    [change, remote],
  )
  const add = useCallback(
    async (
      file: Blob,
      name: string,
      { side = null, kept = false, part = 'whole' }: { side?: Tilt | null; kept?: boolean; part?: Part } = {},
    ) => {
      const id = crypto.randomUUID()
      const url = URL.createObjectURL(file)
      setChosen(id)
      await take({ ...fresh, id, name, file, url, kept, side, part })
    },
    [take],
  )
  // What was in hand when the page was left comes back with its clicks, to be read again.
  useEffect(() => {
    let here = true
    void inHandOf(tag).then((kept) => {
      if (!here) return
      for (const { tag: _, order: __, ...photo } of kept)
        void take({ ...fresh, ...photo, url: URL.createObjectURL(photo.file) })
    })
    return () => {
      here = false
    }
  }, [tag, take])
  const keptAs = useRef(new Map<string, string>())
  useEffect(() => {
    photos.forEach(({ id, name, file, kept, side, mirrored, part, anchors, fault }, order) => {
      if (fault) {
        void dropInHand(id)
        return
      }
      const now = JSON.stringify([side, mirrored, part, anchors])
      if (keptAs.current.get(id) === now) return
      keptAs.current.set(id, now)
      void keepInHand({ id, tag, order, name, file, kept, side, mirrored, part, anchors })
    })
  }, [photos, tag])
  const click = useCallback(
    (photo: PhotoInHand, contact: string, px: Point) =>
      change(photo.id, {
        answer: null,
        anchors: [...photo.anchors.filter((a) => a.contact !== contact), { contact, px }],
      }),
    [change],
  )
  const read = useCallback(
    async (photo: PhotoInHand, known: Located | null) => {
      change(photo.id, { progress: 0, answer: null })
      const answer = await remote()
        .read(
          photo.id,
          socket,
          photo.anchors,
          photo.mirrored,
          known,
          proxy((share: number) => change(photo.id, { progress: share })),
        )
        .catch(() => unread)
      change(photo.id, { progress: null, answer })
    },
    [change, remote, socket],
  )
  const cancel = useCallback((id: string) => void remote().drop(id), [remote])
  const remove = useCallback(
    (id: string) => {
      void remote().drop(id)
      void remote().close(id)
      void dropInHand(id)
      setPhotos((all) => all.filter((p) => p.id !== id))
      setChosen(null)
    },
    [remote],
  )

  /** All that is in hand is on the map: it need not come back. */
  const done = useCallback(() => {
    for (const id of keptAs.current.keys()) void dropInHand(id)
  }, [])

  /** The photo from above that heights are told against: the one that shows most. */
  const above = useMemo(() => {
    const read = photos.filter((p) => p.side === null && p.answer?.located)
    return read.reduce<PhotoInHand | null>((best, p) => (best && seenIn(best) >= seenIn(p) ? best : p), null)
  }, [photos])
  const merged = useMemo((): Merged | null => {
    const plain = photos.filter((p) => p.side === null && p.answer?.located)
    const first = above?.answer?.located
    if (plain.length === 0 || !first) return null
    const heights = photos.flatMap((p) =>
      p.side && p.answer?.located ? tipHeights(socket, first, p.answer.located, p.side) : [],
    )
    return mergePhotos(
      plain.map((p) => ({ name: p.id, located: p.answer!.located! })),
      heights,
    )
  }, [photos, above, socket])
  const photo = photos.find((p) => p.id === chosen) ?? photos.at(-1) ?? null
  return {
    photos,
    photo,
    choose: setChosen,
    typed,
    setTyped,
    add,
    change,
    click,
    read,
    cancel,
    remove,
    done,
    above,
    merged,
  }
}

/** A photo that nothing is known of yet. */
const fresh = {
  size: null,
  fault: '',
  kept: false,
  side: null,
  mirrored: false,
  part: 'whole',
  anchors: [],
  progress: null,
  answer: null,
} as const

/** A thread that breaks down leaves the clicks as they are. */
const unread: LocateAnswer = {
  located: null,
  faults: [{ field: 'photo', text: 'it was not read; read it again' }],
}

export type PhotoMapping = ReturnType<typeof usePhotoMap>

const seenIn = (photo: PhotoInHand) =>
  photo.answer?.located?.tips.filter((t) => t.as !== 'not seen').length ?? 0
