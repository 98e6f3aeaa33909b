// Mattes that stand still are computed once: their rows are kept as long as they go on being asked for.
import type { PlannedPiece } from '../plan'
import { type Kernels, OutOfMemory } from '../render/kernels'
import { matteRow } from './coverage'

/** Bytes of kernel memory that kept mattes may take together. */
const LIMIT = 48 * 2 ** 20

interface Kept {
  ptr: number
  bytes: number
  /** How many pictures are being painted with it. */
  users: number
}

export interface StillMatte {
  ptr: number
  stride: number
  release(): void
}

interface Memory {
  /** Mattes by what makes them, the one used longest ago first. */
  kept: Map<string, Kept>
  /** What was asked for lately and is not kept: only the second asking pays for keeping. */
  seen: Set<string>
  used: number
}

const memories = new WeakMap<Kernels, Memory>()

function memoryOf(k: Kernels): Memory {
  const memory = memories.get(k) ?? { kept: new Map(), seen: new Set(), used: 0 }
  memories.set(k, memory)
  return memory
}

function giveUp(k: Kernels, memory: Memory, bytes: number): void {
  for (const [key, { ptr, bytes: own, users }] of memory.kept) {
    if (memory.used + bytes <= LIMIT) return
    if (users > 0) continue
    k.free(ptr)
    memory.kept.delete(key)
    memory.used -= own
  }
}

function keep(k: Kernels, pieces: readonly PlannedPiece[], width: number, height: number, stride: number): Kept | null {
  let ptr: number
  try {
    ptr = k.alloc(stride * height)
  } catch (error) {
    // Without room it is made row by row, as a moving one is.
    if (error instanceof OutOfMemory) return null
    throw error
  }
  const spare = k.alloc(stride)
  for (let y = 0; y < height; y++) matteRow(k, pieces, y, width, ptr + y * stride, spare)
  k.free(spare)
  return { ptr, bytes: stride * height, users: 0 }
}

function lend(kept: Kept, stride: number): StillMatte {
  kept.users++
  return {
    ptr: kept.ptr,
    stride,
    release() {
      kept.users--
    },
  }
}

/**
 * The rows of a matte that has been asked for before with the very same numbers: a pointer to row 0 and the bytes from
 * row to row. null the first time, or where it would not fit; then rows are to be made with `matteRow`. Stays good
 * until `release`.
 */
export function stillMatte(
  k: Kernels,
  pieces: readonly PlannedPiece[],
  width: number,
  height: number,
): StillMatte | null {
  const stride = (width * 4 + 127) & ~63
  if (stride * height > LIMIT / 2) return null
  const memory = memoryOf(k)
  const key = `${width} ${height} ${JSON.stringify(pieces)}`
  const old = memory.kept.get(key)
  if (old) {
    memory.kept.delete(key)
    memory.kept.set(key, old)
    return lend(old, stride)
  }
  if (!memory.seen.has(key)) {
    if (memory.seen.size > 32) memory.seen.clear()
    memory.seen.add(key)
    return null
  }
  giveUp(k, memory, stride * height)
  const made = keep(k, pieces, width, height, stride)
  if (!made) return null
  memory.seen.delete(key)
  memory.kept.set(key, made)
  memory.used += made.bytes
  return lend(made, stride)
}
