// What a document must look like before anything trusts it.
import Joi from 'joi'
import { type NumberKind, SWING } from '../keys'
import { LOOK_KINDS, LOOKS } from '../look'
import { type SchemaWords, SHAPE_KINDS, SHAPES } from '../shape'
import { LIMITS, type Range, within } from '../shot/limits'
import { FORMAT, TAGS, VERSION } from '../shot/types'
import { SOURCE_KINDS, SOURCES, type SourceWords } from '../source'
import { fps, type Rate } from '../time'

/** How documents are validated: nothing is converted, nothing may be left out. */
export const PREFS = { presence: 'required', convert: false, errors: { wrap: { label: false } } } as const

/** A number with bounds; what it is called and what it is counted in are for the sentence that refuses it. */
const bounded = (called: string, least: number, most: number, unit = '') =>
  Joi.number()
    .min(least)
    .max(most)
    .label(`${called} (${least.toLocaleString('en')} to ${most.toLocaleString('en')}${unit})`)

const px = bounded('a length', -LIMITS.coordinate, LIMITS.coordinate, ' px')
const degrees = bounded('an angle', -LIMITS.coordinate, LIMITS.coordinate, '°')
const moment = bounded('a moment', -LIMITS.coordinate, LIMITS.coordinate, ' s')
const anyFrame = bounded('a frame', -LIMITS.length, LIMITS.length).integer()
const frames = bounded('a number of frames', 0, LIMITS.length).integer()
const id = Joi.string().min(1).max(100)
const name = Joi.string().max(LIMITS.name).allow('').label(`a name (up to ${LIMITS.name} letters)`)
const digest = Joi.string().hex().length(64).lowercase()

const rateWithin = ({ least, most }: Range) =>
  Joi.object({ num: Joi.number().integer().min(1).max(1_000_000), den: Joi.number().integer().min(1).max(1_000_000) })
    .custom((rate: Rate, is) => (within(fps(rate), { least, most }) === fps(rate) ? rate : is.error('any.invalid')))
    .label(`a rate (${least} to ${most} frames a second)`)

const side = bounded('a side of a picture', 1, LIMITS.side, ' px').integer()
const size = Joi.object({ width: side, height: side })
const span = Joi.object({ from: anyFrame, to: anyFrame.greater(Joi.ref('from')) })

const ease = Joi.alternatives(
  Joi.string().valid('hold', 'linear', 'smooth'),
  Joi.object({
    curve: Joi.array().ordered(
      Joi.number().min(0).max(1).required(),
      Joi.number().min(-SWING).max(SWING).required(),
      Joi.number().min(0).max(1).required(),
      Joi.number().min(-SWING).max(SWING).required(),
    ),
  }),
)

function value(of: Joi.Schema): Joi.Schema {
  const key = Joi.object({
    frame: anyFrame,
    value: of,
    ease,
  })
  const keys = Joi.array().items(key).min(1).max(LIMITS.keys).custom(inOrder)
  return Joi.alternatives().conditional(Joi.object({ keys: Joi.any() }).unknown(false), {
    // biome-ignore lint/suspicious/noThenProperty: Joi's own word
    then: Joi.object({ keys }),
    otherwise: of,
  })
}

function inOrder(keys: { frame: number }[]): unknown {
  for (let i = 1; i < keys.length; i++) {
    if (keys[i]!.frame <= keys[i - 1]!.frame) throw new Error('must be in order, one a frame')
  }
  return keys
}

const extent = bounded('a length', 0, LIMITS.coordinate, ' px')
const scale = bounded('a scale', LIMITS.scale.least, LIMITS.scale.most)
const place = Joi.object({ x: px, y: px, scale, angle: degrees })
const fade = Joi.object({ in: frames, out: frames })
const feather = bounded('a feather', 0, LIMITS.feather, ' px')
const share = bounded('a share', 0, 1)

/** The fields of each kind, by the kind that an object says it is of; what says none of them is held to the last. */
function byKind(fields: Readonly<Record<string, Record<string, Joi.Schema>>>): Joi.Schema {
  const kinds = Object.keys(fields)
  const of = (kind: string) => Joi.object({ kind, ...fields[kind] })
  const last = kinds.at(-1)!
  // biome-ignore lint/suspicious/noThenProperty: Joi's own word
  const cases = kinds.slice(0, -1).map(kind => ({ is: kind, then: of(kind) }))
  if (cases.length === 0) return of(last)
  return Joi.alternatives().conditional('.kind', { switch: cases, otherwise: of(last) })
}

const words: SchemaWords<Joi.Schema> = {
  px,
  extent,
  feather,
  degrees,
  flag: Joi.boolean(),
  maybe: of => of.optional(),
  id: id.allow(''),
  digest: digest.allow(''),
  percent: most => bounded('a share', 0, most, '%'),
  oneOf: (...words) => Joi.string().valid(...words),
  list: of => Joi.array().items(of).max(LIMITS.points),
  record: fields => Joi.object(fields),
}
const shape = byKind(
  Object.fromEntries(SHAPE_KINDS.map(kind => [kind, { [SHAPES[kind].field]: value(SHAPES[kind].schema(words)) }])),
)

const piece = Joi.object({
  id,
  name,
  shape,
  join: Joi.string().valid('add', 'subtract', 'intersect'),
  inverted: Joi.boolean(),
  pinnedTo: Joi.string().valid('layer', 'shot'),
  on: value(Joi.boolean()),
  motion: value(Joi.object({ x: px, y: px, scale, angle: degrees })),
  pivot: Joi.object({ x: px, y: px }),
  blur: Joi.object({
    shutter: bounded('a shutter', 0, LIMITS.shutter, '°'),
    phase: bounded('a phase', LIMITS.phase.least, LIMITS.phase.most, '°'),
  }),
  grow: value(bounded('grow', -LIMITS.feather, LIMITS.feather, ' px')),
  feather: Joi.object({ inside: value(feather), outside: value(feather) }),
  strength: value(share),
})

/** Numbers that carry keys, with their bounds. */
const numbers = (kinds: Readonly<Record<string, NumberKind>>): Joi.Schema =>
  Joi.object(
    Object.fromEntries(
      Object.entries(kinds).map(([of, { name: called, least, most }]) => [
        of,
        value(bounded(`a value of ${called}`, least, most)),
      ]),
    ),
  )

const colour = Joi.string().pattern(/^#[0-9a-f]{6}$/i, 'colour')

/** What a font calls one of its axes, and where it may stand on it. */
const TAG = /^[ -~]{4}$/
const axis = Joi.number().min(-LIMITS.coordinate).max(LIMITS.coordinate)

const sourceWords: SourceWords<Joi.Schema> = {
  digest,
  shot: Joi.link('/shot'),
  size,
  px,
  extent: feather,
  share,
  colour,
  text: most =>
    Joi.string()
      .max(most)
      .allow('')
      .label(`a text (up to ${most.toLocaleString('en')} letters)`),
  oneOf: (...words) => Joi.string().valid(...words),
  record: fields => Joi.object(fields),
  list: (of, least, most) => Joi.array().items(of).min(least).max(most),
  axes: Joi.object().pattern(TAG, axis).max(LIMITS.axes),
  maybe: of => of.allow(null),
  byKind,
}
const source = byKind(
  Object.fromEntries(
    SOURCE_KINDS.map(kind => {
      const { schema, values } = SOURCES[kind]
      return [kind, { ...schema(sourceWords), ...(values && { values: numbers(values) }) }]
    }),
  ),
)

const look = byKind(
  Object.fromEntries(LOOK_KINDS.map(kind => [kind, { id, on: Joi.boolean(), values: numbers(LOOKS[kind].values) }])),
)

const { least, most } = LIMITS.speed
const speed = Joi.alternatives(Joi.number().min(least).max(most), Joi.number().min(-most).max(-least)).label(
  `a speed (${least * 100}% to ${most * 100}%, either way)`,
)
const timing = Joi.alternatives().conditional('.kind', {
  switch: [
    {
      is: 'play',
      // biome-ignore lint/suspicious/noThenProperty: Joi's own word
      then: Joi.object({ kind: 'play', from: moment, speed, mixed: Joi.number().min(1e-4).max(100).allow(null) }),
    },
    // biome-ignore lint/suspicious/noThenProperty: Joi's own word
    { is: 'freeze', then: Joi.object({ kind: 'freeze', at: moment }) },
  ],
  otherwise: Joi.object({
    kind: 'loop',
    from: moment,
    to: moment.greater(Joi.ref('from')),
    style: Joi.string().valid('cut', 'swing', 'dissolve'),
    over: frames,
    speed,
    begun: frames,
  }),
})

const point = Joi.object({ x: px, y: px })
const pin = Joi.object({
  box: Joi.object({ left: px, top: px, right: px.greater(Joi.ref('left')), bottom: px.greater(Joi.ref('top')) }),
  corners: value(Joi.object({ topLeft: point, topRight: point, bottomRight: point, bottomLeft: point })),
})

const copies = Joi.object({
  count: bounded('a number of copies', 1, LIMITS.copies).integer(),
  later: anyFrame,
  x: px,
  y: px,
  keep: share,
}).allow(null)

export const layerSchema = Joi.object({
  id,
  name,
  span,
  source,
  timing,
  place: value(place),
  anchor: point,
  flip: Joi.object({ across: Joi.boolean(), down: Joi.boolean() }),
  pin: pin.optional(),
  opacity: value(share),
  fade,
  blend: Joi.string().valid('normal', 'add', 'screen', 'multiply', 'lighten', 'darken', 'difference'),
  copies,
  matte: Joi.array().items(piece).max(LIMITS.pieces).unique('id').label(`a matte (up to ${LIMITS.pieces} pieces)`),
  matteOn: Joi.boolean(),
  looks: Joi.array().items(look).max(LIMITS.looks).unique('id').label(`a number of looks (up to ${LIMITS.looks})`),
  sound: Joi.object({ on: Joi.boolean(), gain: value(bounded('a gain', 0, LIMITS.gain)), fade }),
  on: Joi.boolean(),
  locked: Joi.boolean(),
  tag: Joi.string().valid(...TAGS),
})

export const shotSchema = Joi.object({
  id,
  name,
  size,
  rate: rateWithin(LIMITS.rate),
  length: bounded('a length of a shot', 1, LIMITS.length, ' frames').integer(),
  backdrop: colour,
  layers: Joi.array()
    .items(layerSchema)
    .max(LIMITS.layers)
    .unique('id')
    .label(`a number of layers (up to ${LIMITS.layers})`),
  marks: Joi.array()
    .items(Joi.object({ frame: frames, text: name }))
    .max(LIMITS.marks)
    .label(`a number of marks (up to ${LIMITS.marks})`)
    .custom(inOrder),
})

const tag = Joi.string().pattern(TAG)
const seconds = bounded('a length', 0, LIMITS.seconds, ' s')
const moments = { from: seconds, to: seconds.greater(Joi.ref('from')) }

export const takeSchema = Joi.object({
  digest,
  name: Joi.string().min(1).max(LIMITS.name),
  type: Joi.string().pattern(/^[\w.+-]+\/[\w.+-]+$/, 'media type'),
  bytes: Joi.number().integer().min(1),
  picture: Joi.alternatives()
    .conditional('.kind', {
      is: 'still',
      // biome-ignore lint/suspicious/noThenProperty: Joi's own word
      then: Joi.object({ kind: 'still', size }),
    })
    .conditional('.kind', {
      is: 'drawing',
      // biome-ignore lint/suspicious/noThenProperty: Joi's own word
      then: Joi.object({ kind: 'drawing', size }),
      otherwise: Joi.object({
        kind: 'film',
        size,
        rate: rateWithin(LIMITS.takeRate),
        seconds: seconds.greater(0),
        varies: Joi.boolean(),
      }),
    })
    .allow(null),
  sound: Joi.object({
    channels: bounded('a number of sound channels', 1, 64).integer(),
    sampleRate: bounded('a sample rate', 1000, 768_000, ' Hz').integer(),
    seconds,
  }).allow(null),
  font: Joi.object({
    family: Joi.string().max(LIMITS.name).allow(''),
    axes: Joi.array()
      .items(Joi.object({ tag, least: axis, initial: axis, most: axis }))
      .max(LIMITS.axes),
  }).optional(),
  marked: Joi.object(moments).allow(null),
  acts: Joi.array()
    .items(Joi.object({ id, name, ...moments }))
    .max(LIMITS.acts)
    .unique('id'),
})

export const projectSchema = Joi.object({
  format: Joi.string().valid(FORMAT),
  version: Joi.number().valid(VERSION),
  id,
  takes: Joi.array().items(takeSchema).max(LIMITS.takes).unique('digest'),
  shot: shotSchema,
}).prefs(PREFS)
