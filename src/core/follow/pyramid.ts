// A grey picture at half its size, and half of that, and so on.
import type { Kernels } from '../render'

export interface Grey {
  width: number
  height: number
  /** In the kernels' memory. */
  data: Float32Array<ArrayBuffer>
}

/** A picture, the first, and at most so many smaller ones; px at (x, y) of one lies at (x / 2, y / 2) of the next. */
export interface Pyramid {
  k: Kernels
  levels: readonly Grey[]
}

/** Levels beneath which a picture is too small to tell anything, px of its shorter side; and how many there are at most. */
const LEAST = 24
const LEVELS = 5

/** Tells the smaller ones by the first anew. Throws OutOfMemory. */
export function refill({ k, levels }: Pyramid): void {
  k.scope(() => {
    const room = k.alloc(levels[0]!.width * 4)
    levels.slice(1).forEach((small, i) => {
      const { width, height, data } = levels[i]!
      k.halvePlane(data.byteOffset, width, height, small.data.byteOffset, room)
    })
  })
}

/** A picture as followers look at it: the smaller ones are made here. Throws OutOfMemory. */
export function pyramid(k: Kernels, picture: Grey): Pyramid {
  const levels = [picture]
  for (let { width, height } = picture; levels.length < LEVELS && Math.min(width, height) >= 2 * LEAST; ) {
    width >>= 1
    height >>= 1
    levels.push({ width, height, data: k.floats(k.alloc(width * height * 4), width * height) })
  }
  const made = { k, levels }
  refill(made)
  return made
}
