// Somebody cut out of a take by its plate: frame after frame, alpha and what shadow they throw.
import { beliefRoom, believe } from './belief'
import { bonds } from './bonds'
import { blankCells, type Cells, copyCells } from './cells'
import { clean } from './clean'
import { evidenceRoom, usualShadow, weigh } from './evidence'
import { movementFinder } from './find-movement'
import { type Gain, inLight, measureGain, POWER } from './light'
import { farBetween, type Movement, movedPlate, STILL } from './movement'
import { measureNoise, type Noise, slopesOf } from './noise'
import { palette } from './palette'
import { shadowOf } from './shadow'
import { boxMean } from './smooth'
import { soften } from './soften'
import { steady, stillness } from './steady'

export interface CutoutFrame {
  /** Of each px, 0..255: how much of it is somebody. */
  alpha: Uint8Array
  /** Of each cell of 2×2 px, 0..1: how much light of the set is taken away where it shows. */
  shadow: Float32Array
  gain: Gain
  noise: Noise
  movement: Movement
}

/** Log odds that the most sensitive cut-out adds. */
const BIAS = 3
const SWEEPS = 2
/** px that the camera may move before the plate is moved with it. */
const FINE = 0.12
/** Log odds at which a cell is surely somebody. */
const SURE = 6
/** Cells round somebody that tell nothing of the set. */
const ROUND = 2
/** Parts smaller than such shares of the picture are specks; holes of more are left alone. */
const SPECK = 1 / 5000
const HOLE = 1 / 300

export interface Cutout {
  /** The next frame of the take, of the plate's size. */
  next(frame: Cells): CutoutFrame
  /** Forgets all that was learnt: the next frame is a first one again. */
  restart(): void
}

/**
 * Cuts frames of a take out by its plate, one after another: what is learnt of each helps with the next. `sensitive`: 0..100, how little somebody
 * has to differ from the set; 50 as a rule.
 */
export function cutout(plate: Cells, sensitive = 50): Cutout {
  const n = plate.width * plate.height
  const plane = () => new Float32Array(n)
  const finder = movementFinder(plate)
  const placed = blankCells(plate.full)
  copyCells(plate, placed)
  const lit = blankCells(plate.full)
  const [odds, told, left, across, down, still, room] = [plane(), plane(), plane(), plane(), plane(), plane(), plane()]
  const beliefs = beliefRoom(plate)
  const evidence = evidenceRoom(n)
  let colours = palette()
  const bias = ((sensitive - 50) / 50) * BIAS
  const limits = { speck: Math.max(12, n * SPECK), hole: n * HOLE }
  let slopes = slopesOf(plate)
  let movement = STILL
  let usual = 1
  let before: { cells: Cells; alpha: Uint8Array; busy: Float32Array } | null = null

  function follow(frame: Cells, gain: Gain): Movement {
    const [r, g, b] = gain
    const brighter = 0.2126 * r ** POWER + 0.7152 * g ** POWER + 0.0722 * b ** POWER
    const now = finder.find(frame, 1 / brighter, movement)
    if (farBetween(now, movement, plate.full) > FINE) {
      movement = now
      movedPlate(plate, movement, placed)
      slopes = slopesOf(placed)
    }
    return now
  }

  function tell(frame: Cells, noise: Noise): void {
    weigh(frame, lit, slopes, noise, colours, usual, bias, evidence, odds, left)
    believe(plate, odds, across, down, SWEEPS, told, beliefs)
    clean(plate, told, odds, limits)
    colours.learn(frame, told, SURE)
  }

  return {
    restart() {
      colours = palette()
      before = null
      usual = 1
      if (movement !== STILL) {
        movement = STILL
        copyCells(plate, placed)
        slopes = slopesOf(plate)
      }
    },
    next(frame) {
      const busy = before?.busy ?? null
      const gain = measureGain(frame, placed, busy)
      const now = follow(frame, gain)
      inLight(placed, gain, lit)
      const noise = measureNoise(frame, lit, slopes, busy)
      bonds(frame, lit, noise, across, down)
      tell(frame, noise)
      // Nothing was known of anybody's colours: now it is.
      if (!before) tell(frame, noise)
      const alpha = soften(frame, lit, slopes, noise, told, left)
      if (before) {
        stillness(frame, before.cells, noise, still, room)
        steady(frame, alpha, before.alpha, still)
      }
      usual = usualShadow(told, left)
      const shadow = shadowOf(plate, told, left, room)
      before ??= { cells: blankCells(plate.full), alpha, busy: plane() }
      before.alpha = alpha
      copyCells(frame, before.cells)
      for (let i = 0; i < n; i++) before.busy[i] = told[i]! > 0 ? 1 : 0
      boxMean(plate, before.busy, ROUND, before.busy, room)
      return { alpha, shadow, gain, noise, movement: now }
    },
  }
}
