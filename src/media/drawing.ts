// Drawings of lines and areas (SVG), made into pictures at whatever size they are seen.
import { initWasm, Resvg } from '@resvg/resvg-wasm'
import { LIMITS, type Size } from '../core/shot'
import { MediaProblem } from './problem'
import type { StillPixels } from './still'

/** Bytes of a drawing's text. */
export const DRAWING_BYTES = 16 * 2 ** 20

let loadModule: (() => Promise<BufferSource>) | null = null
let ready: Promise<void> | null = null

/** Tells where the module that draws comes from here. */
export function setDrawingModule(load: () => Promise<BufferSource>): void {
  loadModule = load
}

/** How much of a file's head tells whether it is a drawing. */
const HEAD = 64

/** Whether a file's first bytes may be those of a drawing. */
export function mayBeDrawing(head: Uint8Array): boolean {
  const text = new TextDecoder().decode(head.subarray(0, HEAD)).replace(/^\ufeff/, '')
  return /^\s*<(\?xml|svg|!--|!doctype\s+svg)/i.test(text)
}

const NO_FONTS = { loadSystemFonts: false } as const

/** Reads a drawing; the caller frees it. Nothing that it refers to is fetched, and nothing in it runs. */
async function read(svg: Uint8Array, name: string, scale: number): Promise<InstanceType<typeof Resvg>> {
  if (svg.length > DRAWING_BYTES) throw new MediaProblem(`“${name}” is larger than a drawing can be here (16 MB).`)
  if (!loadModule) throw new Error('Drawings cannot be read here.')
  ready ??= loadModule().then(initWasm)
  await ready
  try {
    return new Resvg(svg, { font: NO_FONTS, fitTo: { mode: 'zoom', value: scale } })
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    throw new MediaProblem(`“${name}” is no drawing that can be read (${reason.slice(0, 200)}).`)
  }
}

const TEXT = /<(?:\w+:)?text[\s>]/

/** A sentence about what of a drawing cannot be shown, or null. */
export const leftOut = (svg: Uint8Array, name: string): string | null =>
  TEXT.test(new TextDecoder().decode(svg))
    ? `Text in “${name}” is left out, since a drawing brings no fonts: turn it into paths where it was drawn.`
    : null

/** How large a drawing says it is, in whole px. Throws MediaProblem. */
export async function drawingSize(svg: Uint8Array, name: string): Promise<Size> {
  const drawing = await read(svg, name, 1)
  const size = { width: Math.ceil(drawing.width), height: Math.ceil(drawing.height) }
  drawing.free()
  if (!(size.width > 0 && size.height > 0 && size.width <= LIMITS.side && size.height <= LIMITS.side)) {
    throw new MediaProblem(`“${name}” says that it is ${size.width}×${size.height} px, which no picture here can be.`)
  }
  return size
}

/** The picture of a drawing with so many px for each of its own. Throws MediaProblem. */
export async function drawDrawing(svg: Uint8Array, name: string, scale: number): Promise<StillPixels> {
  const drawing = await read(svg, name, scale)
  const image = drawing.render()
  const { width, height, pixels } = image
  const data = straight(pixels)
  image.free()
  drawing.free()
  return { width, height, data }
}

/** Colours as they are, instead of as much of them as there is. */
function straight(pixels: Uint8Array): Uint8Array {
  const out = new Uint8Array(pixels)
  for (let i = 0; i < out.length; i += 4) {
    const a = out[i + 3]!
    if (a === 0 || a === 255) continue
    for (let c = 0; c < 3; c++) out[i + c] = Math.min(255, Math.round((out[i + c]! * 255) / a))
  }
  return out
}
