// Pictures as decoders give them, for tests.
import type { Kernels, Planes } from '../core/render'
import { putBytes } from './kernels'

/** Planes with halved chroma; `of`: the code of each place of luma (0), U (1) and V (2). Rows lie `gap` bytes apart. */
export function filmPicture(
  k: Kernels,
  width: number,
  height: number,
  of: (plane: 0 | 1 | 2, x: number, y: number) => number,
  { gap = 0, ...changes }: Partial<Planes> & { gap?: number } = {},
): Planes {
  const [across, down] = [(width + 1) >> 1, (height + 1) >> 1]
  const planes = ([0, 1, 2] as const).map(plane => {
    const [w, h] = plane === 0 ? [width, height] : [across, down]
    const stride = w + gap
    return Array.from({ length: stride * h }, (_, i) => Math.round(of(plane, i % stride, Math.floor(i / stride))))
  })
  const [luma, u] = planes.map(plane => plane.length) as [number, number]
  return {
    kind: 'planes',
    width,
    height,
    // A row is read in whole registers.
    ptr: putBytes(k, [...planes.flat(), ...Array(64).fill(0)]),
    offsets: [0, luma, luma + u],
    strides: [width + gap, across + gap, across + gap],
    halfColumns: 1,
    halfRows: 1,
    chroma: { across: 'even', down: 'between' },
    matrix: 'bt709',
    fullRange: false,
    ...changes,
  }
}
