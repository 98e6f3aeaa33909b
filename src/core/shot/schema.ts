// What a document must look like before anything trusts it.
import Joi from 'joi'
import { LIMITS } from './limits'
import { FORMAT, VERSION } from './types'

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
    if (keys[i]!.frame <= keys[i - 1]!.frame) throw new Error('keys must be in order, one a frame')
  }
  return keys
}

const extent = Joi.number().min(0).max(LIMITS.coordinate)
const line = Joi.object({ x: real, y: real, angle: real })
const frame = Joi.object({ x: real, y: real, width: extent, height: extent, angle: real })
const place = Joi.object({ x: real, y: real, scale: Joi.number().min(0.001).max(1000) })
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
  then: Joi.object({ kind: 'take', digest }),
  otherwise: Joi.object({ kind: 'group', shot: Joi.link('/shot') }),
})

const layer = Joi.object({
  id,
  name,
  span,
  source,
  timing: Joi.object({ kind: 'play', from: real }),
  place: value(place),
  opacity: value(share),
  matte: Joi.array().items(piece).max(LIMITS.pieces).unique('id'),
  matteOn: Joi.boolean(),
  sound: Joi.object({ on: Joi.boolean(), gain: value(Joi.number().min(0).max(16)) }),
  on: Joi.boolean(),
})

const shot = Joi.object({
  id,
  name,
  size,
  rate,
  length: Joi.number().integer().min(1).max(LIMITS.length),
  backdrop: Joi.string().pattern(/^#[0-9a-f]{6}$/i, 'colour'),
  layers: Joi.array().items(layer).max(LIMITS.layers).unique('id'),
})

const take = Joi.object({
  digest,
  name: Joi.string().min(1).max(LIMITS.name),
  type: Joi.string().pattern(/^[\w.+-]+\/[\w.+-]+$/, 'media type'),
  bytes: Joi.number().integer().min(1),
  size,
  rate,
  seconds: Joi.number().greater(0).max(1e6),
  sound: Joi.object({
    channels: Joi.number().integer().min(1).max(64),
    sampleRate: Joi.number().integer().min(1000).max(768_000),
    seconds: Joi.number().min(0).max(1e6),
  }).allow(null),
})

export const projectSchema = Joi.object({
  format: Joi.string().valid(FORMAT),
  version: Joi.number().valid(VERSION),
  id,
  takes: Joi.array().items(take).max(LIMITS.takes).unique('digest'),
  shot,
}).prefs({ presence: 'required', convert: false, abortEarly: true, errors: { wrap: { label: false } } })
