// The small frames and the loudness of a clip, which the application would otherwise make when a demo shot is opened.
import { statSync, writeFileSync } from 'node:fs'
import { createCanvas } from '@napi-rs/canvas'
import { nodeKernels, pathSource } from '../src/cli/engine'
import { toCodesPicture } from '../src/core/render'
import { sheetCell, sheetLayout, sheetSize } from '../src/core/small-frames'
import { frameStore } from '../src/media/frames'
import { loudness } from '../src/media/loudness'
import { describeTake, openMedia } from '../src/media/open'

/** Writes them beside the clip: `<clip>.small.jpg`, a sheet, and `<clip>.loud`, its peaks. */
export async function writeSmallFrames(path: string): Promise<void> {
  const stem = path.replace(/\.\w+$/, '')
  const media = await openMedia(pathSource(path), stem)
  const layout = sheetLayout({ ...(await describeTake(media, statSync(path).size)), digest: stem })
  if (!layout || media.kind !== 'film') throw new Error(`${path} is no film.`)
  const k = await nodeKernels(256 << 20)
  const frames = frameStore(k, 64 << 20)
  frames.add(stem, media)
  const { width, height } = sheetSize(layout)
  const sheet = createCanvas(width, height)
  const context = sheet.getContext('2d')
  context.imageSmoothingQuality = 'high'
  for (let i = 0; i < layout.count; i++) {
    const picture = await frames.get(stem, i * layout.every)
    const codes = toCodesPicture(k, picture)
    const full = createCanvas(codes.width, codes.height)
    const image = full.getContext('2d').createImageData(codes.width, codes.height)
    image.data.set(k.bytes(codes.ptr, codes.width * codes.height * 4))
    full.getContext('2d').putImageData(image, 0, 0)
    const { x, y } = sheetCell(layout, i)
    context.drawImage(full, x, y, layout.width, layout.height)
    k.free(codes.ptr)
    frames.release(picture)
  }
  writeFileSync(`${stem}.small.jpg`, sheet.toBuffer('image/jpeg', 80))
  const peaks: Uint8Array[] = []
  if (media.sound) for await (const more of loudness(media.sound)) peaks.push(more)
  writeFileSync(`${stem}.loud`, Buffer.concat(peaks))
  await frames.close()
}
