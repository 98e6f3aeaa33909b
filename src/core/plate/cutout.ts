// Somebody cut out of a take by its plate: frame after frame, alpha and what shadow they throw.
import { goAlong } from './along'
import { believe } from './belief'
import { BLOCK, squaresOf, squaresWith } from './blocks'
import { type Bonds, bonds } from './bonds'
import { blankCells, type Cells, copyCells } from './cells'
import { clean } from './clean'
import { packedColours } from './colours'
import { partThatDiffers } from './differ'
import { usualShadow, weigh } from './evidence'
import { movementFinder } from './find-movement'
import { type Gain, type Light, lumaInLight, measureGain, measureLight, POWER, tonesInLight } from './light'
import { farBetween, type Movement, movedPlate, STILL } from './movement'
import { measureNoise, type Noise, slopesOf } from './noise'
import { palette } from './palette'
import { area, boxMean, type Part, type Plane, planeIn, pxOf, whole } from './plane'
import type { Measured } from './report'
import { clipped, sharpness, tally } from './seen'
import { shadowOf } from './shadow'
import { soften, standing } from './soften'
import { dropFaint } from './specks'
import { steady, type Tones } from './steady'
import { addHint, type Hint, paintAlpha } from './strokes'
import { type Whereabouts, whereaboutsOf } from './whereabouts'
import { crop, cropCells, cropPlane, fillPart, paste, pastePlane } from './window'

export interface CutoutFrame extends Measured {
  /** Of each px, 0..255: how much of it is somebody. */
  alpha: Uint8Array
  /** Red, green and blue of px that are neither nought nor all somebody's, in order: theirs, without what of the set shows through. */
  colours: Uint8Array
  /** Of each cell of 2×2 px, 0..255: how much light of the set is taken away where it shows. */
  shadow: Uint8Array
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
/** Log odds of what is next to nothing else than its plate. */
const SET = -12
/** Parts smaller than such shares of the picture are specks; holes of more are left alone. */
const SPECK = 1 / 5000
const HOLE = 1 / 300

/** What is counted where nothing differs from the plate. */
const NOBODY = { share: 0, shade: 0, unsure: 0 }

/** What was painted, and by how many frames away. */
interface Painted {
  hint: Hint
  apart: number
}

export interface Cutout {
  /** The next frame of the take, of the plate's size, which stays as it is until the one after it was told of; with what was painted, by how many frames away that was. */
  next(frame: Cells, hints?: readonly Painted[]): CutoutFrame
  /** The same with no matte made of it, and where somebody is. */
  look(frame: Cells): Measured & { where: Whereabouts | null }
  /** The light of the frame that was cut out last, with what is added to all of it. */
  light(frame: Cells): Light
  /** Forgets all that was learnt: the next frame is a first one again. `sensitive`: 0..100, how little somebody has to differ from the set from now on; 50 as a rule. */
  restart(sensitive?: number): void
}

/** The part of a frame in which anything differs, and what is told of it there. */
interface Sight {
  part: Part
  frame: Cells
  plate: Cells
  slopes: Plane
  noise: Noise
  before: Tones
  /** Log odds of somebody: those of the frame before, then of this one. */
  told: Plane
  odds: Plane
  left: Plane
  evenly: Plane
  is: Plane
  /** Where somebody is within that part, with what lies round them. */
  standing: Part
}

/** Cuts frames of a take out by its plate, one after another: what is learnt of each helps with the next. It lives in the memory of the plate. Throws OutOfMemory, as its frames do. */
export function cutout(plate: Cells): Cutout {
  const { k, full } = plate
  const n = plate.width * plate.height
  const plane = () => planeIn(k, n)
  const finder = movementFinder(plate)
  const [near, lit] = [blankCells(k, full), blankCells(k, full)]
  copyCells(plate, near)
  const [odds, told, left, evenly] = [plane(), plane(), plane(), plane()]
  const [is, busy, slopes] = [plane(), plane(), plane()]
  const px = full.width * full.height
  const [alphaNow, own] = [k.alloc(px), k.alloc(px * 4)]
  const ties: Bonds = { across: plane(), down: plane() }
  const limits = { speck: Math.max(12, n * SPECK), hole: n * HOLE }
  slopesOf(plate, slopes)
  const colours = palette(k)
  let bias = 0
  let movement = STILL
  let usual = 1
  let isFirst = true
  let isVeiled = false
  let gain: Gain = [1, 1, 1]
  let before: Tones = plate
  let alphaBefore: Uint8Array | null = null
  /** The part in which anything was told of the frame before. */
  let lastPart: Part | null = null
  /** 1 of each square in which somebody was found. */
  const stood = new Uint8Array(area(squaresOf(plate)))

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
  function lightOf(frame: Cells, known: Plane | null): Light {
    const plain = { gain, offset: 0 }
    if (!isFirst && !isVeiled) return plain
    const veiled = measureLight(frame, near, known, gain)
    if (isFirst) isVeiled = Math.abs(veiled.offset) >= VEILED
    return isVeiled ? veiled : plain
  }

  /** Tells of each cell of a part what it is. */
  function tell(sight: Omit<Sight, 'standing'>, hints: readonly Painted[]): void {
    const { frame, plate, noise, slopes, told, odds, left, evenly } = sight
    const size = area(frame)
    const parting = { across: ties.across.subarray(0, size), down: ties.down.subarray(0, size) }
    bonds(frame, plate, noise, parting)
    // Nothing is known of anybody's colours at first: then it is.
    for (let round = isFirst ? 0 : 1; round < 2; round++) {
      weigh(frame, plate, { noise, slopes, colours, usual, bias }, { odds, left, evenly })
      if (!isFirst) goAlong(frame, sight.before, noise, told, odds)
      for (const { hint, apart } of hints) addHint(hint, frame, apart, odds)
      believe(k, frame, odds, parting, SWEEPS, told)
      clean(k, frame, told, odds, limits)
      colours.learn(frame, told, SURE)
    }
  }

  /** Lasts until the present scope is left. */
  function sightOf(frame: Cells, light: Light, noise: Noise, part: Part, hints: readonly Painted[]): Sight {
    const cut = (of: Plane) => cropPlane(k, of, plate, part)
    const room = (of: Plane) => of.subarray(0, area(part))
    const shcut = cropCells(frame, part)
    const luma = lit.luma.subarray(0, area(shcut.full))
    lumaInLight(near, part, light, luma)
    const sight = {
      part,
      frame: shcut,
      plate: { ...shcut, y: cut(lit.y), u: cut(lit.u), v: cut(lit.v), luma },
      slopes: cut(slopes),
      noise,
      before: { y: cut(before.y), u: cut(before.u), v: cut(before.v) },
      told: cut(told),
      odds: room(odds),
      left: room(left),
      evenly: room(evenly),
      is: room(is),
    }
    tell(sight, hints)
    return { ...sight, standing: standing(sight.frame, sight.told, sight.is) }
  }

  /** What was found in a part is known of the whole picture. */
  function remember({ part, frame, told: found, is, odds, standing }: Sight): void {
    pastePlane(k, found, part, told, plate)
    if (standing.width === 0) return
    const squares = squaresOf(part)
    const corner = { x: part.x / BLOCK, y: part.y / BLOCK }
    paste(squaresWith(k, part, found, 1), { ...corner, ...squares }, stood, squaresOf(plate))
    odds.fill(0)
    boxMean(k, frame, is, ROUND, odds, standing)
    pastePlane(k, odds, part, busy, plate)
  }

  /** Goes on to a frame, and uses what is seen in it. */
  function observe<T>(
    frame: Cells,
    hints: readonly Painted[],
    use: (measured: Measured, noise: Noise, sight: Sight | null) => T,
  ): T {
    return k.scope(() => {
      const known = isFirst ? null : busy
      gain = measureGain(frame, near, known)
      const at = movement
      const now = follow(frame, gain)
      // What is a little aside tells light a little wrongly.
      if (movement !== at) gain = measureGain(frame, near, known)
      const light = lightOf(frame, known)
      tonesInLight(near, light, lit)
      const noise = measureNoise(frame, lit, slopes, known)
      // What was painted, and what hardly differs but is to be told all the same, may lie anywhere.
      const isAnywhere = hints.length > 0 || bias > 0
      const part = isAnywhere ? whole(plate) : partThatDiffers(frame, lit, { noise, slopes }, stood, limits.speck)
      const sight = part && sightOf(frame, light, noise, part, hints)
      if (!sight) colours.learn(frame, told.subarray(0, 0), SURE)
      const found = sight ? tally(k, sight.told, sight.is, sight.left, n) : NOBODY
      usual = sight ? usualShadow(sight.told, sight.left, n) : 1
      stood.fill(0)
      if (lastPart) fillPart(busy, lastPart, plate, 0)
      if (lastPart && sight?.told !== told) fillPart(told, lastPart, plate, SET)
      if (sight) remember(sight)
      lastPart = part
      const measured = { ...found, ...clipped(frame), gain, movement: now, sharp: sharpness(frame, lit, busy) }
      const used = use(measured, noise, sight)
      before = frame
      isFirst = false
      return used
    })
  }

  /** The matte of a part, where px lie that are as many as it has. */
  function matteOf({ part, frame, plate, slopes, noise, before, is, evenly, standing }: Sight): void {
    soften(frame, plate, { slopes, noise, isGuess: false }, { is, part: standing, left: evenly }, alphaNow, own)
    if (standing.width === 0) return
    const wide = pxOf(standing, frame.full)
    if (alphaBefore) {
      const old = k.alloc(area(frame.full))
      crop(alphaBefore, full, pxOf(part, full), k.bytes(old, area(frame.full)))
      steady(frame, before, noise, { now: alphaNow, before: old }, wide)
    }
    // Last of all: what stays of the frame before may lead to nothing by now.
    dropFaint(k, frame.full, alphaNow, wide)
  }

  return {
    light: frame => measureLight(frame, near, busy, gain),
    restart(sensitive = 50) {
      bias = ((sensitive - 50) / 50) * BIAS
      colours.forget()
      isFirst = true
      alphaBefore = null
      usual = 1
      stood.fill(0)
      if (movement !== STILL) place(STILL)
    },
    look(frame) {
      alphaBefore = null
      return observe(frame, [], (measured, _, sight) => ({
        ...measured,
        where: sight && whereaboutsOf(sight.is, sight.part, sight.standing, plate),
      }))
    },
    next: (frame, hints = []) =>
      observe(frame, hints, (measured, noise, sight) => {
        const [alpha, shadow] = [new Uint8Array(px), new Uint8Array(n)]
        if (sight) matteOf(sight)
        alphaBefore = alpha
        if (!sight) return { ...measured, noise, alpha, shadow, colours: new Uint8Array(0) }
        const { part, frame: seen, is, standing, left } = sight
        const found = k.bytes(alphaNow, area(seen.full))
        for (const { hint, apart } of hints) if (apart === 0) paintAlpha(hint, seen, seen.full, found)
        paste(found, pxOf(part, full), alpha, full)
        paste(shadowOf(k, seen, { is, part: standing }, left), part, shadow, plate)
        return { ...measured, noise, alpha, shadow, colours: packedColours(seen, alphaNow, own) }
      }),
  }
}

/** Bytes that cutting out takes for each px of the picture, its plate and a frame included. */
export const CUTTING_BYTES = 89
