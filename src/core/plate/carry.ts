// Somebody told by strokes alone, where there is no plate, and carried from there from frame to frame.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { guessBehind } from './behind'
import { believe } from './belief'
import { BLOCK, shifted, shiftsOf, squaresOf } from './blocks'
import { type Bonds, bonds } from './bonds'
import { blankCells, type Cells } from './cells'
import { clean } from './clean'
import { packedColours } from './colours'
import { geodesic } from './geodesic'
import type { Noise } from './noise'
import { palette } from './palette'
import { boxMean, type Plane, planeIn, pxOf } from './plane'
import { tally } from './seen'
import { soften, standing } from './soften'
import { dropFaint } from './specks'
import type { Tones } from './steady'
import { CERTAIN, type Hint, underHint } from './strokes'

/** Log odds that a way to what was painted is worth at most, and colours that were seen of one and of the other. */
const NEAR = 7
const COLOURS = 3
/** Log odds that were told of a frame before, as far as they go, and how much of them is left. */
const KNOWN = 9
const KEEP = 0.6
/** Cells beside a border in which nothing is taken from the frame before. */
const LOOSE = 1
/** Log odds at which colours are learnt. */
const SURE = 4
const SWEEPS = 2
const SPECK = 1 / 5000
const HOLE = 1 / 2000
/** How much pictures differ by noise, codes². */
const NOISE: Noise = { y: new Float32Array(16).fill(3), u: 2, v: 2, slope: 0.004, slopeC: 0.004 }
/** Of log odds that are put by: steps each. */
const PARTS = 8

/** Parts with nothing of what was painted in them are none: far from all strokes chance decides. */
function dropApart({ width, height }: Size, told: Plane, kept: readonly number[]): void {
  const isJoined = new Uint8Array(width * height)
  const found = kept.filter(i => told[i]! > 0)
  for (const i of found) isJoined[i] = 1
  for (let at = 0; at < found.length; at++) {
    const i = found[at]!
    const x = i % width
    for (const j of [x > 0 ? i - 1 : i, x < width - 1 ? i + 1 : i, i - width, i + width]) {
      if (j < 0 || j >= told.length || isJoined[j] === 1 || told[j]! <= 0) continue
      isJoined[j] = 1
      found.push(j)
    }
  }
  for (let i = 0; i < told.length; i++) if (told[i]! > 0 && isJoined[i] === 0) told[i] = -told[i]!
}

export interface Carried {
  alpha: Uint8Array
  colours: Uint8Array
  /** 0..1: the share of their border that was told only just. */
  unsure: number
}

/** Log odds put by, a byte a cell. */
export type Told = Int8Array

export interface Carrier {
  /** Begins at a frame that was painted on. Throws OutOfMemory. */
  begin(frame: Cells, hints: readonly Hint[]): void
  /** Goes on to the frame beside it. */
  go(frame: Cells): void
  /** What is told of the present frame. */
  told(): Told
  /** Somebody in a frame, by what is told of it from one side or from both: the nearer one counts for more. */
  finish(frame: Cells, sides: readonly { told: Told; weight: number }[]): Carried
}

/** Prepares pictures of a size; it lives in the memory of `k`. Throws OutOfMemory. */
export function carrier(k: Kernels, full: Size): Carrier {
  const behind = blankCells(k, full)
  const size = { width: behind.width, height: behind.height }
  const n = size.width * size.height
  const plane = () => planeIn(k, n)
  const [odds, told, prior, is, left, slopes] = [plane(), plane(), plane(), plane(), plane(), plane()]
  const before = { ...size, y: plane() }
  const nothing: Tones = { y: plane(), u: plane(), v: plane() }
  const ties: Bonds = { across: plane(), down: plane() }
  const [own, other] = [palette(k), palette(k)]
  const px = full.width * full.height
  const [alpha, colours] = [k.alloc(px), k.alloc(px * 4)]
  const limits = { speck: Math.max(8, n * SPECK), hole: n * HOLE }
  left.fill(1)

  function learn(frame: Cells): void {
    own.learn(frame, told, SURE)
    for (let i = 0; i < n; i++) prior[i] = -told[i]!
    other.learn(frame, prior, SURE)
  }

  /** Adds what colours say that were seen of somebody and of all else. */
  function weighColours(frame: Cells): void {
    k.weighColours({
      y: frame.y.byteOffset,
      u: frame.u.byteOffset,
      v: frame.v.byteOffset,
      n,
      own: own.known.byteOffset,
      other: other.known.byteOffset,
      most: COLOURS,
      odds: odds.byteOffset,
    })
  }

  function settle(frame: Cells): void {
    bonds(frame, nothing, NOISE, ties)
    believe(k, size, odds, ties, SWEEPS, told)
    clean(k, size, told, odds, limits)
    learn(frame)
    before.y.set(frame.y)
  }

  return {
    begin(frame, hints) {
      own.forget()
      other.forget()
      const under = (does: Hint['does']) => hints.filter(h => h.does === does).flatMap(underHint)
      const [kept, lost] = [under('keep'), under('lose')]
      const [toKept, toLost] = [geodesic(frame, kept), geodesic(frame, lost)]
      for (let i = 0; i < n; i++) {
        const [a, b] = [toKept[i]!, toLost[i]!]
        odds[i] = (NEAR * (b - a)) / (a + b + 0.01)
        told[i] = odds[i]!
      }
      learn(frame)
      weighColours(frame)
      for (const i of kept) odds[i] = CERTAIN
      for (const i of lost) odds[i] = -CERTAIN
      settle(frame)
      dropApart(size, told, kept)
    },
    go(frame) {
      // Only what lies about somebody has to be looked for.
      standing(frame, told, is)
      boxMean(k, size, is, BLOCK * 2, prior)
      const squares = squaresOf(size)
      const isNear = Uint8Array.from({ length: squares.width * squares.height }, (_, at) => {
        const x = Math.min(size.width - 1, (at % squares.width) * BLOCK + BLOCK / 2)
        const y = Math.min(size.height - 1, Math.floor(at / squares.width) * BLOCK + BLOCK / 2)
        return prior[y * size.width + x]! > 0.001 ? 1 : 0
      })
      const shifts = shiftsOf(k, frame, before, isNear)
      for (let i = 0; i < n; i++) odds[i] = Math.max(-KNOWN, Math.min(KNOWN, told[i]!)) * KEEP
      shifted(size, odds, shifts, prior)
      boxMean(k, size, prior, LOOSE, odds)
      weighColours(frame)
      settle(frame)
    },
    told: () => Int8Array.from(told, v => Math.max(-127, Math.min(127, v * PARTS))),
    finish(frame, sides) {
      // What goes on from here is told by its own side alone.
      const all = odds
      all.fill(0)
      for (const { told: side, weight } of sides) for (let i = 0; i < n; i++) all[i]! += (side[i]! / PARTS) * weight
      const part = standing(frame, all, is)
      guessBehind(frame, is, behind)
      soften(frame, behind, { slopes, noise: NOISE, isGuess: true }, { is, part, left }, alpha, colours)
      if (part.width > 0) dropFaint(k, frame.full, alpha, pxOf(part, frame.full))
      const { unsure } = tally(k, all, is, left)
      return { alpha: k.bytes(alpha, px).slice(), colours: packedColours(frame, alpha, colours), unsure }
    },
  }
}
