// plan + pictures -> picture. The only place where pictures are made: preview, export and terminal all come here.
import { matteRow, type StillMatte, stillMatte } from '../matte'
import type { Plan, PlannedLayer, PlannedPicture } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import { type Codes, isOpaque, type Linear, type Picture, rowReader } from './picture'
import { resample } from './resample'

/** Finds the picture of a take at a moment, or null if there is none to be had: then the layer shows nothing. */
export type FindPicture = (needed: { digest: string; seconds: number }) => Picture | null

const OPEN = 255
const SOFT = 254

interface Painter {
  /** Where row y of the coverage is, n f32: at `out`, or kept elsewhere; null where the layer covers everything. */
  coverage: ((y: number, out: number, spare: number) => number) | null
  opaque: boolean
  opacity: number
  open(y: number): void
  /** n straight codes from column x on. */
  codes(x: number, n: number, dst: number): void
  /** n premultiplied linear pixels from column x on; `spare` is room for n codes. */
  linear(x: number, n: number, dst: number, spare: number): void
  close(): void
}

/** `#rrggbb` as a little-endian RGBA8 word, opaque. */
const word = (colour: string): number => {
  const n = Number.parseInt(colour.slice(1), 16)
  return (0xff000000 | ((n & 255) << 16) | (n & 0xff00) | (n >> 16)) >>> 0
}

const whole = (v: number): boolean => Math.abs(v - Math.round(v)) < 1e-9

/** Whether a picture at its place reaches every border of the frame. Nearly, as an odd size halved does, counts. */
function fillsFrame(picture: Size, { place: { x, y, scale } }: PlannedLayer, { width, height }: Size): boolean {
  const right = x + picture.width * scale
  const bottom = y + picture.height * scale
  return x < 0.51 && y < 0.51 && right > width - 0.51 && bottom > height - 0.51
}

/** Whether nothing behind a layer with this picture can show. */
export const hidesAll = (plan: Plan, layer: PlannedLayer, picture: Picture): boolean =>
  layer.opacity >= 1 && layer.matte.length === 0 && isOpaque(picture) && fillsFrame(picture, layer, plan.size)

/** The layer's picture, in px of the output and at its place: resampled unless it already fits pixel for pixel. */
function placed(k: Kernels, picture: Picture, layer: PlannedLayer, plan: Plan) {
  const { x, y, scale } = layer.place
  const { width, height } = plan.size
  const right = x + picture.width * scale
  const bottom = y + picture.height * scale
  const fills = fillsFrame(picture, layer, plan.size)
  const sits = scale === 1 && whole(x) && whole(y)
  if (sits && x === 0 && y === 0 && picture.width === width && picture.height === height) {
    return { picture, made: null, fills: true, right, bottom }
  }
  const made: Codes = resample(k, picture, { width, height, x, y, scaleX: scale, scaleY: scale })
  return { picture: made, made, fills, right, bottom }
}

/** A layer's matte by rows: kept ones if it stands still, else made one by one. */
function matteSource(k: Kernels, { matte }: PlannedLayer, { size: { width, height } }: Plan) {
  const still: StillMatte | null = matte.length > 0 ? stillMatte(k, matte, width, height) : null
  const row = (y: number, out: number, spare: number): number => {
    if (still) return still.ptr + y * still.stride
    matteRow(k, matte, y, width, out, spare)
    return out
  }
  return { still, row }
}

function painter(k: Kernels, layer: PlannedLayer, source: Picture, plan: Plan): Painter {
  const { picture, made, fills, right, bottom } = placed(k, source, layer, plan)
  const { width } = plan.size
  const rows = rowReader(k, picture)
  const isLinear = picture.kind === 'linear'
  let at = 0
  const inside = (y: number, out: number) => k.frameRectRow(out, width, y, layer.place.x, layer.place.y, right, bottom)
  const cut = layer.matte.length > 0
  const matte = matteSource(k, layer, plan)
  const coverage = (y: number, out: number, spare: number): number => {
    if (!cut) {
      inside(y, out)
      return out
    }
    const row = matte.row(y, out, spare)
    if (fills) return row
    inside(y, spare)
    if (row !== out) k.bytes(out, width * 4).set(k.bytes(row, width * 4))
    k.multiplyRow(out, spare, width)
    return out
  }
  return {
    coverage: cut || !fills ? coverage : null,
    opaque: layer.opacity >= 1 && isOpaque(picture),
    opacity: layer.opacity,
    open(y) {
      at = y
    },
    codes(x, n, dst) {
      rows.open(at)
      rows.read(x, n, dst)
    },
    linear(x, n, dst, spare) {
      if (isLinear) {
        k.bytes(dst, n * 16).set(k.bytes(picture.ptr + (at * width + x) * 16, n * 16))
        return
      }
      rows.open(at)
      rows.read(x, n, spare)
      k.toLinear(spare, dst, n)
    },
    close() {
      rows.close()
      matte.still?.release()
      if (made) k.free(made.ptr)
    },
  }
}

function colourPainter(k: Kernels, layer: PlannedLayer, colour: string, plan: Plan): Painter {
  const matte = matteSource(k, layer, plan)
  const value = word(colour)
  const codes = (_x: number, n: number, dst: number) => {
    new Uint32Array(k.bytes(dst, n * 4).buffer, dst, n).fill(value)
  }
  return {
    coverage: layer.matte.length > 0 ? matte.row : null,
    opaque: layer.opacity >= 1,
    opacity: layer.opacity,
    open() {},
    codes,
    linear(x, n, dst, spare) {
      codes(x, n, spare)
      k.toLinear(spare, dst, n)
    },
    close() {
      matte.still?.release()
    },
  }
}

function groupPicture(k: Kernels, plan: Plan, find: FindPicture): Linear {
  const ptr = k.alloc(plan.size.width * plan.size.height * 16)
  paint(k, plan, find, ptr, 'linear')
  return { kind: 'linear', ...plan.size, ptr }
}

function makePainter(k: Kernels, layer: PlannedLayer, plan: Plan, find: FindPicture): Painter | null {
  const wanted: PlannedPicture = layer.picture
  if (wanted.kind === 'colour') return colourPainter(k, layer, wanted.colour, plan)
  if (wanted.kind === 'take') {
    const picture = find(wanted)
    return picture && painter(k, layer, picture, plan)
  }
  const group = groupPicture(k, wanted.plan, find)
  const inner = painter(k, layer, group, plan)
  const close = () => {
    inner.close()
    k.free(group.ptr)
  }
  return { ...inner, close }
}

/**
 * Paints a plan into kernel memory at `out`: width x height straight RGBA8 (`codes`) or premultiplied linear f32
 * (`linear`), rows close together.
 *
 * Each row is first divided into runs in which one opaque layer alone shows, which are copied as codes, and runs in
 * which several things mix, which are composited in linear float, farthest first. So an untouched opaque pixel leaves
 * exactly as it came, and the cost follows the edges.
 */
export function paint(k: Kernels, plan: Plan, find: FindPicture, out: number, as: 'codes' | 'linear'): void {
  const { width, height } = plan.size
  const painters: Painter[] = []
  for (const layer of plan.layers) {
    const made = makePainter(k, layer, plan, find)
    if (made) painters.push(made)
    // Behind a layer that hides everything nothing has to be made at all.
    if (made?.opaque && !made.coverage) break
  }
  const stride = (width * 4 + 127) & ~63
  const coverage = k.alloc(stride * (painters.length + 1))
  const spareCoverage = coverage + painters.length * stride
  // Where each layer's coverage of the row at hand is; 0 for layers that cover everything.
  const covers = new Array<number>(painters.length).fill(0)
  const coverRow = (j: number, y: number) => {
    const p = painters[j]!
    covers[j] = p.coverage ? p.coverage(y, coverage + j * stride, spareCoverage) : 0
    p.open(y)
  }
  const classes = k.alloc(width + 64)
  const runs = k.alloc(width * 12 + 12)
  const runList = k.ints(runs, width * 3 + 3)
  const codes = k.alloc(width * 4)
  const source = k.alloc(width * 16)
  const mixed = k.alloc(width * 16)
  const backdropCode = plan.backdrop ? word(plan.backdrop) : 0
  const backdropLinear = k.alloc(16)
  k.ints(codes, 1)[0] = backdropCode
  k.toLinear(codes, backdropLinear, 1)
  const [r, g, b, a] = k.floats(backdropLinear, 4) as unknown as [number, number, number, number]
  const pixel = as === 'codes' ? 4 : 16

  const classRow = k.bytes(classes, width + 32)
  for (let y = 0; y < height; y++) {
    const row = out + y * width * pixel
    classRow.fill(OPEN)
    // Nearest first, until nothing farther can show.
    let reached = 0
    let open = 1
    while (reached < painters.length && open) {
      const p = painters[reached]!
      coverRow(reached, y)
      open = k.classifyRow(classes, covers[reached]!, width, reached, p.opaque ? 1 : 0)
      reached++
    }
    // A soft run may still need layers behind the last one asked: all of them, unless an opaque one was in the way.
    const count = k.findRuns(classes, width, runs)
    let ready = reached
    for (let i = 0; i < count; i++) {
      const x = runList[i * 3]!
      const n = runList[i * 3 + 1]! - x
      const kind = runList[i * 3 + 2]!
      const at = row + x * pixel
      if (kind === SOFT) {
        for (; ready < painters.length; ready++) coverRow(ready, y)
        const target = as === 'linear' ? at : mixed
        k.fillRow(target, n, r, g, b, a)
        for (let j = painters.length - 1; j >= 0; j--) {
          const p = painters[j]!
          const c = covers[j] ? covers[j]! + x * 4 : 0
          p.linear(x, n, source, codes)
          k.overRow(target, source, c, n, p.opacity)
        }
        if (as === 'codes') k.toCodes(mixed, at, n)
      } else if (kind === OPEN) {
        if (as === 'linear') k.fillRow(at, n, r, g, b, a)
        else new Uint32Array(k.bytes(at, n * 4).buffer, at, n).fill(backdropCode)
      } else if (as === 'codes') {
        painters[kind]!.codes(x, n, at)
      } else {
        painters[kind]!.codes(x, n, codes)
        k.toLinear(codes, at, n)
      }
    }
  }
  for (const p of painters) p.close()
  for (const buffer of [coverage, classes, runs, codes, source, mixed, backdropLinear]) k.free(buffer)
}

/** Paints a plan into a fresh buffer of straight RGBA8 that the caller frees. */
export function renderFrame(k: Kernels, plan: Plan, find: FindPicture): Codes {
  const { width, height } = plan.size
  const ptr = k.alloc(width * height * 4)
  try {
    paint(k, plan, find, ptr, 'codes')
  } catch (error) {
    k.free(ptr)
    throw error
  }
  return { kind: 'codes', width, height, ptr, opaque: plan.backdrop !== null }
}
