// Grain: what an averaged plate, a still or a drawing has lost beside live footage.
import type { Kernels } from '../render/kernels'
import type { LookKind } from './kind'

export interface PlannedGrain {
  kind: 'grain'
  /** σ in codes: in the dark, between, and in the light. */
  amounts: readonly [number, number, number]
  /** px of the picture. */
  size: number
  /** 0..1: how much of it each channel has for itself. */
  colour: number
  seed: number
}

/** px of a side of the tile of grain, as the kernel has it. */
const SIDE = 512
/** Codes that are dark, between and light. */
const CODES = [16, 128, 240] as const
/** Sizes for which tiles are kept. */
const KEPT = 4

const tiles = new Map<number, Float32Array>()

/** White numbers about nought of unit variance, nearly normal (sums of four even ones), the same everywhere. */
function white(): Float32Array {
  let state = 1
  const one = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
  return Float32Array.from({ length: SIDE * SIDE }, () => (one() + one() + one() + one() - 2) * Math.sqrt(3))
}

/** Weights of a round grain along one line, their squares adding up to one. */
function weightsOf(size: number): number[] {
  const reach = Math.floor(size)
  const raw = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.max(0, 1 - ((i - reach) / size) ** 2) ** 2)
  const length = Math.sqrt(raw.reduce((sum, w) => sum + w * w, 0))
  return raw.map(w => w / length)
}

/** Grain as it is measured: σ in codes in the dark, between and in the light, px, and how much of it each channel has for itself, 0..1. */
export interface Grain {
  dark: number
  middle: number
  light: number
  size: number
  colour: number
}

/** The size of grain whose neighbours are alike by so much, -1..1; px. */
export function grainSize(likeness: number): number {
  for (let size = 1; size < 8; size += 0.1) {
    const weights = weightsOf(size)
    const own = weights.reduce((sum, w, i) => sum + w * (weights[i + 1] ?? 0), 0)
    if (own >= likeness) return Number(size.toFixed(1))
  }
  return 8
}

/** A tile that repeats without a seam, of unit variance, with grains of so many px. */
function tileOf(size: number): Float32Array {
  const key = Math.round(size * 20) / 20
  const known = tiles.get(key)
  if (known) return known
  const weights = weightsOf(Math.max(1, key))
  const reach = weights.length >> 1
  let from = white()
  for (const step of weights.length > 1 ? [1, SIDE] : []) {
    const to = new Float32Array(from.length)
    for (let y = 0; y < SIDE; y++) {
      for (let x = 0; x < SIDE; x++) {
        let sum = 0
        for (let i = -reach; i <= reach; i++) {
          const at = step === 1 ? y * SIDE + ((x + i) & (SIDE - 1)) : ((y + i) & (SIDE - 1)) * SIDE + x
          sum += weights[i + reach]! * from[at]!
        }
        to[y * SIDE + x] = sum
      }
    }
    from = to
  }
  tiles.set(key, from)
  for (const oldest of tiles.keys()) if (tiles.size > KEPT) tiles.delete(oldest)
  return from
}

const placed = (k: Kernels, numbers: Float32Array): number => {
  const ptr = k.alloc(numbers.byteLength)
  k.floats(ptr, numbers.length).set(numbers)
  return ptr
}

/** σ of each code, straight between those that are told. */
const amountsByCode = ([dark, middle, light]: PlannedGrain['amounts']): Float32Array =>
  Float32Array.from({ length: 256 }, (_, code) => {
    const [a, b, from, to] = code < CODES[1] ? [dark, middle, CODES[0], CODES[1]] : [middle, light, CODES[1], CODES[2]]
    const share = Math.max(0, Math.min(1, (code - from) / (to - from)))
    return a + (b - a) * share
  })

const amount = (name: string) => ({ name, least: 0, most: 30, initial: 2, step: 0.1, digits: 1 })

export const GRAIN: LookKind<PlannedGrain> = {
  name: 'Grain',
  use: 'Lets a plate or a still live beside footage.',
  values: {
    dark: amount('Dark'),
    middle: amount('Middle'),
    light: amount('Bright'),
    size: { name: 'Size', unit: 'px', least: 0.5, most: 16, initial: 1, step: 0.1, digits: 1 },
    colour: { name: 'Colour', unit: '%', least: 0, most: 100, initial: 30, step: 5 },
  },
  plan({ dark = 0, middle = 0, light = 0, size = 1, colour = 0 }, scale, frame) {
    if (dark === 0 && middle === 0 && light === 0) return null
    // Grains smaller than a px even each other out.
    const seen = Math.min(1, size * scale)
    const amounts = [dark * seen, middle * seen, light * seen] as const
    return { kind: 'grain', amounts, size: Math.max(1, size * scale), colour: colour / 100, seed: frame >>> 0 }
  },
  rows(k, { amounts, size, colour, seed }, source) {
    const { width, height, opaque } = source
    const tile = placed(k, tileOf(size))
    const table = placed(k, amountsByCode(amounts))
    // So that the grain of a channel is as strong, however much of it is its own.
    const [same, own] = [Math.sqrt(1 - colour), Math.sqrt(colour)]
    let row = 0
    const codes = (x: number, n: number, dst: number) => {
      source.codes(x, n, dst)
      k.grainRow(dst, n, x, row, tile, table, seed, same, own)
    }
    return {
      width,
      height,
      opaque,
      ...(source.steady && { steady: true }),
      open(y) {
        row = y
        source.open(y)
      },
      codes,
      linear(x, n, dst, spare) {
        codes(x, n, spare)
        k.toLinear(spare, dst, n)
      },
    }
  },
}
