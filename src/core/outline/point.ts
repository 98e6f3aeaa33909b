// Points of an outline: what of one lies in the document.
import { type Affine, carry, carryBy, type Point, scaleOf } from '../affine'

/**
 * Where a point lies, and where the handles on the way in and on the way out end, told from the point itself; px. `width`: of a strip there; px.
 */
export type OutlinePoint = {
  x: number
  y: number
  inX: number
  inY: number
  outX: number
  outY: number
  width?: number
}

/** What a point has besides its place, with another width if it has one. */
const withWidth = (width: number | undefined) => (width === undefined ? {} : { width })

export const corner = ({ x, y }: Point): OutlinePoint => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })

/** A point where a map brings it, with its handles. */
export function carryOutlinePoint(map: Affine, p: OutlinePoint): OutlinePoint {
  const { x, y } = carry(map, p)
  const inward = carryBy(map, { x: p.inX, y: p.inY })
  const outward = carryBy(map, { x: p.outX, y: p.outY })
  // Nought less nothing is written as nought, and has to be read as it was.
  const width = withWidth(p.width && p.width * scaleOf(map))
  return { x, y, inX: inward.x + 0, inY: inward.y + 0, outX: outward.x + 0, outY: outward.y + 0, ...width }
}

const hundredths = (v: number): number => Math.round(v * 100) / 100 + 0

/** A point as it is kept: hundredths of a px are finer than any hand. */
export const roundOutlinePoint = ({ x, y, inX, inY, outX, outY, width }: OutlinePoint): OutlinePoint => ({
  x: hundredths(x),
  y: hundredths(y),
  inX: hundredths(inX),
  inY: hundredths(inY),
  outX: hundredths(outX),
  outY: hundredths(outY),
  ...withWidth(width && hundredths(width)),
})

/** The same outline gone round the other way. */
export const reversed = (points: readonly OutlinePoint[]): OutlinePoint[] =>
  points.map(p => ({ ...p, inX: p.outX, inY: p.outY, outX: p.inX, outY: p.inY })).reverse()
