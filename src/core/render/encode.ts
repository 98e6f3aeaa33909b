// A plan -> planes for an encoder: BT.709, limited range, 4:2:0 with chroma on even columns.
import type { Find } from '../picture'
import type { Plan } from '../plan'
import type { Size } from '../shot'
import type { Kernels } from './kernels'
import type { Codes, Planes } from './picture'
import type { PlacedPicture } from './place'
import { type AloneRun, type Composer, composer } from './render'
import { stayWarm } from './warm'

/** Bytes of the three planes of a picture, close together. */
export const planesLength = (width: number, height: number): number =>
  width * height + 2 * ((width + 1) >> 1) * ((height + 1) >> 1)

/** Where the three planes of a picture lie, close together from `out` on. */
function layout({ width, height }: Size, out: number) {
  const half = (width + 1) >> 1
  const u = out + width * height
  return { width, half, luma: out, u, v: u + half * ((height + 1) >> 1) }
}

type Layout = ReturnType<typeof layout>

/** Writes Y, U and V planes of a picture of even sides, close together, at out. */
export function writePlanes(k: Kernels, { width, height, ptr }: Codes, out: number): void {
  const { half, luma, u, v } = layout({ width, height }, out)
  for (let y = 0; y < height; y += 2) {
    const [top, bottom] = [ptr + y * width * 4, ptr + (y + 1) * width * 4]
    k.lumaRow(top, luma + y * width, width)
    k.lumaRow(bottom, luma + (y + 1) * width, width)
    k.chromaPairRow(top, bottom, u + (y >> 1) * half, v + (y >> 1) * half, width, 0, width)
  }
}

/** Whether planes are coded as those that are written, so that they can be handed on as they came. */
const isAsWritten = ({ halfColumns, halfRows, matrix, fullRange, chroma }: Planes): boolean =>
  halfColumns === 1 &&
  halfRows === 1 &&
  matrix === 'bt709' &&
  !fullRange &&
  chroma.across === 'even' &&
  chroma.down === 'between'

/** The planes of a picture, and where it lies. */
type PlacedPlanes = NonNullable<PlacedPicture['planes']>

/** Whether the blocks of a picture's chroma lie on those that are written, too. */
const canHandOn = ({ picture, x, y }: PlacedPlanes): boolean => isAsWritten(picture) && x % 2 === 0 && y % 2 === 0

/** Shorter runs are not worth the seam. */
const LEAST = 16

/** Where both rows show the same picture alone, over whole blocks of 2x2. */
function blocksOf(top: readonly AloneRun[], bottom: readonly AloneRun[], width: number): AloneRun[] {
  const found: AloneRun[] = []
  for (let i = 0, j = 0; i < top.length && j < bottom.length; ) {
    const [a, b] = [top[i]!, bottom[j]!]
    const from = (Math.max(a.from, b.from) + 1) & ~1
    const to = Math.min(a.to, b.to, width) & ~1
    if (a.painter === b.painter && to - from >= LEAST) found.push({ from, to, painter: a.painter })
    if (a.to < b.to) i++
    else j++
  }
  return found
}

/** Copies the planes of a picture that shows alone over n columns of two rows, as they are. */
function handOn(
  k: Kernels,
  { picture, x: px, y: py }: PlacedPlanes,
  { from, to: end }: AloneRun,
  y: number,
  to: Layout,
) {
  const n = end - from
  const copy = (plane: 0 | 1 | 2, x: number, row: number, count: number, dst: number) => {
    const src = picture.ptr + picture.offsets[plane] + row * picture.strides[plane] + x
    k.copyBytes(dst, src, count)
  }
  for (let dy = 0; dy < 2; dy++) copy(0, from - px, y + dy - py, n, to.luma + (y + dy) * to.width + from)
  const [x, row, at] = [(from - px) >> 1, (y - py) >> 1, (y >> 1) * to.half + (from >> 1)]
  copy(1, x, row, n >> 1, to.u + at)
  copy(2, x, row, n >> 1, to.v + at)
}

/** Makes the planes of columns [from, end) of two rows out of codes, and what is missing of those first. */
function convert(
  k: Kernels,
  composed: Composer,
  rows: readonly [number, number],
  alone: readonly AloneRun[][],
  [from, end]: readonly [number, number],
  y: number,
  to: Layout,
) {
  if (end <= from) return
  for (let dy = 0; dy < 2; dy++) {
    const [row, runs] = [rows[dy]!, alone[dy]!]
    for (const run of runs) {
      // The chroma of a block is made of its neighbours too.
      const x = Math.max(run.from, from - 2)
      const n = Math.min(run.to, end + 2) - x
      if (n > 0) composed.codes(run.painter, y + dy, x, n, row + x * 4)
    }
    k.lumaRow(row + from * 4, to.luma + (y + dy) * to.width + from, end - from)
  }
  const at = (y >> 1) * to.half
  k.chromaPairRow(rows[0], rows[1], to.u + at, to.v + at, to.width, from, end)
}

function paintPlanes(k: Kernels, plan: Plan, find: Find, size: Size, out: number): void {
  const full = plan.size.width
  const composed = composer(k, plan, { find, shared: new Map() }, 'codes')
  const rows = [k.alloc(full * 4), k.alloc(full * 4)] as const
  const to = layout(size, out)
  for (let y = 0; y < size.height; y += 2) {
    const alone: [AloneRun[], AloneRun[]] = [[], []]
    for (const dy of [0, 1] as const) composed.compose(y + dy, rows[dy], alone[dy])
    let done = 0
    for (const block of blocksOf(...alone, size.width)) {
      const placed = composed.planes(block.painter)
      if (!placed || !canHandOn(placed)) continue
      convert(k, composed, rows, alone, [done, block.from], y, to)
      handOn(k, placed, block, y, to)
      done = block.to
    }
    convert(k, composed, rows, alone, [done, size.width], y, to)
  }
  stayWarm(composed)
}

/**
 * Paints a plan as Y, U and V planes, close together at `out`, of a size of even sides that the plan's own exceeds by at
 * most one. Where the planes of one take alone show as they lie, over whole blocks, they are handed on as they came;
 * everything else goes by way of codes. Throws OutOfMemory.
 */
export function renderPlanes(k: Kernels, plan: Plan, find: Find, size: Size, out: number): void {
  k.scope(() => paintPlanes(k, plan, find, size, out))
}
