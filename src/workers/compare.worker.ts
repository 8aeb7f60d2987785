import { expose } from 'comlink'
import { MOST_PIXELS } from '@/core/photo/grey-image'
import { compareBoards } from '@/core/parts/compare/compare'
import type { BoardPicture, CompareAnswer, CompareFault } from '@/core/parts/compare/compare'

/** Lets messages in, a stop among them. */
const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0))
let comparing = 0

/** Pixels of a picture, turned as its camera was held; or what is wrong with it. */
async function pixelsOf(file: Blob, field: CompareFault['field']): Promise<BoardPicture | CompareFault> {
  let picture: ImageBitmap
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    return { field, text: 'this is no picture that can be read; PNG and JPEG are' }
  }
  const { width, height } = picture
  if (width * height > MOST_PIXELS) {
    picture.close()
    return {
      field,
      text: `${width} × ${height} is more than 24 million pixels: make it smaller, or take the board in parts`,
    }
  }
  const sheet = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!
  sheet.drawImage(picture, 0, 0)
  picture.close()
  return { widthPx: width, heightPx: height, rgba: sheet.getImageData(0, 0, width, height).data }
}

const worker = {
  /** Compares two pictures; null when it was stopped, or asked for anew, on the way. */
  async compare(
    photo: Blob,
    other: Blob,
    wideMm: number,
    progress: (share: number) => void,
  ): Promise<CompareAnswer | null> {
    const own = ++comparing
    const mine = await pixelsOf(photo, 'photo')
    if ('text' in mine) return { compared: null, fault: mine }
    const theirs = await pixelsOf(other, 'other')
    if ('text' in theirs) return { compared: null, fault: theirs }
    const work = compareBoards(mine, theirs, mine.widthPx / wideMm)
    for (;;) {
      const { done, value } = work.next()
      if (done) return value
      progress(value)
      await breath()
      if (own !== comparing) return null
    }
  },
  stop(): void {
    comparing++
  },
}

export type CompareWorker = typeof worker

expose(worker)
