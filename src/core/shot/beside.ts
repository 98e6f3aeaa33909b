// What a new piece of a layer's matte may be made of.
import { type Beside, SHAPES, shapeAt } from '../shape'
import { asTake } from '../source'
import { besideLayer } from './shown'
import { momentAt } from './timing'
import type { Layer, Shot, Take } from './types'

/** Seconds of a take that are averaged into a plate unless somebody says otherwise: enough to lose its noise. */
const LONG = 0.5

/** A layer that lies behind all that moves: the farthest that shows a file, whole. What it shows first is the plate; none where that is `own`, or lies in an act of its take: somebody is in it. */
export function plateIn({ layers, rate }: Shot, takes: readonly Take[], own: Layer | undefined): Beside['plate'] {
  const farthest = layers.findLast(l => asTake(l.source) && l.matte.length === 0)
  if (!farthest || farthest === own) return null
  const { digest } = asTake(farthest.source)!
  const from = Math.max(0, momentAt(farthest.timing, 0, rate).seconds)
  const to = farthest.timing.kind === 'freeze' ? from : from + LONG
  const acts = takes.find(t => t.digest === digest)?.acts ?? []
  return acts.some(act => from < act.to && to > act.from) ? null : { plate: digest, from, to }
}

const digestOf = (layer: Layer | undefined) => layer && asTake(layer.source)?.digest

/** The plates by which somebody is cut out of layers. */
const platesOf = (layers: readonly Layer[]): Exclude<Beside['plate'], null>[] =>
  layers.flatMap(l => l.matte).flatMap(({ shape }) => SHAPES[shape.kind].plate?.(shapeAt(shape, 0)) ?? [])

/** The plate by which somebody is cut out of a layer's take already, in whichever layer. */
function plateOfOthers({ layers }: Shot, own: Layer | undefined): Beside['plate'] {
  const alike = layers.filter(l => digestOf(l) !== undefined && digestOf(l) === digestOf(own))
  return platesOf(alike)[0] ?? null
}

/** Whether a layer is the set behind whoever is cut out by it: nothing shows behind that. */
export const isPlate = (layer: Layer, { layers }: Shot): boolean =>
  layer.matte.length === 0 && platesOf(layers).some(({ plate }) => plate === digestOf(layer))

/** The plate that there is for a layer: by which its take is cut out already, or the set behind all else. */
export const plateFor = (shot: Shot, takes: readonly Take[], own: Layer | undefined): Beside['plate'] =>
  plateOfOthers(shot, own) ?? plateIn(shot, takes, own)

/** What there is beside a layer for a new piece of its matte. */
export function besideOf(shot: Shot, takes: readonly Take[], layer: string): Beside {
  const own = shot.layers.find(l => l.id === layer)
  return { layer: besideLayer(shot, layer), plate: plateFor(shot, takes, own) }
}
