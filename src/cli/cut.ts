// `ghost plate`, `ghost cutout` and `ghost check`: what a plate tells, as pictures and in words.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, statSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { extname, join } from 'node:path'
import { type Cells, findings, type Seen } from '../core/plate'
import type { Kernels } from '../core/render'
import type { Size } from '../core/shot'
import { type Span, spanLength } from '../core/time'
import { type Counted, countedFrames } from '../media/counted'
import { startCutting, type Telling, TOGETHER } from '../media/cutout'
import { type FrameStore, frameStore } from '../media/frames'
import { lookThrough } from '../media/lock-off'
import { describeTake, openMedia } from '../media/open'
import { platePicture, readPlate, settledPlate } from '../media/plate'
import { greyRows, packPng, pngRows } from '../media/png'
import { Complaint } from './complaint'
import { nodeKernels, nodeMedia, pathSource } from './engine'
import { patiently } from './patience'
import { printable } from './printable'
import { parseFrames, progress } from './render'
import { writeWhole } from './whole-file'

const CACHE = 128 * 2 ** 20
/** Seconds of a film that are taken to be empty where it is a plate. */
const LONG = 0.5

/** Somebody told as a rule. */
const PLAINLY: Telling = { name: '', sensitive: 50, strokes: [] }
/** Share of a plate that may be a guess without a word. */
const SELDOM = 0.001

interface CutOptions {
  take?: string
  plate?: string
  out?: string
  shadow?: string
  frames?: string
  threads?: string
}

/** Opens a file as frames; its path is its name in the store. */
export async function openFrames(frames: FrameStore, path: string): Promise<Counted> {
  if (!existsSync(path)) throw new Complaint(`There is no file “${path}”.`)
  const { media, take } = await patiently(path, statSync(path).size, async () => {
    const media = await openMedia(pathSource(path), path)
    return { media, take: await describeTake(media, 0) }
  })
  const counted = countedFrames(path, take.picture)
  if (!counted) throw new Complaint(`“${path}” has no picture that can be cut out.`)
  frames.add(path, media)
  return counted
}

interface Opened {
  k: Kernels
  frames: FrameStore
}

export async function start(): Promise<Opened> {
  nodeMedia()
  const k = await nodeKernels()
  return { k, frames: frameStore(k, CACHE) }
}

/** `ghost plate`: what of takes shows most of the time, as a PNG. */
export async function plate(paths: readonly string[], { out }: CutOptions): Promise<void> {
  if (paths.length === 0) throw new Complaint('Say of which takes to make a plate.')
  if (!out || extname(out).toLowerCase() !== '.png') throw new Complaint('Say where to write: --out plate.png.')
  const { k, frames } = await start()
  const takes: Counted[] = []
  for (const path of paths) takes.push(await openFrames(frames, path))
  const { size } = takes[0]!
  const other = takes.find(t => t.size.width !== size.width || t.size.height !== size.height)
  if (other) throw new Complaint(`“${other.digest}” is not as large as “${paths[0]}”: they cannot show the same set.`)
  const { picture, open } = await platePicture(k, frames, takes)
  await writeWhole(out, await packPng(pngRows(k, { ...picture, opaque: true })))
  await frames.close()
  if (open > SELDOM) {
    const share = (100 * open).toFixed(1)
    process.stderr.write(`${share}% of the set was hardly ever seen: what is there is a guess.\n`)
  }
}

/** What a plate is made of: a file, or the take itself where none is named. */
const plateCells = async ({ k, frames }: Opened, take: Counted, path: string | undefined): Promise<Cells> =>
  path
    ? readPlate(k, frames, await openFrames(frames, path), { from: 0, to: LONG }, take.size, () => true)
    : settledPlate(k, frames, [take], take.size)

/** `ghost check`: what takes say about the camera, the light and who is there. */
export async function check(paths: readonly string[], options: CutOptions & { json: boolean }): Promise<void> {
  if (paths.length === 0) throw new Complaint('Say which takes to check.')
  const reports: object[] = []
  for (const path of paths) {
    const opened = await start()
    const { k, frames } = opened
    const take = await openFrames(frames, path)
    const plate = options.plate ? { of: await openFrames(frames, options.plate), from: 0, to: LONG } : null
    const seen: Seen[] = []
    for await (const frame of lookThrough(k, frames, take, plate)) seen.push(frame)
    await opened.frames.close()
    const found = findings(seen)
    const told = seen.map(({ movement, ...more }) => ({ ...movement, ...more }))
    reports.push({ take: path, findings: found, frames: told })
    if (options.json) continue
    process.stdout.write(printable(`${path}\n${found.map(f => `  ${f.isFault ? '◆' : '·'} ${f.sentence}\n`).join('')}`))
  }
  if (options.json) process.stdout.write(`${JSON.stringify(reports, null, 2)}\n`)
}

/** Each code of cells of 2×2 px for all its px. */
const spreadCells = (k: Kernels, codes: Uint8Array, { width, height }: Size): Uint8Array =>
  k.scope(() => {
    const [cells, px] = [k.alloc(codes.length), k.alloc(width * height)]
    k.bytes(cells, codes.length).set(codes)
    k.spreadCells(cells, width, height, px)
    return k.bytes(px, width * height).slice()
  })

/** Parts of a span that begin where groups of frames do, so that each comes out as it would in one go. */
function parted({ from, to }: Span, parts: number): Span[] {
  const each = Math.ceil((to - from + (from % TOGETHER)) / parts / TOGETHER) * TOGETHER
  const found: Span[] = []
  for (let at = from; at < to; ) {
    const end = Math.min(to, at - (at % TOGETHER) + each)
    found.push({ from: at, to: end })
    at = end
  }
  return found
}

/** Cuts parts of a take out beside each other, each by this program once more: decoders and kernels are bound to one thread. */
async function cutBeside(options: CutOptions, spans: readonly Span[]): Promise<void> {
  const named = (['take', 'plate', 'out', 'shadow'] as const).flatMap(of =>
    options[of] ? [`--${of}`, options[of]] : [],
  )
  const done = await Promise.all(
    spans.map(async ({ from, to }) => {
      const args = [process.argv[1]!, 'cutout', ...named, '--frames', `${from}-${to - 1}`]
      const part = spawn(process.execPath, args, { stdio: ['ignore', 'ignore', 'inherit'] })
      // Whatever ends this one ends its parts.
      process.once('exit', () => part.kill())
      const [code] = await once(part, 'exit')
      return code
    }),
  )
  if (done.some(code => code !== 0))
    throw new Complaint('Not every part could be cut out; what was said above tells why.')
}

/** `ghost cutout`: alpha, and shadow if asked for, as grey PNGs numbered like the take's frames. */
export async function cut(options: CutOptions): Promise<void> {
  const { take: path, plate: platePath, out, shadow, frames: range } = options
  const threads = Number(options.threads ?? 1)
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new Complaint('--threads is a number from 1 to 64.')
  if (!path) throw new Complaint('Say which take: --take film.')
  if (!out) throw new Complaint('Say where to write: --out a-folder.')
  const opened = await start()
  const { k, frames } = opened
  const take = await openFrames(frames, path)
  const { size } = take
  const span: Span = parseFrames(range, take.count, 'take')
  for (const folder of [out, shadow]) if (folder) await mkdir(folder, { recursive: true })
  const spans = parted(span, threads)
  if (spans.length > 1) {
    await frames.close()
    return cutBeside(options, spans)
  }
  const cells = await plateCells(opened, take, platePath)
  const cutting = startCutting(k, frames, take, cells)
  const tell = progress(spanLength(span))
  const write = async (folder: string, index: number, grey: Uint8Array) =>
    writeWhole(join(folder, `${String(index).padStart(4, '0')}.png`), await packPng(greyRows(size, grey)))
  let done = 0
  for (let start = span.from - (span.from % TOGETHER); start < span.to; start += TOGETHER) {
    const last = Math.min(take.count, start + TOGETHER) - 1
    for await (const frame of cutting.upTo(last, PLAINLY, () => true)) {
      if (frame.index < span.from || frame.index >= span.to) continue
      await write(out, frame.index, frame.alpha)
      if (shadow) await write(shadow, frame.index, spreadCells(k, frame.shadow, size))
      tell(++done)
    }
  }
  await frames.close()
}
