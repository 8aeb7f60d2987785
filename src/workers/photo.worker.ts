import { expose } from 'comlink'
import type { Anchor } from '@/core/socket/photo/anchors'
import { greyOf, MOST_PIXELS } from '@/core/photo/grey-image'
import type { GreyImage } from '@/core/photo/grey-image'
import { locate } from '@/core/socket/photo/locate'
import type { LocateAnswer, Located } from '@/core/socket/photo/locate'
import type { Socket } from '@/core/socket/model/socket'

/** Pictures in hand; a click can be made while the pixels are still being read. */
const open = new Map<string, Promise<GreyImage>>()
let dropped = new Set<string>()

/** Lets messages in, a cancel among them. */
const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0))

function pixelsOf(picture: ImageBitmap): GreyImage {
  const { width, height } = picture
  const sheet = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!
  sheet.drawImage(picture, 0, 0)
  picture.close()
  return greyOf(sheet.getImageData(0, 0, width, height).data, width, height)
}

const worker = {
  /** Decodes a picture, turned as its camera was held. */
  async open(id: string, file: Blob): Promise<{ widthPx: number; heightPx: number } | { fault: string }> {
    let picture: ImageBitmap
    try {
      picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
    } catch {
      return { fault: 'This is no picture that can be read; PNG and JPEG are.' }
    }
    const { width, height } = picture
    if (width * height > MOST_PIXELS) {
      picture.close()
      return {
        fault: `${width} × ${height} is more than 24 million pixels: make it smaller, or take the field in parts.`,
      }
    }
    open.set(
      id,
      breath().then(() => pixelsOf(picture)),
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
    for (;;) {
      const { done, value } = work.next()
      if (done) return value
      progress(value)
      await breath()
      if (dropped.has(id)) return null
    }
  },
  drop(id: string): void {
    dropped = new Set([...dropped, id])
  },
}

export type PhotoWorker = typeof worker

expose(worker)
