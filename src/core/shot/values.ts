// Reaching what of a layer can carry keys by path, so that one lane and one editor serve all of it.
import { type Affine, carry, carryBy, scaleOf } from '../affine'
import { isKeyed, keysOf, type Mixer, sample, shiftKeys, spreadKeys, type Value } from '../keys'
import { LOOKS, type Look } from '../look'
import type { Corners } from '../projective'
import { SHAPES, shapeValue, shapeWith } from '../shape'
import { type Source, sourceKind } from '../source'
import { clone } from './clone'
import type { AnyValue, Layer, Motion, Piece, Place } from './types'

/** A value that an owner has. `T` is what it is at a frame. */
interface ValueKind<O, T> {
  /** What its keys are called in the lanes. */
  word(owner: O): string
  get(owner: O): Value<T>
  set(owner: O, value: Value<T>): void
  /** What lies between two keys, where that is more than the parts of it mixed. */
  mix?(owner: O): Mixer<T> | undefined
  /** What it becomes where px of the shot come to lie elsewhere. */
  carried(value: T, map: Affine, owner: O): T
}

const kind = <O, T>(of: ValueKind<O, T>): ValueKind<O, unknown> => of as unknown as ValueKind<O, unknown>
const asIs = <T>(value: T): T => value
const asLength = (value: number, map: Affine): number => value * scaleOf(map)

/** A value that lies in a field of an owner, or of a part of it. */
const field = <O, H>(
  word: string,
  home: (owner: O) => H,
  name: keyof H,
  carried: (value: number, map: Affine) => number,
): ValueKind<O, unknown> =>
  kind<O, number>({
    word: () => word,
    get: owner => home(owner)[name] as Value<number>,
    set: (owner, value) => {
      home(owner)[name] = value as H[keyof H]
    },
    carried,
  })

/** In the order of a layer's card. */
const LAYER_VALUES = {
  place: kind<Layer, Place>({
    word: () => 'Place',
    get: layer => layer.place,
    set: (layer, value) => {
      layer.place = value
    },
    carried: (place, map) => ({ ...place, ...carry(map, place), scale: place.scale * scaleOf(map) }),
  }),
  corners: kind<Layer, Corners>({
    word: () => 'Corners',
    get: layer => layer.pin!.corners,
    set: (layer, value) => {
      layer.pin!.corners = value
    },
    // They are told in px of the source, and come to lie elsewhere with its place.
    carried: asIs,
  }),
  opacity: field('Opacity', (layer: Layer) => layer, 'opacity', asIs),
  gain: field('Gain', (layer: Layer) => layer.sound, 'gain', asIs),
} as const

const PIECE_VALUES = {
  on: field('used', (piece: Piece) => piece, 'on', asIs),
  motion: kind<Piece, Motion>({
    word: () => 'motion',
    get: piece => piece.motion,
    set: (piece, value) => {
      piece.motion = value
    },
    carried: (motion, map) => ({ ...motion, ...carryBy(map, motion) }),
  }),
  shape: kind<Piece, unknown>({
    word: ({ shape }) => SHAPES[shape.kind].word,
    get: ({ shape }) => shapeValue(shape),
    set: (piece, value) => {
      piece.shape = shapeWith(piece.shape.kind, value)
    },
    mix: ({ shape }) => SHAPES[shape.kind].mix,
    carried: (value, map, { shape }) => SHAPES[shape.kind].carried(value, map),
  }),
  inside: field('feather in', (piece: Piece) => piece.feather, 'inside', asLength),
  outside: field('feather out', (piece: Piece) => piece.feather, 'outside', asLength),
  grow: field('grow', (piece: Piece) => piece, 'grow', asLength),
  strength: field('strength', (piece: Piece) => piece, 'strength', asIs),
} as const

/** A number of a look, by the name that its kind gives it. */
const lookValue = (of: string): ValueKind<Look, unknown> =>
  kind<Look, number>({
    word: look => `${LOOKS[look.kind].name} · ${LOOKS[look.kind].values[of]!.name.toLowerCase()}`,
    get: ({ values }) => values[of]!,
    set: ({ values }, value) => {
      values[of] = value
    },
    carried: (value, map, look) => (LOOKS[look.kind].values[of]!.isLength ? asLength(value, map) : value),
  })

/** A number of a layer's source, by the name that its kind gives it. */
const sourceValue = (of: string): ValueKind<Source, unknown> =>
  kind<Source, number>({
    word: source => sourceKind(source).values![of]!.name.toLowerCase(),
    get: source => valuesOf(source)[of]!,
    set: (source, value) => {
      valuesOf(source)[of] = value
    },
    // It is told in px of the source: they come to lie elsewhere with its place.
    carried: asIs,
  })

const valuesOf = (source: Source): Record<string, Value<number>> =>
  (source as { values?: Record<string, Value<number>> }).values ?? {}

/** What a value in a layer is called; those of pieces and looks carry the id of theirs. */
export type PieceValue = keyof typeof PIECE_VALUES
type LayerValue = keyof typeof LAYER_VALUES
export type ValuePath =
  | { of: LayerValue }
  | { of: PieceValue; piece: string }
  | { of: string; look: string }
  | { of: string; source: true }

/** A value at its place. */
interface Slot {
  name: string
  get(): AnyValue
  set(value: AnyValue): void
  mix: Mixer<unknown> | undefined
  carried(value: unknown, map: Affine): unknown
}

const slotIn = <O>(owner: O, of: ValueKind<O, unknown>, whose = ''): Slot => ({
  name: `${whose}${of.word(owner)}`,
  get: () => of.get(owner),
  set: value => of.set(owner, value),
  mix: of.mix?.(owner),
  carried: (value, map) => of.carried(value, map, owner),
})

const has = (layer: Layer, of: LayerValue): boolean => of !== 'corners' || layer.pin !== undefined

/** The place in a layer that a path names, or null if there is none. */
function slot(layer: Layer, path: ValuePath): Slot | null {
  if ('look' in path) {
    const look = layer.looks.find(l => l.id === path.look)
    return look && path.of in LOOKS[look.kind].values ? slotIn(look, lookValue(path.of)) : null
  }
  if ('source' in path) {
    const { source } = layer
    const has = path.of in valuesOf(source) && path.of in (sourceKind(source).values ?? {})
    return has ? slotIn(source, sourceValue(path.of), `${sourceKind(source).name} · `) : null
  }
  if (!('piece' in path)) return has(layer, path.of) ? slotIn(layer, LAYER_VALUES[path.of]) : null
  const piece = layer.matte.find(p => p.id === path.piece)
  return piece ? slotIn(piece, PIECE_VALUES[path.of], `${piece.name} · `) : null
}

export const getValue = (layer: Layer, path: ValuePath): AnyValue | null => slot(layer, path)?.get() ?? null

/** What a path's row is called; nothing if it leads nowhere. */
export const valueName = (layer: Layer, path: ValuePath): string => slot(layer, path)?.name ?? ''

/** The value at a path as it is at a frame; null if it leads nowhere. */
export function valueAt(layer: Layer, path: ValuePath, frame: number): unknown {
  const place = slot(layer, path)
  return place ? sample(place.get(), frame, place.mix) : null
}

/** Replaces the value at a path in a draft. A path that leads nowhere changes nothing. */
export function changeValue(layer: Layer, path: ValuePath, change: (value: AnyValue) => AnyValue): void {
  const place = slot(layer, path)
  place?.set(change(place.get()))
}

function carrySlot(place: Slot, map: Affine): void {
  const value = place.get()
  const keys = keysOf(value).map(k => ({ ...k, value: place.carried(k.value, map) }))
  place.set(isKeyed(value) ? { keys } : place.carried(value, map))
}

/** Brings a value to where px of the shot come to lie, with all of its keys. */
export function carryValue(layer: Layer, path: ValuePath, map: Affine): void {
  const place = slot(layer, path)
  if (place) carrySlot(place, map)
}

/** The same piece where the px that it is told in come to lie, with all of its keys. */
export function carriedPiece(piece: Piece, map: Affine): Piece {
  const carried: Piece = { ...clone(piece), pivot: carry(map, piece.pivot) }
  for (const of of Object.values(PIECE_VALUES)) carrySlot(slotIn(carried, of), map)
  return carried
}

/** Every path of a layer, in the order of its card. */
export function valuePaths(layer: Layer): ValuePath[] {
  const ofPiece = Object.keys(PIECE_VALUES) as PieceValue[]
  const ofLayer = (Object.keys(LAYER_VALUES) as LayerValue[]).filter(of => has(layer, of))
  const pieces = layer.matte.flatMap(({ id }) => ofPiece.map((of): ValuePath => ({ of, piece: id })))
  const looks = layer.looks.flatMap(({ id, kind }) =>
    Object.keys(LOOKS[kind].values).map((of): ValuePath => ({ of, look: id })),
  )
  const own = Object.keys(sourceKind(layer.source).values ?? {}).map((of): ValuePath => ({ of, source: true }))
  return [...pieces, ...own, ...ofLayer.map((of): ValuePath => ({ of })), ...looks]
}

/** The paths that carry keys. */
export const keyedPaths = (layer: Layer): ValuePath[] =>
  valuePaths(layer).filter(path => isKeyed(getValue(layer, path) as AnyValue))

/** Whose keys are meant: the layer's own, which go with it; those of pieces that stay with its picture; or all. */
type Whose = 'own' | 'picture' | 'all'

/** Changes the values of a layer that have keys. Pieces pinned to the shot have none of the layer's own. */
export function changeKeyed(
  layer: Layer,
  whose: Whose,
  change: (value: AnyValue, mix?: Mixer<unknown>) => AnyValue,
): void {
  for (const path of keyedPaths(layer)) {
    const pinned = 'piece' in path ? layer.matte.find(p => p.id === path.piece)?.pinnedTo : null
    if (whose === 'own' && pinned === 'shot') continue
    if (whose === 'picture' && pinned !== 'layer') continue
    changeValue(layer, path, value => change(value, slot(layer, path)?.mix))
  }
}

export const shiftLayerKeys = (layer: Layer, by: number, whose: Whose = 'own'): void =>
  changeKeyed(layer, whose, value => shiftKeys(value, by))

/** Spreads keys in time about a frame. */
export const spreadLayerKeys = (layer: Layer, about: number, factor: number, whose: Whose = 'own'): void =>
  changeKeyed(layer, whose, value => spreadKeys(value, about, factor))

/** Lets everything of a layer stand as it is at a frame, but for pieces pinned to the shot. */
export const stillLayer = (layer: Layer, frame: number): void =>
  changeKeyed(layer, 'own', (value, mix) => sample(value, frame, mix))
