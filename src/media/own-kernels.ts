// Kernels with a memory of their own.
import { CUTTING_BYTES } from '../core/plate'
import type { Kernels } from '../core/render'
import type { Size } from '../core/shot'
import { MediaProblem } from './problem'

/** No memory of WebAssembly is larger than twice that, and few machines have more to spare. */
const MOST_BYTES = 2 ** 31

/** A memory of their own for what cuts pictures of a size out: it is large, and goes with it. Throws MediaProblem where there is none so large. */
export async function ownKernels(k: Kernels, { width, height }: Size): Promise<Kernels> {
  const bytes = 2 ** 22 + (width + 2) * (height + 2) * CUTTING_BYTES
  try {
    if (bytes <= MOST_BYTES) return await k.apart(bytes)
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
  }
  throw new MediaProblem(`there is not enough memory to cut pictures of ${width}×${height} out by a plate`)
}
