// What a document must look like before anything trusts it.
import Joi from 'joi'
import { LIMITS } from './limits'
import { FORMAT, TAGS, VERSION } from './types'

const real = Joi.number().min(-LIMITS.coordinate).max(LIMITS.coordinate)
const id = Joi.string().min(1).max(100)
const name = Joi.string().max(LIMITS.name).allow('')
const digest = Joi.string().hex().length(64).lowercase()
const rate = Joi.object({
  num: Joi.number().integer().min(1).max(1_000_000),
  den: Joi.number().integer().min(1).max(1_000_000),
})
const size = Joi.object({
  width: Joi.number().integer().min(1).max(LIMITS.side),
  height: Joi.number().integer().min(1).max(LIMITS.side),
})
const span = Joi.object({
  from: Joi.number().integer().min(-LIMITS.length).max(LIMITS.length),
  to: Joi.number().integer().greater(Joi.ref('from')).max(LIMITS.length),
})

function value(of: Joi.Schema): Joi.Schema {
  const key = Joi.object({
    frame: Joi.number().integer().min(-LIMITS.length).max(LIMITS.length),
    value: of,
    ease: Joi.string().valid('hold', 'linear', 'smooth'),
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

const extent = Joi.number().min(0).max(LIMITS.coordinate)
const line = Joi.object({ x: real, y: real, angle: real })
const frame = Joi.object({ x: real, y: real, width: extent, height: extent, angle: real })
const place = Joi.object({ x: real, y: real, scale: Joi.number().min(0.001).max(1000), angle: real })
const frames = Joi.number().integer().min(0).max(LIMITS.length)
const fade = Joi.object({ in: frames, out: frames })
const feather = Joi.number().min(0).max(LIMITS.feather)
const share = Joi.number().min(0).max(1)

const shape = Joi.alternatives().conditional('.kind', {
  switch: [
    // biome-ignore lint/suspicious/noThenProperty: Joi's own word
    { is: 'edge', then: Joi.object({ kind: 'edge', line: value(line) }) },
    // biome-ignore lint/suspicious/noThenProperty: Joi's own word
    { is: 'box', then: Joi.object({ kind: 'box', frame: value(frame) }) },
  ],
  otherwise: Joi.object({ kind: 'oval', frame: value(frame) }),
})

const piece = Joi.object({
  id,
  name,
  shape,
  join: Joi.string().valid('add', 'subtract', 'intersect'),
  inverted: Joi.boolean(),
  pinnedTo: Joi.string().valid('layer', 'shot'),
  on: Joi.boolean(),
  grow: value(Joi.number().min(-LIMITS.feather).max(LIMITS.feather)),
  feather: Joi.object({ inside: value(feather), outside: value(feather) }),
  strength: value(share),
})

const source = Joi.alternatives().conditional('.kind', {
  is: 'take',
  // biome-ignore lint/suspicious/noThenProperty: Joi's own word
  then: Joi.object({ kind: 'take', digest, use: Joi.string().valid('both', 'picture', 'sound') }),
  otherwise: Joi.object({ kind: 'group', shot: Joi.link('/shot') }),
})

const { least, most } = LIMITS.speed
const speed = Joi.alternatives(Joi.number().min(least).max(most), Joi.number().min(-most).max(-least))
const timing = Joi.alternatives().conditional('.kind', {
  switch: [
    {
      is: 'play',
      // biome-ignore lint/suspicious/noThenProperty: Joi's own word
      then: Joi.object({ kind: 'play', from: real, speed, mixed: Joi.number().min(1e-4).max(100).allow(null) }),
    },
    // biome-ignore lint/suspicious/noThenProperty: Joi's own word
    { is: 'freeze', then: Joi.object({ kind: 'freeze', at: real }) },
  ],
  otherwise: Joi.object({
    kind: 'loop',
    from: real,
    to: Joi.number().greater(Joi.ref('from')).max(LIMITS.coordinate),
    style: Joi.string().valid('cut', 'swing', 'dissolve'),
    over: frames,
    speed,
    begun: frames,
  }),
})

const copies = Joi.object({
  count: Joi.number().integer().min(1).max(LIMITS.copies),
  later: Joi.number().integer().min(-LIMITS.length).max(LIMITS.length),
  x: real,
  y: real,
  keep: share,
}).allow(null)

const layer = Joi.object({
  id,
  name,
  span,
  source,
  timing,
  place: value(place),
  anchor: Joi.object({ x: real, y: real }),
  flip: Joi.object({ across: Joi.boolean(), down: Joi.boolean() }),
  opacity: value(share),
  fade,
  blend: Joi.string().valid('normal', 'add', 'screen', 'multiply', 'lighten', 'darken', 'difference'),
  copies,
  matte: Joi.array().items(piece).max(LIMITS.pieces).unique('id'),
  matteOn: Joi.boolean(),
  sound: Joi.object({ on: Joi.boolean(), gain: value(Joi.number().min(0).max(16)), fade }),
  on: Joi.boolean(),
  locked: Joi.boolean(),
  tag: Joi.string().valid(...TAGS),
})

const shot = Joi.object({
  id,
  name,
  size,
  rate,
  length: Joi.number().integer().min(1).max(LIMITS.length),
  backdrop: Joi.string().pattern(/^#[0-9a-f]{6}$/i, 'colour'),
  layers: Joi.array().items(layer).max(LIMITS.layers).unique('id'),
  marks: Joi.array()
    .items(Joi.object({ frame: frames, text: name }))
    .max(LIMITS.marks)
    .custom(inOrder),
})

const moments = { from: Joi.number().min(0).max(1e6), to: Joi.number().greater(Joi.ref('from')).max(1e6) }

const take = Joi.object({
  digest,
  name: Joi.string().min(1).max(LIMITS.name),
  type: Joi.string().pattern(/^[\w.+-]+\/[\w.+-]+$/, 'media type'),
  bytes: Joi.number().integer().min(1),
  picture: Joi.alternatives()
    .conditional('.kind', {
      is: 'still',
      // biome-ignore lint/suspicious/noThenProperty: Joi's own word
      then: Joi.object({ kind: 'still', size }),
      otherwise: Joi.object({
        kind: 'film',
        size,
        rate,
        seconds: Joi.number().greater(0).max(1e6),
        varies: Joi.boolean(),
      }),
    })
    .allow(null),
  sound: Joi.object({
    channels: Joi.number().integer().min(1).max(64),
    sampleRate: Joi.number().integer().min(1000).max(768_000),
    seconds: Joi.number().min(0).max(1e6),
  }).allow(null),
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
  takes: Joi.array().items(take).max(LIMITS.takes).unique('digest'),
  shot,
}).prefs({ presence: 'required', convert: false, abortEarly: true, errors: { wrap: { label: false } } })
