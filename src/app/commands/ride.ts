// Letting pieces and layers ride on what moves in a take.
import { carry, inverse } from '../../core/affine'
import { isKeyed, sample } from '../../core/keys'
import { type Projective, projectAfter, projective, type Quad } from '../../core/projective'
import { SHAPES, shapeAt } from '../../core/shape'
import { asTake, type Layer, momentAt, newId, type Piece, type Point, pieceMap, placeMap } from '../../core/shot'
import { secondsToFrame } from '../../core/time'
import type { Inside, Moved } from '../../workers/clients'
import type { StageEngine } from '../engine/stage-engine'
import { runJob } from '../jobs/run'
import { Stopped } from '../stopped'
import { aimSet, edit, editIn, projectOf, type Rider, refusalTold, store } from '../store'
import { type Command, chosen, one, oneHere, shot, view } from './command'
import { asItIs, inTurn, isAsItWas } from './in-turn'
import { tell } from './say'

const showsTake = ({ source, on, span }: Layer, frame: number): boolean => {
  const take = asTake(source)
  return take !== null && take.use !== 'sound' && on && span.from <= frame && frame < span.to
}

/** The layer whose take is followed: the rider's own where a piece rides and it shows one, else the nearest behind it. */
function followedLayer({ layer, piece }: Rider, frame = view().frame): Layer | null {
  const layers = shot()?.layers ?? []
  const at = layers.findIndex(l => l.id === layer)
  const own = layers[at]
  if (piece && own && showsTake(own, frame)) return own
  return layers.slice(at + 1).find(l => showsTake(l, frame)) ?? null
}

/** What rides: the chosen piece, or the chosen layer. */
function rider(): Rider | null {
  const layer = oneHere() ? chosen() : null
  if (!layer) return null
  const piece = layer.matte.find(p => p.id === view().piece) ?? null
  return { layer: layer.id, piece: piece?.id ?? null }
}

const canRide = (): boolean => {
  const of = rider()
  return of !== null && followedLayer(of) !== null
}

export const canRideWhole = (): boolean => oneHere() && followedLayer({ layer: chosen()!.id, piece: null }) !== null

const secondsAt = (layer: Layer, frame: number): number =>
  momentAt(layer.timing, frame - layer.span.from, shot()!.rate).seconds

const placeAt = (layer: Layer, frame: number) => placeMap(layer, sample(layer.place, frame))

/** How sure a ride has to be everywhere to go without a word. */
const DOUBTFUL = 0.8

/** Frames about the one at which it begins, as far as nothing is lost, with how px of the shot moved to each. */
function mapsAbout(
  source: Layer,
  span: { from: number; to: number },
  frame: number,
  found: Awaited<ReturnType<StageEngine['follow']>>,
) {
  const byFrame = new Map(found.moved.map((moved: Moved) => [moved.frame, moved]))
  const start = projective(inverse(placeAt(source, frame)))
  const foundAt = (f: number): Moved | undefined => {
    const seconds = Math.max(0, secondsAt(source, f))
    return byFrame.get(found.rate ? secondsToFrame(seconds + 1e-3, found.rate) : 0)
  }
  const at = (f: number): Projective | null => {
    const move = foundAt(f)?.move
    return move ? projectAfter(projective(placeAt(source, f)), projectAfter(move, start)) : null
  }
  let [first, end] = [frame, frame + 1]
  while (first > span.from && at(first - 1)) first--
  while (end < span.to && at(end)) end++
  const maps = Array.from({ length: end - first }, (_, i) => at(first + i)!)
  const sure = maps.map((_, i) => foundAt(first + i)!.sure)
  const least = sure.indexOf(Math.min(...sure))
  return { ride: { first, begin: frame, maps }, first, end, least: { frame: first + least, sure: sure[least]! } }
}

/** What is followed with its places carried elsewhere. */
function carried(what: Inside, to: (point: Point) => Point): Inside {
  if ('point' in what) return { point: to(what.point) }
  if ('marks' in what) return { marks: what.marks.map(to) as unknown as Quad }
  return 'surface' in what ? { surface: what.surface.map(to) } : { corners: what.corners.map(to) }
}

/** Follows something, px of the shot at the playhead, and lets the rider go with it: a piece, a layer, or its corners on something flat. */
export function ride(stage: StageEngine, of: Rider, what: Inside): void {
  const { frame } = view()
  inTurn(of.layer, layer => rideFrom(stage, of, layer, frame, what))
}

async function rideFrom(stage: StageEngine, of: Rider, layer: Layer, frame: number, what: Inside): Promise<void> {
  const [source, project] = [followedLayer(of, frame), projectOf(store.getState())]
  if (!source || !project) return
  const back = inverse(placeAt(source, frame))
  const inTake = carried(what, p => carry(back, p))
  const span = { from: Math.max(layer.span.from, source.span.from), to: Math.min(layer.span.to, source.span.to) }
  const ends = [secondsAt(source, span.from), secondsAt(source, span.to - 1)].map(s => Math.max(0, s))
  const order = {
    kind: 'compare',
    project: project.id,
    name: layer.name,
    detail: 'Following',
    of: span.to - span.from,
  } as const
  try {
    const found = await runJob(order, ({ signal, tell }) => {
      const seconds = { from: Math.min(...ends), to: Math.max(...ends) }
      const { digest } = asTake(source.source)!
      return stage.follow(digest, Math.max(0, secondsAt(source, frame)), inTake, seconds, tell, signal)
    })
    const parts = (l: Layer) => [l.source, l.span, l.timing, l.place, l.pin, l.matte.find(p => p.id === of.piece)]
    if (!isAsItWas(layer, parts) || !isAsItWas(source, parts)) return
    const { ride, first, end, least } = mapsAbout(source, span, frame, found)
    const [gesture, before] = [newId(), asItIs(of.layer)]
    if (of.piece && 'surface' in what) store.dispatch(editIn(gesture, 'rideOutline', layer.id, of.piece, ride))
    else if (of.piece) store.dispatch(editIn(gesture, 'ridePiece', layer.id, of.piece, ride))
    else if ('surface' in what || 'marks' in what) store.dispatch(editIn(gesture, 'rideCorners', layer.id, ride))
    else store.dispatch(editIn(gesture, 'rideLayer', layer.id, ride))
    const isStill = asItIs(of.layer) === before
    const isLost = first > span.from || end < span.to
    if (isStill) tell('What it was to ride on stands still, and so does it.')
    else if (isLost) {
      const frames = `${first + 1} to ${end}`
      tell(`It rides over frames ${frames}; beyond, what it rides on was lost. Go there and let it ride from there on.`)
    } else if (least.sure < DOUBTFUL) {
      tell(
        `It rides. It was least sure at frame ${least.frame + 1}: look there, and let it ride from there on if it is off.`,
      )
    }
  } catch (error) {
    if (error instanceof Stopped) return
    store.dispatch(refusalTold(error instanceof Error ? error.message : String(error)))
  }
}

/** Ends the aiming with a press on the picture, px of the shot. */
export function rideOn(stage: StageEngine, point: Point): void {
  const of = store.getState().aim
  store.dispatch(aimSet(null))
  if (of) ride(stage, of, { point })
}

/** The chosen piece with its outline in straight lines, px of the shot. */
function chosenInside(): { of: Rider; corners: Point[] } | null {
  const of = rider()
  const layer = of && asItIs(of.layer)
  const piece: Piece | undefined = layer?.matte.find(p => p.id === of?.piece)
  if (!of || !layer || !piece) return null
  const { frame } = view()
  const kind = SHAPES[piece.shape.kind]
  const value = shapeAt(piece.shape, frame)
  const points = kind.isDrawn && !kind.isOpen ? (value as Point[]) : kind.outlined?.(value as never, shot()!.size)
  if (!points || points.length < 3 || piece.shape.kind === 'edge') return null
  const map = pieceMap(layer, piece, frame)
  return { of, corners: points.map(p => carry(map, p)) }
}

/** Pieces of a layer that one of them can go with: those that are moved by keys, if it has an outline that can be moved. */
export function leadersOf(layer: Layer, piece: Piece): Piece[] {
  const { isDrawn, outlined } = SHAPES[piece.shape.kind]
  return isDrawn || outlined ? layer.matte.filter(p => p !== piece && isKeyed(p.motion)) : []
}

function leaders(): Piece[] {
  const layer = one() ? chosen() : null
  const piece = layer?.matte.find(p => p.id === view().piece)
  return layer && piece ? leadersOf(layer, piece) : []
}

/** Lets the chosen piece go with another one, from where both are now. */
export function goWith(leader: Piece): void {
  const { layer, piece, frame } = view()
  if (!layer || !piece) return
  const before = shot()
  store.dispatch(edit('ridePieceWith', layer, piece, leader.id, frame))
  if (shot() !== before) tell(`It goes with “${leader.name}” now.`)
}

export const RIDE: readonly Command[] = [
  {
    id: 'ride',
    name: 'Ride on a point of the picture',
    group: 'Picture',
    keys: 'alt+r',
    applies: canRide,
    run: () => void store.dispatch(aimSet(store.getState().aim ? null : rider())),
  },
  {
    id: 'ride-layer',
    name: 'Let the whole layer ride on a point',
    group: 'Picture',
    applies: canRideWhole,
    run: () => void store.dispatch(aimSet({ layer: chosen()!.id, piece: null })),
  },
  {
    id: 'carry',
    name: 'Carry it along with what is inside',
    group: 'Picture',
    keys: 'alt+c',
    applies: () => one() && canRide() && chosenInside() !== null,
    run(stage) {
      const inside = chosenInside()
      if (inside) ride(stage, inside.of, { corners: inside.corners })
    },
  },
  {
    id: 'carry-flat',
    name: 'Carry its outline along on the surface inside, in perspective',
    group: 'Picture',
    keys: 'alt+shift+c',
    applies: () => one() && canRide() && chosenInside() !== null,
    run(stage) {
      const inside = chosenInside()
      if (inside) ride(stage, inside.of, { surface: inside.corners })
    },
  },
  {
    id: 'go-with',
    name: 'Let the piece go with the first other one that moves',
    group: 'Picture',
    keys: 'alt+g',
    applies: () => leaders().length > 0,
    run: () => goWith(leaders()[0]!),
  },
]
