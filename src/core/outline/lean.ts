// An outline brought onto the strongest edges of a picture nearby.
import type { Point } from '../affine'
import { type Curve, curveFrom, pointOn } from './curve'
import { oneCurve } from './fit'
import type { OutlinePoint } from './point'
import { isSmooth } from './reshape'

/** RGBA, rows close together, in px of the outline. */
export interface Pixels {
  width: number
  height: number
  data: Uint8Array | Uint8ClampedArray
}

/** px between two places along the outline at which the picture is looked at, and between two across it. */
const STEP = 2.5
const ACROSS = 0.5
/** px to either side over which a difference counts as an edge. */
const REACH = 1.5
/** px to either side in which the middle of an edge is sought. */
const MIDDLE = 2
/** What a px of bending away from the place before costs, and a px of going far, in codes of difference. */
const BEND = 14
const FAR = 0.35
/** Steps across by which two neighbouring places may differ. */
const BENDS = 2

interface Place {
  at: Point
  /** Across the outline, of unit length. */
  normal: Point
  /** Which curve it lies on, counted along the stretch. */
  curve: number
}

/** A colour between pixels; beyond the picture that of its border. */
function colourAt({ width, height, data }: Pixels, x: number, y: number, out: number[]): void {
  const px = Math.max(0, Math.min(width - 1.001, x - 0.5))
  const py = Math.max(0, Math.min(height - 1.001, y - 0.5))
  const [left, top] = [Math.floor(px), Math.floor(py)]
  const [u, v] = [px - left, py - top]
  const at = (top * width + left) * 4
  for (let c = 0; c < 3; c++) {
    const one = data[at + c]! * (1 - u) + data[at + 4 + c]! * u
    const two = data[at + width * 4 + c]! * (1 - u) + data[at + width * 4 + 4 + c]! * u
    out[c] = one * (1 - v) + two * v
  }
}

const before: number[] = [0, 0, 0]
const behind: number[] = [0, 0, 0]

/** How much colours differ on both sides of a place, across the outline. */
function edgeAt(picture: Pixels, { x, y }: Point, { x: nx, y: ny }: Point): number {
  colourAt(picture, x + nx * REACH, y + ny * REACH, before)
  colourAt(picture, x - nx * REACH, y - ny * REACH, behind)
  return Math.hypot(before[0]! - behind[0]!, before[1]! - behind[1]!, before[2]! - behind[2]!)
}

/** Places along curves, evenly far apart, or as many on each. */
function placesOn(curves: readonly Curve[], each?: number): Place[] {
  return curves.flatMap((curve, i) => {
    const length = [0, 1, 2, 3].reduce((sum, j) => {
      const [p, q] = [pointOn(curve, j / 4), pointOn(curve, (j + 1) / 4)]
      return sum + Math.hypot(q.x - p.x, q.y - p.y)
    }, 0)
    const count = each ?? Math.max(2, Math.ceil(length / STEP))
    const last = i === curves.length - 1 ? count : count - 1
    return Array.from({ length: last + 1 }, (_, j): Place => {
      const t = j / count
      const [p, q] = [pointOn(curve, Math.max(0, t - 0.02)), pointOn(curve, Math.min(1, t + 0.02))]
      const far = Math.hypot(q.x - p.x, q.y - p.y) || 1
      return { at: pointOn(curve, t), normal: { x: -(q.y - p.y) / far, y: (q.x - p.x) / far }, curve: i }
    })
  })
}

/** The way along all places on which edges are strongest and bends least (dynamic programming, as in Kass, Witkin and Terzopoulos, and Amini, 1990): px across, for each. */
function strongestWay(picture: Pixels, places: readonly Place[], reach: number): number[] {
  const half = Math.round(reach / ACROSS)
  const count = 2 * half + 1
  const from: Int16Array[] = []
  let best = new Float64Array(count)
  places.forEach(({ at, normal }, i) => {
    const now = new Float64Array(count)
    const back = new Int16Array(count)
    for (let o = 0; o < count; o++) {
      const off = (o - half) * ACROSS
      const edge = edgeAt(picture, { x: at.x + normal.x * off, y: at.y + normal.y * off }, normal)
      let most = i === 0 ? 0 : Number.NEGATIVE_INFINITY
      for (let by = -BENDS; by <= BENDS && i > 0; by++) {
        const p = o + by
        if (p < 0 || p >= count) continue
        const value = best[p]! - BEND * Math.abs(by) * ACROSS
        if (value <= most) continue
        most = value
        back[o] = p
      }
      now[o] = most + edge - FAR * Math.abs(off)
    }
    best = now
    from.push(back)
  })
  let o = best.indexOf(Math.max(...best))
  const way = new Array<number>(places.length)
  for (let i = places.length - 1; i >= 0; i--) {
    way[i] = (o - half) * ACROSS
    o = from[i]![o]!
  }
  return way
}

/** The middle of an edge that lies about some px across a place: its strength is flat there. */
function middleOfEdge(picture: Pixels, { at, normal }: Place, across: number): number {
  let [sum, weight] = [0, 0]
  for (let by = -MIDDLE; by <= MIDDLE; by += ACROSS) {
    const off = across + by
    const edge = edgeAt(picture, { x: at.x + normal.x * off, y: at.y + normal.y * off }, normal) ** 2
    sum += edge * off
    weight += edge
  }
  return weight > 1 ? sum / weight : across
}

/** What lies about an outline: how far across each place the edge is, px, and how strong, in codes; equally many places for equally many points. */
export interface EdgesAlong {
  across: number[]
  strength: number[]
  /** px of the outline. */
  length: number
}

/** Places looked at on each curve, so that outlines of equally many points can be compared. */
const PLACES = 10

/** Where the edges of a picture lie along a closed outline, within `reach` px across it. */
export function edgesAlong(points: readonly OutlinePoint[], picture: Pixels, reach: number): EdgesAlong {
  if (points.length < 2 || picture.width < 2 || picture.height < 2) return { across: [], strength: [], length: 0 }
  const places = points.flatMap((_, i) => placesOn([curveFrom(points, i)], PLACES).slice(0, PLACES))
  const across = strongestWay(picture, places, reach)
  const strength = places.map(({ at, normal }, i) =>
    edgeAt(picture, { x: at.x + normal.x * across[i]!, y: at.y + normal.y * across[i]! }, normal),
  )
  const length = places.reduce((sum, { at }, i) => {
    const next = places[(i + 1) % places.length]!.at
    return sum + Math.hypot(next.x - at.x, next.y - at.y)
  }, 0)
  return { across, strength, length }
}

/** The stretches of an outline between chosen points that follow each other: lists of points, in order. */
function stretches(count: number, chosen: ReadonlySet<number>): number[][] {
  if (chosen.size >= count) return [[...Array(count).keys(), 0]]
  const found: number[][] = []
  for (let i = 0; i < count; i++) {
    if (!chosen.has(i) || chosen.has((i + count - 1) % count)) continue
    const stretch = [i]
    for (let j = (i + 1) % count; chosen.has(j); j = (j + 1) % count) stretch.push(j)
    if (stretch.length > 1) found.push(stretch)
  }
  return found
}

const hasHandles = (p: OutlinePoint, side: 'in' | 'out') =>
  Math.hypot(...(side === 'in' ? [p.inX, p.inY] : [p.outX, p.outY])) > 1e-6

/** The direction from one place to another, of unit length. */
function way(from: Point, to: Point): Point {
  const far = Math.hypot(to.x - from.x, to.y - from.y) || 1
  return { x: (to.x - from.x) / far, y: (to.y - from.y) / far }
}

function leanStretch(points: OutlinePoint[], stretch: readonly number[], picture: Pixels, reach: number): void {
  const curves = stretch.slice(1).map((_, j) => curveFrom(points, stretch[j]!))
  const places = placesOn(curves)
  const offsets = strongestWay(picture, places, reach).map((across, i) => middleOfEdge(picture, places[i]!, across))
  const moved = places.map(({ at, normal }, i) => ({
    x: at.x + normal.x * offsets[i]!,
    y: at.y + normal.y * offsets[i]!,
  }))
  // All round, the last place is the first one again.
  const isRound = stretch.length > 1 && stretch[0] === stretch.at(-1)
  const last = moved.length - 1
  if (isRound) moved[last] = moved[0]!
  const placeAt = (i: number) => (isRound ? moved[(i + last) % last]! : moved[Math.max(0, Math.min(last, i))]!)
  // Where each curve begins among the places; the last one ends with them.
  const begins = [...curves.map((_, j) => places.findIndex(p => p.curve === j)), last]
  const was = points.map(p => ({ ...p }))
  stretch.forEach((i, j) => {
    Object.assign(points[i]!, moved[begins[j]!]!)
  })
  /** The way the line has at a point, seen from one side or, where it is smooth, from both. */
  const tangent = (j: number, side: 'out' | 'in'): Point => {
    const at = begins[j]!
    const smooth = isSmooth(was[stretch[j]!]!)
    const ahead = placeAt(at + (side === 'out' || smooth ? 2 : 0))
    const back = placeAt(at - (side === 'in' || smooth ? 2 : 0))
    return side === 'out' ? way(back, ahead) : way(ahead, back)
  }
  curves.forEach((_, j) => {
    const [from, to] = [points[stretch[j]!]!, points[stretch[j + 1]!]!]
    // What was straight stays straight.
    if (!hasHandles(was[stretch[j]!]!, 'out') && !hasHandles(was[stretch[j + 1]!]!, 'in')) return
    const part = moved.slice(begins[j]!, begins[j + 1]! + 1)
    part[part.length - 1] = { x: to.x, y: to.y }
    const { a, b, c, d } = oneCurve(part, tangent(j, 'out'), tangent(j + 1, 'in'))
    Object.assign(from, { outX: b.x - a.x, outY: b.y - a.y })
    Object.assign(to, { inX: c.x - d.x, inY: c.y - d.y })
  })
}

/**
 * Brings the stretches between chosen points onto the strongest edges of a picture within `reach` px across the outline, as many
 * points as before. Where nothing is stronger than the rest they stay.
 */
export function leanOnEdges(
  points: readonly OutlinePoint[],
  chosen: readonly number[],
  picture: Pixels,
  reach: number,
): OutlinePoint[] {
  const moved = points.map(p => ({ ...p }))
  if (points.length < 2 || picture.width < 2 || picture.height < 2 || !(reach >= ACROSS)) return moved
  for (const stretch of stretches(points.length, new Set(chosen))) leanStretch(moved, stretch, picture, reach)
  return moved
}
