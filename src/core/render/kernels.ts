// The kernels' module with its memory, and who may use which part of it.

/** The functions of kernels.wasm; each is described where it is written. Pointers are byte addresses. */
interface KernelFunctions {
  heapBase(): number
  prepareTransfer(): void
  toLinear(src: number, dst: number, n: number): void
  toCodes(src: number, dst: number, n: number): void
  chromaRow(
    near: number,
    far: number,
    weight: number,
    chromaWidth: number,
    width: number,
    half: number,
    centred: number,
    out: number,
  ): void
  yuvRow(
    luma: number,
    u: number,
    v: number,
    out: number,
    n: number,
    black: number,
    y: number,
    rv: number,
    gu: number,
    gv: number,
    bu: number,
  ): void
  lumaRow(src: number, dst: number, n: number): void
  chromaPairRow(top: number, bottom: number, u: number, v: number, width: number): void
  overRow(dst: number, src: number, coverage: number, n: number, opacity: number): void
  blendRow(dst: number, src: number, coverage: number, n: number, opacity: number, mode: number): void
  fillRow(dst: number, n: number, r: number, g: number, b: number, a: number): void
  classifyRow(classes: number, coverage: number, n: number, layer: number, opaque: number): number
  findRuns(classes: number, n: number, out: number): number
  edgeRow(
    out: number,
    n: number,
    y: number,
    px: number,
    py: number,
    nx: number,
    ny: number,
    grow: number,
    inside: number,
    outside: number,
  ): void
  boxRow: OvalRow
  ovalRow: OvalRow
  joinRow(matte: number, piece: number, n: number, mode: number, strength: number, inverted: number): void
  fillCoverage(dst: number, n: number, value: number): void
  multiplyRow(matte: number, other: number, n: number): void
  frameRectRow(out: number, n: number, y: number, left: number, top: number, right: number, bottom: number): void
  filterRow(src: number, dst: number, n: number, taps: number, weights: number, count: number): void
  accumulateRow(dst: number, src: number, n: number, weight: number): void
  spinRow(
    src: number,
    width: number,
    height: number,
    dst: number,
    n: number,
    u: number,
    v: number,
    du: number,
    dv: number,
  ): void
  turnPicture(src: number, dst: number, width: number, height: number, quarters: number): void
}

type OvalRow = (
  out: number,
  n: number,
  y: number,
  cx: number,
  cy: number,
  hw: number,
  hh: number,
  cos: number,
  sin: number,
  grow: number,
  inside: number,
  outside: number,
) => void

export interface Kernels extends KernelFunctions {
  /** Bytes at a pointer; the view stays good, since the memory never grows. */
  bytes(ptr: number, length: number): Uint8Array<ArrayBuffer>
  ints(ptr: number, length: number): Int32Array<ArrayBuffer>
  floats(ptr: number, length: number): Float32Array<ArrayBuffer>
  /** Reserves bytes (16-aligned, 64 bytes of slack behind them for whole-register reads). Throws OutOfMemory. */
  alloc(length: number): number
  free(ptr: number): void
  /** Bytes that could still be reserved in one piece. */
  largestFree(): number
}

export class OutOfMemory extends Error {
  override name = 'OutOfMemory'
}

const PAGE = 65536
const SLACK = 64

/** First-fit reservation in a fixed stretch of memory; neighbours that are free are one piece. */
export function arena(start: number, end: number) {
  const used = new Map<number, number>()
  let gaps: { at: number; size: number }[] = [{ at: start, size: end - start }]
  return {
    alloc(length: number): number {
      const size = (length + SLACK + 15) & ~15
      const i = gaps.findIndex(g => g.size >= size)
      const gap = gaps[i]
      if (!gap) throw new OutOfMemory(`No room for ${length} more bytes of pictures.`)
      const { at } = gap
      used.set(at, size)
      if (gap.size === size) gaps.splice(i, 1)
      else gaps[i] = { at: at + size, size: gap.size - size }
      return at
    },
    free(ptr: number): void {
      const size = used.get(ptr)
      if (size === undefined) throw new Error(`Nothing is reserved at ${ptr}.`)
      used.delete(ptr)
      gaps.push({ at: ptr, size })
      gaps.sort((a, b) => a.at - b.at)
      const joined: typeof gaps = []
      for (const gap of gaps) {
        const last = joined.at(-1)
        if (last && last.at + last.size === gap.at) last.size += gap.size
        else joined.push({ ...gap })
      }
      gaps = joined
    },
    largestFree: (): number => gaps.reduce((most, g) => Math.max(most, g.size), 0) - SLACK - 16,
  }
}

/**
 * Instantiates the kernels with a fixed memory. `bytes` is what pictures, caches and buffers may take together; the
 * operating system gives pages only as they are touched, so a generous figure costs nothing.
 */
export async function loadKernels(module: WebAssembly.Module, bytes: number): Promise<Kernels> {
  const pages = Math.min(65536, Math.ceil(bytes / PAGE))
  const memory = new WebAssembly.Memory({ initial: pages })
  const instance = await WebAssembly.instantiate(module, { env: { memory } })
  const functions = instance.exports as unknown as KernelFunctions
  functions.prepareTransfer()
  const heap = arena((functions.heapBase() + 15) & ~15, pages * PAGE)
  const buffer = memory.buffer as ArrayBuffer
  return {
    ...functions,
    ...heap,
    bytes: (ptr, length) => new Uint8Array(buffer, ptr, length),
    ints: (ptr, length) => new Int32Array(buffer, ptr, length),
    floats: (ptr, length) => new Float32Array(buffer, ptr, length),
  }
}
