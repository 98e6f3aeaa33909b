// The one door through which a changed document goes: only what could be opened again gets in.
import equal from 'fast-deep-equal'
import type { Schema } from 'joi'
import { isKeyed } from '../keys'
import { SHAPES, shapeValue, shapeWith } from '../shape'
import { usedTakes } from '../shot/inner'
import { LIMITS } from '../shot/limits'
import { circleIn } from '../shot/shown'
import type { Layer, Piece, Project, Shot, Take } from '../shot/types'
import { workOf } from '../shot/work'
import { insideOf } from '../source'
import type { Checked } from './checked'
import { layerSchema, PREFS, shotSchema, takeSchema } from './schema'
import { textLength } from './text-length'
import { inCircle, TOO_MUCH_WORK, wrongAt } from './validate'

/** What may not be, as a sentence: what it is about, and the bounds. */
function refusal(schema: Schema, value: unknown, whose: string): string | null {
  const { error } = schema.validate(value, PREFS)
  const detail = error?.details[0]
  if (!detail) return null
  const called = detail.context?.label as string | undefined
  return called && /^an? /.test(called)
    ? `${whose} would go beyond what can be kept: ${called}.`
    : `${whose} could not be kept like that (${wrongAt(detail)}).`
}

const STAND_IN = { kind: 'take', digest: '0'.repeat(64), use: 'both' } as const

const inOrder = (keys: readonly { frame: number }[]): boolean =>
  keys.every((key, i) => i === 0 || key.frame > keys[i - 1]!.frame)

/** A piece with only those keys of its shape that are not the very same as before: an outline may have hundreds of thousands of numbers, of which a hand changes a few. */
function lightPiece(piece: Piece, before: Piece | undefined): Piece {
  if (!before || before.shape.kind !== piece.shape.kind) return piece
  const [now, was] = [shapeValue(piece.shape), shapeValue(before.shape)]
  if (!isKeyed(now) || !isKeyed(was) || now.keys.length > LIMITS.keys || !inOrder(now.keys)) return piece
  const known = new Set<unknown>(was.keys)
  const fresh = now.keys.filter(key => !known.has(key))
  return { ...piece, shape: shapeWith(piece.shape.kind, { keys: fresh.length > 0 ? fresh : now.keys.slice(0, 1) }) }
}

/** A layer with only those pieces that are not the very same as before; as it is where they could not be told one by one. */
function lightLayer(layer: Layer, before: Layer | undefined): Layer {
  const { matte } = layer
  if (!before || matte.length > LIMITS.pieces || new Set(matte.map(p => p.id)).size < matte.length) return layer
  const known = new Map(before.matte.map(p => [p.id, p]))
  const changed = matte.filter(piece => known.get(piece.id) !== piece)
  return { ...layer, matte: changed.map(piece => lightPiece(piece, known.get(piece.id))) }
}

/** Whether a layer is cut by its picture as it was filmed, and yet seen in perspective: each by itself is sensible, but they do not meet. */
const isCutAskew = ({ pin, matte }: Layer): boolean =>
  pin !== undefined && matte.some(p => p.pinnedTo === 'layer' && SHAPES[p.shape.kind].isMade)

function layerProblem(layer: Layer, before: Layer | undefined, depth: number): string | null {
  const whose = `“${layer.name || 'A layer'}”`
  if (isCutAskew(layer) && !(before && isCutAskew(before)))
    return `${whose} has its corners pinned, and is cut out as it was filmed: take the pins out, cut it, and pin it then.`
  const shot = insideOf(layer.source)
  const light = lightLayer(layer, before)
  if (!shot) return refusal(layerSchema, light, whose)
  const own = refusal(layerSchema, { ...light, source: STAND_IN }, whose)
  const inner = before ? insideOf(before.source) : null
  return own ?? (shot === inner ? null : shotProblem(shot, inner, depth + 1))
}

/** Looks at what is not the very same as before. */
function shotProblem(shot: Shot, before: Shot | null, depth: number): string | null {
  if (depth > LIMITS.depth) return `Groups can lie ${LIMITS.depth} deep in each other, not deeper.`
  if (shot.layers.length > LIMITS.layers) return `A shot holds up to ${LIMITS.layers} layers.`
  const shell = refusal(shotSchema, { ...shot, layers: [] }, 'The shot')
  if (shell) return shell
  if (new Set(shot.layers.map(l => l.id)).size < shot.layers.length)
    return 'Two layers of a shot would be one and the same.'
  const known = new Map(before?.layers.map(l => [l.id, l]))
  for (const layer of shot.layers) {
    const old = known.get(layer.id)
    const problem = old === layer ? null : layerProblem(layer, old, depth)
    if (problem) return problem
  }
  return null
}

const takeProblem = (take: Take): string | null => refusal(takeSchema, take, `“${take.name.slice(0, 60)}”`)

/**
 * A project as a change made it: itself if it can be opened again, the very project before if nothing changed, or a
 * sentence that says why it may not be. Only what differs from before is looked at.
 */
export function admit(before: Project, after: Project): Checked<Project> {
  if (before === after || equal(before, after)) return { ok: true, value: before }
  const refuse = (problem: string): Checked<Project> => ({ ok: false, problem })
  if (after.takes.length > LIMITS.takes) return refuse(`A project holds up to ${LIMITS.takes} takes.`)
  const takes = after.takes.filter(t => !before.takes.includes(t))
  const problem = takes.map(takeProblem).find(Boolean) ?? shotProblem(after.shot, before.shot, 0)
  if (problem) return refuse(problem)
  const digests = new Set(after.takes.map(t => t.digest))
  if ([...usedTakes(after.shot)].some(d => !digests.has(d)))
    return refuse('A layer would show a take that the project does not have.')
  const text = textLength(after.shot.layers)
  // Half is left for takes, marks and the names of fields.
  if (text > LIMITS.json / 2) return refuse('The shot would hold more keys than a project file can.')
  const circle = circleIn(after.shot)
  if (circle) return refuse(inCircle(circle))
  if (workOf(after.shot) > LIMITS.work) return refuse(TOO_MUCH_WORK)
  return { ok: true, value: after }
}

/** A take as it may be brought in, its name no longer than names may be; or why it may not. */
export function admitTake(take: Take): Checked<Take> {
  const { name } = take
  const tail = /\.[^.]{1,8}$/.exec(name)?.[0] ?? ''
  const fitted = name.length > LIMITS.name ? { ...take, name: name.slice(0, LIMITS.name - tail.length) + tail } : take
  const problem = takeProblem(fitted)
  return problem ? { ok: false, problem } : { ok: true, value: fitted }
}
