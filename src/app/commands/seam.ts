// Hiding the join between two takes: where to part them, and in which light.
import { type Affine, carry, inverse, type Point, scaleOf, turn } from '../../core/affine'
import { isKeyed } from '../../core/keys'
import { carryOutlinePoint, corner, fitPoints, type OutlinePoint, roundOutlinePoint } from '../../core/outline'
import { type Line, shapeAt, shapeValue } from '../../core/shape'
import { type Layer, newId, type Piece, pieceMap } from '../../core/shot'
import type { Held, Sought } from '../../workers/clients'
import type { StageEngine } from '../engine/stage-engine'
import { runJob } from '../jobs/run'
import { Stopped } from '../stopped'
import { editIn, projectOf, refusalTold, seamMeasured, store } from '../store'
import { type Command, canChange, chosen, one, shot, view } from './command'
import { asItIs, inTurn, isAsItWas } from './in-turn'

/** px of the shot by which an outline may pass the way that was found. */
const WITHIN = 4

/** Frames that are looked at, about. */
const LOOKS = 40

/** The edge that is chosen, or the first of the layer; one that carries keys is left as it is. */
function edgeOf(layer: Layer): Piece | null {
  const edges = layer.matte.filter(p => p.shape.kind === 'edge' && !isKeyed(shapeValue(p.shape)))
  return edges.find(p => p.id === view().piece) ?? edges[0] ?? null
}

/** Layers behind one that show something while it does. */
const behind = (layer: Layer): Layer[] => {
  const all = shot()?.layers ?? []
  return all
    .slice(all.indexOf(layer) + 1)
    .filter(l => l.on && l.span.from < layer.span.to && l.span.to > layer.span.from)
}

const hasBehind = (): boolean => {
  const layer = chosen()
  return one() && canChange() && layer !== null && behind(layer).length > 0
}
const hasEdge = (): boolean => hasBehind() && edgeOf(chosen()!) !== null

/** Frames of a layer with something behind them. */
function framesOf(layer: Layer): number[] {
  const under = behind(layer)
  const from = Math.max(0, layer.span.from, Math.min(...under.map(l => l.span.from)))
  const to = Math.min(shot()!.length, layer.span.to, Math.max(...under.map(l => l.span.to)))
  const step = Math.max(1, Math.ceil((to - from) / LOOKS))
  return Array.from({ length: Math.max(1, Math.ceil((to - from) / step)) }, (_, i) => from + i * step)
}

const degreesOf = ({ x, y }: { x: number; y: number }): number => (Math.atan2(y, x) * 180) / Math.PI

/** A line carried by a map; its normal, which points to what is kept, goes along. */
function carried(line: Line, map: Affine): Line {
  const a = (line.angle * Math.PI) / 180
  return { ...carry(map, line), angle: degreesOf(turn(map, { x: Math.cos(a), y: Math.sin(a) })) }
}

async function hold(stage: StageEngine, layer: Layer, line: Line | null, sought: Sought): Promise<Held | null> {
  const project = projectOf(store.getState())
  if (!project) return null
  const frames = framesOf(layer)
  try {
    return await runJob(
      {
        kind: 'compare',
        project: project.id,
        name: layer.name,
        detail: 'Held against what lies behind',
        of: frames.length,
      },
      ({ signal, tell }) => stage.holdAgainst(layer.id, frames, { line, sought }, tell, signal),
    )
  } catch (error) {
    if (!(error instanceof Stopped)) {
      const why = error instanceof Error ? error.message : String(error)
      store.dispatch(refusalTold(`The layer cannot be held against what lies behind it (${why}).`))
    }
    return null
  }
}

const lineIn = (layer: Layer, piece: Piece): Line =>
  carried(shapeAt(piece.shape, view().frame) as Line, pieceMap(layer, piece, view().frame))

const told = (piece: Piece, { frames, left, feather }: Held) =>
  store.dispatch(seamMeasured({ piece: piece.id, frames, left, feather }))

/** A line the other way round, where it would keep the people of what lies behind, and lose the layer's own. */
function rightWay(line: Line, { join, inverted }: Piece, { side }: Held): Line {
  const keeps = inverted === (join === 'subtract') ? 'ahead' : 'behind'
  return side === 'unclear' || side === keeps ? line : { ...line, angle: line.angle + 180 }
}

/** Moves the edge to where both sides differ least, as soft as hides what is left. */
async function seam(stage: StageEngine, layer: Layer): Promise<void> {
  const piece = edgeOf(layer)
  if (!piece) return
  const held = await hold(stage, layer, lineIn(layer, piece), 'line')
  if (!held || !isAsItWas(layer)) return
  if (!held.line) {
    store.dispatch(
      refusalTold('No straight line parts the people of the two: let the seam bend, or draw an outline instead.'),
    )
    return
  }
  const map = pieceMap(layer, piece, view().frame)
  const found = carried(rightWay(held.line, piece, held), inverse(map))
  const line = { x: round(found.x), y: round(found.y), angle: round(found.angle) }
  put(layer, piece, held, line, scaleOf(map), newId())
}

/** Gives a piece the shape that was found, as soft as hides what is left. `scale`: of its px in the shot. */
function put(layer: Layer, piece: Piece, held: Held, shape: unknown, scale: number, gesture: string): void {
  const half = round(held.feather / 2 / scale)
  const set = (of: 'shape' | 'inside' | 'outside', value: unknown) =>
    store.dispatch(editIn(gesture, 'setValue', layer.id, { of, piece: piece.id }, view().frame, value, false))
  set('shape', shape)
  if (!isKeyed(piece.feather.inside)) set('inside', half)
  if (!isKeyed(piece.feather.outside)) set('outside', half)
  told(piece, held)
}

/** The outline of what lies on the side that an edge keeps of a way through the picture, px of the shot. */
function outlineFrom({ runs, places }: NonNullable<Held['bend']>, { angle }: Line): OutlinePoint[] {
  const { width, height } = shot()!.size
  const far = 2 * (width + height)
  const a = (angle * Math.PI) / 180
  const away = runs === 'down' ? { x: Math.sign(Math.cos(a)) * far, y: 0 } : { x: 0, y: Math.sign(Math.sin(a)) * far }
  const beyond = (p: Point) => corner({ x: p.x + away.x, y: p.y + away.y })
  return [...fitPoints(places, WITHIN), beyond(places.at(-1)!), beyond(places[0]!)]
}

/** Turns the edge into an outline along the way on which both sides differ least. */
async function bend(stage: StageEngine, layer: Layer): Promise<void> {
  const piece = edgeOf(layer)
  if (!piece) return
  const line = lineIn(layer, piece)
  const held = await hold(stage, layer, line, 'bend')
  if (!held || !isAsItWas(layer)) return
  if (!held.bend) {
    store.dispatch(
      refusalTold('No way through the picture parts the people of the two: let one of them be cut out instead.'),
    )
    return
  }
  const map = pieceMap(layer, piece, view().frame)
  const points = outlineFrom(held.bend, rightWay(line, piece, held)).map(p =>
    roundOutlinePoint(carryOutlinePoint(inverse(map), p)),
  )
  const gesture = newId()
  store.dispatch(editIn(gesture, 'swapShape', layer.id, piece.id, 'outline', shot()!.size, []))
  put(layer, piece, held, points, scaleOf(map), gesture)
}

const round = (value: number): number => Math.round(value * 100) / 100

/** Brings the layer's light to that of what lies behind it. */
async function match(stage: StageEngine, layer: Layer): Promise<void> {
  const held = await hold(stage, layer, null, 'nothing')
  if (!held || !isAsItWas(layer)) return
  const measured = held.frames.map((frame, i) => ({ frame, light: held.lights[i]! }))
  store.dispatch(editIn(newId(), 'matchLightAt', layer.id, measured))
  const now = asItIs(layer.id)
  if (now) await measure(stage, now)
}

/** Measures along the edge as it is. */
async function measure(stage: StageEngine, layer: Layer): Promise<void> {
  const piece = edgeOf(layer)
  if (!piece) return
  const held = await hold(stage, layer, lineIn(layer, piece), 'nothing')
  if (held && isAsItWas(layer)) told(piece, held)
}

export const SEAM: readonly Command[] = [
  {
    id: 'match-behind',
    name: 'Match its light to what lies behind',
    group: 'Picture',
    keys: 'y',
    applies: hasBehind,
    run: s => inTurn(chosen()?.id, layer => match(s, layer)),
  },
  {
    id: 'seam',
    name: 'Find the seam',
    group: 'Picture',
    keys: 'j',
    applies: hasEdge,
    run: s => inTurn(chosen()?.id, layer => seam(s, layer)),
  },
  {
    id: 'seam-bend',
    name: 'Find a seam that bends',
    group: 'Picture',
    applies: hasEdge,
    run: s => inTurn(chosen()?.id, layer => bend(s, layer)),
  },
  {
    id: 'seam-measure',
    name: 'Measure the seam as it is',
    group: 'Picture',
    applies: hasEdge,
    run: s => inTurn(chosen()?.id, layer => measure(s, layer)),
  },
]
