// Makes what a plate tells of takes, in the background: frames of cut-outs before anybody asks for them.
import * as Comlink from 'comlink'
import type { DerivedNeed } from '../core/picture'
import { neededFor, planFrame } from '../core/plan'
import { type Recipe, recipeKey } from '../core/recipe'
import type { Shot } from '../core/shot'
import { frameToSeconds, type Rate } from '../core/time'
import { type Counted, frameAt } from '../media/cutout'
import { type FrameStore, frameStore } from '../media/frames'
import { browserDrawings } from './drawings'
import { browserPlace } from './frame-place'
import { browserKernels } from './kernels'
import { type MediaFile, openFiles } from './media-files'
import { browserStills } from './stills'

const MEMORY = 384 * 2 ** 20
const CACHE = 128 * 2 ** 20

/** What a recipe makes for a shot. */
export interface MadeOf {
  recipe: Recipe
  key: string
  /** Of each layer that shows it: at each frame of the shot the frame of the take that it needs, -1 for none. */
  layers: Record<string, Int32Array>
  /** Of the take; of a still null. */
  rate: Rate | null
}

let started: Promise<FrameStore> | null = null

function frames(): Promise<FrameStore> {
  started ??= browserKernels(MEMORY).then(k => frameStore(k, CACHE, browserPlace()))
  return started
}

const isDerived = (need: object): need is DerivedNeed => 'recipe' in need

/** Adds what one frame of a shot needs made. */
async function addNeeds(store: FrameStore, shot: Shot, frame: number, made: Map<string, MadeOf>): Promise<void> {
  const plan = planFrame(shot, frame)
  for (const layer of plan.layers) {
    // What a piece darkens is a layer of the plan by itself, but of the same layer to whoever looks.
    const id = shot.layers.find(l => layer.id === `${l.id} shade`)?.id ?? layer.id
    for (const { recipe, seconds } of neededFor({ ...plan, layers: [layer] }).filter(isDerived)) {
      const key = recipeKey(recipe)
      const take: Counted | null = await store.counted(recipe.of[0]!).catch(() => null)
      if (!take) continue
      const known = made.get(key) ?? { recipe, key, layers: {}, rate: take.rate }
      made.set(key, known)
      const at = known.layers[id] ?? new Int32Array(shot.length).fill(-1)
      known.layers[id] = at
      at[frame] = frameAt(take, seconds)
    }
  }
}

const api = {
  async addFiles(files: MediaFile[]): Promise<void> {
    const store = await frames()
    await openFiles(
      files.filter(f => !store.has(f.digest)),
      { frames: store },
    )
  },

  /** Everything that a shot needs made of its takes. */
  async needs(shot: Shot): Promise<MadeOf[]> {
    const store = await frames()
    const made = new Map<string, MadeOf>()
    for (let frame = 0; frame < shot.length; frame++) await addNeeds(store, shot, frame, made)
    return [...made.values()]
  },

  /** Makes a frame of a take, with those that come with it, and keeps them. */
  async make({ recipe, rate }: Pick<MadeOf, 'recipe' | 'rate'>, index: number): Promise<void> {
    const store = await frames()
    const seconds = rate ? frameToSeconds(index, rate) : 0
    store.release(await store.derived({ recipe, part: 'alpha', seconds }))
  },
}

export type PlateApi = typeof api
browserStills()
browserDrawings()
Comlink.expose(api)
