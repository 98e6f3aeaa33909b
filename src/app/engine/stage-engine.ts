// The running heart of an open shot: keeps the stage's picture and sound with the document and the playhead.
import type { Letters, Wording } from '../../core/graphic'
import type { Grain } from '../../core/look'
import type { OutlinePoint } from '../../core/outline'
import type { Line } from '../../core/shape'
import type { Shot } from '../../core/shot'
import type { Rate } from '../../core/time'
import {
  type Held,
  type Inside,
  type MediaFile,
  type Moved,
  type OutlineAt,
  proxy,
  renderClient,
  type Shown,
  type Sought,
  type Subject,
  transfer,
} from '../../workers/clients'
import { shotSender } from '../../workers/shot-changes'
import { Stopped } from '../stopped'
import { frameShown, framesFailed, heardShot, playingSet, stagedFrame, stagedShot, store } from '../store'
import type { PlateThreads } from './plate-threads'
import { soundPlayer } from './sound-player'

/** What the frame cache may take, by the memory the browser admits to. */
const cacheBytes = (): number => {
  const gigabytes = (navigator as { deviceMemory?: number }).deviceMemory ?? 4
  return Math.min(768, Math.max(192, gigabytes * 128)) * 2 ** 20
}

/** Pictures of changes that are asked for before the first of them is there. */
const AT_ONCE = 2

/** Milliseconds that the stage has to rest before small pictures are made: decoding for them would hold up the next picture. */
const REST = 180

const passed = (ms: number): Promise<void> => new Promise(resolve => setTimeout(resolve, ms))

export interface StageEngine {
  addFiles(files: MediaFile[]): Promise<{ digest: string; reason: string }[]>
  /** Goes to a frame and stops there. */
  goTo(frame: number): void
  play(): Promise<void>
  stop(): void
  png(frame: number): Promise<Blob>
  /** Points of an outline of a layer, in px of the shot, brought onto edges of its uncut picture within `reach` px. */
  lean(frame: number, layer: string, points: OutlinePoint[], chosen: number[], reach: number): Promise<OutlinePoint[]>
  /** The frame, of those given, that an outline of a layer fits worst; null for none. Throws Stopped. */
  findWorst(
    layer: string,
    outlines: OutlineAt[],
    reach: number,
    onLooked: (count: number) => void,
    signal: AbortSignal,
  ): Promise<number | null>
  /** A layer against all that lies behind it, at frames in which both show. Throws Stopped. */
  holdAgainst(
    layer: string,
    frames: number[],
    seam: { line: Line | null; sought: Sought },
    onLooked: (count: number) => void,
    signal: AbortSignal,
  ): Promise<Held>
  /** How something at a moment of a take moved to those of a span, seconds, in order. Throws Stopped, and what cannot be followed says so. */
  follow(
    take: string,
    seconds: number,
    what: Inside,
    span: { from: number; to: number },
    onFrame: (done: number) => void,
    signal: AbortSignal,
  ): Promise<{ moved: Moved[]; rate: Rate | null }>
  /** The grain of a take about a moment; null where there are no two frames of it. */
  grain(take: string, seconds: number): Promise<Grain | null>
  /** A plate of takes as a PNG, and how much of it is a guess, 0..1, and left clear. `onFrame` is told hundredths. Throws Stopped, and what cannot be made says so. */
  plate(
    takes: readonly string[],
    onFrame: (hundredths: number) => void,
    signal: AbortSignal,
  ): Promise<{ png: Blob; open: number }>
  /** A text as its fonts set it; null where one of them is missing. */
  letters(wording: Wording): Promise<Letters | null>
  /** A small picture of a frame, or of what one layer contributes to it, once the stage rests; null when no longer wanted. */
  thumbnail(frame: number, layer: string | null, width: number, isWanted?: () => boolean): Promise<ImageBitmap | null>
  /** How loud left and right are just now, 0..1. */
  levels(): [number, number]
  /** Frames that came too late in the last playback. */
  dropped(): number
  end(): Promise<void>
}

export async function startStage(
  canvas: HTMLCanvasElement,
  plates: PlateThreads,
  onProblem: (sentence: string) => void,
): Promise<StageEngine> {
  const render = renderClient()
  const sound = soundPlayer()
  try {
    const surface = canvas.transferControlToOffscreen()
    await render.call.start(transfer(surface, [surface]), cacheBytes())
  } catch (error) {
    render.end()
    sound.end()
    throw error
  }
  const sent: Record<Subject, Shot | null> = { shot: null, take: null }
  const changesOf = { shot: shotSender(), take: shotSender() }
  let looked = ''
  let dropped = 0
  let running = 0

  const said = new Set<string>()
  const note = ({ failed }: Shown) => {
    const before = store.getState().view.failed
    if (failed.length > 0 || before.length > 0) store.dispatch(framesFailed(failed))
    for (const { reason } of failed) {
      if (said.has(reason)) continue
      said.add(reason)
      onProblem(`A take gives no picture here: ${reason}. Its layer is left out of this frame.`)
    }
  }
  const subject = (): Subject => (store.getState().view.take ? 'take' : 'shot')
  const looking = () => {
    const { view, layer, beside } = store.getState().view
    return { subject: subject(), view, layer, beside }
  }
  // The canvas says whether its picture is that of the document and the playhead.
  let making = 0
  const behind = (by: 1 | -1) => {
    making += by
    canvas.dataset.state = making > 0 ? 'behind' : 'current'
  }
  const makePicture = async (frame: number, follows: boolean) => {
    behind(1)
    try {
      const shown = await render.call.show(frame, looking(), follows)
      if (shown) {
        note(shown)
        canvas.dataset.frame = String(shown.frame)
      }
    } catch (error) {
      onProblem(`The picture cannot be made: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      behind(-1)
    }
  }
  let showing: Promise<void> = Promise.resolve()
  /** `follows`: a change of what is shown already, which does not overtake the one before. */
  const show = (frame: number, follows = false): Promise<void> => {
    showing = makePicture(frame, follows)
    return showing
  }
  /** Waits until nothing newer is shown; whoever has lost interest does not go on waiting. */
  const rest = async (isWanted: () => boolean) => {
    for (;;) {
      const latest = showing
      await latest
      await passed(REST)
      if (!isWanted() || (showing === latest && !store.getState().view.playing)) return
    }
  }
  const thumbnail: StageEngine['thumbnail'] = async (frame, layer, width, isWanted = () => true) => {
    for (;;) {
      await rest(isWanted)
      if (!isWanted()) return null
      sendOpenShot()
      const bitmap = await render.call.thumbnail(frame, layer, width)
      // Without one, the stage has gone on meanwhile.
      if (bitmap) return bitmap
    }
  }
  const halt = () => {
    running++
    sound.stop()
    void render.call.stop()
    if (store.getState().view.playing) store.dispatch(playingSet(false))
  }
  const play = async () => {
    const shot = stagedShot(store.getState())
    if (!shot) return
    const mine = ++running
    const at = stagedFrame(store.getState())
    const from = at >= shot.length - 1 ? 0 : at
    const fail = (error: unknown) => {
      if (mine !== running) return
      halt()
      onProblem(`It cannot be played: ${error instanceof Error ? error.message : String(error)}`)
    }
    store.dispatch(playingSet(true))
    dropped = 0
    const events = {
      onFrame(shown: Shown, late: number) {
        if (mine !== running) return
        dropped = late
        note(shown)
        canvas.dataset.frame = String(shown.frame)
        store.dispatch(frameShown(shown.frame))
      },
      onEnd() {
        if (mine === running) halt()
      },
    }
    let started = false
    try {
      const ready = render.call.prepare(subject(), from)
      await sound.play(shot, from, ready, due => {
        if (mine !== running) return
        if (started) void render.call.sync(from, due)
        else void render.call.play(from, due, looking(), proxy(events)).catch(fail)
        started = true
      })
    } catch (error) {
      fail(error)
    }
  }
  /** Before its files are there a shot has no picture to show. */
  let hasFiles = false
  // The stage follows the document, the view and the playhead.
  const follow = () => {
    if (!hasFiles) return
    const state = store.getState()
    const { view } = state
    const shot = stagedShot(state)
    if (!shot) return
    const changed = shot !== sent[subject()]
    const frame = stagedFrame(state)
    const look = `${subject()} ${view.view} ${view.beside} ${view.layer} ${view.playing ? 'playing' : frame}`
    const moved = look !== looked
    looked = look
    if (view.playing && changed) sound.change(shot)
    if (view.playing || moved) send(subject(), shot)
    if (view.playing && moved) void render.call.lookAt(looking())
    if (!view.playing && moved) void show(frame)
    else if (!view.playing && changed) void showChange()
  }
  const send = (to: Subject, shot: Shot) => {
    if (shot === sent[to]) return
    sent[to] = shot
    void render.call.setShot(to, changesOf[to](shot))
  }
  const sendOpenShot = () => {
    const shot = heardShot(store.getState())
    if (shot) send('shot', shot)
  }
  /** Work on many frames of the open shot, which tells how far it is and ends when it is stopped. */
  const throughFrames = async <T>(
    signal: AbortSignal,
    onLooked: (count: number) => void,
    work: (looked: (count: number) => boolean) => Promise<T>,
  ): Promise<T> => {
    sendOpenShot()
    const looked = proxy((count: number) => {
      onLooked(count)
      return !signal.aborted
    })
    try {
      return await work(looked)
    } catch (error) {
      if (signal.aborted) throw new Stopped('Stopped.')
      throw error
    }
  }
  // While a hand drags, the document changes faster than pictures can be made: only the latest is sent on, while the one
  // before is being made, so that who makes them need not wait for the page.
  let underWay = 0
  const showChange = async () => {
    const shot = stagedShot(store.getState())
    const { playing } = store.getState().view
    if (underWay >= AT_ONCE || !shot || shot === sent[subject()] || playing) return
    underWay++
    behind(1)
    try {
      send(subject(), shot)
      await show(stagedFrame(store.getState()), true)
    } finally {
      underWay--
      void showChange()
      behind(-1)
    }
  }
  const unsubscribe = store.subscribe(follow)

  return {
    async addFiles(files) {
      sound
        .addFiles(files)
        .catch(error => onProblem(`The sound cannot be read: ${error instanceof Error ? error.message : error}`))
      const failed = await render.call.addFiles(files)
      hasFiles = true
      sent[subject()] = null
      follow()
      return failed
    },
    goTo(frame) {
      const shot = stagedShot(store.getState())
      if (!shot) return
      halt()
      store.dispatch(frameShown(Math.max(0, Math.min(shot.length - 1, Math.round(frame)))))
    },
    play,
    stop: halt,
    png: frame => render.call.png(subject(), frame),
    findWorst: (layer, outlines, reach, onLooked, signal) =>
      throughFrames(signal, onLooked, looked => render.call.findWorst(layer, outlines, reach, looked)),
    holdAgainst: (layer, frames, seam, onLooked, signal) =>
      throughFrames(signal, onLooked, looked => render.call.holdAgainst(layer, frames, seam, looked)),
    async follow(take, seconds, what, span, onFrame, signal) {
      return throughFrames(signal, onFrame, told => {
        const onDone = proxy(async (done: number) => told(done))
        return plates.use(call => call.follow(take, seconds, what, span, onDone))
      })
    },
    grain: (take, seconds) => plates.use(call => call.grain(take, seconds)),
    async plate(takes, onFrame, signal) {
      return throughFrames(signal, onFrame, told => {
        const onShare = proxy(async (share: number) => told(Math.round(100 * share)))
        return plates.use(call => call.plate(takes, onShare))
      })
    },
    lean(...args) {
      sendOpenShot()
      return render.call.lean(...args)
    },
    letters: wording => render.call.letters(wording),
    thumbnail,
    levels: () => sound.levels(),
    dropped: () => dropped,
    async end() {
      unsubscribe()
      halt()
      sound.end()
      render.end()
    },
  }
}
