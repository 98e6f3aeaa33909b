// `ghost render`: a shot as a film or as numbered PNGs.
import { mkdir } from 'node:fs/promises'
import { extname, join } from 'node:path'
import type { Codes } from '../core/render'
import type { Shot } from '../core/shot'
import { type Span, spanLength } from '../core/time'
import { type ExportFormat, exportFrame, exportShot, filmSize, type Subject } from '../media/export'
import { packPng, pngRows } from '../media/png'
import { Complaint } from './complaint'
import { type Engine, startEngine } from './engine'
import { folderPlace } from './frame-place'
import { printable } from './printable'
import { findProject } from './projects'
import { wholeFile, withFilmTarget, writeWhole } from './whole-file'

interface RenderOptions {
  out?: string
  frames?: string
  scale?: string
  /** The name of a layer whose matte is meant. */
  matte?: string
  /** A folder in which cut-outs are kept for the next time. */
  kept?: string
}

/** `0-89` or `12` as a span of the shot; all of it if nothing is said. */
export function parseFrames(text: string | undefined, length: number, of = 'shot'): Span {
  if (text === undefined) return { from: 0, to: length }
  const said = /^(\d+)(?:-(\d+))?$/.exec(text)
  if (!said) throw new Complaint(`“${text}” is no range of frames. Write it as 0-89.`)
  const from = Number(said[1])
  const last = Number(said[2] ?? said[1])
  if (last < from) throw new Complaint(`The frames ${text} run backwards.`)
  if (last >= length) throw new Complaint(`The ${of} has frames 0 to ${length - 1}; ${last} is not among them.`)
  return { from, to: last + 1 }
}

function parseScale(text: string | undefined): number {
  const scale = Number(text ?? 1)
  if (!(scale > 0 && scale <= 4)) throw new Complaint(`The scale must lie between 0 and 4; “${text}” does not.`)
  return scale
}

export function progress(of: number) {
  const began = performance.now()
  return (done: number) => {
    const passed = (performance.now() - began) / 1000
    const left = Math.round((passed / done) * (of - done))
    const line = `${done} of ${of} frames, ${(done / passed).toFixed(1)} a second, ${left} s left`
    if (process.stderr.isTTY) process.stderr.write(`\r${line}   ${done === of ? '\n' : ''}`)
    else if (done === of || done % 30 === 0) process.stderr.write(`${line}\n`)
  }
}

const PACKED_AT_ONCE = 4

async function writeFrames(engine: Engine, subject: Subject, span: Span, folder: string): Promise<void> {
  await mkdir(folder, { recursive: true })
  const tell = progress(spanLength(span))
  // While frames are packed in threads of their own the next one is made; how many bounds the memory.
  const packing: Promise<void>[] = []
  // Room for rows is used again: new room for each frame would keep the garbage collector busy.
  const rooms: Uint8Array<ArrayBuffer>[] = []
  let done = 0
  let coming: Promise<Codes> | null = null
  const paintNext = (frame: number) => {
    coming = frame < span.to ? exportFrame(engine.k, engine.frames, subject, frame) : null
    coming?.catch(() => {})
  }
  paintNext(span.from)
  for (let frame = span.from; frame < span.to; frame++) {
    const picture = await coming!
    paintNext(frame + 1)
    if (packing.length >= PACKED_AT_ONCE) await packing.shift()
    const rows = pngRows(engine.k, picture, rooms.pop())
    engine.k.free(picture.ptr)
    const path = join(folder, `${String(frame).padStart(6, '0')}.png`)
    const job = packPng(rows)
      .then(png => writeWhole(path, png))
      .then(() => void rooms.push(rows.data))
      .then(() => tell(++done))
    // It is waited for further on; until then a failure is no surprise.
    job.catch(() => {})
    packing.push(job)
  }
  await Promise.all(packing)
}

async function writeFilm(
  engine: Engine,
  subject: Subject,
  span: Span,
  out: string,
  format: ExportFormat,
): Promise<void> {
  const tell = progress(spanLength(span))
  const { size, left } = filmSize(subject.shot, subject.scale)
  if (left) process.stderr.write(`The film is ${size.width}×${size.height}: ${left}\n`)
  await wholeFile(out, part =>
    withFilmTarget(part, target => exportShot({ ...subject, format, span }, target, { ...engine, onProgress: tell })),
  )
}

/** The layer whose matte is meant. */
function matteNamed(shot: Shot, name: string | undefined): { matte?: string } {
  if (name === undefined) return {}
  const layer = shot.layers.find(l => l.name === name)
  if (layer) return { matte: layer.id }
  const names = shot.layers.map(l => `“${l.name}”`).join(', ')
  throw new Complaint(`The shot has no layer “${name}”. It has ${names || 'none'}.`)
}

const say = (sentence: string): void => void process.stderr.write(`${printable(sentence)}\n`)

export async function render(subject: string, options: RenderOptions): Promise<void> {
  const { out } = options
  if (!out) throw new Complaint('Say where to write: --out file.mp4, --out file.webm or --out a-folder.')
  const format = { '.mp4': 'mp4', '.webm': 'webm', '': 'folder' }[extname(out).toLowerCase()]
  if (!format) throw new Complaint(`“${extname(out)}” cannot be written. Write .mp4, .webm or a folder of PNGs.`)
  const scale = parseScale(options.scale)
  const found = await findProject(subject)
  try {
    const { shot } = found.project
    const subject = { shot, scale, ...matteNamed(shot, options.matte) }
    const span = parseFrames(options.frames, shot.length)
    const engine = await startEngine(found, options.kept ? folderPlace(options.kept, say) : null)
    if (format === 'folder') await writeFrames(engine, subject, span, out)
    else await writeFilm(engine, subject, span, out, format as ExportFormat)
    await engine.frames.close()
  } finally {
    await found.close()
  }
}
