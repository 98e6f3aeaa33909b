// Project files with something wrong in them: in the zip, in the JSON, in one value, or spoilt byte by byte.
import { strToU8, zipSync } from 'fflate'
import { mediaEntry } from '../src/core/exchange'
import type { Project } from '../src/core/shot'
import { type Chance, chance } from './chance'
import type { Attack } from './clips'

/** Values that nobody expects where they come to stand. */
const ODD: readonly unknown[] = [
  null,
  true,
  '',
  'x',
  'x'.repeat(5000),
  '../../x',
  '\u001b[31m',
  [],
  {},
  0,
  -1,
  0.5,
  1e9,
  -1e9,
  1e300,
  2 ** 53,
  [[[[]]]],
  { keys: [] },
]

type Path = (string | number)[]

function placesOf(value: unknown, path: Path = [], places: Path[] = []): Path[] {
  if (path.length > 0) places.push(path)
  if (typeof value === 'object' && value !== null) {
    for (const [key, part] of Object.entries(value))
      placesOf(part, [...path, Array.isArray(value) ? Number(key) : key], places)
  }
  return places
}

/** The document with one to three of its values turned into something else, doubled, or taken away. */
function mutated(project: Project, by: Chance): unknown {
  const data = JSON.parse(JSON.stringify(project))
  for (let i = by.below(3); i >= 0; i--) {
    const places = placesOf(data)
    if (places.length === 0) return data
    const path = by.one(places)
    const owner = path.slice(0, -1).reduce((o, key) => o[key], data)
    const last = path.at(-1)!
    const how = by.below(5)
    if (how === 0) delete owner[last]
    else if (how === 1 && Array.isArray(owner))
      for (let n = by.below(400); n > 0; n--) owner.push(structuredClone(owner[Number(last)]))
    else if (how === 2) owner[last] = structuredClone(by.one(places.map(p => p.reduce((o, key) => o?.[key], data))))
    else owner[last] = structuredClone(by.one(ODD))
  }
  return data
}

function groupsInGroups(project: Project, depth: number, count: number): Project {
  let { shot } = project
  const first = shot.layers[0]!
  const copies = count > 0 ? { count, later: 1, x: 3, y: 0, keep: 0.9 } : null
  for (let i = 0; i < depth; i++) {
    shot = { ...shot, layers: [{ ...first, id: `group${i}`, copies, matte: [], source: { kind: 'group', shot } }] }
  }
  return { ...project, shot }
}

const wholes: readonly ((p: Project, by: Chance) => unknown)[] = [
  mutated,
  mutated,
  mutated,
  (p, by) => groupsInGroups(p, 1 + by.below(40), by.below(61)),
  (p, by) => ({ ...p, shot: { ...p.shot, rate: { num: 1 + by.below(5), den: 1 + by.below(1e6) } } }),
  (p, by) => ({ ...p, shot: { ...p.shot, size: { width: 1 + by.below(9000), height: 1 + by.below(9000) } } }),
  (p, by) => ({
    ...p,
    shot: {
      ...p.shot,
      layers: Array.from({ length: by.below(3000) }, (_, i) => ({ ...p.shot.layers[0], id: `l${i}` })),
    },
  }),
  (p, by) => ({ ...p, id: by.one(['../x', 'a/b', 'shot.v2', '.', '__proto__', 'x'.repeat(300)]) }),
  (p, by) => ({ ...p, takes: p.takes.map(t => ({ ...t, bytes: by.one([1, 2 ** 40, 2 ** 52, t.bytes + 1]) })) }),
]

/** Changes to the packed file itself. */
const packings: readonly ((zip: Uint8Array, by: Chance) => Uint8Array)[] = [
  zip => zip,
  zip => zip,
  zip => zip,
  (zip, by) => zip.slice(0, by.below(zip.length)),
  (zip, by) => {
    const out = zip.slice()
    for (let i = by.below(40); i >= 0; i--) out[by.below(out.length)] = by.below(256)
    return out
  },
  (zip, by) => {
    const out = zip.slice()
    for (let i = 0; i < 12; i++) out[by.below(Math.min(200, out.length))] = by.below(256)
    return out
  },
  (zip, by) => Buffer.concat([zip, by.bytes(by.below(5000))]),
]

/** `count` attacks that follow from a seed, on a project with its media. */
export function* projectAttacks(
  project: Project,
  media: ReadonlyMap<string, Uint8Array>,
  seed: number,
  count: number,
): Generator<Attack> {
  const by = chance(seed)
  for (let i = 0; i < count; i++) {
    const document = by.one(wholes)(project, by)
    const entries: Record<string, Uint8Array> = { 'project.json': strToU8(JSON.stringify(document)) }
    for (const take of project.takes) if (by.below(30) > 0) entries[mediaEntry(take)] = media.get(take.digest)!
    if (by.below(20) === 0) entries[by.one(['../x', '/etc/x', 'a\\b', 'media/'])] = by.bytes(20)
    const zip = zipSync(entries, { level: by.one([0, 6] as const) })
    yield { name: `${i}.zip`, data: by.one(packings)(zip, by) }
  }
}
