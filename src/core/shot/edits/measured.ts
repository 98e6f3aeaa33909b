// What was measured of a take, applied to its layers as keys that can be seen and changed.
import { type Affine, after, carry, degrees, scaleOf } from '../../affine'
import { isKeyed, type Key, linearKeys, placesToKeep, sample, type Value } from '../../keys'
import { type Grain, LOOKS, type Look } from '../../look'
import { type Rate, secondsToFrame } from '../../time'
import { LIMITS } from '../limits'
import { newId } from '../make'
import { placeMap } from '../place'
import { momentAt } from '../timing'
import type { Layer, Place, Shot } from '../types'
import { editableLayer } from './find'

/** What each frame of a take was measured to be; of a still there is one. */
export interface Track<T> {
  rate: Rate | null
  values: readonly T[]
}

/** How a frame lies in its plate, about the picture's middle: px, radians, a factor. */
export interface Shift {
  x: number
  y: number
  turn: number
  scale: number
}

/** Stops, percent of white, px, degrees and shares that the eye does not find. */
const STOPS = 0.006
const PERCENT = 0.03
const PX = 0.04
const DEGREES = 0.003
const SHARE = 0.00005

/** What was measured of the frame that a layer shows, at each frame of its span. */
function measuredOver<T>(layer: Layer, rate: Rate, track: Track<T>): T[] {
  const last = track.values.length - 1
  return Array.from({ length: layer.span.to - layer.span.from }, (_, i) => {
    const { seconds } = momentAt(layer.timing, i, rate)
    const frame = track.rate ? secondsToFrame(seconds + 1e-3, track.rate) : 0
    return track.values[Math.max(0, Math.min(last, frame))]!
  })
}

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits))

/** A number of a look, within its bounds. */
const within = (kind: Look['kind'], name: string, value: number): number => {
  const { least, most } = LOOKS[kind].values[name]!
  return rounded(Math.max(least, Math.min(most, value)), 4)
}

/** How light stands to what it was measured against: red, green and blue multiplied, and then added to, linear. */
interface Light {
  gain: readonly [number, number, number]
  offset: number
}

/** The numbers of a light look that bring what a layer shows to the light it was measured against. */
export const matchedLight = (layer: Layer, rate: Rate, light: Track<Light>): Look['values'] =>
  lightFor(layer, measuredOver(layer, rate, light))

/** Those that undo a light at each frame of the layer. */
function lightFor(layer: Layer, lights: readonly Light[]): Look['values'] {
  const all = lights.map(({ gain: [r, g, b], offset }) => ({
    // What was added is taken away after all is multiplied.
    offset: within('light', 'offset', (-100 * offset) / g),
    exposure: within('light', 'exposure', -Math.log2(g)),
    red: within('light', 'red', Math.log2(g / r)),
    blue: within('light', 'blue', Math.log2(g / b)),
  }))
  const value = (name: keyof (typeof all)[number]): Value<number> => {
    const curve = all.map(s => s[name])
    const places = placesToKeep([curve], [name === 'offset' ? PERCENT : STOPS])
    if (places.length > 1) return { keys: linearKeys(curve, layer.span.from, places) }
    return rounded(curve.reduce((sum, v) => sum + v, 0) / Math.max(1, curve.length), 4)
  }
  return { exposure: value('exposure'), red: value('red'), blue: value('blue'), offset: value('offset') }
}

/** Gives a layer a light look as the first of its looks; one that is there already is set anew. */
function setLight(layer: Layer, values: Look['values']): void {
  const first = layer.looks[0]
  if (first?.kind === 'light') Object.assign(first, { values, on: true })
  else layer.looks.unshift({ id: newId(), kind: 'light', on: true, values })
}

/** Brings a layer's light to what its take was measured against. */
export function matchLight(shot: Shot, layer: string, light: Track<Light>): void {
  const found = editableLayer(shot, layer)
  if (found && light.values.length > 0) setLight(found, matchedLight(found, shot.rate, light))
}

/** Brings a layer's light to what it was measured against at some frames of the shot, in order; between them it goes on evenly. */
export function matchLightAt(shot: Shot, layer: string, measured: readonly { frame: number; light: Light }[]): void {
  const found = editableLayer(shot, layer)
  if (!found || measured.length === 0) return
  const keys = measured.map(({ frame, light }): Key<Light> => ({ frame, value: light, ease: 'linear' }))
  const lights = Array.from({ length: found.span.to - found.span.from }, (_, i) =>
    sample<Light>({ keys }, found.span.from + i),
  )
  setLight(found, lightFor(found, lights))
}

/** Grain that is missing in a picture of some grain, beside another. */
function missing(own: Grain | null, beside: Grain): Look['values'] {
  const lacking = (of: 'dark' | 'middle' | 'light') =>
    within('grain', of, Math.sqrt(Math.max(0, beside[of] ** 2 - (own?.[of] ?? 0) ** 2)))
  const [size, colour] = [within('grain', 'size', beside.size), within('grain', 'colour', 100 * beside.colour)]
  return { dark: lacking('dark'), middle: lacking('middle'), light: lacking('light'), size, colour }
}

/** Gives a layer, as the last of its looks, the grain that it lacks beside another; `own`: what it has itself. */
export function matchGrain(shot: Shot, layer: string, beside: Grain, own: Grain | null): void {
  const found = editableLayer(shot, layer)
  if (!found) return
  const values = missing(own, beside)
  const there = found.looks.find(l => l.kind === 'grain')
  if (there) Object.assign(there, { values, on: true })
  else if (found.looks.length < LIMITS.looks) found.looks.push({ id: newId(), kind: 'grain', on: true, values })
}

/** The map of a frame onto its plate, px of the take about its middle. */
const shiftMap = ({ x, y, turn, scale }: Shift, middle: { x: number; y: number }): Affine => {
  const [a, b] = [scale * Math.cos(turn), scale * Math.sin(turn)]
  const { x: cx, y: cy } = middle
  return { a, b, c: -b, d: a, x: cx + x - a * cx + b * cy, y: cy + y - b * cx - a * cy }
}

/** A place of a layer under which a frame lies as its plate would at `place`. */
function steadied(layer: Layer, place: Place, shift: Shift, middle: { x: number; y: number }): Place {
  const map = after(placeMap(layer, place), shiftMap(shift, middle))
  const turned = degrees(shift.turn) * (layer.flip.across !== layer.flip.down ? -1 : 1)
  return {
    ...carry(map, layer.anchor),
    scale: scaleOf(map),
    angle: place.angle + turned,
  }
}

/** Where a layer has to lie so that its set stands still where it stood in what it was measured against; as it is where it lies already moves. */
export function steadyPlace(
  layer: Layer,
  rate: Rate,
  shifts: Track<Shift>,
  middle: { x: number; y: number },
): Value<Place> {
  if (isKeyed(layer.place)) return layer.place
  const base = sample(layer.place, layer.span.from)
  const places = measuredOver(layer, rate, shifts).map(shift => steadied(layer, base, shift, middle))
  const curves = (['x', 'y', 'angle', 'scale'] as const).map(name => places.map(p => p[name]))
  const kept = placesToKeep(curves, [PX, PX, DEGREES, SHARE])
  return kept.length > 1 ? { keys: linearKeys(places, layer.span.from, kept) } : places[0]!
}

/** Steadies a layer onto what its take was measured against. `middle`: of the take's picture, px. */
export function steadyLayer(shot: Shot, layer: string, shifts: Track<Shift>, middle: { x: number; y: number }): void {
  const found = editableLayer(shot, layer)
  if (found && shifts.values.length > 0) found.place = steadyPlace(found, shot.rate, shifts, middle)
}
