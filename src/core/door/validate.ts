// From unknown data to a project, or to a sentence that says why not.
import type { ValidationErrorItem } from 'joi'
import { usedTakes } from '../shot/inner'
import { LIMITS } from '../shot/limits'
import { newId } from '../shot/make'
import { circleIn } from '../shot/shown'
import type { Layer, Project, Shot, Take } from '../shot/types'
import { workOf } from '../shot/work'
import { insideOf, sourceKind } from '../source'
import type { Checked } from './checked'
import { migrate } from './migrate'
import { projectSchema } from './schema'

const refuse = (problem: string): { ok: false; problem: string } => ({ ok: false, problem })

export const TOO_DEEP = `Its groups lie more than ${LIMITS.depth} deep in each other.`
/** Of a layer that leads back to itself. */
export const inCircle = ({ name }: Layer): string =>
  `The matte of “${name || 'a layer'}” would be made of that very layer, by way of others or at once.`
export const TOO_MUCH_WORK =
  'So many large layers lie over each other at once that a single frame would take minutes. Fewer copies, smaller groups or layers that follow each other would do.'

const layersOf = (shot: unknown): unknown[] => {
  const layers = (shot as { layers?: unknown } | null)?.layers
  return Array.isArray(layers) ? layers : []
}
const innerOf = (layer: unknown): unknown => (layer as { source?: { shot?: unknown } } | null)?.source?.shot

/** Whether groups lie too deep in each other, or layers are too many, for anything else to be asked of a document. */
function tooLarge(shot: unknown, depth = 0): string | null {
  if (depth > LIMITS.depth) return TOO_DEEP
  const layers = layersOf(shot)
  if (layers.length > LIMITS.layers) return `It has ${layers.length} layers in one shot; ${LIMITS.layers} are the most.`
  for (const layer of layers) {
    const inner = innerOf(layer)
    const problem = inner ? tooLarge(inner, depth + 1) : null
    if (problem) return problem
  }
  return null
}

/** Brings every source into line with the takes. Changes the shot, which is nobody else's yet. */
export function settleSources(shot: Shot, takes: readonly Take[]): void {
  for (const { source } of shot.layers) {
    sourceKind(source).settle(source, takes)
    const inside = insideOf(source)
    if (inside) settleSources(inside, takes)
  }
}

/** Errors that are about bounds, which labels tell. */
const OF_BOUNDS = /^(?:number|string|array)\.(?:min|max)$|^any\.invalid$|^alternatives\./

/** What is wrong at a place of a document: where, and what may stand there. */
export function wrongAt({ path, message, context, type }: ValidationErrorItem): string {
  const called = (context?.label as string | undefined) ?? ''
  if (!/^an? .*\)$/.test(called)) return message
  return OF_BOUNDS.test(type) ? `${path.join('.')} must be ${called}` : message.replace(called, path.join('.'))
}

const ID = /^[\w-]{1,100}$/

/** Gives a project that comes from elsewhere an id that can stand in an address. */
function withOwnId(document: unknown): unknown {
  const { id } = document as { id?: unknown }
  return typeof id === 'string' && !ID.test(id) ? { ...(document as object), id: newId() } : document
}

/** Validates and migrates a parsed project, which is then nobody else's. The problem is a sentence without the file's name. */
export function checkProject(data: unknown): Checked<Project> {
  const large = tooLarge((data as { shot?: unknown } | null)?.shot)
  if (large) return refuse(large)
  const current = migrate(data)
  if (!current.ok) return current
  const { error } = projectSchema.validate(withOwnId(current.value))
  if (error) return refuse(`Its description is not valid: ${wrongAt(error.details[0]!)}.`)
  const project = withOwnId(current.value) as Project
  const known = new Set(project.takes.map(t => t.digest))
  for (const digest of usedTakes(project.shot)) {
    if (!known.has(digest))
      return refuse(`A layer uses a take that the project does not list (${digest.slice(0, 8)}…).`)
  }
  const circle = circleIn(project.shot)
  if (circle) return refuse(inCircle(circle))
  if (workOf(project.shot) > LIMITS.work) return refuse(TOO_MUCH_WORK)
  settleSources(project.shot, project.takes)
  return { ok: true, value: project }
}

/** Names that mean something else than a field where objects are put together. */
const FOREIGN = /"(?:__proto__|constructor|prototype)"\s*:/

/** JSON text as data. */
export function readDocument(text: string): Checked<unknown> {
  if (text.length > LIMITS.json) return refuse('Its description is larger than any shot needs.')
  if (FOREIGN.test(text)) return refuse('Its description is not valid: it has fields that no shot has.')
  try {
    return { ok: true, value: JSON.parse(text) }
  } catch {
    return refuse('Its description is not JSON.')
  }
}

/** `checkProject` for JSON text. */
export function parseProject(text: string): Checked<Project> {
  const data = readDocument(text)
  return data.ok ? checkProject(data.value) : data
}
