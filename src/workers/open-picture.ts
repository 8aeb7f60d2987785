import { MOST_PIXELS } from '@/core/photo/grey-image'

/** Decodes a picture, turned as its camera was held; or what is wrong with it, as a clause. */
export async function openPicture(file: Blob, of: string): Promise<ImageBitmap | { readonly fault: string }> {
  let picture: ImageBitmap
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    return { fault: 'this is no picture that can be read; PNG and JPEG are' }
  }
  const { width, height } = picture
  if (width * height <= MOST_PIXELS) return picture
  picture.close()
  return {
    fault: `${width} × ${height} is more than 24 million pixels: make it smaller, or take the ${of} in parts`,
  }
}

/** Its pixels: red, green, blue, alpha; the picture is closed. */
export function pixelsOf(picture: ImageBitmap) {
  const { width: widthPx, height: heightPx } = picture
  const sheet = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true })!
  sheet.drawImage(picture, 0, 0)
  picture.close()
  return { widthPx, heightPx, rgba: sheet.getImageData(0, 0, widthPx, heightPx).data }
}
