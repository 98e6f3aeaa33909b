// Affine maps of the plane: places of layers, pieces on them and cameras over them are all told in these. They turn,
// mirror and scale evenly.

export interface Point {
  x: number
  y: number
}

/** An upright box, right and bottom beyond the last px. */
export interface Box {
  left: number
  top: number
  right: number
  bottom: number
}

/** What some points lie within. */
export const boundsOf = (points: readonly Point[]): Box => ({
  left: Math.min(...points.map(p => p.x)),
  top: Math.min(...points.map(p => p.y)),
  right: Math.max(...points.map(p => p.x)),
  bottom: Math.max(...points.map(p => p.y)),
})

/** (u, v) -> (a u + c v + x, b u + d v + y), in px. */
export interface Affine {
  a: number
  b: number
  c: number
  d: number
  x: number
  y: number
}

export const UNMOVED: Affine = { a: 1, b: 0, c: 0, d: 1, x: 0, y: 0 }

/** Whether everything stays where it is. */
export const isUnmoved = ({ a, b, c, d, x, y }: Affine): boolean =>
  a === 1 && b === 0 && c === 0 && d === 1 && x === 0 && y === 0

export const scaling = (by: number, x = 0, y = 0): Affine => ({ a: by, b: 0, c: 0, d: by, x, y })

/** Where a movement goes: the map without its shift. */
export const carryBy = ({ a, b, c, d }: Affine, { x, y }: Point): Point => ({ x: a * x + c * y, y: b * x + d * y })

export function carry(map: Affine, point: Point): Point {
  const { x, y } = carryBy(map, point)
  return { x: x + map.x, y: y + map.y }
}

/** First `inner`, then `outer`. */
export function after(outer: Affine, inner: Affine): Affine {
  const across = carryBy(outer, { x: inner.a, y: inner.b })
  const down = carryBy(outer, { x: inner.c, y: inner.d })
  return { a: across.x, b: across.y, c: down.x, d: down.y, ...carry(outer, inner) }
}

/** The way back. A map that scales to nothing has none: its numbers are then not finite. */
export function inverse({ a, b, c, d, x, y }: Affine): Affine {
  const det = a * d - b * c
  const back = { a: d / det, b: -b / det, c: -c / det, d: a / det, x: 0, y: 0 }
  const origin = carryBy(back, { x, y })
  return { ...back, x: -origin.x, y: -origin.y }
}

/** How long a px becomes. */
export const scaleOf = ({ a, b }: Affine): number => Math.hypot(a, b)

/** A direction, turned and mirrored but of the same length. */
export function turn(map: Affine, direction: Point): Point {
  const { x, y } = carryBy(map, direction)
  const scale = scaleOf(map)
  return { x: x / scale, y: y / scale }
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180
export const degrees = (r: number): number => (r * 180) / Math.PI
