// Decoded samples -> pictures in kernel memory.
import type { VideoSample, VideoSamplePixelFormat } from 'mediabunny'
import { type Codes, type Kernels, type Picture, type Planes, resample, toCodesPicture, turned } from '../core/render'
import { type ColourCoding, colourCoding } from './colour'

interface Layout {
  /** Chroma has half the columns, half the rows. */
  half: readonly [0 | 1, 0 | 1]
  bits: 8 | 10 | 12
  /** U and V alternate in one plane. */
  woven: boolean
}

function layoutOf(format: VideoSamplePixelFormat | null): Layout | null {
  if (format === 'NV12') return { half: [1, 1], bits: 8, woven: true }
  const named = /^I(420|422|444)(?:P(10|12))?$/.exec(format ?? '')
  if (!named) return null
  const half = { '420': [1, 1], '422': [1, 0], '444': [0, 0] } as const
  const bits = named[2] === '10' ? 10 : named[2] === '12' ? 12 : 8
  return { half: half[named[1] as '420'], bits, woven: false }
}

/** Copies one plane tightly to dst; deeper codes are rounded to eight bits. */
function copyPlane(
  src: Uint8Array,
  at: { offset: number; stride: number },
  w: number,
  h: number,
  bits: number,
  dst: Uint8Array,
) {
  if (bits === 8) {
    if (at.stride === w) dst.set(src.subarray(at.offset, at.offset + w * h))
    else
      for (let y = 0; y < h; y++) dst.set(src.subarray(at.offset + y * at.stride, at.offset + y * at.stride + w), y * w)
    return
  }
  const shift = bits - 8
  const round = 1 << (shift - 1)
  const view = new DataView(src.buffer, src.byteOffset)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      dst[y * w + x] = Math.min(255, (view.getUint16(at.offset + y * at.stride + x * 2, true) + round) >> shift)
    }
  }
}

/** Planes that are woven or deeper than eight bits, by way of a copy. */
async function copyOther(k: Kernels, sample: VideoSample, layout: Layout, ptr: number, offsets: Planes['offsets']) {
  const { codedWidth: width, codedHeight: height } = sample
  const data = new Uint8Array(sample.allocationSize())
  const places = await sample.copyTo(data)
  const cw = (width + layout.half[0]) >> layout.half[0]
  const ch = (height + layout.half[1]) >> layout.half[1]
  const u = k.bytes(ptr + offsets[1], cw * ch)
  const v = k.bytes(ptr + offsets[2], cw * ch)
  copyPlane(data, places[0]!, width, height, layout.bits, k.bytes(ptr, width * height))
  if (!layout.woven) {
    copyPlane(data, places[1]!, cw, ch, layout.bits, u)
    copyPlane(data, places[2]!, cw, ch, layout.bits, v)
    return
  }
  const { offset, stride } = places[1]!
  for (let y = 0; y < ch; y++) {
    for (let x = 0; x < cw; x++) {
      u[y * cw + x] = data[offset + y * stride + x * 2]!
      v[y * cw + x] = data[offset + y * stride + x * 2 + 1]!
    }
  }
}

async function toPlanes(k: Kernels, sample: VideoSample, layout: Layout, colour: ColourCoding): Promise<Planes> {
  const { codedWidth: width, codedHeight: height } = sample
  const cw = (width + layout.half[0]) >> layout.half[0]
  const ch = (height + layout.half[1]) >> layout.half[1]
  // Each row of chroma is read in whole registers: the gaps keep those inside the reservation.
  const offsets = [0, width * height + 32, width * height + cw * ch + 64] as const
  const ptr = k.alloc(offsets[2] + cw * ch + 32)
  try {
    if (layout.bits === 8 && !layout.woven) {
      // The memory never grows, so the decoder can write straight into it.
      const places = offsets.map((offset, i) => ({ offset, stride: i === 0 ? width : cw }))
      await sample.copyTo(k.bytes(ptr, offsets[2] + cw * ch), { layout: places })
    } else {
      await copyOther(k, sample, layout, ptr, offsets)
    }
  } catch (error) {
    k.free(ptr)
    throw error
  }
  return {
    kind: 'planes',
    width,
    height,
    ptr,
    offsets,
    strides: [width, cw, cw],
    halfColumns: layout.half[0],
    halfRows: layout.half[1],
    centred: false,
    ...colour,
  }
}

async function toCodes(k: Kernels, sample: VideoSample): Promise<Codes> {
  const { codedWidth: width, codedHeight: height } = sample
  const data = new Uint8Array(sample.allocationSize({ format: 'RGBA' }))
  await sample.copyTo(data, { format: 'RGBA', layout: [{ offset: 0, stride: width * 4 }] })
  const ptr = k.alloc(width * height * 4)
  k.bytes(ptr, width * height * 4).set(data.subarray(0, width * height * 4))
  return { kind: 'codes', width, height, ptr, opaque: sample.hasAlpha === false }
}

/** Replaces a picture by one made from it. */
function instead<P extends Picture>(k: Kernels, old: Picture, make: (old: Picture) => P): P {
  try {
    return make(old)
  } finally {
    k.free(old.ptr)
  }
}

/**
 * A decoded sample as a picture as it is meant to be seen: stored rotation obeyed, pixels square. The caller frees
 * its memory and closes the sample. `file` is what the file's head says of its colours. Throws OutOfMemory.
 */
export async function toPicture(k: Kernels, sample: VideoSample, file: VideoColorSpaceInit): Promise<Picture> {
  const layout = layoutOf(sample.format)
  let picture: Picture = layout
    ? await toPlanes(k, sample, layout, colourCoding(file, sample))
    : await toCodes(k, sample)
  const { squarePixelWidth: width, squarePixelHeight: height, rotation } = sample
  if (width !== picture.width || height !== picture.height) {
    const fit = { width, height, x: 0, y: 0, scaleX: width / picture.width, scaleY: height / picture.height }
    picture = instead(k, picture, old => resample(k, old, fit))
  }
  if (rotation !== 0) {
    const upright = instead(k, picture, old => toCodesPicture(k, old))
    picture = instead(k, upright, () => turned(k, upright, (rotation / 90) as 1 | 2 | 3))
  }
  return picture
}

/** Bytes of kernel memory that a picture takes. */
export function pictureBytes(picture: Picture): number {
  if (picture.kind !== 'planes') return picture.width * picture.height * (picture.kind === 'codes' ? 4 : 16)
  const ch = (picture.height + picture.halfRows) >> picture.halfRows
  return picture.offsets[2] + picture.strides[2] * ch + 32
}
