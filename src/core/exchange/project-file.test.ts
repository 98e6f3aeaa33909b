import { createHash } from 'node:crypto'
import { strToU8, Zip, ZipPassThrough, zipSync } from 'fflate'
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
    chunk => void parts.push(chunk),
  )
  return Buffer.concat(parts)
}

async function read(data: Uint8Array) {
  const got = new Map<string, number>()
  const result = await readProjectFile(
    async (from, to) => data.subarray(from, to),
    data.length,
    (take, chunk) => void got.set(take.digest, (got.get(take.digest) ?? 0) + chunk.length),
  )
  return { result, got }
}

describe('a project file', () => {
  it('comes back whole, with the takes that are used', async () => {
    const project = realProject()
    const { result, got } = await read(await write(project))
    expect(result).toEqual({ ok: true, value: { ...project, takes: project.takes.slice(0, 2) } })
    expect([...got.values()]).toEqual(project.takes.slice(0, 2).map(t => t.bytes))
  })

  it('is written and read without a take that had gone missing before', async () => {
    const project = realProject()
    const parts: Uint8Array[] = []
    await writeProjectFile(
      project,
      async take => (take.name === 'take-1.mp4' ? null : pieces(media(take))),
      chunk => void parts.push(chunk),
    )
    const { result, got } = await read(Buffer.concat(parts))
    expect(result).toEqual({ ok: true, value: { ...project, takes: project.takes.slice(0, 2) } })
    expect([...got.keys()]).toEqual([project.takes[0]!.digest])
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
    [
      'a list of missing takes that is none',
      packed(e => Object.assign(e, { 'missing.json': strToU8('{"a":1}') })),
      /missing takes cannot be read/,
    ],
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
  const told = (change: (p: Project) => void) =>
    packed((e, p) => {
      const takes = p.takes.slice(0, 2).map(t => ({ ...t }))
      const changed = { ...p, takes }
      change(changed)
      e['project.json'] = strToU8(JSON.stringify(changed))
    })
  const relabelled = packed(nothing)
  // The length that the list tells of its first entry.
  const list = new DataView(relabelled.buffer, relabelled.byteOffset)
  list.setUint32(list.getUint32(relabelled.length - 6, true) + 24, 17, true)
  cases.push(
    ['a promise of terabytes', told(p => Object.assign(p.takes[0]!, { bytes: 2 ** 40 })), /more media than the file/],
    ['a take told too long', told(p => p.takes[0]!.bytes++), /shorter than its description/],
    ['an entry told wrongly', relabelled, /another length|damaged/],
    [
      'far too many layers',
      told(p => {
        p.shot = {
          ...p.shot,
          layers: Array.from({ length: 100_000 }, (_, i) => ({ ...p.shot.layers[0]!, id: `l${i}`, matte: [] })),
        }
      }),
      /layers in one shot|larger than any/,
    ],
    ['a rate of nothing', told(p => Object.assign(p.shot, { rate: { num: 1, den: 1_000_000 } })), /a rate \(1 to/],
    [
      'work without end',
      told(p => {
        const copies = { count: 60, later: 0, x: 0, y: 0, keep: 1 }
        for (let i = 0; i < 6; i++) {
          const group = { ...p.shot.layers[0]!, id: `g${i}`, copies, source: { kind: 'group' as const, shot: p.shot } }
          p.shot = { ...p.shot, layers: [group] }
        }
      }),
      /take minutes/,
    ],
  )
  it('with an id that no address can hold gets another', async () => {
    for (const id of ['../x', 'a/b', 'shot.v2', '..']) {
      const { result } = await read(told(p => Object.assign(p, { id })))
      expect(result.ok && result.value.id).toMatch(/^[\w-]+$/)
    }
    const proto = packed((e, p) => {
      e['project.json'] = strToU8(JSON.stringify(p).replace('{', '{"__proto__":{"x":1},'))
    })
    expect((await read(proto)).result).toMatchObject({ ok: false, problem: expect.stringMatching(/no shot has/) })
  })

  it('holds media that look like the parts of a zip themselves, also from a writer that tells lengths behind them', async () => {
    const like = Buffer.concat([
      ...Array.from({ length: 40 }, (_, i) =>
        Buffer.from([0x50, 0x4b, [7, 3, 1, 5][i % 4]!, [8, 4, 2, 6][i % 4]!, i, 0, 0, 0]),
      ),
      Buffer.alloc(900),
    ])
    const project = realProject()
    const take = { ...project.takes[0]!, bytes: like.length, digest: createHash('sha256').update(like).digest('hex') }
    const { shot } = project
    const source = { kind: 'take' as const, digest: take.digest, use: 'both' as const }
    const own = { ...project, takes: [take], shot: { ...shot, layers: [{ ...shot.layers[0]!, source }] } }
    const parts: Uint8Array[] = []
    await writeProjectFile(
      own,
      async () => pieces(like, 50),
      chunk => void parts.push(chunk),
    )
    expect((await read(Buffer.concat(parts))).result).toEqual({ ok: true, value: own })

    const streamed: Uint8Array[] = []
    const zip = new Zip((_, chunk) => void streamed.push(chunk))
    for (const [name, data] of [
      ['project.json', strToU8(JSON.stringify(own))],
      [mediaEntry(take), like],
    ] as const) {
      const entry = new ZipPassThrough(name)
      zip.add(entry)
      entry.push(data, true)
    }
    zip.end()
    expect((await read(Buffer.concat(streamed))).result).toEqual({ ok: true, value: own })
  })

  it('waits for whoever takes the media, so that no more than a piece is ever held', async () => {
    let waiting = 0
    let most = 0
    const data = packed(nothing)
    await readProjectFile(
      async (from, to) => data.subarray(from, to),
      data.length,
      async () => {
        most = Math.max(most, ++waiting)
        await new Promise(resolve => setTimeout(resolve))
        waiting--
      },
    )
    expect(most).toBe(1)
  })

  it.each(cases)('with %s is refused with a sentence', async (_, data, problem) => {
    const { result } = await read(data)
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
