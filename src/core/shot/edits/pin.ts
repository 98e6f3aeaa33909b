// A layer's corners pinned to four points of the shot, and riding on something flat.
import { type Box, boundsOf, carry, inverse } from '../../affine'
import { isKeyed, keysOf, linearKeys, mapKeys, placesToKeep, sample } from '../../keys'
import {
  type Corners,
  cornersAt,
  depthAt,
  type Projective,
  pinMap,
  project,
  type Quad,
  quadAt,
  quadOf,
} from '../../projective'
import { pinnedCorners, placeMap } from '../place'
import type { Layer, Shot } from '../types'
import { editableLayer } from './find'
import { groupLayers } from './group'
import type { Ride } from './ride'

/** px that the eye does not find; and over which what stands still seems to move, but for a frame in twenty at either end. */
const WITHIN = 0.12
const STILL = 0.5
const ODD = 0.05

/** Whether a layer's picture is more than its source: a matte cuts it as it lies, and so goes with it only within a group. */
const isCut = ({ matte, source }: Layer): boolean => matte.length > 0 || source.kind === 'panel'

/**
 * Pins the corners of what of a layer's picture lies in a box, in px of its source, where they are: nothing changes yet. A layer with a matte is made a group, with `group` for
 * its id, so that its matte is seen in perspective with it; then the corners are those of what the box reaches over at that frame. What is pinned already stays as it is.
 */
export function pinCorners(shot: Shot, layer: string, box: Box, frame: number, group: string): void {
  const found = editableLayer(shot, layer)
  if (!found || found.pin || !(box.left < box.right && box.top < box.bottom)) return
  if (!isCut(found)) {
    found.pin = { box: { ...box }, corners: cornersAt(quadOf(box)) }
    return
  }
  const map = placeMap(found, sample(found.place, frame))
  const reached = boundsOf(quadOf(box).map(p => carry(map, p)))
  groupLayers(shot, [layer], found.name, group)
  const made = editableLayer(shot, group)
  if (made) made.pin = { box: reached, corners: cornersAt(quadOf(reached)) }
}

/** Lets the picture lie flat again. */
export function unpinCorners(shot: Shot, layer: string): void {
  const found = editableLayer(shot, layer)
  if (found) delete found.pin
}

/** Corners of one box as those of another that lies on the same flat thing; null where it would reach behind the lens. */
function cornersOf(to: Box, from: Box, corners: Corners): Corners | null {
  const map = pinMap(from, quadAt(corners))
  const quad = quadOf(to)
  return map && quad.every(p => depthAt(map, p) * depthAt(map, quadOf(from)[0]) > 0)
    ? cornersAt(quad.map(p => project(map, p)) as unknown as Quad)
    : null
}

/** Pins what lies in a box, too: all that is seen so far stays where it is. Nothing changes where it would reach behind the lens. */
export function widenPin(shot: Shot, layer: string, more: Box): void {
  const pin = editableLayer(shot, layer)?.pin
  if (!pin) return
  const { box, corners } = pin
  const wide: Box = {
    left: Math.min(box.left, more.left),
    top: Math.min(box.top, more.top),
    right: Math.max(box.right, more.right),
    bottom: Math.max(box.bottom, more.bottom),
  }
  const widened = mapKeys<Corners | null>(corners, c => c && cornersOf(wide, box, c))
  if (isKeyed(widened) ? widened.keys.some(k => k.value === null) : widened === null) return
  Object.assign(pin, { box: wide, corners: widened })
}

/** How far a number goes, odd frames left out. */
function rangeOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const odd = Math.floor(ODD * sorted.length)
  return sorted[sorted.length - 1 - odd]! - sorted[odd]!
}

const numbersOf = (corners: Corners): number[] => quadAt(corners).flatMap(p => [p.x, p.y])

/** Lets a layer's corners ride on something flat; what is keyed already stays as it is until the following begins. */
export function rideCorners(shot: Shot, layer: string, { first, begin, maps }: Ride<Projective>): void {
  const found = editableLayer(shot, layer)
  const start = found && pinnedCorners(found, begin)
  if (!found?.pin || !start) return
  const { corners: before } = found.pin
  const from = isKeyed(before) ? Math.max(0, begin - first) : 0
  const values = maps.slice(from).map((map, i) => {
    const back = inverse(placeMap(found, sample(found.place, first + from + i)))
    return cornersAt(start.map(p => carry(back, project(map, p))) as unknown as Quad)
  })
  const all = values.map(numbersOf)
  if (all.length === 0 || all.some(row => row.some(v => !Number.isFinite(v)))) return
  const curves = all[0]!.map((_, c) => all.map(row => row[c]!))
  const isStill = curves.every(curve => rangeOf(curve) <= STILL)
  const kept = isStill ? [0] : placesToKeep(curves, new Array<number>(8).fill(WITHIN))
  if (kept.length === 1 && !isKeyed(before)) return
  found.pin.corners = {
    keys: [...keysOf(before).filter(k => k.frame < first + from), ...linearKeys(values, first + from, kept)],
  }
}
