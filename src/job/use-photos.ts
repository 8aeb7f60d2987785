'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useJob } from './JobProvider'
import { dropPhoto, keepPhoto, photosOf } from './outbox'
import type { UnsentPhoto } from './outbox'
import { upload } from './upload'

export interface WaitingPhoto {
  readonly id: string
  readonly name: string
  readonly caption: string
  readonly url: string
  readonly sent: number
  /** What the server said against it; null while it is on its way or waits for the server. */
  readonly refused: string | null
}

const RETRY_MS = 4000
/** Refused without sending a byte: the server takes less. */
const MAX_MB = 40

/** Pictures of the job that are on their way: kept in the browser until the server has them. */
export function usePhotos() {
  const tag = useJob((j) => j.tag)
  const append = useJob((j) => j.append)
  const [waiting, setWaiting] = useState<readonly WaitingPhoto[]>([])
  const requests = useRef(new Map<string, XMLHttpRequest>())
  const timers = useRef(new Map<string, ReturnType<typeof setTimeout>>())

  const change = useCallback(
    (id: string, next: Partial<WaitingPhoto>) =>
      setWaiting((all) => all.map((p) => (p.id === id ? { ...p, ...next } : p))),
    [],
  )
  const gone = useCallback((id: string) => {
    void dropPhoto(id)
    setWaiting((all) => {
      const photo = all.find((p) => p.id === id)
      if (photo) URL.revokeObjectURL(photo.url)
      return all.filter((p) => p.id !== id)
    })
  }, [])

  const send = useCallback(
    (photo: UnsentPhoto) => {
      const attempt = async () => {
        const { status, answer } = await upload(
          `/api/jobs/${tag}/photos`,
          photo.file,
          (sent) => change(photo.id, { sent }),
          (request) => requests.current.set(photo.id, request),
        )
        if (!requests.current.delete(photo.id)) return
        if (status === 200 && answer.file) {
          const { sha256, type, bytes } = answer.file
          // The picture's own id makes the line: sent twice, it still stands once.
          append(
            'photo',
            { file: sha256, name: photo.name, type, bytes, caption: photo.caption },
            null,
            photo.id,
          )
          gone(photo.id)
        } else if (status === 0 || status >= 500 || status === 401) {
          timers.current.set(
            photo.id,
            setTimeout(() => void attempt(), RETRY_MS),
          )
        } else {
          change(photo.id, { refused: answer.error?.text ?? `The server refused it (${status}).` })
        }
      }
      void attempt()
    },
    [tag, append, change, gone],
  )

  const show = useCallback(
    (photo: UnsentPhoto) => {
      const { id, name, caption } = photo
      const tooLarge = photo.file.size > MAX_MB * 1_048_576
      const refused = tooLarge
        ? `This picture has ${Math.round(photo.file.size / 1_048_576)} MB; at most ${MAX_MB} MB are taken. Save it smaller, or crop it to the socket.`
        : null
      setWaiting((all) => [
        ...all,
        { id, name, caption, url: URL.createObjectURL(photo.file), sent: 0, refused },
      ])
      if (!tooLarge) send(photo)
    },
    [send],
  )

  // Leaving the station stops what is under way; what is not there yet starts again from the browser's copy.
  useEffect(() => {
    let here = true
    const [running, waitingFor] = [requests.current, timers.current]
    void photosOf(tag).then((kept) => here && kept.forEach(show))
    return () => {
      here = false
      for (const [id, request] of running) {
        running.delete(id)
        request.abort()
      }
      for (const timer of waitingFor.values()) clearTimeout(timer)
    }
  }, [tag, show])

  const add = useCallback(
    (files: Iterable<File>, caption = '') => {
      for (const file of files) {
        const photo: UnsentPhoto = {
          id: crypto.randomUUID(),
          tag,
          name: file.name || 'pasted picture',
          caption,
          file,
        }
        void keepPhoto(photo)
        show(photo)
      }
    },
    [tag, show],
  )
  const cancel = useCallback(
    (id: string) => {
      clearTimeout(timers.current.get(id))
      const request = requests.current.get(id)
      requests.current.delete(id)
      request?.abort()
      gone(id)
    },
    [gone],
  )
  return { waiting, add, cancel }
}
