// Pictures of stills: of one that lasts for ever, and of numbered ones that follow each other.
import type { Kernels, Picture } from '../core/render'
import { frameToSeconds, secondsToFrame } from '../core/time'
import { drawDrawing } from './drawing'
import type { Supply } from './frames'
import { EARLY, type HeldPictures, scaledDigest } from './held'
import type { OpenDrawing, OpenStill } from './open'
import type { OpenSequence } from './sequence'
import type { StillPixels } from './still'

function asPicture(k: Kernels, { width, height, data }: StillPixels): Picture {
  const bytes = width * height * 4
  const ptr = k.alloc(bytes)
  k.bytes(ptr, bytes).set(data)
  const opaque = !data.some((v, i) => i % 4 === 3 && v !== 255)
  return { kind: 'codes', width, height, ptr, opaque }
}

/** The still that shows at a moment, and how long it does. */
interface Shown {
  pixels: Promise<StillPixels>
  from: number
  to: number
}

const supply = (k: Kernels, held: HeldPictures, digest: string, at: (t: number, scale: number) => Shown): Supply => ({
  async at(t, _, scale) {
    const { pixels, from, to } = at(t, scale)
    const still = await pixels
    return held.take({ digest: scaledDigest(digest, scale), from, to }, still.width * still.height * 4, () =>
      asPicture(k, still),
    )
  },
  close: async () => {},
})

const ALWAYS = { from: Number.NEGATIVE_INFINITY, to: Number.POSITIVE_INFINITY } as const

export const stillPicture = (k: Kernels, held: HeldPictures, digest: string, still: OpenStill): Supply =>
  supply(k, held, digest, () => ({ pixels: still.decode(), ...ALWAYS }))

export const drawnPicture = (k: Kernels, held: HeldPictures, digest: string, drawing: OpenDrawing): Supply =>
  supply(k, held, digest, (_, scale) => ({
    pixels: drawing.svg().then(svg => drawDrawing(svg, drawing.name, scale)),
    ...ALWAYS,
  }))

export const numberedStills = (k: Kernels, held: HeldPictures, digest: string, sequence: OpenSequence): Supply =>
  supply(k, held, digest, t => {
    const { count, rate } = sequence
    const i = Math.max(0, Math.min(count - 1, secondsToFrame(t + EARLY, rate)))
    return {
      pixels: sequence.decode(i),
      from: i === 0 ? Number.NEGATIVE_INFINITY : frameToSeconds(i, rate),
      to: i === count - 1 ? Number.POSITIVE_INFINITY : frameToSeconds(i + 1, rate),
    }
  })
