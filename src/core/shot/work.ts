// What a frame of a shot may cost at most, so that none is opened that would keep a machine for minutes.
import { isKeyed } from '../keys'
import { SHAPES, shapeValue } from '../shape'
import { insideOf } from '../source'
import { shownIn } from './shown'
import type { Layer, Piece, Shot } from './types'

/** How much more a turned pixel costs than one that lies as it was taken, and one that is seen in perspective. */
const TURNED = 8
const PINNED = 32

const isTurned = ({ place }: Layer): boolean =>
  isKeyed(place) ? place.keys.some(k => k.value.angle !== 0) : place.angle !== 0

/** What a piece costs for each pixel that it may cover while the shutter is open, at most, in pixels that are composited. */
const BLURRED = 16

const isBlurred = ({ blur, motion, shape }: Piece): boolean =>
  blur.shutter > 0 && (isKeyed(motion) || isKeyed(shapeValue(shape)))

/** What a piece costs for each pixel. */
function pieceCost(piece: Piece): number {
  const value = shapeValue(piece.shape)
  const { cost } = SHAPES[piece.shape.kind]
  const own = cost ? Math.max(0, ...(isKeyed(value) ? value.keys.map(k => cost(k.value)) : [cost(value)])) : 0
  return isBlurred(piece) ? BLURRED * Math.max(1, own) : own
}

/** What asking a layer for its matte costs at least, however small the frame, in px. */
const ASKING = 20_000

/** What one of a layer's copies costs in px, with all of its matte. No matte may be made of itself. */
function costs({ layers, size }: Shot): (layer: Layer) => number {
  const frame = size.width * size.height
  const known = new Map<string, number>()
  const asked = (id: string): number => {
    const layer = layers.find(l => l.id === id)
    return layer ? ASKING + frame + of(layer) * (1 + (layer.copies?.count ?? 0)) : 0
  }
  function of(layer: Layer): number {
    const found = known.get(layer.id)
    if (found !== undefined) return found
    const pieces = layer.matteOn ? layer.matte.filter(p => p.on !== false) : []
    const shown = pieces.flatMap(p => [...new Set(shownIn(p))])
    const inside = insideOf(layer.source)
    const each =
      (layer.pin ? PINNED : isTurned(layer) ? TURNED : 1) + pieces.reduce((sum, piece) => sum + pieceCost(piece), 0)
    const cost = frame * each + (inside ? workOf(inside) : 0) + shown.reduce((sum, id) => sum + asked(id), 0)
    known.set(layer.id, cost)
    return cost
  }
  return of
}

/**
 * The dearest frame of a shot, in pixels that are composited: every layer that is on, with every copy and whatever its
 * group and its matte hold, as if none hid another. Groups count as if all of their frames were the dearest.
 */
export function workOf(shot: Shot): number {
  const costOf = costs(shot)
  const changes = new Map<number, number>()
  const change = (at: number, by: number) => changes.set(at, (changes.get(at) ?? 0) + by)
  for (const layer of shot.layers) {
    if (!layer.on) continue
    const cost = costOf(layer)
    const { count, later } = layer.copies ?? { count: 0, later: 0 }
    for (let i = 0; i <= count; i++) {
      change(layer.span.from + i * later, cost)
      change(layer.span.to + i * later, -cost)
    }
  }
  let now = 0
  let most = 0
  for (const at of [...changes.keys()].sort((a, b) => a - b)) {
    now += changes.get(at)!
    most = Math.max(most, now)
  }
  return most
}
