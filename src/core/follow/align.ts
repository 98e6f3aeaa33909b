// A flat thing laid onto how it looked at first, by all of its px at once.
import quickselect from 'quickselect'
import { scaling } from '../affine'
import { type Projective, projectAfter, projective, unproject } from '../projective'
import { solved } from './equations'
import type { Grey } from './pyramid'

/** Px of it that are looked at, at most; and without how many it tells nothing. */
const MOST = 2500
const LEAST = 60
/** The slope that a px has to have to say where it is, codes a px. */
const SLOPE = 1.5
const ROUNDS = 12
/** px that no longer count. */
const STILL = 0.002
/** The numbers of a small perspective that are no shift, and px by which its form is expected to change from one picture to the next: where it tells little of itself it stays. */
const FORM = [0, 1, 3, 4, 6, 7] as const
const CALM = 0.05
/** Codes by which px may be off, at least, and count in full; and how many times the usual, Tukey's constant. */
const CLOSE = 1.5
const REACH = 4.685

/** How a flat thing looked at first, at places of a picture of which one px is `size` of the whole one. */
export interface Looks {
  count: number
  size: number
  /** From px of the picture to numbers about nought, which settle better. */
  about: Projective
  places: Float64Array
  values: Float64Array
  /** What a px changes by with each of the eight numbers of a small perspective. */
  slopes: Float64Array
  /** How much each was seen when they were last found, 0..1. */
  trust: Float64Array
}

/** How what lies inside looks in a picture; null where there is too little. Px of the whole picture. */
export function looksOf(
  { width, height, data }: Grey,
  size: number,
  isInside: (x: number, y: number) => boolean,
): Looks | null {
  const eachSteep = (use: (x: number, y: number, gx: number, gy: number) => void): void => {
    for (let y = 1; y < height - 1; y++) {
      for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
        const [gx, gy] = [(data[i + 1]! - data[i - 1]!) / 2, (data[i + width]! - data[i - width]!) / 2]
        if (gx * gx + gy * gy < SLOPE * SLOPE) continue
        // A px more to each side, so that what lies behind it has no part in its slopes.
        const [left, top, right, bottom] = [(x - 0.5) * size, (y - 0.5) * size, (x + 1.5) * size, (y + 1.5) * size]
        if (!isInside(left, top) || !isInside(right, bottom) || !isInside(right, top) || !isInside(left, bottom))
          continue
        use(x, y, gx, gy)
      }
    }
  }
  let count = 0
  eachSteep(() => {
    count++
  })
  if (count < LEAST) return null
  // Evenly chosen, without keeping what may be all of a large picture.
  const step = Math.max(1, count / MOST)
  const some: { x: number; y: number; gx: number; gy: number; value: number }[] = []
  let at = 0
  eachSteep((x, y, gx, gy) => {
    if (at === Math.floor(some.length * step))
      some.push({ x: x + 0.5, y: y + 0.5, gx, gy, value: data[y * width + x]! })
    at++
  })
  const n = some.length
  const mean = (of: 'x' | 'y') => some.reduce((sum, p) => sum + p[of], 0) / n
  const [mx, my] = [mean('x'), mean('y')]
  const far = some.reduce((sum, p) => sum + Math.hypot(p.x - mx, p.y - my), 0) / n || 1
  const slopes = new Float64Array(n * 8)
  some.forEach(({ x, y, gx, gy }, i) => {
    const [u, v] = [(x - mx) / far, (y - my) / far]
    const [a, b] = [gx * far, gy * far]
    const turn = a * u + b * v
    slopes.set([a * u, a * v, a, b * u, b * v, b, -turn * u, -turn * v], i * 8)
  })
  return {
    count: n,
    size,
    about: projective(scaling(1 / far, -mx / far, -my / far)),
    places: Float64Array.from(some.flatMap(p => [p.x, p.y])),
    values: Float64Array.from(some, p => p.value),
    slopes,
    trust: new Float64Array(n).fill(1),
  }
}

export interface Aligned {
  map: Projective
  /** 0..1: how alike it looks where it is seen. */
  alike: number
  /** 0..1: how much of it is seen. */
  seen: number
}

/** Values of a picture at the places that a map brings the looks to; NaN beyond its border. */
function seenAt({ width, height, data }: Grey, { places, count }: Looks, map: Projective, out: Float64Array): void {
  for (let i = 0; i < count; i++) {
    const [px, py] = [places[i * 2]!, places[i * 2 + 1]!]
    const q = map.g * px + map.h * py + map.w
    const x = (map.a * px + map.c * py + map.x) / q - 0.5
    const y = (map.b * px + map.d * py + map.y) / q - 0.5
    if (!(q > 0 && x >= 0 && y >= 0 && x < width - 1 && y < height - 1)) {
      out[i] = Number.NaN
      continue
    }
    const [ix, iy] = [Math.floor(x), Math.floor(y)]
    const [s, t] = [x - ix, y - iy]
    const at = iy * width + ix
    const top = data[at]! * (1 - s) + data[at + 1]! * s
    out[i] = top * (1 - t) + (data[at + width]! * (1 - s) + data[at + width + 1]! * s) * t
  }
}

/** The light that brings looks onto what is seen, with weights: seen = gain * value + lift; and how alike they are then. */
function lightOf(values: Float64Array, seen: Float64Array, weights: Float64Array) {
  let [n, a, b, aa, bb, ab] = [0, 0, 0, 0, 0, 0]
  for (let i = 0; i < seen.length; i++) {
    const w = weights[i]!
    if (w === 0) continue
    const [p, q] = [values[i]!, seen[i]!]
    n += w
    a += w * p
    b += w * q
    aa += w * p * p
    bb += w * q * q
    ab += w * p * q
  }
  const [va, vb, cov] = [aa - (a * a) / n, bb - (b * b) / n, ab - (a * b) / n]
  const gain = cov / va
  return { gain, lift: (b - gain * a) / n, alike: cov / Math.sqrt(va * vb) }
}

/**
 * Lays looks onto a picture, from a map that is nearly right on, in px of the whole one (inverse compositional: Baker and Matthews, Lucas–Kanade 20 Years On, 2004; with weights
 * that let go of what is hidden: Tukey's biweight). null where they do not settle.
 */
export function align(picture: Grey, looks: Looks, start: Projective): Aligned | null {
  const { count, values, slopes, about, size, trust } = looks
  const [small, whole] = [projective(scaling(1 / size)), projective(scaling(size))]
  let map = projectAfter(small, projectAfter(start, whole))
  const seen = new Float64Array(count)
  const weights = new Float64Array(count)
  const off = new Float64Array(count)
  const sizes = new Array<number>(count).fill(0)
  const backAbout = unproject(about)
  /** Eight equations, nine numbers each, of which those left of the diagonal are the others' mirror. */
  const totals = new Float64Array(72)
  /** How far its form has gone from where it began. */
  const bent = new Float64Array(8)
  let spread = 1
  let alike = 0
  let shown = 0
  for (let round = 0; round < ROUNDS; round++) {
    seenAt(picture, looks, map, seen)
    // What was hidden a frame ago most likely is hidden still, and is to say nothing of the light.
    if (round === 0) weights.set(trust)
    for (let i = 0; i < count; i++) if (Number.isNaN(seen[i]!)) weights[i] = 0
    let light = lightOf(values, seen, weights)
    if (!(light.gain > 0)) return null
    // Twice: the first light is told by what is hidden, too.
    for (let time = 0; time < 2; time++) {
      for (let i = 0; i < count; i++) off[i] = (seen[i]! - light.lift) / light.gain - values[i]!
      let told = 0
      for (let i = 0; i < count; i++) if (weights[i]! > 0.2) sizes[told++] = Math.abs(off[i]!)
      if (told < LEAST) return null
      quickselect(sizes, told >> 1, 0, told - 1)
      spread = Math.max(CLOSE, 1.4826 * sizes[told >> 1]!)
      const reach = REACH * spread
      for (let i = 0; i < count; i++) {
        const r = off[i]! / reach
        weights[i] = Math.abs(r) < 1 ? (1 - r * r) ** 2 : 0
      }
      light = lightOf(values, seen, weights)
      if (!(light.gain > 0)) return null
    }
    alike = light.alike
    shown = weights.reduce((sum, w) => sum + w, 0) / count
    totals.fill(0)
    for (let i = 0; i < count; i++) {
      const w = weights[i]!
      if (w === 0) continue
      const r = (seen[i]! - light.lift) / light.gain - values[i]!
      for (let j = 0; j < 8; j++) {
        const s = w * slopes[i * 8 + j]!
        for (let m = j; m < 8; m++) totals[j * 9 + m]! += s * slopes[i * 8 + m]!
        totals[j * 9 + 8]! += s * r
      }
    }
    const sums = Array.from({ length: 8 }, (_, j) => [...totals.subarray(j * 9, j * 9 + 9)])
    const calm = (spread / (CALM * about.a)) ** 2
    for (const j of FORM) {
      sums[j]![j]! += calm
      sums[j]![8]! -= calm * bent[j]!
    }
    for (let j = 1; j < 8; j++) for (let m = 0; m < j; m++) sums[j]![m] = sums[m]![j]!
    const by = solved(sums)
    if (!by) return null
    const [a, c, x, b, d, y, g, h] = by as [number, number, number, number, number, number, number, number]
    const step: Projective = { a: 1 + a, c, x, b, d: 1 + d, y, g, h, w: 1 }
    map = projectAfter(map, projectAfter(backAbout, projectAfter(unproject(step), about)))
    by.forEach((v, j) => {
      bent[j]! += v
    })
    const most = Math.max(...by.map(Math.abs))
    if (!(most < 1)) return null
    if (most / about.a < STILL) break
  }
  const found = projectAfter(whole, projectAfter(map, small))
  trust.set(weights)
  return Object.values(found).every(Number.isFinite) ? { map: found, alike, seen: shown } : null
}
