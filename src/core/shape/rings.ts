// The coverage of rings: outlines that close, any number of them as one.
import { boundsOf, flatten, flattenAlong, type OutlinePoint, softAlong } from '../outline'
import type { Kernels } from '../render/kernels'
import { type Coverage, type Feather, NOTHING } from './kind'

/** px that chords may miss the curve by: half a hundredth of coverage, where the border is hard; as much where it is soft. */
const FINE = 0.005
const COARSE = 0.025

/** How much of a curve one chord stands for at most, where softness goes over from point to point. */
const STEP = 1 / 8

/** Numbers of a chord as the kernels read it. */
const CHORD = 6

interface Chord {
  ring: Float64Array
  /** Where in the ring it begins. */
  at: number
  echo: boolean
}

/** The chords of rings, one after the other. Where there are several, each ring is framed by echoes of its ends. */
function* chordsOf(rings: readonly Float64Array[]): Generator<Chord> {
  for (const ring of rings) {
    if (rings.length > 1) yield { ring, at: ring.length - 2, echo: true }
    for (let at = 0; at < ring.length; at += 2) yield { ring, at, echo: false }
    if (rings.length > 1) yield { ring, at: 0, echo: true }
  }
}

/** Chords told from (left, top). */
function writeChords(rings: readonly Float64Array[], left: number, top: number, out: Float64Array): void {
  let to = 0
  for (const { ring, at, echo } of chordsOf(rings)) {
    const next = at + 2 < ring.length ? at + 2 : 0
    const [x, y] = [ring[at]! - left, ring[at + 1]! - top]
    const [dx, dy] = [ring[next]! - left - x, ring[next + 1]! - top - y]
    const length = dx * dx + dy * dy
    out[to++] = x
    out[to++] = y
    out[to++] = dx
    out[to++] = dy
    out[to++] = length > 0 ? 1 / length : 0
    out[to++] = echo ? 1 : 0
  }
}

/** What several rings lie within; null where there is nothing. */
function boundsOfAll(rings: readonly Float64Array[]): ReturnType<typeof boundsOf> {
  const all = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (const ring of rings) {
    const own = boundsOf(ring)
    if (!own) continue
    all.left = Math.min(all.left, own.left)
    all.top = Math.min(all.top, own.top)
    all.right = Math.max(all.right, own.right)
    all.bottom = Math.max(all.bottom, own.bottom)
  }
  return all.left <= all.right ? all : null
}

/** px that chords may miss an outline by, at some feather. */
const toleranceOf = ({ inside, outside }: Feather): number =>
  Math.min(COARSE, FINE * Math.max(1, (inside + outside) / 1.5))

/** Opens the coverage of what outlines wind round, as `openPolygons` does. Throws OutOfMemory. */
export function openRings(
  k: Kernels,
  outlines: readonly (readonly OutlinePoint[])[],
  feather: Feather,
  frame: { width: number; height: number },
): Coverage {
  const tolerance = toleranceOf(feather)
  return openPolygons(
    k,
    outlines.map(points => flatten(points, tolerance)),
    feather,
    frame,
  )
}

/**
 * The same of one outline whose points say how much softer it is there: on both sides as the feather is, evenly where that is none, and outside
 * no farther than `most` px in all. Throws OutOfMemory.
 */
export function openSoftRing(
  k: Kernels,
  points: readonly OutlinePoint[],
  feather: Feather,
  most: number,
  frame: { width: number; height: number },
): Coverage {
  if (!points.some(p => p.soft)) return openRings(k, [points], feather, frame)
  const { inside, outside } = feather
  const share = inside + outside > 0 ? inside / (inside + outside) : 0.5
  const room = share < 1 ? Math.max(0, most - outside) / (1 - share) : Number.POSITIVE_INFINITY
  const ends = flattenAlong(points, toleranceOf(feather), false, STEP)
  const softs = Float64Array.from({ length: ends.length / 3 }, (_, i) =>
    Math.min(room, softAlong(points, ends[i * 3 + 2]!)),
  )
  const ring = ends.filter((_, i) => i % 3 < 2)
  return openPolygons(k, [ring], feather, frame, { softs, share })
}

/** How much softer a ring is where each of its chords begins, and which share of that lies inside. */
interface Softness {
  softs: Float64Array
  share: number
}

/**
 * Opens the coverage of what rings of corners, x after y, wind round, either way, in a frame of some size: exact area where it has no
 * feather and is not grown, else by the true distance to the nearest of them. Throws OutOfMemory.
 */
export function openPolygons(
  k: Kernels,
  all: readonly Float64Array[],
  feather: Feather,
  frame: { width: number; height: number },
  softness: Softness | null = null,
): Coverage {
  const { grow, inside, outside } = feather
  const softest = softness ? Math.max(...softness.softs) * (1 - softness.share) : 0
  const rings = all.filter(ring => ring.length > 0)
  const bounds = boundsOfAll(rings)
  const reach = Math.max(0, grow) + outside + softest + 1
  const left = bounds && Math.max(0, Math.floor(bounds.left - reach))
  const top = bounds && Math.max(0, Math.floor(bounds.top - reach))
  if (bounds === null || left === null || top === null) return NOTHING
  const width = Math.min(frame.width, Math.ceil(bounds.right + reach)) - left
  const height = Math.min(frame.height, Math.ceil(bounds.bottom + reach)) - top
  if (!(width > 0 && height > 0)) return NOTHING
  const count = rings.reduce((sum, ring) => sum + ring.length / 2 + (rings.length > 1 ? 2 : 0), 0)
  const points = k.alloc(count * CHORD * 8)
  writeChords(rings, left, top, k.doubles(points, count * CHORD))
  // Three cells to spare: what lies beyond is summed up in two of them, and pixels are told of chords four at a time.
  const stride = (width * 4 + 12 + 15) & ~15
  const out = k.alloc(stride * height)
  if (grow === 0 && inside === 0 && outside === 0 && !softness) k.outlineArea(points, count, width, height, out, stride)
  else {
    const near = k.alloc(stride * height)
    const square = k.alloc(stride * height)
    const rows = k.alloc((height + 1 + k.outlineRows(points, count, height)) * 4)
    const bends = k.alloc(count)
    const softs = softness ? k.alloc(count * 8) : 0
    if (softness) k.doubles(softs, count).set(softness.softs)
    const share = softness?.share ?? 0
    k.outlineDistance({
      points,
      count,
      width,
      height,
      grow,
      inside,
      outside,
      softs,
      share,
      out,
      near,
      square,
      stride,
      rows,
      bends,
    })
    for (const ptr of [near, square, rows, bends, ...(softs ? [softs] : [])]) k.free(ptr)
  }
  k.free(points)
  return {
    top,
    bottom: top + height,
    row(y: number, to: number) {
      k.fillCoverage(to, left, 0)
      k.copyBytes(to + left * 4, out + (y - top) * stride, width * 4)
      k.fillCoverage(to + (left + width) * 4, frame.width - left - width, 0)
    },
  }
}
