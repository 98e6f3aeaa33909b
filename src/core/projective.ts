// Projective maps of the plane: how a flat thing looks from anywhere, and how what lies on one moves when it turns away.
import type { Affine, Box, Point } from './affine'

/** (u, v) -> ((a u + c v + x) / q, (b u + d v + y) / q) where q = g u + h v + w, in px. Times any number it is the same map. */
export interface Projective extends Affine {
  g: number
  h: number
  w: number
}

/** The four corners of a flat thing, in the order round it: top left, top right, bottom right, bottom left. */
export type Quad = readonly [Point, Point, Point, Point]

/** The same by name, as documents have them. */
export interface Corners {
  topLeft: Point
  topRight: Point
  bottomRight: Point
  bottomLeft: Point
}

export const quadAt = ({ topLeft, topRight, bottomRight, bottomLeft }: Corners): Quad => [
  topLeft,
  topRight,
  bottomRight,
  bottomLeft,
]

export const cornersAt = ([topLeft, topRight, bottomRight, bottomLeft]: Quad): Corners => ({
  topLeft,
  topRight,
  bottomRight,
  bottomLeft,
})

export const projective = (map: Affine): Projective => ({ ...map, g: 0, h: 0, w: 1 })

/** How far before the lens a point is, against others; nought and less: it is not seen. */
export const depthAt = ({ g, h, w }: Projective, { x, y }: Point): number => g * x + h * y + w

export function project(map: Projective, point: Point): Point {
  const q = depthAt(map, point)
  return { x: (map.a * point.x + map.c * point.y + map.x) / q, y: (map.b * point.x + map.d * point.y + map.y) / q }
}

/** First `inner`, then `outer`. */
export function projectAfter(outer: Projective, inner: Projective): Projective {
  const column = (p: number, q: number, r: number) => [
    outer.a * p + outer.c * q + outer.x * r,
    outer.b * p + outer.d * q + outer.y * r,
    outer.g * p + outer.h * q + outer.w * r,
  ]
  const [a, b, g] = column(inner.a, inner.b, inner.g)
  const [c, d, h] = column(inner.c, inner.d, inner.h)
  const [x, y, w] = column(inner.x, inner.y, inner.w)
  return { a: a!, b: b!, c: c!, d: d!, x: x!, y: y!, g: g!, h: h!, w: w! }
}

/** The way back: what lies before the lens lies before it then, too. A map onto a line has none: its numbers are then not finite. */
export function unproject({ a, b, c, d, x, y, g, h, w }: Projective): Projective {
  const det = a * (d * w - y * h) + c * (y * g - b * w) + x * (b * h - d * g)
  return {
    a: (d * w - y * h) / det,
    c: (x * h - c * w) / det,
    x: (c * y - x * d) / det,
    b: (y * g - b * w) / det,
    d: (a * w - x * g) / det,
    y: (x * b - a * y) / det,
    g: (b * h - d * g) / det,
    h: (c * g - a * h) / det,
    w: (a * d - b * c) / det,
  }
}

/** From the square of 1 px onto a quad (Heckbert, Fundamentals of Texture Mapping and Image Warping, 1989). */
function ontoQuad([p, q, r, s]: Quad): Projective {
  const far = { x: p.x - q.x + r.x - s.x, y: p.y - q.y + r.y - s.y }
  const one = { x: q.x - r.x, y: q.y - r.y }
  const two = { x: s.x - r.x, y: s.y - r.y }
  const det = one.x * two.y - two.x * one.y
  const g = (far.x * two.y - two.x * far.y) / det
  const h = (one.x * far.y - far.x * one.y) / det
  return {
    a: q.x - p.x + g * q.x,
    b: q.y - p.y + g * q.y,
    c: s.x - p.x + h * s.x,
    d: s.y - p.y + h * s.y,
    x: p.x,
    y: p.y,
    g,
    h,
    w: 1,
  }
}

/** The quad of an upright box. */
export const quadOf = ({ left, top, right, bottom }: Box): Quad => [
  { x: left, y: top },
  { x: right, y: top },
  { x: right, y: bottom },
  { x: left, y: bottom },
]

/** How sharply a quad may be bent at a corner, as a share of what its sides would make: less than that it is a line. */
const FLAT = 1e-5

/**
 * Whether a flat thing can look like that: the quad bends the same way at each corner. Seen from behind it does, too.
 */
export function canHold(quad: Quad): boolean {
  const turns = quad.map((p, i) => {
    const [q, r] = [quad[(i + 1) % 4]!, quad[(i + 2) % 4]!]
    const [one, two] = [
      { x: q.x - p.x, y: q.y - p.y },
      { x: r.x - q.x, y: r.y - q.y },
    ]
    return (one.x * two.y - one.y * two.x) / (Math.hypot(one.x, one.y) * Math.hypot(two.x, two.y))
  })
  return turns.every(t => t > FLAT) || turns.every(t => t < -FLAT)
}

/** From a box onto the quad that its corners are brought to; null where no flat thing looks like that. */
export function pinMap(box: Box, corners: Quad): Projective | null {
  const { left, top, right, bottom } = box
  const [width, height] = [right - left, bottom - top]
  if (!(width > 0 && height > 0) || !canHold(corners)) return null
  const square = projective({ a: 1 / width, b: 0, c: 0, d: 1 / height, x: -left / width, y: -top / height })
  return projectAfter(ontoQuad(corners), square)
}

const SQUARE: Box = { left: 0, top: 0, right: 1, bottom: 1 }

/** What brings the corners of one quad to those of another; null where nothing flat does. */
export function between(from: Quad, to: Quad): Projective | null {
  const [here, there] = [pinMap(SQUARE, from), pinMap(SQUARE, to)]
  return here && there && projectAfter(there, unproject(here))
}

/** What a map does to all that lies close to a point: it goes where the map brings it, and its neighbours go along evenly. */
export function affineAt(map: Projective, point: Point): Affine {
  const q = depthAt(map, point)
  const { x, y } = project(map, point)
  const [a, b] = [(map.a - map.g * x) / q, (map.b - map.g * y) / q]
  const [c, d] = [(map.c - map.h * x) / q, (map.d - map.h * y) / q]
  return { a, b, c, d, x: x - a * point.x - c * point.y, y: y - b * point.x - d * point.y }
}

/** The largest that a px becomes at a point, in px along either side. */
export function largestAt(map: Projective, point: Point): number {
  const { a, b, c, d } = affineAt(map, point)
  return Math.max(Math.hypot(a, b), Math.hypot(c, d))
}
