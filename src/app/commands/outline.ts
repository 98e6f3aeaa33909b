// Points of the chosen outline.
import { type Affine, carryBy, inverse } from '../../core/affine'
import { keysOf } from '../../core/keys'
import {
  carryOutlinePoint,
  middleOf,
  movePoints,
  type OutlinePoint,
  roundOutlinePoint,
  toggleSmooth,
} from '../../core/outline'
import { SHAPES, shapeAt, shapeValue } from '../../core/shape'
import { type Layer, type Piece, pieceMap } from '../../core/shot'
import type { StageEngine } from '../engine/stage-engine'
import { runJob } from '../jobs/run'
import { Stopped } from '../stopped'
import { edit, editIn, pointsChosen, projectOf, refusalTold, store } from '../store'
import { type Command, chosen, one, view } from './command'

interface Chosen {
  layer: Layer
  piece: Piece
  /** As they are at the playhead. */
  points: OutlinePoint[]
}

/** The chosen outline, if it may change. */
function outline(): Chosen | null {
  const layer = one() ? chosen() : null
  const piece = layer?.matte.find(p => p.id === view().piece)
  if (!layer || !piece || !SHAPES[piece.shape.kind].isDrawn) return null
  return { layer, piece, points: shapeAt(piece.shape, view().frame) as OutlinePoint[] }
}

/** An outline is under the hand. */
const isOutline = (): boolean => outline() !== null
/** Points of an outline are chosen. */
const hasPoints = (): boolean => isOutline() && view().points.length > 0

function reshape(change: (points: OutlinePoint[], isOpen: boolean) => OutlinePoint[]): void {
  const of = outline()
  if (!of) return
  const { frame, keying } = view()
  store.dispatch(
    edit(
      'reshapeOutline',
      of.layer.id,
      of.piece.id,
      frame,
      change(of.points, SHAPES[of.piece.shape.kind].isOpen === true),
      keying,
    ),
  )
}

/** Takes the chosen points away. */
export function removePoints(): void {
  const of = outline()
  if (!of) return
  store.dispatch(edit('removeOutlinePoints', of.layer.id, of.piece.id, view().points))
  store.dispatch(pointsChosen([]))
}

/** Says that the pictures that an outline was to be compared with could not be had. */
const noPicture = (error: unknown): void =>
  void store.dispatch(
    refusalTold(
      `The outline cannot be compared with its picture (${error instanceof Error ? error.message : String(error)}).`,
    ),
  )

/** From px of the piece to those of the shot, at a frame. */
function toShot({ layer, piece }: Pick<Chosen, 'layer' | 'piece'>, frame = view().frame): Affine {
  return pieceMap(layer, piece, frame)
}

/** Brings the stretches between chosen points onto edges of the picture. */
async function lean(stage: StageEngine): Promise<void> {
  const of = outline()
  if (!of) return
  const { frame, keying, points, reach } = view()
  const map = toShot(of)
  const own = of.points.map(p => carryOutlinePoint(map, p))
  const leant = await stage.lean(frame, of.layer.id, own, points, reach)
  // Changed meanwhile: what was found is about another outline.
  if (outline()?.piece !== of.piece) return
  const back = inverse(map)
  const moved = leant.map(p => roundOutlinePoint(carryOutlinePoint(back, p)))
  store.dispatch(edit('reshapeOutline', of.layer.id, of.piece.id, frame, moved, keying))
}

function hasKeys(): boolean {
  const of = outline()
  return of !== null && keysOf(shapeValue(of.piece.shape)).length > 1
}

/** The last key of the chosen outline before the playhead. */
function keyBefore() {
  const of = outline()
  const keys = of ? keysOf(shapeValue(of.piece.shape)) : []
  return keys.filter(k => k.frame < view().frame).at(-1)
}

const hasKeyBefore = (): boolean => keyBefore() !== undefined

/** Makes a key here of the one before: from there to here the outline stands still. */
function keyAgain(): void {
  const of = outline()
  const key = keyBefore()
  if (!of || !key) return
  store.dispatch(edit('putKey', of.layer.id, { of: 'shape', piece: of.piece.id }, view().frame, key.value))
}

/** Frames that are looked at to find the worst, about. */
const LOOKS = 60

/** Frames from the first key to the last, every key among them. */
function framesBetween(keys: readonly number[]): number[] {
  const [first, last] = [keys[0]!, keys.at(-1)!]
  const step = Math.max(1, Math.ceil((last - first) / LOOKS))
  const even = Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step)
  return [...new Set([...even, ...keys])].sort((a, b) => a - b)
}

/** Goes to the frame between keys at which the outline likely fits worst. */
async function goToWorst(stage: StageEngine): Promise<void> {
  const of = outline()
  const project = projectOf(store.getState())
  if (!of || !project) return
  const { layer, piece } = of
  const keys = keysOf(shapeValue(piece.shape)).map(k => k.frame)
  const outlines = framesBetween(keys).map(frame => {
    const map = toShot(of, frame)
    const points = (shapeAt(piece.shape, frame) as OutlinePoint[]).map(p => carryOutlinePoint(map, p))
    return { frame, isKey: keys.includes(frame), points }
  })
  const order = { kind: 'compare', project: project.id, name: piece.name, of: outlines.length } as const
  try {
    const worst = await runJob(order, ({ signal, tell }) =>
      stage.findWorst(layer.id, outlines, view().reach, tell, signal),
    )
    if (worst !== null) stage.goTo(worst)
  } catch (error) {
    if (!(error instanceof Stopped)) noPicture(error)
  }
}

/** Shifts the chosen points by px of the screen. */
function nudge(x: number, y: number): void {
  const of = outline()
  if (!of) return
  const { zoom, frame, keying, points } = view()
  const moved = movePoints(of.points, points, carryBy(inverse(toShot(of)), { x: x / zoom, y: y / zoom }))
  // Nudges that follow each other are one step of the history.
  const gesture = `nudge ${of.piece.id} ${frame} ${points.join()}`
  store.dispatch(editIn(gesture, 'reshapeOutline', of.layer.id, of.piece.id, frame, moved, keying))
}

const WAYS = [
  ['left', -1, 0],
  ['right', 1, 0],
  ['up', 0, -1],
  ['down', 0, 1],
] as const

const HELD = { group: 'Outline', native: true, applies: () => false, run: () => {} } as const

export const OUTLINE: readonly Command[] = [
  {
    id: 'points-all',
    name: 'Choose all points, or none',
    group: 'Outline',
    keys: 'q',
    applies: isOutline,
    run() {
      const all = outline()?.points.map((_, i) => i) ?? []
      store.dispatch(pointsChosen(view().points.length < all.length ? all : []))
    },
  },
  {
    id: 'points-smooth',
    name: 'Corners smooth, smooth points corners',
    group: 'Outline',
    keys: 'c',
    applies: hasPoints,
    run: () => reshape((points, isOpen) => toggleSmooth(points, view().points, isOpen)),
  },
  ...WAYS.flatMap(([way, x, y]): Command[] => [
    {
      id: `points-${way}`,
      name: `Nudge points ${way} by a pixel of the screen`,
      group: 'Outline',
      keys: `mod+${way}`,
      applies: hasPoints,
      run: () => nudge(x, y),
    },
    {
      id: `points-far-${way}`,
      name: `Nudge points ${way} by ten`,
      group: 'Outline',
      keys: `mod+shift+${way}`,
      applies: hasPoints,
      run: () => nudge(10 * x, 10 * y),
    },
  ]),
  {
    id: 'outline-lean',
    name: 'Lean the chosen stretch on edges of the picture',
    group: 'Outline',
    keys: 'e',
    applies: () => hasPoints() && view().points.length > 1,
    run: stage => void lean(stage).catch(noPicture),
  },
  {
    id: 'outline-again',
    name: 'Stand still: the key before once more, here',
    group: 'Outline',
    keys: 'v',
    applies: hasKeyBefore,
    run: keyAgain,
  },
  {
    id: 'outline-worst',
    name: 'To the frame that the outline fits worst',
    group: 'Outline',
    keys: 'g',
    applies: hasKeys,
    run: stage => void goToWorst(stage),
  },
  {
    id: 'outline-reverse',
    name: 'Go round the outline the other way',
    group: 'Outline',
    applies: isOutline,
    run() {
      const of = outline()
      if (of) store.dispatch(edit('reverseOutline', of.layer.id, of.piece.id))
    },
  },
  {
    id: 'outline-mirror',
    name: 'Mirror the outline left and right',
    group: 'Outline',
    applies: isOutline,
    run() {
      const of = outline()
      const all = of ? [...of.points.keys()] : []
      if (of) store.dispatch(edit('mirrorOutline', of.layer.id, of.piece.id, middleOf(of.points, all).x))
    },
  },
  // What is held is read where the outline is drawn: the list only tells of it.
  { ...HELD, id: 'outline-add', name: 'Put points on the line (held)', keys: 'a' },
  { ...HELD, id: 'outline-soft', name: 'Set how soft an outline is at its points (held)', keys: 'd' },
  { ...HELD, id: 'outline-clear', name: 'Hide lines and points (held)', keys: 'x' },
]
