// Makes what a plate tells of takes, in the background: frames of cut-outs before anybody asks for them, and how still, even and empty a take is.
import * as Comlink from 'comlink'
import type { Grain } from '../core/look'
import type { DerivedNeed } from '../core/picture'
import { neededFor, planFrame } from '../core/plan'
import type { Cut, Seen } from '../core/plate'
import { type Recipe, recipeKey } from '../core/recipe'
import type { Kernels } from '../core/render'
import type { Shot } from '../core/shot'
import { frameToSeconds, type Rate } from '../core/time'
import { type Counted, frameAt } from '../media/counted'
import { madeTogether } from '../media/derived'
import { followMoves, type Inside, type Moved } from '../media/follow'
import { type FrameStore, frameStore } from '../media/frames'
import { takeGrain } from '../media/grain'
import { lookThrough } from '../media/lock-off'
import { meterDecoders } from '../media/metered-decoder'
import { platePicture } from '../media/plate'
import { packPng, pngRows } from '../media/png'
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
  /** So many frames of the take are made one after another. */
  together: number
}

/** Frames that are told together. */
const TOGETHER = 8

let started: Promise<{ k: Kernels; store: FrameStore }> | null = null

function start() {
  started ??= browserKernels(MEMORY).then(k => ({ k, store: frameStore(k, CACHE, browserPlace()) }))
  return started
}

const frames = async (): Promise<FrameStore> => (await start()).store

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
      const known = made.get(key) ?? { recipe, key, layers: {}, rate: take.rate, together: madeTogether(recipe) }
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

  /** How something in a frame of a take moved to those of a span; ends where `onFrame` says no. */
  async follow(
    digest: string,
    seconds: number,
    what: Inside,
    span: { from: number; to: number },
    onFrame: (done: number) => Promise<boolean>,
  ): Promise<{ moved: Moved[]; rate: Rate | null }> {
    const { k, store } = await start()
    const take = await store.counted(digest)
    const of = { from: frameAt(take, span.from), to: frameAt(take, span.to) + 1 }
    return { moved: await followMoves(k, store, take, frameAt(take, seconds), what, of, onFrame), rate: take.rate }
  },

  /** The grain of a take about a moment; null where there are no two frames of it. */
  async grain(digest: string, seconds: number): Promise<Grain | null> {
    const { k, store } = await start()
    const take = await store.counted(digest)
    return takeGrain(k, store, take, frameAt(take, seconds))
  },

  /** A plate of takes as a PNG, and how much of it is a guess, 0..1, and left clear; ends where `onFrame` says no. */
  async plate(
    digests: readonly string[],
    onFrame: (share: number) => Promise<boolean>,
  ): Promise<{ png: Blob; open: number }> {
    const { k, store } = await start()
    const takes: Counted[] = []
    for (const digest of digests) takes.push(await store.counted(digest))
    const { picture, open } = await platePicture(k, store, takes, onFrame)
    try {
      return { png: new Blob([await packPng(pngRows(k, picture))], { type: 'image/png' }), open }
    } finally {
      k.free(picture.ptr)
    }
  },

  /** Looks through a take, some frames at a time; ends where `onSeen` says no. */
  async look(
    digest: string,
    plate: Pick<Cut, 'plate' | 'from' | 'to'> | null,
    onSeen: (seen: Seen[], of: number) => Promise<boolean>,
  ): Promise<void> {
    const { k, store } = await start()
    const take = await store.counted(digest)
    const against = plate && { of: await store.counted(plate.plate), from: plate.from, to: plate.to }
    let seen: Seen[] = []
    // Whoever hears of some frames draws them first: the next ones are looked at meanwhile.
    let goesOn = Promise.resolve(true)
    for await (const frame of lookThrough(k, store, take, against)) {
      seen.push(frame)
      if (seen.length < TOGETHER) continue
      if (!(await goesOn)) return
      goesOn = onSeen(seen, take.count)
      seen = []
    }
    if (await goesOn) await onSeen(seen, take.count)
  },
}

export type PlateApi = typeof api
browserStills()
browserDrawings()
meterDecoders()
Comlink.expose(api)
