// What stands still is made once: rows of mattes and of groups, kept as long as they go on being asked for.
import type { Kernels } from './kernels'
import { OutOfMemory } from './memory'

/** Bytes of kernel memory that kept rows may take together: so much, or a share of it where there is little. */
const LIMIT = 96 * 2 ** 20
const SHARE = 1 / 8
/** How many of those asked for lately are remembered. */
const LATELY = 64

interface Kept extends KeptRows {
  bytes: number
  /** How many pictures are being painted with it. */
  users: number
}

/** Row y lies at ptr + y * stride. */
export interface KeptRows {
  ptr: number
  stride: number
}

interface Memory {
  limit: number
  /** By what makes them, the one used longest ago first. */
  kept: Map<string, Kept>
  /** What was asked for lately and is not kept: only the second asking pays for keeping. */
  seen: Set<string>
  used: number
}

const memories = new WeakMap<Kernels, Memory>()

function memoryOf(k: Kernels): Memory {
  const limit = Math.min(LIMIT, k.total * SHARE)
  const memory = memories.get(k) ?? { limit, kept: new Map(), seen: new Set(), used: 0 }
  memories.set(k, memory)
  return memory
}

function giveUp(k: Kernels, memory: Memory, bytes: number): void {
  for (const [key, { ptr, bytes: own, users }] of memory.kept) {
    if (memory.used + bytes <= memory.limit) return
    if (users > 0) continue
    k.free(ptr)
    memory.kept.delete(key)
    memory.used -= own
  }
}

/** Makes rows within a scope of their own; null where there is no room: then they are made one by one, as moving ones are. */
function make(k: Kernels, stride: number, height: number, rows: () => (y: number, out: number) => void): Kept | null {
  let ptr = 0
  try {
    ptr = k.alloc(stride * height)
    k.scope(() => {
      const row = rows()
      for (let y = 0; y < height; y++) row(y, ptr + y * stride)
    })
  } catch (error) {
    if (!(error instanceof OutOfMemory)) throw error
    if (ptr) k.free(ptr)
    return null
  }
  return { ptr: k.keep(ptr), stride, bytes: stride * height, users: 0 }
}

/** Good until the scope that asked is left. */
function lend(k: Kernels, kept: Kept): KeptRows {
  kept.users++
  k.atEnd(() => {
    kept.users--
  })
  return kept
}

export interface Wish {
  /** What makes the rows: equal ones are equal rows. */
  digest: string
  /** Bytes from row to row. */
  stride: number
  height: number
  /** Opens what makes row y, at out. Called in a scope that is left when all rows are there. */
  rows: () => (y: number, out: number) => void
}

/**
 * Rows that have been asked for before. null the first time, or where they would not fit; then they are to be made one
 * by one. Good until the present scope is left.
 */
export function keptRows(k: Kernels, { digest, stride, height, rows }: Wish): KeptRows | null {
  const memory = memoryOf(k)
  const bytes = stride * height
  if (bytes > memory.limit / 2) return null
  const key = `${stride}x${height} ${digest}`
  const old = memory.kept.get(key)
  if (old) {
    memory.kept.delete(key)
    memory.kept.set(key, old)
    return lend(k, old)
  }
  if (!memory.seen.has(key)) {
    if (memory.seen.size > LATELY) memory.seen.clear()
    memory.seen.add(key)
    return null
  }
  giveUp(k, memory, bytes)
  const made = make(k, stride, height, rows)
  if (!made) return null
  memory.seen.delete(key)
  memory.kept.set(key, made)
  memory.used += made.bytes
  return lend(k, made)
}
