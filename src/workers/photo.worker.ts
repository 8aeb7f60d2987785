import { expose } from 'comlink'
import type { Anchor } from '@/core/socket/photo/anchors'
import { greyOf } from '@/core/photo/grey-image'
import type { GreyImage } from '@/core/photo/grey-image'
import { locate } from '@/core/socket/photo/locate'
import type { LocateAnswer, Located } from '@/core/socket/photo/locate'
import type { Socket } from '@/core/socket/model/socket'
import { sentence } from '@/core/sentence'
import { openPicture, pixelsOf } from './open-picture'
import { breath, stepByStep } from './step-by-step'

/** Pictures in hand; a click can be made while the pixels are still being read. */
const open = new Map<string, Promise<GreyImage>>()
let dropped = new Set<string>()

const worker = {
  /** Decodes a picture, turned as its camera was held. */
  async open(id: string, file: Blob): Promise<{ widthPx: number; heightPx: number } | { fault: string }> {
    const picture = await openPicture(file, 'field')
    if ('fault' in picture) return { fault: sentence(picture.fault) }
    const { width, height } = picture
    open.set(
      id,
      breath().then(() => {
        const { rgba, widthPx, heightPx } = pixelsOf(picture)
        return greyOf(rgba, widthPx, heightPx)
      }),
    )
    return { widthPx: width, heightPx: height }
  },
  close(id: string): void {
    open.delete(id)
  },
  /** Reads a picture that is open; null when it was dropped on the way. */
  async read(
    id: string,
    socket: Socket,
    anchors: readonly Anchor[],
    mirrored: boolean,
    known: Located | null,
    progress: (share: number) => void,
  ): Promise<LocateAnswer | null> {
    const opened = open.get(id)
    if (!opened) return null
    dropped.delete(id)
    const image = await opened
    const work = locate(socket, image, anchors, { mirrored, ...(known ? { known } : {}) })
    return stepByStep(work, progress, () => dropped.has(id))
  },
  drop(id: string): void {
    dropped = new Set([...dropped, id])
  },
}

export type PhotoWorker = typeof worker

expose(worker)
