// The kernels as tests load them, and buffers filled for them.
import { readFile } from 'node:fs/promises'
import { type Kernels, loadKernels } from '../core/render'

export async function testKernels(bytes = 256 << 20): Promise<Kernels> {
  const path = new URL('../../build/kernels.wasm', import.meta.url)
  return loadKernels(await WebAssembly.compile(await readFile(path)), bytes)
}

export function putBytes(k: Kernels, data: ArrayLike<number>): number {
  const ptr = k.alloc(data.length)
  k.bytes(ptr, data.length).set(data)
  return ptr
}

export function putFloats(k: Kernels, data: ArrayLike<number>): number {
  const ptr = k.alloc(data.length * 4)
  k.floats(ptr, data.length).set(data)
  return ptr
}

/** Numbers 0..1 one after another, the same for the same seed. */
export function random(seed: number): () => number {
  let state = seed
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/** Whole numbers 0..below, the same for the same seed. */
export function noise(count: number, below: number, seed = 1): number[] {
  const next = random(seed)
  return Array.from({ length: count }, () => Math.floor(next() * below))
}

export const decode = (code: number): number => {
  const v = code / 255
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
}

export const encode = (v: number): number => {
  const c = Math.max(0, Math.min(1, v))
  return 255 * (c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055)
}
