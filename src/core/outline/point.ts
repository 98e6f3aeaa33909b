// Points of an outline: what of one lies in the document.
import { type Affine, carry, carryBy, type Point, scaleOf } from '../affine'

/**
 * Where a point lies, and where the handles on the way in and on the way out end, told from the point itself; px. `width`: of a strip there; `soft`: how
 * many px wider an outline's feather is there.
 */
export type OutlinePoint = {
  x: number
  y: number
  inX: number
  inY: number
  outX: number
  outY: number
  width?: number
  soft?: number
}

/** What only some points have. */
export type Breadth = 'width' | 'soft'
type Breadths = Pick<OutlinePoint, Breadth>

const NONE: Breadths = {}

/** Those that there are. */
export const breadths = (width: number | undefined, soft: number | undefined): Breadths =>
  width === undefined && soft === undefined
    ? NONE
    : { ...(width !== undefined && { width }), ...(soft !== undefined && { soft }) }

const between = (a: number | undefined, b: number | undefined, t: number) =>
  a === undefined && b === undefined ? undefined : (a ?? 0) + ((b ?? 0) - (a ?? 0)) * t

/** What lies between those of two points. */
export const mixBreadths = (a: OutlinePoint, b: OutlinePoint, t: number): Breadths =>
  breadths(between(a.width, b.width, t), between(a.soft, b.soft, t))

export const corner = ({ x, y }: Point): OutlinePoint => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })

/** A point where a map brings it, with its handles. */
export function carryOutlinePoint(map: Affine, p: OutlinePoint): OutlinePoint {
  const { x, y } = carry(map, p)
  const inward = carryBy(map, { x: p.inX, y: p.inY })
  const outward = carryBy(map, { x: p.outX, y: p.outY })
  // Nought less nothing is written as nought, and has to be read as it was.
  const own = breadths(p.width && p.width * scaleOf(map), p.soft && p.soft * scaleOf(map))
  return { x, y, inX: inward.x + 0, inY: inward.y + 0, outX: outward.x + 0, outY: outward.y + 0, ...own }
}

const hundredths = (v: number): number => Math.round(v * 100) / 100 + 0

/** A point as it is kept: hundredths of a px are finer than any hand. */
export const roundOutlinePoint = ({ x, y, inX, inY, outX, outY, width, soft }: OutlinePoint): OutlinePoint => ({
  x: hundredths(x),
  y: hundredths(y),
  inX: hundredths(inX),
  inY: hundredths(inY),
  outX: hundredths(outX),
  outY: hundredths(outY),
  // What is not softer than the rest need not say so.
  ...breadths(width && hundredths(width), soft ? hundredths(soft) : undefined),
})

/** The same outline gone round the other way. */
export const reversed = (points: readonly OutlinePoint[]): OutlinePoint[] =>
  points.map(p => ({ ...p, inX: p.outX, inY: p.outY, outX: p.inX, outY: p.inY })).reverse()
