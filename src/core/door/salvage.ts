// A document that does not pass the door any more: what can be kept is opened, what cannot is named.
import type { ValidationErrorItem } from 'joi'
import { filesOf, usedTakes } from '../shot/inner'
import { LIMITS } from '../shot/limits'
import { newId } from '../shot/make'
import { circleIn, shownIn } from '../shot/shown'
import type { Project, Shot } from '../shot/types'
import { workOf } from '../shot/work'
import { insideOf, sourceKind } from '../source'
import type { Checked } from './checked'
import { migrate } from './migrate'
import { projectSchema } from './schema'
import { checkProject, settleSources } from './validate'

export interface Salvaged {
  project: Project
  /** What was left out or changed so that the rest could be opened, a phrase each; empty: nothing. */
  aside: string[]
}

type Path = readonly (string | number)[]
type Container = Record<string | number, unknown>

/** Lists whose entries can be done without, and what one of them is called. */
const PARTS: Readonly<Record<string, string>> = {
  takes: 'the take',
  acts: 'the act',
  layers: 'the layer',
  marks: 'a mark',
  matte: 'the piece',
  looks: 'a look',
  keys: 'a key',
}

/** What a shot has if nothing sensible is said. */
const USUAL: Readonly<Record<string, unknown>> = {
  name: 'Shot',
  rate: { num: 25, den: 1 },
  length: 250,
  size: { width: 1920, height: 1080 },
  backdrop: '#000000',
  layers: [],
  marks: [],
  takes: [],
}

/** Rounds of mending: each takes something away, or brings something within bounds. */
const ROUNDS = 60

const at = (root: unknown, path: Path): unknown => path.reduce((o, k) => (o as Container | undefined)?.[k], root)

const calledOf = (part: unknown): string => {
  const { name, text } = (part ?? {}) as { name?: unknown; text?: unknown }
  const said = typeof name === 'string' && name ? name : typeof text === 'string' ? text : ''
  return said ? ` “${said.slice(0, 60)}”` : ''
}

/** The nearest thing about a place that can be taken out of its list. */
function partAt(path: Path): { list: Path; index: number; kind: string } | null {
  for (let i = path.length - 1; i > 0; i--) {
    const kind = PARTS[String(path[i - 1])]
    if (typeof path[i] === 'number' && kind) return { list: path.slice(0, i), index: path[i] as number, kind }
  }
  return null
}

const bounds = ({ type, context }: ValidationErrorItem): number | null =>
  (type === 'number.min' || type === 'number.max') && typeof context?.limit === 'number' ? context.limit : null

/** Mends one place; returns a phrase about it, or null where there is no way. Entries to be taken out are put into `gone`. */
function mend(document: unknown, detail: ValidationErrorItem, gone: Map<unknown[], Set<number>>): string | null {
  const { path, type } = detail
  const last = path.at(-1)!
  const owner = at(document, path.slice(0, -1)) as Container | undefined
  const part = partAt(path)
  const inTake = path[0] === 'takes'
  if (owner && last === 'id' && type !== 'object.unknown') {
    owner.id = newId()
    return null
  }
  if (owner && type === 'string.max' && (last === 'name' || last === 'text')) {
    owner[last] = (owner[last] as string).slice(0, LIMITS.name)
    return 'a name that was too long is cut short'
  }
  const limit = bounds(detail)
  // What is known of a take is no matter of taste.
  if (owner && limit !== null && !inTake) {
    owner[last] = limit
    const whose = part ? calledOf((at(document, part.list) as unknown[])[part.index]) : ''
    const called = String(detail.context?.label ?? last).replace(/ \(.*\)$/, '')
    return `${called} of${whose || ' the shot'} is brought within bounds`
  }
  const value = at(document, path)
  if (type === 'array.max' && Array.isArray(value)) {
    const most = detail.context!.limit as number
    const dropped = value.length - most
    value.length = most
    return `${dropped} of the ${String(last)}`
  }
  if (part) {
    const list = at(document, part.list) as unknown[]
    const out = gone.get(list) ?? new Set()
    gone.set(list, out.add(part.index))
    return `${part.kind}${calledOf(list[part.index])}`
  }
  if (owner && type === 'object.unknown') {
    delete owner[last]
    return `“${String(last).slice(0, 40)}”, which no shot has`
  }
  const usual = path.length >= 1 ? path.findIndex(p => String(p) in USUAL) : -1
  if (usual < 0) return null
  const home = at(document, path.slice(0, usual)) as Container | undefined
  if (!home) return null
  home[path[usual]!] = structuredClone(USUAL[String(path[usual])])
  return `the ${String(path[usual])} of the shot`
}

function eachShot(shot: Shot, use: (shot: Shot, depth: number) => void, depth = 0): void {
  use(shot, depth)
  for (const { source } of shot.layers) {
    const inside = insideOf(source)
    if (inside) eachShot(inside, use, depth + 1)
  }
}

/** Takes out what no validation could go through: too many layers, groups too deep. */
function prune(shot: unknown, aside: string[], depth = 0): void {
  const layers = (shot as { layers?: unknown } | null)?.layers
  if (!Array.isArray(layers)) return
  if (layers.length > LIMITS.layers) {
    aside.push(`${layers.length - LIMITS.layers} of the layers`)
    layers.length = LIMITS.layers
  }
  for (let i = layers.length - 1; i >= 0; i--) {
    const inner = (layers[i] as { source?: { shot?: unknown } } | null)?.source?.shot
    if (!inner) continue
    if (depth >= LIMITS.depth) {
      aside.push(`the group${calledOf(layers[i])}`)
      layers.splice(i, 1)
    } else prune(inner, aside, depth + 1)
  }
}

/** What cannot be told place by place: takes that layers use, and what frames may cost. */
function settle(project: Project, aside: string[]): void {
  const known = new Set(project.takes.map(t => t.digest))
  if ([...usedTakes(project.shot)].some(d => !known.has(d))) {
    eachShot(project.shot, shot => {
      shot.layers = shot.layers.filter(l => {
        const kept = sourceKind(l.source)
          .files(l.source)
          .every(digest => known.has(digest))
        if (!kept) aside.push(`the layer “${l.name}”`)
        return kept
      })
      for (const layer of shot.layers) {
        layer.matte = layer.matte.filter(piece => {
          const kept = filesOf(piece).every(digest => known.has(digest))
          if (!kept) aside.push(`the piece “${piece.name}”`)
          return kept
        })
      }
    })
  }
  for (let circle = circleIn(project.shot); circle; circle = circleIn(project.shot)) {
    // What it is made of leads back to it.
    circle.matte = circle.matte.filter(p => shownIn(p).length === 0)
    aside.push(`the layers that the matte of “${circle.name}” is made of`)
  }
  settleSources(project.shot, project.takes)
  for (let i = project.shot.layers.length - 1; i >= 0 && workOf(project.shot) > LIMITS.work; i--) {
    project.shot.layers[i]!.on = false
    aside.push(`the layer “${project.shot.layers[i]!.name}” is switched off, since frames would take too long`)
  }
}

/**
 * A stored document, opened as far as that goes. Never fails for a project of a version that is known; the problem is a
 * sentence where there is nothing to open.
 */
export function salvage(data: unknown): Checked<Salvaged> {
  const strict = checkedOr(data)
  if (strict) return { ok: true, value: { project: strict, aside: [] } }
  const aside: string[] = []
  const document = structuredClone(data)
  prune((document as { shot?: unknown } | null)?.shot, aside)
  const current = migrate(document)
  if (!current.ok) return current
  for (let round = 0; round < ROUNDS; round++) {
    const { error } = projectSchema.validate(current.value, { abortEarly: false })
    if (!error) break
    const gone = new Map<unknown[], Set<number>>()
    for (const detail of error.details) {
      const phrase = mend(current.value, detail, gone)
      if (phrase) aside.push(phrase)
    }
    for (const [list, out] of gone) list.splice(0, list.length, ...list.filter((_, i) => !out.has(i)))
  }
  if (projectSchema.validate(current.value).error) return { ok: false, problem: 'Too much of it is damaged.' }
  const project = current.value as Project
  settle(project, aside)
  return { ok: true, value: { project, aside: [...new Set(aside)] } }
}

function checkedOr(data: unknown): Project | null {
  try {
    const checked = checkProject(data)
    return checked.ok ? checked.value : null
  } catch {
    // A document that not even the check can go through is mended first.
    return null
  }
}
