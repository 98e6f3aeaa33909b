// Which frames are fetched for a plan, and what becomes of those that cannot be had.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Plan, PlannedLayer } from '../core/plan'
import type { Kernels, Picture } from '../core/render'
import { putBytes, testKernels } from '../testing/kernels'
import type { FrameStore } from './frames'
import { paintPlan } from './paint'
import { Dropped } from './problem'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const size = { width: 4, height: 2 }

/** A store of plain pictures by digest; a digest of `!` fails, one of `?` is not there. */
function store() {
  const asked: string[] = []
  const held = new Set<Picture>()
  const made: FrameStore = {
    add() {},
    has: digest => digest !== '?',
    counted: async () => {
      throw new Error('nobody asks')
    },
    async get(digest, _, isWanted) {
      asked.push(digest)
      if (digest === '!') throw new Error('the decoder died')
      if (isWanted && !isWanted()) throw new Dropped('late')
      const picture: Picture = {
        kind: 'codes',
        ...size,
        ptr: putBytes(k, Array(32).fill(digest.charCodeAt(0))),
        opaque: digest !== 'g',
      }
      held.add(picture)
      return picture
    },
    derived: () => Promise.reject(new Error('nothing is derived here')),
    letters: async () => null,
    release: picture => void held.delete(picture),
    lead() {},
    clear() {},
    used: () => 0,
    async close() {},
  }
  return { made, asked, held }
}

const layer = (digest: string, changes: Partial<PlannedLayer> = {}): PlannedLayer => ({
  id: digest,
  picture: { kind: 'take', digest, seconds: 0 },
  place: { a: 1, b: 0, c: 0, d: 1, x: 0, y: 0 },
  opacity: 1,
  blend: 'normal',
  matte: [],
  looks: [],
  ...changes,
})

const plan = (...layers: PlannedLayer[]): Plan => ({ size, backdrop: '#000000', layers })

describe('painting a plan', () => {
  it.each([
    ['a full layer hides the rest', [layer('a'), layer('b')], ['a']],
    ['a faint one does not', [layer('a', { opacity: 0.5 }), layer('b'), layer('c')], ['a', 'b']],
    ['nor one with holes', [layer('g'), layer('b')], ['g', 'b']],
    [
      'nor one that leaves room',
      [layer('a', { place: { a: 1, b: 0, c: 0, d: 1, x: 2, y: 0 } }), layer('b')],
      ['a', 'b'],
    ],
    [
      'nor one that would fill it twice as large',
      [layer('a', { picture: { kind: 'take', digest: 'a', seconds: 0, half: true } }), layer('b')],
      ['a', 'b'],
    ],
    ['one frame is fetched once', [layer('a', { opacity: 0.5 }), layer('a', { opacity: 0.4 }), layer('c')], ['a', 'c']],
  ])('%s', async (_, layers, want) => {
    const { made, asked, held } = store()
    const { picture } = await paintPlan(k, made, plan(...layers))
    expect(asked).toEqual(want)
    expect(held.size).toBe(0)
    k.free(picture.ptr)
  })

  it('goes on without a take that fails or is missing, and names it', async () => {
    const { made } = store()
    const { picture, failed } = await paintPlan(k, made, plan(layer('!'), layer('?'), layer('c')))
    expect(k.bytes(picture.ptr, 1)[0]).toBe('c'.charCodeAt(0))
    expect(failed).toEqual([
      { digest: '!', reason: 'the decoder died' },
      { digest: '?', reason: 'its file is missing' },
    ])
  })

  it('stops when a newer frame is wanted, and lets go of what it held', async () => {
    const { made, held } = store()
    let wanted = true
    const late = paintPlan(k, made, plan(layer('a', { opacity: 0.5 }), layer('b')), () => wanted)
    wanted = false
    await expect(late).rejects.toBeInstanceOf(Dropped)
    expect(held.size).toBe(0)
  })
})
