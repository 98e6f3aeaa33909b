// Somebody cut out of a take by its plate: frame after frame, alpha and what shadow they throw.
import { goAlong } from './along'
import { believe } from './belief'
import { type Bonds, bonds } from './bonds'
import { blankCells, type Cells, copyCells } from './cells'
import { clean } from './clean'
import { packedColours } from './colours'
import { usualShadow, weigh } from './evidence'
import { movementFinder } from './find-movement'
import { type Gain, inLight, type Light, measureGain, measureLight, POWER } from './light'
import { farBetween, type Movement, movedPlate, STILL } from './movement'
import { measureNoise, type Noise, slopesOf } from './noise'
import { palette } from './palette'
import { boxMean, type Plane, planeIn, pxOf } from './plane'
import type { Measured } from './report'
import { sharpness, tally } from './seen'
import { shadowOf } from './shadow'
import { soften, standing } from './soften'
import { dropFaint } from './specks'
import { steady, type Tones } from './steady'
import { addHint, type Hint, paintAlpha } from './strokes'

export interface CutoutFrame extends Measured {
  /** Of each px, 0..255: how much of it is somebody. */
  alpha: Uint8Array
  /** Red, green and blue of px that are neither nought nor all somebody's, in order: theirs, without what of the set shows through. */
  colours: Uint8Array
  /** Of each cell of 2×2 px, 0..1: how much light of the set is taken away where it shows. */
  shadow: Float32Array
  noise: Noise
}

/** Log odds that the most sensitive cut-out adds. */
const BIAS = 3
const SWEEPS = 2
/** Light that is added, of white, from which on the plate is brought to it, too: less is told too roughly to help. */
const VEILED = 0.005
/** px that the camera may move before the plate is moved with it. */
const FINE = 0.12
/** Log odds at which a cell is surely somebody. */
const SURE = 6
/** Cells round somebody that tell nothing of the set. */
const ROUND = 2
/** Parts smaller than such shares of the picture are specks; holes of more are left alone. */
const SPECK = 1 / 5000
const HOLE = 1 / 300

/** What was painted, and by how many frames away. */
interface Painted {
  hint: Hint
  apart: number
}

export interface Cutout {
  /** The next frame of the take, of the plate's size; with what was painted, by how many frames away that was. */
  next(frame: Cells, hints?: readonly Painted[]): CutoutFrame
  /** The light of the frame that was cut out last, with what is added to all of it. */
  light(frame: Cells): Light
  /** Forgets all that was learnt: the next frame is a first one again. */
  restart(): void
}

/**
 * Cuts frames of a take out by its plate, one after another: what is learnt of each helps with the next. `sensitive`: 0..100, how little somebody
 * has to differ from the set; 50 as a rule. It lives in the memory of the plate. Throws OutOfMemory, as its frames do.
 */
export function cutout(plate: Cells, sensitive = 50): Cutout {
  const { k, full } = plate
  const n = plate.width * plate.height
  const plane = () => planeIn(k, n)
  const finder = movementFinder(plate)
  const [near, lit] = [blankCells(k, full), blankCells(k, full)]
  copyCells(plate, near)
  const before: Tones = { y: plane(), u: plane(), v: plane() }
  const [odds, told, left, is, busy, slopes] = [plane(), plane(), plane(), plane(), plane(), plane()]
  const px = full.width * full.height
  const [alphaNow, alphaBefore, own] = [k.alloc(px), k.alloc(px), k.alloc(px * 4)]
  const ties: Bonds = { across: plane(), down: plane() }
  const limits = { speck: Math.max(12, n * SPECK), hole: n * HOLE }
  const bias = ((sensitive - 50) / 50) * BIAS
  slopesOf(plate, slopes)
  const colours = palette(k)
  let movement = STILL
  let usual = 1
  let isFirst = true
  let isVeiled = false

  /** Brings the plate to where the camera stands. */
  function place(at: Movement): void {
    movement = at
    if (at === STILL) copyCells(plate, near)
    else movedPlate(plate, at, near)
    slopesOf(near, slopes)
  }

  function follow(frame: Cells, [r, g, b]: Gain): Movement {
    const brighter = 0.2126 * r ** POWER + 0.7152 * g ** POWER + 0.0722 * b ** POWER
    const now = finder.find(frame, 1 / brighter, movement)
    if (farBetween(now, movement, full) > FINE) place(now)
    return now
  }

  /** With what is added to all of it, where that was so as the first frame began. */
  function lightOf(frame: Cells, known: Plane | null, gain: Gain): Light {
    const plain = { gain, offset: 0 }
    if (!isFirst && !isVeiled) return plain
    const veiled = measureLight(frame, near, known, gain)
    if (isFirst) isVeiled = Math.abs(veiled.offset) >= VEILED
    return isVeiled ? veiled : plain
  }

  function tell(frame: Cells, noise: Noise, hints: readonly Painted[]): void {
    weigh(frame, lit, { noise, slopes, colours, usual, bias }, { odds, left })
    if (!isFirst) goAlong(frame, before, noise, told, odds)
    for (const { hint, apart } of hints) addHint(hint, frame, apart, odds)
    believe(k, plate, odds, ties, SWEEPS, told)
    clean(k, plate, told, odds, limits)
    colours.learn(frame, told, SURE)
  }

  let last: Gain = [1, 1, 1]
  return {
    light: frame => measureLight(frame, near, busy, last),
    restart() {
      colours.forget()
      isFirst = true
      usual = 1
      if (movement !== STILL) place(STILL)
    },
    next(frame, hints = []) {
      const known = isFirst ? null : busy
      const gain = measureGain(frame, near, known)
      const now = follow(frame, gain)
      inLight(near, lightOf(frame, known, gain), lit)
      const noise = measureNoise(frame, lit, slopes, known)
      bonds(frame, lit, noise, ties)
      tell(frame, noise, hints)
      // Nothing was known of anybody's colours: now it is.
      if (isFirst) tell(frame, noise, hints)
      const part = standing(frame, told, is)
      soften(frame, lit, { slopes, noise }, { is, part, left }, alphaNow, own)
      if (part.width > 0) {
        const wide = pxOf(part, full)
        if (!isFirst) steady(frame, before, noise, { now: alphaNow, before: alphaBefore }, wide)
        // Last of all: what stays of the frame before may lead to nothing by now.
        dropFaint(k, full, alphaNow, wide)
      }
      const alpha = k.bytes(alphaNow, px)
      for (const { hint, apart } of hints) if (apart === 0) paintAlpha(hint, frame, full, alpha)
      usual = usualShadow(told, left)
      k.copyBytes(alphaBefore, alphaNow, px)
      for (const name of ['y', 'u', 'v'] as const) before[name].set(frame[name])
      isFirst = false
      const seen = { ...tally(frame, told, is, left), gain, movement: now, sharp: sharpness(frame, lit, is) }
      busy.fill(0)
      if (part.width > 0) boxMean(k, plate, is, ROUND, busy, part)
      last = gain
      return {
        alpha: alpha.slice(),
        colours: packedColours(frame, alphaNow, own),
        shadow: shadowOf(k, plate, { is, part }, left),
        noise,
        ...seen,
      }
    },
  }
}

/** Bytes that cutting out takes for each px of the picture, its plate and a frame included. */
export const CUTTING_BYTES = 82
