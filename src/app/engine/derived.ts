// Small frames and loudness of takes, made once in the background and kept; drawn along the lanes and in the takes panel.
import { LRUCache } from 'lru-cache'
import type { Take } from '../../core/shot'
import {
  loudnessRecipe,
  type SheetLayout,
  SMALL_HEIGHT,
  sheetCell,
  sheetLayout,
  sheetRecipe,
  sheetSize,
} from '../../core/small-frames'
import { type Client, deriveClient, type MediaFile, proxy } from '../../workers/clients'
import type { DeriveApi } from '../../workers/derive.worker'
import { runJob, stopJobsOf, type Working } from '../jobs/run'
import { orAborted } from '../jobs/thread'
import { Stopped } from '../stopped'
import { getMade, keepMade } from '../storage/made'
import type { KeptSheet } from '../storage/small-frames'
import { projectOf, store } from '../store'
import { untilStill } from './until-still'

/** Frames kept between those of the sheet, for lanes that are zoomed far in. */
const FINE = 400

export interface Sheet extends SheetLayout {
  canvas: HTMLCanvasElement
  /** Which frames are there. */
  ready: boolean[]
}

/** A part of a picture to draw. */
export interface SmallFrame {
  source: CanvasImageSource
  x: number
  y: number
  width: number
  height: number
}

export interface Derived {
  addFiles(files: readonly MediaFile[]): void
  sheet(digest: string): Sheet | null
  peaks(digest: string): Uint8Array | null
  /** The small frame of a take that is nearest to a moment; `exact` asks for that very one, which comes when it can. */
  frame(digest: string, seconds: number, exact: boolean): SmallFrame | null
  /** A frame of a take, so many px high; null where it cannot be had. The caller closes it. */
  large(digest: string, seconds: number, height: number): Promise<ImageBitmap | null>
  /** Calls back when something new can be drawn, at most once a picture of the screen. */
  subscribe(listener: () => void): () => void
  end(): void
}

function newSheet(layout: SheetLayout): Sheet {
  const canvas = document.createElement('canvas')
  Object.assign(canvas, sheetSize(layout))
  return { ...layout, canvas, ready: new Array(layout.count).fill(false) }
}

export function startDerived(project: string, onProblem: (sentence: string) => void): Derived {
  let worker: Client<DeriveApi> | null = null
  let ended = false
  const files = new Map<string, MediaFile>()
  const sheets = new Map<string, Sheet>()
  const loud = new Map<string, Uint8Array>()
  const fine = new LRUCache<string, ImageBitmap>({ max: FINE, dispose: bitmap => bitmap.close() })
  // What cannot be made is not asked for twice.
  const asked = new Set<string>()
  const listeners = new Set<() => void>()
  let asking = 0
  let drawing = 0

  const call = () => {
    worker ??= deriveClient()
    return worker.call
  }
  const draw = () => {
    if (drawing) return
    drawing = requestAnimationFrame(() => {
      drawing = 0
      for (const listener of listeners) listener()
    })
  }

  /** Whether what was kept could be used: a damaged sheet is made again. */
  async function restoreSheet(take: Take, { picture }: KeptSheet): Promise<boolean> {
    const layout = sheetLayout(take)
    const bitmap = layout && (await createImageBitmap(picture).catch(() => null))
    if (!layout || !bitmap) return false
    const sheet = newSheet(layout)
    const isWhole = bitmap.width === sheet.canvas.width && bitmap.height === sheet.canvas.height
    if (isWhole) {
      sheet.canvas.getContext('2d')?.drawImage(bitmap, 0, 0)
      sheet.ready.fill(true)
      sheets.set(take.digest, sheet)
      draw()
    }
    bitmap.close()
    return isWhole
  }

  async function makeSheet(take: Take, file: MediaFile, tell: Working['tell']): Promise<void> {
    const layout = sheetLayout(take)
    if (!layout) return
    const { count, every } = layout
    const sheet = newSheet(layout)
    sheets.set(take.digest, sheet)
    const context = sheet.canvas.getContext('2d')
    const times = Array.from({ length: count }, (_, i) => i * every)
    const onFrame = async (i: number, bitmap: ImageBitmap) => {
      const { x, y } = sheetCell(sheet, i)
      context?.drawImage(bitmap, x, y, sheet.width, sheet.height)
      bitmap.close()
      sheet.ready[i] = true
      tell((i + 1) / count)
      draw()
      await untilStill()
    }
    await call().strip(file, times, SMALL_HEIGHT, proxy(onFrame))
  }

  async function makePeaks(take: Take, file: MediaFile): Promise<void> {
    if (!take.sound) return
    const onPeaks = async (more: Uint8Array) => {
      const known = loud.get(take.digest) ?? new Uint8Array(0)
      const grown = new Uint8Array(known.length + more.length)
      grown.set(known)
      grown.set(more, known.length)
      loud.set(take.digest, grown)
      draw()
      await untilStill()
    }
    await call().peaks(file, proxy(onPeaks))
  }

  async function keepSheet(digest: string): Promise<void> {
    const sheet = sheets.get(digest)
    if (!sheet) return
    const picture = await new Promise<Blob | null>(resolve => sheet.canvas.toBlob(resolve, 'image/jpeg', 0.8))
    if (picture) await keepMade(sheetRecipe(digest), { picture } satisfies KeptSheet)
  }

  /** Brings back what is kept of a take, and makes the rest. */
  async function make(file: MediaFile, take: Take): Promise<void> {
    const { digest } = file
    const [kept, peaks] = await Promise.all([
      getMade<KeptSheet>(sheetRecipe(digest)),
      getMade<Uint8Array>(loudnessRecipe(digest)),
    ])
    if (ended) return
    if (peaks) loud.set(digest, peaks)
    const sheet = kept !== null && (await restoreSheet(take, kept))
    if ((sheet || !take.picture) && (peaks || !take.sound)) return draw()
    await runJob({ kind: 'derive', project, name: take.name }, ({ signal, tell }) =>
      orAborted(signal, async () => {
        if (!sheet) await makeSheet(take, file, tell)
        if (!sheet && !signal.aborted) await keepSheet(digest)
        if (peaks || signal.aborted) return
        await makePeaks(take, file)
        const made = loud.get(digest)
        if (made && !signal.aborted) await keepMade(loudnessRecipe(digest), made)
      }),
    )
  }

  function ask(digest: string, seconds: number, key: string): void {
    const file = files.get(digest)
    // Only a few at a time: what is wanted changes faster than it can be made.
    if (!file || asking >= 3) return
    asking++
    asked.add(key)
    call()
      .frame(file, seconds, SMALL_HEIGHT)
      .then(bitmap => {
        if (!bitmap) return
        asked.delete(key)
        if (ended) bitmap.close()
        else fine.set(key, bitmap)
      })
      .catch(error => console.error('A small frame could not be made:', error))
      .finally(() => {
        asking--
        if (!ended) draw()
      })
  }

  return {
    addFiles(more) {
      for (const file of more) {
        if (files.has(file.digest)) continue
        files.set(file.digest, file)
        const take = projectOf(store.getState())?.takes.find(t => t.digest === file.digest)
        if (!take) continue
        make(file, take).catch(error => {
          if (error instanceof Stopped) return
          const why = error instanceof Error ? error.message : String(error)
          onProblem(`The small frames of “${file.name}” could not be made (${why}).`)
        })
      }
    },
    sheet: digest => sheets.get(digest) ?? null,
    peaks: digest => loud.get(digest) ?? null,
    frame(digest, seconds, exact) {
      const key = `${digest} ${seconds.toFixed(3)}`
      if (exact) {
        const bitmap = fine.get(key)
        if (bitmap) return { source: bitmap, x: 0, y: 0, width: bitmap.width, height: bitmap.height }
        if (!asked.has(key)) ask(digest, seconds, key)
      }
      const sheet = sheets.get(digest)
      if (!sheet) return null
      let i = Math.max(0, Math.min(sheet.count - 1, Math.floor(seconds / sheet.every + 0.5)))
      while (i > 0 && !sheet.ready[i]) i--
      if (!sheet.ready[i]) return null
      return { source: sheet.canvas, ...sheetCell(sheet, i), width: sheet.width, height: sheet.height }
    },
    async large(digest, seconds, height) {
      const file = files.get(digest)
      return file ? call().frame(file, seconds, height) : null
    },
    subscribe(listener) {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    end() {
      ended = true
      stopJobsOf(project, ['derive'])
      cancelAnimationFrame(drawing)
      worker?.end()
      listeners.clear()
      fine.clear()
    },
  }
}
