// Where a layer lies in the frame.

import { carry } from '../../affine'
import { isKeyed } from '../../keys'
import { placeMap } from '../place'
import type { AnyValue, Layer, Place, Point, Shot, Size } from '../types'
import { changeValue } from '../values'
import { editableLayer, editableLayers } from './find'

/** Moves the point a layer turns about, given in px of its source, without moving its picture. */
export function setAnchor(shot: Shot, layer: string, anchor: Point): void {
  const found = editableLayer(shot, layer)
  if (!found || !Number.isFinite(anchor.x) || !Number.isFinite(anchor.y)) return
  const moved = (place: Place): Place => ({ ...place, ...carry(placeMap(found, place), anchor) })
  changeValue(found, { of: 'place' }, value => mapPlaces(value, moved))
  found.anchor = { ...anchor }
}

const mapPlaces = (value: AnyValue, change: (place: Place) => Place): AnyValue =>
  isKeyed(value)
    ? { keys: value.keys.map(k => ({ ...k, value: change(k.value as Place) })) }
    : change(value as unknown as Place)

/** Mirrors pictures of layers about their anchors. */
export function flipLayers(shot: Shot, layers: readonly string[], way: 'across' | 'down'): void {
  for (const layer of editableLayers(shot, layers)) layer.flip = { ...layer.flip, [way]: !layer.flip[way] }
}

/** The place that shows a picture whole (`fit`) or lets it cover everything (`fill`), upright and in the middle. */
export function framed(layer: Layer, picture: Size, frame: Size, how: 'fit' | 'fill'): Place {
  const ratios = [frame.width / picture.width, frame.height / picture.height] as const
  const scale = how === 'fit' ? Math.min(...ratios) : Math.max(...ratios)
  // Mirrored about its anchor, the picture reaches as far to the other side of it.
  const ax = layer.flip.across ? picture.width - layer.anchor.x : layer.anchor.x
  const ay = layer.flip.down ? picture.height - layer.anchor.y : layer.anchor.y
  return {
    x: (frame.width - picture.width * scale) / 2 + ax * scale,
    y: (frame.height - picture.height * scale) / 2 + ay * scale,
    scale,
    angle: 0,
  }
}
