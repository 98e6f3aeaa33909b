// Points of outlines. What changes how many there are is done to every key, so that none of them changes its shape.
import { isKeyed, mapKeys, sample, setKey, type Value } from '../../keys'
import {
  carryOutlinePoint,
  insertPoint,
  middleOf,
  mixOutlines,
  type OutlinePoint,
  removePoint,
  reversed,
} from '../../outline'
import { SHAPES, shapeWith } from '../../shape'
import { asPlain } from '../clone'
import { LIMITS } from '../limits'
import type { Piece, Shot } from '../types'
import { editableLayer, findPiece } from './find'

type Outline = Value<OutlinePoint[]>

/** The piece of a layer that may change and is an outline, with its value. */
function outlineOf(shot: Shot, layer: string, piece: string): { found: Piece; value: Outline } | null {
  const found = findPiece(editableLayer(shot, layer), piece)
  // Out of the draft: its thousands of numbers are read many times, each by way of a proxy there.
  return found && 'points' in found.shape ? { found, value: asPlain(found.shape.points) } : null
}

/** Points as the piece's shape has them: a strip's with a width, others' without. */
const fitted = (found: Piece, points: OutlinePoint[]): OutlinePoint[] =>
  SHAPES[found.shape.kind].taken!(points) as OutlinePoint[]

function setOutline(found: Piece, points: Outline): void {
  found.shape = shapeWith(found.shape.kind, points)
}

const FIELDS = ['x', 'y', 'inX', 'inY', 'outX', 'outY'] as const

/** Every point shifted as one outline's lie from another's. */
function shifted(points: readonly OutlinePoint[], from: readonly OutlinePoint[], to: readonly OutlinePoint[]) {
  return points.map((p, i) => {
    const next = { ...p }
    for (const of of FIELDS) next[of] += to[i]![of] - from[i]![of]
    for (const of of ['width', 'soft'] as const) {
      const by = (to[i]![of] ?? 0) - (from[i]![of] ?? 0)
      if (p[of] !== undefined || by !== 0) next[of] = Math.max(0, (p[of] ?? 0) + by)
    }
    return next
  })
}

/** Begins an outline anew, as it is being drawn: whatever keys it had are gone. */
export function drawOutline(
  shot: Shot,
  layer: string,
  piece: string,
  frame: number,
  drawn: OutlinePoint[],
  keying: boolean,
): void {
  const outline = outlineOf(shot, layer, piece)
  if (!outline || drawn.length > LIMITS.points) return
  const { found } = outline
  const points = fitted(found, drawn)
  // What is being drawn turns about its middle; once it has moved, that stays.
  if (!isKeyed(found.motion)) found.pivot = middleOf(points, [...points.keys()])
  setOutline(found, keying ? { keys: [{ frame, value: points, ease: 'linear' }] } : points)
}

/**
 * Gives an outline another shape at a frame, of as many points as it has there. `keying`: by a key there; else all of its animation shifts by as
 * much.
 */
export function reshapeOutline(
  shot: Shot,
  layer: string,
  piece: string,
  frame: number,
  made: OutlinePoint[],
  keying: boolean,
): void {
  const outline = outlineOf(shot, layer, piece)
  if (!outline) return
  const { found, value } = outline
  const points = fitted(found, made)
  const now = sample(value, frame, mixOutlines)
  // What was meant for it as it was a moment ago is not forced upon it as it is.
  if (now.length !== points.length) return
  const along = (p: OutlinePoint[]) => (p.length === now.length ? shifted(p, now, points) : p)
  if (keying) setOutline(found, setKey(value, frame, points, isKeyed(value) ? undefined : 'linear'))
  else setOutline(found, isKeyed(value) ? mapKeys(value, along) : points)
}

/** Adds a point on the curve that leaves point `index`, t of the way along, in every key. */
export function addOutlinePoint(shot: Shot, layer: string, piece: string, index: number, t: number): void {
  const outline = outlineOf(shot, layer, piece)
  if (!outline || !(t > 0 && t < 1)) return
  setOutline(
    outline.found,
    mapKeys(outline.value, points =>
      index in points && points.length > 1 && points.length < LIMITS.points ? insertPoint(points, index, t) : points,
    ),
  )
}

/** Takes points away in every key. */
export function removeOutlinePoints(shot: Shot, layer: string, piece: string, indexes: readonly number[]): void {
  const outline = outlineOf(shot, layer, piece)
  if (!outline) return
  // From the last on, so that those before keep their places.
  const order = [...new Set(indexes)].sort((a, b) => b - a)
  const without = (points: OutlinePoint[]) =>
    order.reduce((left, i) => (i in left ? removePoint(left, i) : left), points)
  setOutline(outline.found, mapKeys(outline.value, without))
}

/** Mirrors an outline left and right about a place, in every key. */
export function mirrorOutline(shot: Shot, layer: string, piece: string, x: number): void {
  const outline = outlineOf(shot, layer, piece)
  if (!outline || !Number.isFinite(x)) return
  const map = { a: -1, b: 0, c: 0, d: 1, x: 2 * x, y: 0 }
  setOutline(
    outline.found,
    mapKeys(outline.value, points => points.map(p => carryOutlinePoint(map, p))),
  )
}

/** Goes round the outline the other way, in every key. */
export function reverseOutline(shot: Shot, layer: string, piece: string): void {
  const outline = outlineOf(shot, layer, piece)
  if (outline) setOutline(outline.found, mapKeys(outline.value, reversed))
}
