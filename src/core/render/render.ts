// plan + pictures -> picture. The only place where pictures are made: preview, export and terminal all come here.

import { lookRows } from '../look'
import { openMatte } from '../matte'
import { type Find, type Making, matteNeeds, needsOf, type PlannedPicture, pictureKind } from '../picture'
import { digestOf, type Plan, type PlannedLayer } from '../plan'
import type { Composing } from '../shape'
import type { Blend } from '../shot'
import { keptRows } from './kept'
import type { Kernels } from './kernels'
import type { Codes } from './picture'
import { hides, type PlacedPicture, placePicture } from './place'
import { fillCodes, type Rows, word } from './rows'
import { type Cover, OPEN, rowRuns, SOFT } from './runs'
import type { Shared } from './tiles'
import { stayWarm } from './warm'

/** Where the layers of one frame take their pictures from. */
interface Sources {
  find: Find
  shared: Shared
}

interface Painter extends Cover {
  opacity: number
  /** How it meets what is behind it. */
  mode: number
  /** n straight codes of row y from column x on. */
  codes(y: number, x: number, n: number, dst: number): void
  /** n premultiplied linear pixels of row y from column x on; `spare` is room for n codes. */
  linear(y: number, x: number, n: number, dst: number, spare: number): void
  planes: PlacedPicture['planes']
}

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

/** A matte by rows, each at `out` or kept elsewhere. `digest` where it stands still. */
interface MatteRows {
  row(y: number, out: number, spare: number): number
  digest: string | null
}

/** A layer's matte by rows: kept ones if it stands still, else made one by one. */
function matteRows(k: Kernels, { matte }: PlannedLayer, plan: Plan, sources: Sources): MatteRows | null {
  if (matte.length === 0) return null
  const { size } = plan
  const { width, height } = size
  const making: Composing = {
    size,
    rows: picture => rowsOf(k, picture, plan, sources),
    compose: (inner, as) => composedRows(k, inner, sources, as),
  }
  const stride = (width * 4 + 127) & ~63
  const rows = () => {
    const spare = k.alloc(stride)
    const row = openMatte(k, matte, making)
    return (y: number, out: number) => row(y, out, spare)
  }
  // What lacks a picture now may have it the next time.
  const isWhole = matteNeeds(matte).every(needed => sources.find(needed) !== null)
  const digest = isWhole ? digestOf(matte) : null
  const still = digest === null ? null : keptRows(k, { digest, stride, height, rows })
  if (still) return { digest, row: y => still.ptr + y * still.stride }
  const row = openMatte(k, matte, making)
  return {
    digest: null,
    row(y, out, spare) {
      row(y, out, spare)
      return out
    },
  }
}

function painter(k: Kernels, layer: PlannedLayer, source: Rows, plan: Plan, sources: Sources): Painter {
  const placed = placePicture(k, source, layer, plan.size, sources.shared)
  const { width } = plan.size
  const matte = matteRows(k, layer, plan, sources)
  const { inside, open, codes: placedCodes, linear: placedLinear } = placed
  const out = k.alloc(width * 4 + 64)
  const spare = k.alloc(width * 4 + 64)
  const cover = (y: number): number => {
    if (!matte && !inside) return 0
    if (!matte) {
      inside?.(y, out)
      return out
    }
    const row = matte.row(y, out, spare)
    if (!inside) return row
    inside(y, spare)
    if (row !== out) k.copyBytes(out, row, width * 4)
    k.multiplyRow(out, spare, width)
    return out
  }
  let covered = -1
  let at = 0
  return {
    coverage(y) {
      if (covered !== y) at = cover(y)
      covered = y
      return at
    },
    digest: inside ? null : matte ? matte.digest : '',
    opaque: layer.opacity >= 1 && layer.blend === 'normal' && placed.opaque,
    opacity: layer.opacity,
    mode: MODES[layer.blend],
    codes(y, x, n, dst) {
      open(y)
      placedCodes(x, n, dst)
    },
    linear(y, x, n, dst, spare) {
      open(y)
      placedLinear(x, n, dst, spare)
    },
    planes: placed.planes,
  }
}

/** A plan by rows, composed for something else to be made of it. */
function composedRows(k: Kernels, plan: Plan, sources: Sources, as: 'linear' | 'codes' = 'linear') {
  const { compose } = composer(k, plan, sources, as)
  return (y: number, out: number) => compose(y, out)
}

/** The picture a layer shows, before it is placed; null where a take gives none. */
function rowsOf(k: Kernels, wanted: PlannedPicture, plan: Plan, sources: Sources): Rows | null {
  const making: Making = {
    size: plan.size,
    find: sources.find,
    shared: sources.shared,
    needs: needsOf,
    rows: picture => rowsOf(k, picture, plan, sources),
    compose: (inner, as) => composedRows(k, inner, sources, as),
  }
  return pictureKind(wanted).rows(k, wanted, making)
}

/** A run of a row in which one opaque picture alone shows, and which. */
export interface AloneRun {
  from: number
  to: number
  painter: number
}

export interface Composer {
  /**
   * Composites row y. With `alone`, runs in which the planes of one picture show as they lie are told instead of made.
   */
  compose(y: number, row: number, alone?: AloneRun[]): void
  /** The codes of what one painter shows. */
  codes(painter: number, y: number, x: number, n: number, dst: number): void
  planes(painter: number): PlacedPicture['planes']
}

/**
 * How a plan is composited, a row at a time: straight RGBA8 (`codes`) or premultiplied linear f32 (`linear`). Rows may
 * be asked for in any order; ascending ones are cheapest.
 *
 * Each row is first divided into runs in which one opaque layer alone shows, which are copied as codes, and runs in
 * which several things mix, which are composited in linear float, farthest first. So an untouched opaque pixel leaves
 * exactly as it came, and the cost follows the edges.
 */
export function composer(k: Kernels, plan: Plan, sources: Sources, as: 'codes' | 'linear'): Composer {
  const { width } = plan.size
  const painters: Painter[] = []
  for (const layer of plan.layers) {
    const picture = rowsOf(k, layer.picture, plan, sources)
    const rows = picture && lookRows(k, layer.looks, picture)
    const made = rows && painter(k, layer, rows, plan, sources)
    if (made) painters.push(made)
    // Behind a layer that hides everything nothing has to be made at all.
    if (rows && hides(plan, layer, rows)) break
  }
  const runs = rowRuns(k, width, plan.size.height, painters)
  const codes = k.alloc(width * 4)
  const source = k.alloc(width * 16)
  const mixed = k.alloc(width * 16)
  const backdropCode = plan.backdrop ? word(plan.backdrop) : 0
  const backdropLinear = k.alloc(16)
  k.ints(codes, 1)[0] = backdropCode
  k.toLinear(codes, backdropLinear, 1)
  const [r, g, b, a] = k.floats(backdropLinear, 4) as unknown as [number, number, number, number]
  const pixel = as === 'codes' ? 4 : 16

  /** The farthest painter that shows anywhere in n pixels of row y from column x on. */
  const farthest = (y: number, x: number, n: number): number => {
    for (let j = 0; j < painters.length; j++) {
      if (!painters[j]!.opaque) continue
      const cover = painters[j]!.coverage(y)
      if (!cover || k.isCovered(cover + x * 4, n)) return j
    }
    return painters.length - 1
  }

  /** Composites n pixels of row y from column x on, all layers from the farthest. */
  const mix = (y: number, x: number, n: number, target: number) => {
    k.fillRow(target, n, r, g, b, a)
    for (let j = farthest(y, x, n); j >= 0; j--) {
      const p = painters[j]!
      const cover = p.coverage(y)
      const row = cover && cover + x * 4
      // Where it covers nothing it changes nothing.
      const from = row ? k.firstCovered(row, n) : 0
      const count = row && from < n ? k.lastCovered(row, n) - from : n - from
      if (count === 0) continue
      const [to, c] = [target + from * 16, row && row + from * 4]
      p.linear(y, x + from, count, source, codes)
      if (p.mode === MODES.normal) k.overRow(to, source, c, count, p.opacity)
      else k.blendRow(to, source, c, count, p.opacity, p.mode)
    }
  }

  const compose: Composer['compose'] = (y, row, alone) => {
    const count = runs.open(y)
    for (let i = 0; i < count; i++) {
      const x = runs.from(i)
      const n = runs.to(i) - x
      const kind = runs.kind(i)
      const at = row + x * pixel
      if (kind === SOFT) {
        mix(y, x, n, as === 'linear' ? at : mixed)
        if (as === 'codes') k.toCodes(mixed, at, n)
      } else if (kind === OPEN) {
        if (as === 'linear') k.fillRow(at, n, r, g, b, a)
        else fillCodes(k, backdropCode, n, at)
      } else if (alone && painters[kind]!.planes) {
        alone.push({ from: x, to: x + n, painter: kind })
      } else if (as === 'codes') {
        painters[kind]!.codes(y, x, n, at)
      } else {
        painters[kind]!.linear(y, x, n, at, codes)
      }
    }
  }
  return {
    compose,
    codes: (painter, y, x, n, dst) => painters[painter]!.codes(y, x, n, dst),
    planes: painter => painters[painter]!.planes,
  }
}

/**
 * Paints a plan into a fresh buffer of straight RGBA8, rows close together, that the caller frees. Whatever else is
 * reserved on the way is given back, also where room runs out: then OutOfMemory is thrown.
 */
export function renderFrame(k: Kernels, plan: Plan, find: Find): Codes {
  const { width, height } = plan.size
  return k.scope(() => {
    const ptr = k.alloc(width * height * 4)
    const { compose } = composer(k, plan, { find, shared: new Map() }, 'codes')
    for (let y = 0; y < height; y++) compose(y, ptr + y * width * 4)
    stayWarm(compose)
    return { kind: 'codes', width, height, ptr: k.keep(ptr), opaque: plan.backdrop !== null }
  })
}
