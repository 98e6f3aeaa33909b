// Decodes and paints the preview, off the page.
import * as Comlink from 'comlink'
import { type Plan, planFrame, planView, type View } from '../core/plan'
import type { Codes, Kernels } from '../core/render'
import type { Shot } from '../core/shot'
import { frameToSeconds, secondsToFrame } from '../core/time'
import { Dropped, type FrameStore, frameStore } from '../media/frames'
import { type Painted, paintPlan } from '../media/paint'
import { pngOf } from '../media/png'
import { browserKernels } from './kernels'
import { type MediaFile, openFiles } from './media-files'
import { type ShotChanges, shotReceiver } from './shot-changes'
import { browserStills } from './stills'

/** What is on the stage besides the frame's number. */
export interface Looking {
  view: View
  layer: string | null
}

export interface Shown {
  frame: number
  failed: Painted['failed']
}

export interface PlayEvents {
  onFrame(shown: Shown, dropped: number): void
  onEnd(): void
}

const MEMORY = 1.5 * 2 ** 30
/** Room beside the frame cache for the pictures being painted. */
const WORKING = 640 * 2 ** 20
/** Frames painted before their time while playing. */
const AHEAD = 6
/** Larger pictures are previewed at half size. */
const FULL_PREVIEW = 1920 * 1088

const epoch = (): number => performance.timeOrigin + performance.now()
const until = (moment: number): Promise<void> =>
  new Promise(resolve => setTimeout(resolve, Math.max(0, moment - epoch())))

let k: Kernels
let store: FrameStore
const received = shotReceiver()
let shot: Shot | null = null
let canvas: OffscreenCanvas | null = null
let context: OffscreenCanvasRenderingContext2D | null = null
// Each request for the stage gets a number; only the newest may paint.
let newest = 0
let look: Looking = { view: 'picture', layer: null }
let anchor = { frame: 0, epoch: 0 }

const previewScale = (of: Shot): number => (of.size.width * of.size.height > FULL_PREVIEW ? 0.5 : 1)

function put(picture: Codes): void {
  if (!canvas || !context) return
  const { width, height, ptr } = picture
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width
    canvas.height = height
  }
  const bytes = k.bytes(ptr, width * height * 4)
  context.putImageData(
    new ImageData(new Uint8ClampedArray(bytes.buffer, bytes.byteOffset, bytes.length), width, height),
    0,
    0,
  )
}

async function withPicture<T>(
  plan: Plan,
  use: (painted: Painted) => T | Promise<T>,
  isWanted?: () => boolean,
): Promise<T> {
  const painted = await paintPlan(k, store, plan, isWanted)
  try {
    return await use(painted)
  } finally {
    k.free(painted.picture.ptr)
  }
}

const api = {
  async start(surface: OffscreenCanvas, cacheBytes: number): Promise<void> {
    k = await browserKernels(Math.min(MEMORY, cacheBytes + WORKING))
    store = frameStore(k, cacheBytes)
    canvas = surface
    context = surface.getContext('2d', { alpha: true })
  },

  addFiles: (files: MediaFile[]) =>
    openFiles(
      files.filter(f => !store.has(f.digest)),
      { frames: store },
    ),

  setShot(changes: ShotChanges): void {
    shot = received(changes)
  },

  /** Paints a frame on the stage; null if a newer wish overtook it. */
  async show(frame: number, looking: Looking): Promise<Shown | null> {
    if (!shot) return null
    const mine = ++newest
    const isWanted = () => mine === newest
    const plan = planView(planFrame(shot, frame, previewScale(shot)), looking.view, looking.layer)
    try {
      return await withPicture(
        plan,
        ({ picture, failed }) => {
          put(picture)
          return { frame, failed }
        },
        isWanted,
      )
    } catch (error) {
      if (error instanceof Dropped) return null
      throw error
    }
  },

  /** Decodes the first frames of a playback, so that it can begin in time. */
  async prepare(from: number): Promise<void> {
    for (let frame = from; shot && frame < Math.min(from + AHEAD, shot.length); frame++) {
      await withPicture(planFrame(shot, frame, previewScale(shot)), () => {})
    }
  },

  /** Plays from a frame that is due at a moment of the epoch, until stopped or at the shot's end. */
  async play(from: number, due: number, looking: Looking, events: PlayEvents): Promise<void> {
    if (!shot) return
    const mine = ++newest
    const isWanted = () => mine === newest
    look = looking
    anchor = { frame: from, epoch: due }
    const dueOf = (f: number, of: Shot) => anchor.epoch + 1000 * frameToSeconds(f - anchor.frame, of.rate)
    /** The frame whose time it is at a moment. */
    const frameAt = (moment: number, of: Shot) => anchor.frame + secondsToFrame((moment - anchor.epoch) / 1000, of.rate)
    const ready: { frame: number; painted: Painted }[] = []
    const paintNext = async (frame: number, of: Shot) => {
      const plan = planView(planFrame(of, frame, previewScale(of)), look.view, look.layer)
      ready.push({ frame, painted: await paintPlan(k, store, plan, isWanted) })
    }
    let dropped = 0
    let painting: Promise<void> | null = null
    let failure: unknown = null
    let next = from
    // Painting runs ahead of showing, so that one slow frame is made up for by the quick ones before it.
    const paintAhead = () => {
      if (painting || failure || ready.length >= AHEAD || !shot || next >= shot.length) return
      const due = frameAt(epoch(), shot)
      if (due > next) next = Math.min(due, shot.length - 1)
      const frame = next++
      painting = paintNext(frame, shot).then(
        () => {
          painting = null
          paintAhead()
        },
        error => {
          painting = null
          failure = error
        },
      )
    }
    try {
      let shown = from - 1
      paintAhead()
      while (isWanted() && shot) {
        if (shown >= shot.length - 1) {
          await until(dueOf(shot.length, shot))
          if (isWanted()) events.onEnd()
          return
        }
        const first = ready.shift()
        if (!first) {
          if (failure) throw failure
          await (painting ?? until(epoch() + 1))
          continue
        }
        await until(dueOf(first.frame, shot))
        if (isWanted()) {
          put(first.painted.picture)
          dropped += first.frame - shown - 1
          shown = first.frame
          events.onFrame({ frame: shown, failed: first.painted.failed }, dropped)
        }
        k.free(first.painted.picture.ptr)
        paintAhead()
      }
    } catch (error) {
      if (!(error instanceof Dropped)) throw error
    } finally {
      await painting
      for (const { painted } of ready) k.free(painted.picture.ptr)
    }
  },

  /** Corrects the moment at which a frame of the running playback is due. */
  sync(frame: number, due: number): void {
    anchor = { frame, epoch: due }
  },

  /** Changes what a running playback looks at. */
  lookAt(looking: Looking): void {
    look = looking
  },

  stop(): void {
    newest++
  },

  /** A frame of the finished picture as a PNG, full size. */
  png: (frame: number): Promise<Blob> =>
    withPicture(planFrame(shot!, frame), ({ picture }) => new Blob([pngOf(k, picture)], { type: 'image/png' })),

  /** A small picture of a frame, or of what one layer contributes to it; null once the stage wants something newer. */
  async thumbnail(frame: number, layer: string | null, width: number): Promise<ImageBitmap | null> {
    const { size } = shot!
    const mine = newest
    const plan = planFrame(shot!, frame, Math.min(1, width / size.width))
    const small = ({ picture }: Painted) => {
      const data = new Uint8ClampedArray(k.bytes(picture.ptr, picture.width * picture.height * 4))
      return createImageBitmap(new ImageData(data, picture.width, picture.height))
    }
    try {
      return await withPicture(planView(plan, layer ? 'cut-out' : 'picture', layer), small, () => mine === newest)
    } catch (error) {
      if (error instanceof Dropped) return null
      throw error
    }
  },
}

export type RenderApi = typeof api
browserStills()
Comlink.expose(api)
