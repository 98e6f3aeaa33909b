// From unknown data to a project, or to a sentence that says why not.
import type { Checked } from './checked'
import { LIMITS } from './limits'
import { migrate } from './migrate'
import { projectSchema } from './schema'
import type { Project, Shot } from './types'

const refuse = (problem: string): { ok: false; problem: string } => ({ ok: false, problem })

function depthOf(shot: unknown, depth = 0): number {
  if (depth > LIMITS.depth || typeof shot !== 'object' || shot === null) return depth
  const layers = (shot as { layers?: unknown }).layers
  if (!Array.isArray(layers)) return depth
  const inner = (layer: unknown) => (layer as { source?: { shot?: unknown } } | null)?.source?.shot
  return Math.max(depth, ...layers.filter(inner).map(layer => depthOf(inner(layer), depth + 1)))
}

/** Every digest that a shot's layers use, groups included. */
export function usedTakes(shot: Shot): Set<string> {
  const used = new Set<string>()
  for (const layer of shot.layers) {
    if (layer.source.kind === 'take') used.add(layer.source.digest)
    else for (const digest of usedTakes(layer.source.shot)) used.add(digest)
  }
  return used
}

/** Validates and migrates a parsed project. The problem is a sentence without the file's name. */
export function checkProject(data: unknown): Checked<Project> {
  if (depthOf((data as { shot?: unknown } | null)?.shot) > LIMITS.depth) {
    return refuse(`Its groups lie more than ${LIMITS.depth} deep in each other.`)
  }
  const current = migrate(data)
  if (!current.ok) return current
  const { error } = projectSchema.validate(current.value)
  if (error) return refuse(`Its description is not valid: ${error.message}.`)
  const project = current.value as Project
  const known = new Set(project.takes.map(t => t.digest))
  for (const digest of usedTakes(project.shot)) {
    if (!known.has(digest))
      return refuse(`A layer uses a take that the project does not list (${digest.slice(0, 8)}…).`)
  }
  return { ok: true, value: project }
}

/** The same for JSON text. */
export function parseProject(text: string): Checked<Project> {
  if (text.length > LIMITS.json) return refuse('Its description is larger than any shot needs.')
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return refuse('Its description is not JSON.')
  }
  return checkProject(data)
}
