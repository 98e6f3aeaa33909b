import { createHash } from 'node:crypto'
import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../../testing/documents'
import type { Project, Take } from '../shot'
import { mediaEntry, readProjectFile, writeProjectFile } from '.'

const media = (take: Take): Uint8Array => strToU8(`the bytes of ${take.name} `.repeat(40))

/** A project whose takes are real: bytes and digests agree. */
function realProject(): Project {
  const project = testProject([])
  project.takes = project.takes.map(take => {
    const bytes = media(take)
    return { ...take, bytes: bytes.length, digest: createHash('sha256').update(bytes).digest('hex') }
  })
  project.shot.layers = [0, 1].map(i =>
    testLayer(i, { source: { kind: 'take', digest: project.takes[i]!.digest, use: 'both' } }),
  )
  return project
}

async function* pieces(data: Uint8Array, size = 100): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < data.length; at += size) yield data.subarray(at, at + size)
}

async function write(project: Project): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  await writeProjectFile(
    project,
    async take => pieces(media(take)),
    chunk => parts.push(chunk),
  )
  return Buffer.concat(parts)
}

async function read(data: Uint8Array, size?: number) {
  const got = new Map<string, number>()
  const result = await readProjectFile(
    () => pieces(data, size),
    (take, chunk) => got.set(take.digest, (got.get(take.digest) ?? 0) + chunk.length),
  )
  return { result, got }
}

describe('a project file', () => {
  it('comes back whole, with the takes that are used', async () => {
    const project = realProject()
    const { result, got } = await read(await write(project), 37)
    expect(result).toEqual({ ok: true, value: { ...project, takes: project.takes.slice(0, 2) } })
    expect([...got.values()]).toEqual(project.takes.slice(0, 2).map(t => t.bytes))
  })

  const packed = (
    change: (entries: Record<string, Uint8Array>, project: Project) => void,
    level: 0 | 9 = 0,
  ): Uint8Array => {
    const project = realProject()
    const takes = project.takes.slice(0, 2)
    const entries: Record<string, Uint8Array> = { 'project.json': strToU8(JSON.stringify({ ...project, takes })) }
    for (const take of takes) entries[mediaEntry(take)] = media(take)
    change(entries, project)
    return zipSync(entries, { level })
  }
  const nothing = () => {}
  it('is read when another program packed it', async () => {
    expect((await read(packed(nothing, 9))).result.ok).toBe(true)
  })

  const bomb = (e: Record<string, Uint8Array>, p: Project) => {
    e[mediaEntry(p.takes[0]!)] = new Uint8Array(50_000_000)
  }
  const cases: [string, Uint8Array, RegExp][] = [
    ['no zip', strToU8('GIF89a, or so it says'), /not a project file/],
    ['nothing', new Uint8Array(), /empty/],
    ['no description', packed(e => delete e['project.json']), /no project\.json/],
    ['a missing take', packed((e, p) => delete e[mediaEntry(p.takes[1]!)]), /“take-1\.mp4” is missing/],
    ['an altered take', packed((e, p) => e[mediaEntry(p.takes[0]!)]!.set([1, 2, 3], 9)), /altered or damaged/],
    ['a way out', packed(e => Object.assign(e, { '../x': strToU8('x') })), /“\.\.\/x”/],
    ['an absolute name', packed(e => Object.assign(e, { '/etc/x': strToU8('x') })), /“\/etc\/x”/],
    ['a swelling take', packed(bomb, 9), /larger than its description/],
    [
      'a swelling description',
      packed(e => Object.assign(e, { 'project.json': new Uint8Array(60_000_000).fill(32) }), 9),
      /larger than any shot/,
    ],
    [
      'text for a number',
      packed(e => Object.assign(e, { 'project.json': strToU8('{"format":"jolly-ghost-project","version":"1"}') })),
      /which version/,
    ],
    ['no JSON', packed(e => Object.assign(e, { 'project.json': strToU8('{') })), /not JSON/],
    ['a cut', packed(nothing).subarray(0, 2300), /cut short|missing|damaged/],
  ]
  it.each(cases)('with %s is refused with a sentence', async (_, data, problem) => {
    const { result } = await read(data, 4096)
    expect(result).toMatchObject({ ok: false, problem: expect.stringMatching(problem) })
  })

  it('cut anywhere or with any byte spoilt is refused or read right, and never throws', async () => {
    const data = packed(nothing, 9)
    for (let at = 0; at < data.length; at += 29) {
      const spoilt = data.slice()
      spoilt[at]! ^= 0x5a
      for (const file of [data.subarray(0, at), spoilt]) {
        const { result } = await read(file)
        if (result.ok) expect(result.value.shot).toEqual(realProject().shot)
        else expect(result.problem).toMatch(/\.$/)
      }
    }
  })
})
