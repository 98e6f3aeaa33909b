// Cut-outs made in the background: what is nearest to the playhead first, what is kept not again, and what fails said once.
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { cutoutRecipe } from '../../core/plate'
import { type Recipe, recipeKey } from '../../core/recipe'
import { makePiece } from '../../core/shot'
import { testLayer, testProject, testTake } from '../../testing/documents'
import { soon } from '../../testing/soon'
import { frameShown, opened, store, viewReset } from '../store'
import { type CutOuts, startCutOuts, unsureFrames } from './cut-outs'
import type { PlateThreads } from './plate-threads'

const cut = { plate: testTake(1).digest, from: 0, to: 0.5, sensitive: 50, shadow: 100 }
const recipe = cutoutRecipe(testTake(0).digest, cut)
const key = recipeKey(recipe)
const RATE = { num: 25, den: 1 }

type Make = (index: number) => Promise<void> | void

/** Threads that take down what they are asked to make, and tell of it as others would. */
function thread(make: Make = () => {}, count = 1) {
  const asked: number[] = []
  const askedOf = Array.from({ length: count }, (): number[] => [])
  const channel = new BroadcastChannel('frames made by recipe')
  const call = {
    async needs() {
      return [
        {
          recipe,
          key,
          rate: RATE,
          together: 4,
          layers: { 'layer-0': Int32Array.from({ length: 100 }, (_, i) => (i < 40 ? i : -1)) },
        },
      ]
    },
    async make(_: { recipe: Recipe }, index: number) {
      asked.push(index)
      await make(index)
      for (const i of [index - (index % 4), 1, 2, 3].map((first, k) => (k === 0 ? first : index - (index % 4) + k))) {
        channel.postMessage({ key, index: i, told: { unsure: i === 22 ? 0.6 : 0.1 } })
      }
      await new Promise(resolve => setTimeout(resolve, 4))
    },
  }
  const plates = {
    count,
    use: (work: (of: typeof call) => Promise<unknown>, own = 0) =>
      work({
        ...call,
        make: (of, index) => {
          askedOf[own]!.push(index)
          return call.make(of, index)
        },
      }),
    end: () => channel.close(),
  } as unknown as PlateThreads
  return { asked, askedOf, plates }
}

let open: { cutOuts: CutOuts; end(): void } | null = null
function begin(make?: Make, count?: number) {
  const { asked, askedOf, plates } = thread(make, count)
  const said: string[] = []
  const cutOuts = startCutOuts('project', plates, sentence => said.push(sentence))
  open = {
    cutOuts,
    end() {
      cutOuts.end()
      plates.end()
    },
  }
  return { asked, askedOf, said, cutOuts }
}

beforeEach(() => {
  vi.stubGlobal('addEventListener', () => {})
  vi.stubGlobal('removeEventListener', () => {})
  const piece = { ...makePiece({ kind: 'cutout', cut }), id: 'piece' }
  store.dispatch(opened(testProject([testLayer(0, { matte: [piece] }), testLayer(1)])))
  store.dispatch(viewReset({}))
})
afterEach(() => {
  open?.end()
  open = null
})

it('makes what is missing from the playhead outward, until all is there, and knows what is unsure', async () => {
  store.dispatch(frameShown(21))
  const { asked, cutOuts } = begin()
  cutOuts.begin()
  await soon(() => expect(cutOuts.progress()).toMatchObject({ done: 40, of: 40 }))
  expect(asked[0]).toBe(21)
  // Groups of four: each is asked for once, those that are nearer before those that are farther.
  expect(asked).toHaveLength(10)
  const far = asked.map(i => Math.abs(i - 21))
  expect(far).toEqual([...far].sort((a, b) => a - b))
  const states = cutOuts.framesOf('layer-0')!
  expect(states[3]).toEqual({ state: 'ready', unsure: 0.1 })
  expect(states[60]).toEqual({ state: 'none' })
  expect(cutOuts.framesOf('layer-1')).toBeNull()
  expect(unsureFrames('layer-0')).toEqual([22])
})

it('spreads over threads, of which none is at what another makes', async () => {
  store.dispatch(frameShown(21))
  let [now, most] = [0, 0]
  const { askedOf, cutOuts } = begin(async () => {
    most = Math.max(most, ++now)
    await new Promise(resolve => setTimeout(resolve, 3))
    now--
  }, 3)
  cutOuts.begin()
  await soon(() => expect(cutOuts.progress()).toMatchObject({ done: 40, of: 40, making: false }))
  expect(most).toBe(3)
  // What comes together is asked for once, and next to the playhead first.
  const groups = askedOf.flat().map(i => Math.floor(i / 4))
  expect(new Set(groups).size).toBe(groups.length)
  expect(askedOf.map(([first]) => Math.floor(first! / 4)).sort()).toEqual([4, 5, 6])
})

it('is stopped, and goes on', async () => {
  const { asked, cutOuts } = begin()
  cutOuts.begin()
  await soon(() => expect(asked.length).toBeGreaterThan(1))
  cutOuts.setMaking(false)
  await soon(() => expect(cutOuts.progress()!.making).toBe(false))
  const before = asked.length
  await new Promise(resolve => setTimeout(resolve, 40))
  expect(asked.length).toBeLessThanOrEqual(before + 1)
  cutOuts.setMaking(true)
  await soon(() => expect(cutOuts.progress()).toMatchObject({ done: 40 }))
})

it('says once why nothing can be made, and does not try for ever', async () => {
  const { asked, said, cutOuts } = begin(() => {
    throw new Error('the plate is 4×3, which is another shape')
  })
  cutOuts.begin()
  await soon(() => expect(said).toHaveLength(1))
  await new Promise(resolve => setTimeout(resolve, 40))
  expect(said[0]).toMatch(/cannot be cut out by its plate: the plate is 4×3/)
  expect([asked.length, said.length]).toEqual([1, 1])
})
