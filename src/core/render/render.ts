// plan + pictures -> picture. The only place where pictures are made: preview, export and terminal all come here.
import { matteRow, type StillMatte, stillMatte } from '../matte'
import type { Plan, PlannedLayer, PlannedPicture } from '../plan'
import type { Blend } from '../shot'
import type { Kernels } from './kernels'
import { type Codes, isOpaque, type Linear, type Picture, rowReader } from './picture'
import { fillsFrame, placePicture } from './place'

/** Finds the picture of a take at a moment, or null if there is none to be had: then the layer shows nothing. */
export type FindPicture = (needed: { digest: string; seconds: number }) => Picture | null

const OPEN = 255
const SOFT = 254

interface Painter {
  /** Where row y of the coverage is, n f32: at `out`, or kept elsewhere; null where the layer covers everything. */
  coverage: ((y: number, out: number, spare: number) => number) | null
  opaque: boolean
  opacity: number
  /** How it meets what is behind it. */
  mode: number
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

/** Whether nothing behind a layer with this picture can show. */
export const hidesAll = (plan: Plan, layer: PlannedLayer, picture: Picture): boolean =>
  layer.opacity >= 1 &&
  layer.blend === 'normal' &&
  layer.matte.length === 0 &&
  isOpaque(picture) &&
  fillsFrame(picture, layer.place, plan.size)

/** As the kernel counts them; 0 is "over". */
const MODES: Readonly<Record<Blend, number>> = {
  normal: 0,
  add: 1,
  screen: 2,
  multiply: 3,
  lighten: 4,
  darken: 5,
  difference: 6,
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
  const placed = placePicture(k, source, layer.place, plan.size)
  const { width } = plan.size
  let at = 0
  const cut = layer.matte.length > 0
  const matte = matteSource(k, layer, plan)
  const { inside } = placed
  const coverage = (y: number, out: number, spare: number): number => {
    if (!cut) {
      inside?.(y, out)
      return out
    }
    const row = matte.row(y, out, spare)
    if (!inside) return row
    inside(y, spare)
    if (row !== out) k.bytes(out, width * 4).set(k.bytes(row, width * 4))
    k.multiplyRow(out, spare, width)
    return out
  }
  return {
    coverage: cut || inside ? coverage : null,
    opaque: layer.opacity >= 1 && layer.blend === 'normal' && placed.opaque,
    opacity: layer.opacity,
    mode: MODES[layer.blend],
    open(y) {
      at = y
    },
    codes: (x, n, dst) => placed.codes(at, x, n, dst),
    linear: (x, n, dst, spare) => placed.linear(at, x, n, dst, spare),
    close() {
      placed.close()
      matte.still?.release()
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
    mode: MODES.normal,
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

/** Two pictures as one, the other with a share: in linear light, as a shutter would have mixed them. */
function mixed(k: Kernels, one: Picture, other: Picture, share: number): Codes {
  const { width, height } = one
  const ptr = k.alloc(width * height * 4)
  const sum = k.alloc(width * 16)
  const linear = k.alloc(width * 16)
  const parts = [
    { rows: rowReader(k, one), height: one.height, weight: 1 - share },
    { rows: rowReader(k, other), height: other.height, weight: share },
  ]
  for (let y = 0; y < height; y++) {
    k.fillRow(sum, width, 0, 0, 0, 0)
    for (const { rows, weight } of parts) {
      const codes = ptr + y * width * 4
      rows.open(y)
      rows.read(0, width, codes)
      k.toLinear(codes, linear, width)
      k.accumulateRow(sum, linear, width, weight)
    }
    k.toCodes(sum, ptr + y * width * 4, width)
  }
  for (const { rows } of parts) rows.close()
  k.free(sum)
  k.free(linear)
  return { kind: 'codes', width, height, ptr, opaque: isOpaque(one) && isOpaque(other) }
}

interface Found {
  picture: Picture
  /** Frees what was made for it. */
  free(): void
}

const kept = (picture: Picture): Found => ({ picture, free() {} })

/** The picture a layer shows, before it is placed; null where a take gives none. */
function foundPicture(k: Kernels, wanted: PlannedPicture, find: FindPicture): Found | null {
  if (wanted.kind === 'take') {
    const picture = find(wanted)
    return picture && kept(picture)
  }
  if (wanted.kind === 'group') {
    const picture = groupPicture(k, wanted.plan, find)
    return { picture, free: () => k.free(picture.ptr) }
  }
  if (wanted.kind === 'colour') return null
  const one = foundPicture(k, wanted.one, find)
  const other = foundPicture(k, wanted.other, find)
  // A take's last frame has no neighbour; nor have frames of another size, as some files hold.
  if (!one || !other) return one ?? other
  const alike = one.picture.width === other.picture.width && one.picture.height === other.picture.height
  if (!alike || one.picture === other.picture) {
    other.free()
    return one
  }
  const picture = mixed(k, one.picture, other.picture, wanted.share)
  one.free()
  other.free()
  return { picture, free: () => k.free(picture.ptr) }
}

function makePainter(k: Kernels, layer: PlannedLayer, plan: Plan, find: FindPicture): Painter | null {
  if (layer.picture.kind === 'colour') return colourPainter(k, layer, layer.picture.colour, plan)
  const found = foundPicture(k, layer.picture, find)
  if (!found) return null
  const inner = painter(k, layer, found.picture, plan)
  const close = () => {
    inner.close()
    found.free()
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
      // A row of classes has room for so many; what lies beyond is composited.
      open = k.classifyRow(classes, covers[reached]!, width, reached, p.opaque && reached < SOFT ? 1 : 0)
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
          if (p.mode === MODES.normal) k.overRow(target, source, c, n, p.opacity)
          else k.blendRow(target, source, c, n, p.opacity, p.mode)
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
