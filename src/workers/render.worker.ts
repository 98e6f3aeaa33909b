// Decodes and paints the preview, off the page.
import * as Comlink from 'comlink'
import type { Letters, Wording } from '../core/graphic'
import { leanOnEdges, type OutlinePoint, type Pixels } from '../core/outline'
import { type Beside, type Plan, planFrame, planView, type View } from '../core/plan'
import type { Codes, Kernels } from '../core/render'
import type { Line } from '../core/shape'
import type { Shot } from '../core/shot'
import { frameToSeconds, secondsToFrame } from '../core/time'
import { type FrameStore, frameStore } from '../media/frames'
import { meterDecoders } from '../media/metered-decoder'
import { type Painted, paintPlan } from '../media/paint'
import { packPng, pngRows } from '../media/png'
import { Dropped } from '../media/problem'
import { browserDrawings } from './drawings'
import { type Held, holdAgainst, type Sought } from './find-seam'
import { aloneUncut, findWorst, type OutlineAt } from './find-worst'
import { browserPlace } from './frame-place'
import { browserKernels } from './kernels'
import { type MediaFile, openFiles } from './media-files'
import { type ShotChanges, shotReceiver } from './shot-changes'
import { browserStills } from './stills'

/** What can be asked for: the open shot, or the take that is looked at alone. */
export type Subject = 'shot' | 'take'

/** What is on the stage besides the frame's number. */
export interface Looking {
  subject: Subject
  view: View
  layer: string | null
  /** How the rest is shown where the layer is seen uncut. */
  beside: Beside
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
/** Frames painted before their time while playing, and how many of them at once. */
const AHEAD = 6
const AT_ONCE = 2
/** Larger pictures are previewed at half size. */
const FULL_PREVIEW = 1920 * 1088

const epoch = (): number => performance.timeOrigin + performance.now()
const until = (moment: number): Promise<void> =>
  new Promise(resolve => setTimeout(resolve, Math.max(0, moment - epoch())))

let k: Kernels
let store: FrameStore
const receivers = { shot: shotReceiver(), take: shotReceiver() }
const shots: Record<Subject, Shot | null> = { shot: null, take: null }
let canvas: OffscreenCanvas | null = null
let context: OffscreenCanvasRenderingContext2D | null = null
// Each request for the stage that overtakes others gets a number; only the newest may paint.
let newest = 0
let showing: Promise<unknown> = Promise.resolve()
let look: Looking = { subject: 'shot', view: 'picture', layer: null, beside: 'plain' }
let anchor = { frame: 0, epoch: 0 }

/** Half as large it is only looked at; else it is the picture to the bit. */
function previewOf(shot: Shot, frame: number): Plan {
  const isLarge = shot.size.width * shot.size.height > FULL_PREVIEW
  return planFrame(shot, frame, isLarge ? 0.5 : 1, isLarge)
}

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

const withPixels = <T>(plan: Plan, use: (pixels: Pixels) => T): Promise<T> =>
  withPicture(plan, ({ picture: { width, height, ptr } }) =>
    use({ width, height, data: k.bytes(ptr, width * height * 4) }),
  )

/** Paints a frame on the stage, as the shot is by now; null if a newer wish overtook it. */
async function paintStage(frame: number, looking: Looking): Promise<Shown | null> {
  const shot = shots[looking.subject]
  if (!shot) return null
  const mine = newest
  const isWanted = () => mine === newest
  const plan = planView(previewOf(shot, frame), looking.view, looking.layer, looking.beside)
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
}

const api = {
  async start(surface: OffscreenCanvas, cacheBytes: number): Promise<void> {
    k = await browserKernels(Math.min(MEMORY, cacheBytes + WORKING))
    store = frameStore(k, cacheBytes, browserPlace())
    canvas = surface
    context = surface.getContext('2d', { alpha: true })
  },

  addFiles: (files: MediaFile[]) =>
    openFiles(
      files.filter(f => !store.has(f.digest)),
      { frames: store },
    ),

  setShot(subject: Subject, changes: ShotChanges): void {
    shots[subject] = receivers[subject](changes)
  },

  /**
   * Paints a frame on the stage; null if a newer wish overtook it. One that `follows` overtakes nothing: it waits for the one before, whose pictures may
   * take long to decode, so that a hand that never rests sees something.
   */
  show(frame: number, looking: Looking, follows: boolean): Promise<Shown | null> {
    const wish = follows ? newest : ++newest
    const before = follows ? showing : Promise.resolve()
    const shown = before.then(() => (wish === newest ? paintStage(frame, looking) : null))
    showing = shown.catch(() => {})
    return shown
  },

  /** Decodes the first frames of a playback, so that it can begin in time. */
  async prepare(subject: Subject, from: number): Promise<void> {
    const shot = shots[subject]
    for (let frame = from; shot && frame < Math.min(from + AHEAD, shot.length); frame++) {
      await withPicture(previewOf(shot, frame), () => {})
    }
  },

  /** Plays from a frame that is due at a moment of the epoch, until stopped or at the shot's end. */
  async play(from: number, due: number, looking: Looking, events: PlayEvents): Promise<void> {
    /** As it is by now: it may be changed while it plays. */
    const now = () => shots[looking.subject]
    if (!now()) return
    const mine = ++newest
    const isWanted = () => mine === newest
    look = looking
    anchor = { frame: from, epoch: due }
    const dueOf = (f: number, of: Shot) => anchor.epoch + 1000 * frameToSeconds(f - anchor.frame, of.rate)
    /** The frame whose time it is at a moment. */
    const frameAt = (moment: number, of: Shot) => anchor.frame + secondsToFrame((moment - anchor.epoch) / 1000, of.rate)
    /** In the order in which they are to be seen. */
    const queue: { frame: number; painting: Promise<Painted> }[] = []
    let dropped = 0
    let underWay = 0
    let hasFailed = false
    let next = from
    /** Frame after frame is asked for: films go along where their pictures are kept. */
    const going: FrameStore = {
      ...store,
      get(digest, seconds, ...how) {
        store.lead(digest, seconds, isWanted)
        return store.get(digest, seconds, ...how)
      },
    }
    // Painting runs ahead of showing, so that one slow frame is made up for by the quick ones before it; and while one
    // frame is composited the next one's pictures are on their way from the decoders.
    const paintAhead = () => {
      const shot = now()
      if (!shot || hasFailed || !isWanted()) return
      while (underWay < AT_ONCE && queue.length < AHEAD && next < shot.length) {
        const due = frameAt(epoch(), shot)
        if (due > next) next = Math.min(due, shot.length - 1)
        const frame = next++
        const plan = planView(previewOf(shot, frame), look.view, look.layer, look.beside)
        const painting = paintPlan(k, going, plan, isWanted)
        underWay++
        queue.push({ frame, painting })
        painting.then(
          () => {
            underWay--
            paintAhead()
          },
          () => {
            hasFailed = true
          },
        )
      }
    }
    try {
      let shown = from - 1
      paintAhead()
      while (isWanted()) {
        const shot = now()
        if (!shot) return
        if (shown >= shot.length - 1) {
          await until(dueOf(shot.length, shot))
          if (isWanted()) events.onEnd()
          return
        }
        const first = queue.shift()
        if (!first) {
          await until(epoch() + 1)
          paintAhead()
          continue
        }
        const painted = await first.painting
        await until(dueOf(first.frame, shot))
        if (isWanted()) {
          put(painted.picture)
          dropped += first.frame - shown - 1
          shown = first.frame
          events.onFrame({ frame: shown, failed: painted.failed }, dropped)
        }
        k.free(painted.picture.ptr)
        paintAhead()
      }
    } catch (error) {
      if (!(error instanceof Dropped)) throw error
    } finally {
      // Of several that failed the first one has been thrown.
      const left = await Promise.allSettled(queue.map(({ painting }) => painting))
      for (const one of left) if (one.status === 'fulfilled') k.free(one.value.picture.ptr)
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
  async png(subject: Subject, frame: number): Promise<Blob> {
    const rows = await withPicture(planFrame(shots[subject]!, frame), ({ picture }) => pngRows(k, picture))
    return new Blob([await packPng(rows)], { type: 'image/png' })
  },

  /**
   * Points of an outline, in px of the open shot, brought onto the edges of the uncut picture of a layer; as they were where the layer shows
   * nothing.
   */
  async lean(
    frame: number,
    layer: string,
    points: OutlinePoint[],
    chosen: number[],
    reach: number,
  ): Promise<OutlinePoint[]> {
    return withPixels(aloneUncut(shots.shot!, frame, layer), pixels => leanOnEdges(points, chosen, pixels, reach))
  },

  /** The frame, of those given, that an outline of a layer of the open shot fits worst. Stops where `onLooked` says no. */
  async findWorst(
    layer: string,
    outlines: OutlineAt[],
    reach: number,
    onLooked: (count: number) => boolean | Promise<boolean>,
  ): Promise<number | null> {
    return findWorst(shots.shot!, layer, outlines, reach, withPixels, async count => {
      if (!(await onLooked(count))) throw new Dropped('Nobody wants to know any more.')
    })
  },

  /** A layer of the open shot against all that lies behind it. Stops where `onLooked` says no. */
  async holdAgainst(
    layer: string,
    frames: number[],
    seam: { line: Line | null; sought: Sought },
    onLooked: (count: number) => boolean | Promise<boolean>,
  ): Promise<Held> {
    const shot = shots.shot!
    const paint = <T>(plan: Plan, use: (picture: Codes) => T) => withPicture(plan, ({ picture }) => use(picture))
    return holdAgainst({ k, paint }, shot, shot.layers.find(l => l.id === layer)!, frames, seam, async count => {
      if (!(await onLooked(count))) throw new Dropped('Nobody wants to know any more.')
    })
  },

  /** A text as its fonts set it; null where one of them is missing. */
  letters: (wording: Wording): Promise<Letters | null> => store.letters(wording),

  /** A small picture of a frame of the open shot, or of what one layer contributes to it; null once the stage wants something newer. */
  async thumbnail(frame: number, layer: string | null, width: number): Promise<ImageBitmap | null> {
    const shot = shots.shot!
    const mine = newest
    const plan = planFrame(shot, frame, Math.min(1, width / shot.size.width), true)
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
browserDrawings()
meterDecoders()
Comlink.expose(api)
