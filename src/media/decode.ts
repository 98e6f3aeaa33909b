// Decoded samples -> pictures in kernel memory.
import type { VideoSample, VideoSamplePixelFormat } from 'mediabunny'
import { type Codes, type Kernels, type Picture, type Planes, resample, toCodesPicture, turned } from '../core/render'
import { type ColourCoding, colourCoding, type StatedCoding } from './colour'

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

/** One plane as it lies in memory. */
interface Plane {
  data: Uint8Array
  offset: number
  stride: number
}

/** Copies a plane tightly to dst; deeper codes are rounded to eight bits. */
function copyPlane({ data, offset, stride }: Plane, w: number, h: number, bits: number, dst: Uint8Array): void {
  if (bits === 8) {
    for (let y = 0; y < h; y++) dst.set(data.subarray(offset + y * stride, offset + y * stride + w), y * w)
    return
  }
  const shift = bits - 8
  const round = 1 << (shift - 1)
  const view = new DataView(data.buffer, data.byteOffset)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      dst[y * w + x] = Math.min(255, (view.getUint16(offset + y * stride + x * 2, true) + round) >> shift)
    }
  }
}

let planesOf: ((sample: VideoSample) => Plane[]) | null = null

/**
 * Tells how the decoder's own planes are read where that is possible: whole, and of odd pictures with the last column of
 * chroma, which the library's own copy leaves out. They need not last longer than until the next ones are read.
 */
export function setPlaneReader(reader: typeof planesOf): void {
  planesOf = reader
}

async function copiedPlanes(sample: VideoSample): Promise<Plane[]> {
  const data = new Uint8Array(sample.allocationSize())
  return (await sample.copyTo(data)).map(place => ({ data, ...place }))
}

const isOdd = ({ codedWidth, codedHeight }: VideoSample): boolean => (codedWidth | codedHeight) % 2 === 1

/** Planes that are woven, deeper than eight bits or of odd size, by way of a copy. */
async function copyOther(k: Kernels, sample: VideoSample, layout: Layout, ptr: number, offsets: Planes['offsets']) {
  const { codedWidth: width, codedHeight: height } = sample
  const planes = isOdd(sample) && planesOf ? planesOf(sample) : await copiedPlanes(sample)
  const cw = (width + layout.half[0]) >> layout.half[0]
  const ch = (height + layout.half[1]) >> layout.half[1]
  const u = k.bytes(ptr + offsets[1], cw * ch)
  const v = k.bytes(ptr + offsets[2], cw * ch)
  copyPlane(planes[0]!, width, height, layout.bits, k.bytes(ptr, width * height))
  if (!layout.woven) {
    copyPlane(planes[1]!, cw, ch, layout.bits, u)
    copyPlane(planes[2]!, cw, ch, layout.bits, v)
    return
  }
  const { data, offset, stride } = planes[1]!
  for (let y = 0; y < ch; y++) {
    for (let x = 0; x < cw; x++) {
      u[y * cw + x] = data[offset + y * stride + x * 2]!
      v[y * cw + x] = data[offset + y * stride + x * 2 + 1]!
    }
  }
}

/** Planes as they lie in the decoder's memory, with the gaps between their rows: each is copied at once. Null where one lies otherwise. */
function wholePlanes(k: Kernels, sample: VideoSample, layout: Layout, planes: readonly Plane[]) {
  const { codedWidth: width, codedHeight: height } = sample
  const cw = (width + layout.half[0]) >> layout.half[0]
  const ch = (height + layout.half[1]) >> layout.half[1]
  const sizes = [
    [width, height],
    [cw, ch],
    [cw, ch],
  ] as const
  const isUsual = ({ data, offset, stride }: Plane, i: number): boolean => {
    const [w, h] = sizes[i]!
    return stride >= w && stride < 2 * w + 512 && data.length >= offset + stride * (h - 1) + w
  }
  if (planes.length < 3 || !sizes.every((_, i) => isUsual(planes[i]!, i))) return null
  // Each row of chroma is read in whole registers: the gaps keep those inside the reservation.
  const lengths = sizes.map(([, h], i) => planes[i]!.stride * h + 32)
  const offsets = [0, lengths[0]!, lengths[0]! + lengths[1]!] as const
  const ptr = k.alloc(offsets[2] + lengths[2]!)
  for (const [i, [, h]] of sizes.entries()) {
    const { data, offset, stride } = planes[i]!
    const part = data.subarray(offset, offset + stride * h)
    k.bytes(ptr + offsets[i]!, part.length).set(part)
  }
  const strides = [planes[0]!.stride, planes[1]!.stride, planes[2]!.stride] as const
  return { ptr, offsets, strides }
}

async function toPlanes(k: Kernels, sample: VideoSample, layout: Layout, colour: ColourCoding): Promise<Planes> {
  const whole = layout.bits === 8 && !layout.woven && planesOf ? wholePlanes(k, sample, layout, planesOf(sample)) : null
  const { ptr, offsets, strides } = whole ?? (await tightPlanes(k, sample, layout))
  // Named one by one: put together of parts, each would be of a shape of its own to an engine, and slow to read.
  return {
    kind: 'planes',
    width: sample.codedWidth,
    height: sample.codedHeight,
    ptr,
    offsets,
    strides,
    halfColumns: layout.half[0],
    halfRows: layout.half[1],
    chroma: colour.chroma,
    matrix: colour.matrix,
    fullRange: colour.fullRange,
  }
}

/** Planes with their rows close together. */
async function tightPlanes(k: Kernels, sample: VideoSample, layout: Layout) {
  const { codedWidth: width, codedHeight: height } = sample
  const cw = (width + layout.half[0]) >> layout.half[0]
  const ch = (height + layout.half[1]) >> layout.half[1]
  // Each row of chroma is read in whole registers: the gaps keep those inside the reservation.
  const offsets = [0, width * height + 32, width * height + cw * ch + 64] as const
  const ptr = k.alloc(offsets[2] + cw * ch + 32)
  try {
    if (layout.bits === 8 && !layout.woven && !(isOdd(sample) && planesOf)) {
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
  return { ptr, offsets, strides: [width, cw, cw] as const }
}

/** Formats of one plane that can be copied as they are; anything else is converted by the platform. */
const PACKED: Readonly<Partial<Record<VideoSamplePixelFormat, { isTurned: boolean; opaque: boolean }>>> = {
  RGBA: { isTurned: false, opaque: false },
  BGRA: { isTurned: true, opaque: false },
  BGRX: { isTurned: true, opaque: true },
}

async function toCodes(k: Kernels, sample: VideoSample): Promise<Codes> {
  const { codedWidth: width, codedHeight: height, format } = sample
  const packed = format ? PACKED[format] : undefined
  const ptr = k.alloc(width * height * 4)
  try {
    // The memory never grows, so the decoder can write straight into it.
    const layout = [{ offset: 0, stride: width * 4 }]
    await sample.copyTo(k.bytes(ptr, width * height * 4), packed ? { layout } : { format: 'RGBA', layout })
    if (packed?.isTurned) k.orderRow(ptr, width * height, packed.opaque ? 1 : 0)
  } catch (error) {
    k.free(ptr)
    throw error
  }
  return { kind: 'codes', width, height, ptr, opaque: packed?.opaque || sample.hasAlpha === false }
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
 * its memory and closes the sample. `stated` is what the file's head says of its codes. Throws OutOfMemory.
 */
export async function toPicture(k: Kernels, sample: VideoSample, stated: StatedCoding): Promise<Picture> {
  const layout = layoutOf(sample.format)
  let picture: Picture = layout
    ? await toPlanes(k, sample, layout, colourCoding(stated, sample))
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
  if (picture.kind !== 'planes') return picture.width * picture.height * 4
  const ch = (picture.height + picture.halfRows) >> picture.halfRows
  return picture.offsets[2] + picture.strides[2] * ch + 32
}
