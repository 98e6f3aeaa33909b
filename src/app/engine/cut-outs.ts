// Cut-outs made in the background, from the playhead outward, and what of them is ready.
import { hasDerived, type Shot } from '../../core/shot'
import { type FrameNews, framesKept, type MadeOf, onFrameNews } from '../../workers/clients'
import { runJob, stopJobsOf } from '../jobs/run'
import { orAborted } from '../jobs/thread'
import { Stopped } from '../stopped'
import { shotOf, store } from '../store'
import type { PlateThreads } from './plate-threads'
import { untilAlone } from './until-still'

/** Milliseconds that a shot has to be left alone before its cut-outs are made. */
const CALM = 700

/** How it stands with a frame of a layer: `none` needs nothing made; of what is ready how unsure it is, 0..1. */
export type FrameState = { state: 'none' | 'missing' } | { state: 'ready'; unsure: number }

export interface CutOuts {
  /** The takes are there: what is wanted can be made. */
  begin(): void
  /** Of each frame of the open shot, or null for a layer that has nothing made. */
  framesOf(layer: string): readonly FrameState[] | null
  /** How many frames of takes are made and how many are wanted, or null where none are. */
  progress(): { done: number; of: number; making: boolean } | null
  /** Stops making, or goes on. */
  setMaking(on: boolean): void
  /** Calls back when any of that has changed. */
  subscribe(listener: () => void): () => void
  end(): void
}

interface Known extends MadeOf {
  ready: Map<number, number>
}

/** Every frame of a take that somebody needs, once, each with the frame of the shot that is nearest to the playhead. */
function missing({ layers, ready }: Known, playhead: number): Map<number, number> {
  const found = new Map<number, number>()
  for (const at of Object.values(layers)) {
    at.forEach((index, frame) => {
      if (index < 0 || ready.has(index)) return
      found.set(index, Math.min(found.get(index) ?? Number.POSITIVE_INFINITY, Math.abs(frame - playhead)))
    })
  }
  return found
}

/** How it stands with a frame of a layer that needs all of some recipes. */
function frameOf(own: readonly Known[], layer: string, frame: number): FrameState {
  let most = -1
  for (const { layers, ready } of own) {
    const index = layers[layer]![frame]!
    if (index < 0) continue
    const unsure = ready.get(index)
    if (unsure === undefined) return { state: 'missing' }
    most = Math.max(most, unsure)
  }
  return most < 0 ? { state: 'none' } : { state: 'ready', unsure: most }
}

/** Share of a border told only just beyond which a frame wants looking at. */
export const UNSURE = 0.25

let open: CutOuts | null = null

/** The first frames of the stretches at which a layer of the open shot wants looking at. */
export function unsureFrames(layer: string): number[] {
  const states = open?.framesOf(layer) ?? []
  const isUnsure = (of: FrameState | undefined) => of?.state === 'ready' && of.unsure > UNSURE
  return states.flatMap((of, frame) => (isUnsure(of) && !isUnsure(states[frame - 1]) ? [frame] : []))
}

export function startCutOuts(project: string, threads: PlateThreads, onProblem: (sentence: string) => void): CutOuts {
  let isReady = false
  let shot: Shot | null = null
  let known: Known[] = []
  let making = true
  let ended = false
  let calm: ReturnType<typeof setTimeout> | undefined
  const failed = new Set<string>()
  const listeners = new Set<() => void>()
  const tell = () => {
    for (const listener of listeners) listener()
  }

  /** What the shot needs by now. */
  async function look(): Promise<void> {
    const now = shotOf(store.getState())
    if (!now || now === shot || !isReady) return
    shot = now
    const found = hasDerived(now) ? await threads.use(call => call.needs(now)) : []
    if (ended || shot !== now) return
    known = await Promise.all(
      found.map(async made => {
        const before = known.find(k => k.key === made.key)
        const kept = before?.ready ?? new Map([...(await framesKept(made.recipe))].map(([i, t]) => [i, t.unsure ?? 0]))
        return { ...made, ready: kept }
      }),
    )
    tell()
    void make()
  }

  /** What each thread is at: frames that are made one after another. */
  const at = new Map<number, string>()
  const stretchOf = ({ key, together }: Known, index: number) => `${key} ${Math.floor(index / together)}`

  /** What is missing nearest to the playhead and no other thread is at. */
  function next(own = 0): { of: Known; index: number } | null {
    const { frame } = store.getState().view
    const others = new Set([...at].flatMap(([thread, stretch]) => (thread === own ? [] : [stretch])))
    let best: { of: Known; index: number; far: number } | null = null
    for (const of of known) {
      if (failed.has(of.key)) continue
      for (const [index, far] of missing(of, frame)) {
        if ((!best || far < best.far) && !others.has(stretchOf(of, index))) best = { of, index, far }
      }
    }
    return best
  }

  /** Makes in one of the threads what is missing, as long as it is wanted. */
  async function makeIn(thread: number, isWanted: () => boolean, onMade: () => void): Promise<void> {
    let mine = ''
    for (let wanted = next(thread); wanted && isWanted(); wanted = next(thread)) {
      mine = stretchOf(wanted.of, wanted.index)
      at.set(thread, mine)
      await untilAlone()
      await makeOne(wanted, thread)
      onMade()
    }
    // It may have been stopped and begun anew meanwhile.
    if (at.get(thread) === mine) at.delete(thread)
  }

  /** Makes all that is missing in as many threads as find something, by then or later. */
  async function makeAll(isWanted: () => boolean, onMade: () => void): Promise<void> {
    const working = new Map<number, Promise<void>>()
    const fill = () => {
      for (let thread = 0; thread < threads.count; thread++) {
        if (working.has(thread) || !next(thread) || !isWanted()) continue
        const work = makeIn(thread, isWanted, () => {
          onMade()
          fill()
        })
        working.set(
          thread,
          work.finally(() => working.delete(thread)),
        )
      }
    }
    fill()
    while (working.size > 0) await Promise.race(working.values())
  }

  let underWay = false
  async function make(): Promise<void> {
    if (underWay || !making || ended || !next()) return
    underWay = true
    const { done, of } = count()
    try {
      await runJob({ kind: 'cut', project, name: 'Cut-out', of }, ({ signal, tell: told }) =>
        orAborted(signal, async () => {
          told(done)
          await makeAll(
            () => making && !signal.aborted,
            () => told(count().done),
          )
        }),
      )
    } catch (error) {
      if (!(error instanceof Stopped)) throw error
      making = false
    } finally {
      underWay = false
      tell()
    }
  }

  async function makeOne({ of, index }: { of: Known; index: number }, thread: number): Promise<void> {
    try {
      await threads.use(call => call.make({ recipe: of.recipe, rate: of.rate }, index), thread)
      // It may have been kept before anybody listened.
      if (!of.ready.has(index)) of.ready.set(index, 0)
    } catch (error) {
      if (ended || failed.has(of.key)) return
      failed.add(of.key)
      const why = error instanceof Error ? error.message : String(error)
      onProblem(`A layer cannot be cut out by its plate: ${why}.`)
    }
  }

  function count(): { done: number; of: number } {
    let [done, of] = [0, 0]
    for (const one of known) {
      const wanted = new Set(Object.values(one.layers).flatMap(at => [...at].filter(i => i >= 0)))
      of += wanted.size
      for (const index of wanted) if (one.ready.has(index)) done++
    }
    return { done, of }
  }

  const leaveNews = onFrameNews((news: FrameNews) => {
    if ('problem' in news) return onProblem(news.problem)
    const of = known.find(k => k.key === news.key)
    if (!of) return
    of.ready.set(news.index, news.told.unsure ?? 0)
    tell()
  })
  const begin = () =>
    void look().catch(error => {
      console.error('What has to be cut out could not be told:', error)
    })
  let asked: Shot | null = null
  const leaveStore = store.subscribe(() => {
    const now = shotOf(store.getState())
    if (now === asked) return
    asked = now
    clearTimeout(calm)
    calm = setTimeout(begin, CALM)
  })

  const cutOuts: CutOuts = {
    begin() {
      isReady = true
      shot = null
      begin()
    },
    framesOf(layer) {
      const own = known.filter(k => k.layers[layer])
      if (own.length === 0) return null
      return Array.from(own[0]!.layers[layer]!, (_, frame) => frameOf(own, layer, frame))
    },
    progress() {
      const { done, of } = count()
      return of === 0 ? null : { done, of, making: underWay && making }
    },
    setMaking(on) {
      making = on
      failed.clear()
      if (on) void make()
      tell()
    },
    subscribe(listener) {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    end() {
      ended = true
      if (open === cutOuts) open = null
      clearTimeout(calm)
      leaveStore()
      leaveNews()
      stopJobsOf(project, ['cut'])
      listeners.clear()
    },
  }
  open = cutOuts
  return cutOuts
}
