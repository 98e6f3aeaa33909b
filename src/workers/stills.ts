// How a worker of the browser decodes stills that are not PNG.
import { setStillDecoder } from '../media/still'

export function browserStills(): void {
  setStillDecoder(async (bytes, type) => {
    const bitmap = await createImageBitmap(new Blob([bytes], { type }), {
      premultiplyAlpha: 'none',
      colorSpaceConversion: 'none',
    })
    const { width, height } = bitmap
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
    if (!context) throw new Error('no canvas')
    context.drawImage(bitmap, 0, 0)
    bitmap.close()
    return { width, height, data: context.getImageData(0, 0, width, height).data }
  })
}
