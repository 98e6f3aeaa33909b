// A layer held against all that lies behind it, over a stretch of time: how its light stands to theirs, and where the two differ least.

import type { Point } from '../core/affine'
import { type Plan, planFrame } from '../core/plan'
import {
  type Bend,
  type Between,
  changes,
  comparer,
  differencesOf,
  featherFor,
  findBend,
  findSeam,
  type Light,
  lightsOf,
  meanAlong,
  type Side,
  sideOf,
} from '../core/plate'
import type { Codes, Kernels } from '../core/render'
import type { Line } from '../core/shape'
import type { Layer, Shot, Size } from '../core/shot'

/** px of the pictures that are looked at. */
const WIDTH = 360
const CELL = 2
const CODES = 255
/** Cells by which a bend goes on beyond the picture. */
const BEYOND = 4

/** What is looked for: nothing, a straight seam, or one that may bend. */
export type Sought = 'nothing' | 'line' | 'bend'

export interface Held {
  frames: number[]
  /** What becomes of the light of what lies behind to be the layer's, frame by frame, the layer without the match it has. */
  lights: Light[]
  /** The seam, px of the shot; where none is looked for, the line as it was; null where none parts the people, or it bends. */
  line: Line | null
  /** The seam that bends: which way it runs, and places along it, px of the shot, from beyond one side of it to beyond the other; null where none was found. */
  bend: { runs: Bend['runs']; places: Point[] } | null
  /** On which side of it the layer's own people are. */
  side: Side
  /** Shares of full light by which the two differ along it, frame by frame. */
  left: number[]
  /** px of feather that hide it. */
  feather: number
}

/** The layer alone and uncut before what lies behind it, or what lies behind it. */
function sides(shot: Shot, layer: Layer) {
  const behind = shot.layers.slice(shot.layers.indexOf(layer) + 1)
  const uncut: Layer = { ...layer, matte: [], opacity: 1, on: true, fade: { in: 0, out: 0 } }
  const [first] = layer.looks
  const asFilmed = first?.kind === 'light' ? { ...uncut, looks: layer.looks.slice(1) } : uncut
  const shown = (layers: Layer[]): Shot => ({ ...shot, layers })
  return { now: shown([uncut, ...behind]), filmed: shown([asFilmed, ...behind]), behind: shown(behind) }
}

/** Places along a bend, px, from beyond one side of the picture to beyond the other. */
function placesOf({ runs, at }: Bend, px: number): Point[] {
  const place = (i: number, j: number): Point => (runs === 'down' ? { x: j * px, y: i * px } : { x: i * px, y: j * px })
  return [place(-BEYOND, at[0]!), ...at.map((j, i) => place(i + 0.5, j)), place(at.length + BEYOND, at.at(-1)!)]
}

export interface Paints {
  k: Kernels
  paint<T>(plan: Plan, use: (picture: Codes) => T): Promise<T>
}

/** `line`: px of the shot. Throws what `onLooked` throws. */
export async function holdAgainst(
  { k, paint }: Paints,
  shot: Shot,
  layer: Layer,
  frames: readonly number[],
  { line, sought }: { line: Line | null; sought: Sought },
  onLooked: (count: number) => Promise<void>,
): Promise<Held> {
  const scale = Math.min(1, WIDTH / shot.size.width)
  const size = await paint(planFrame(shot, frames[0]!, scale), ({ width, height }): Size => ({ width, height }))
  const compare = comparer(await k.apart(2 ** 21 + size.width * size.height * 48), size)
  const { now, filmed, behind } = sides(shot, layer)
  const count = compare.cells.width * compare.cells.height
  const changed = { one: changes(count), other: changes(count) }
  const all: Between[] = []
  const lights: Pick<Between, 'gain' | 'veiled'>[] = []
  for (const [i, frame] of frames.entries()) {
    await paint(planFrame(behind, frame, scale), picture => compare.readOther(k, picture))
    await paint(planFrame(filmed, frame, scale), picture => compare.readOne(k, picture))
    const { gain, veiled } = compare.between()
    lights.push({ gain, veiled })
    if (filmed.layers[0]!.looks !== now.layers[0]!.looks)
      await paint(planFrame(now, frame, scale), picture => compare.readOne(k, picture))
    all.push(compare.between())
    changed.one.add(compare.seen.one)
    changed.other.add(compare.seen.other)
    await onLooked(i + 1)
  }
  const { cells } = compare
  const px = CELL / scale
  const inCells = (of: Line): Line => ({ ...of, x: of.x / px, y: of.y / px })
  const differences = differencesOf(
    cells,
    all.map(b => b.matched),
  )
  const from = inCells(line ?? { x: shot.size.width / 2, y: shot.size.height / 2, angle: 0 })
  const bend = sought === 'bend' ? findBend(differences, from) : null
  const straight = sought === 'line' ? findSeam(differences, from) : sought === 'nothing' ? from : null
  const found = bend ?? straight
  const left = found ? all.map(b => (meanAlong(cells, b.plain, found) ?? 0) / CODES) : []
  const mean = left.reduce((sum, v) => sum + v / left.length, 0)
  return {
    frames: [...frames],
    lights: lightsOf(lights),
    line: straight && { ...straight, x: straight.x * px, y: straight.y * px },
    bend: bend && { runs: bend.runs, places: placesOf(bend, px) },
    side: found
      ? sideOf(differences, found, straight ?? from, changed.one.variance(), changed.other.variance())
      : 'unclear',
    left,
    feather: found ? featherFor(differences, found, mean * CODES, px) : 0,
  }
}
