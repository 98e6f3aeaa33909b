// The kernels' module with its memory.

import type { KernelFunctions } from './kernel-functions'
import { type Arena, arena } from './memory'
import { type NamedKernels, namedKernels } from './named-kernels'

export interface Kernels extends KernelFunctions, NamedKernels, Arena {
  /** Bytes at a pointer; the view stays good, since the memory never grows. */
  bytes(ptr: number, length: number): Uint8Array<ArrayBuffer>
  ints(ptr: number, length: number): Int32Array<ArrayBuffer>
  floats(ptr: number, length: number): Float32Array<ArrayBuffer>
  doubles(ptr: number, length: number): Float64Array<ArrayBuffer>
  /** The same kernels with another memory, which goes when nothing holds them any more. */
  apart(bytes: number): Promise<Kernels>
}

const PAGE = 65536

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
    ...namedKernels(instance.exports as Parameters<typeof namedKernels>[0]),
    ...heap,
    bytes: (ptr, length) => new Uint8Array(buffer, ptr, length),
    ints: (ptr, length) => new Int32Array(buffer, ptr, length),
    floats: (ptr, length) => new Float32Array(buffer, ptr, length),
    doubles: (ptr, length) => new Float64Array(buffer, ptr, length),
    apart: other => loadKernels(module, other),
  }
}
