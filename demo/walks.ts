// Who crosses the picture, from where the camera stands: the apprentice by night, at dusk and at noon, and the trolley.
import { paintApprentice, type Stride } from './apprentice'
import { FLOOR } from './attic'
import { paintLegs, SOLE } from './legs'
import type { Actor } from './scenes'
import { HEIGHT, WIDTH } from './shop'
import { paintTrolley, trolleyAt } from './trolley'
import { ROAD } from './yard'

/** Px a second at which the apprentice walks, where she begins, and seconds of her stride. */
const PACE = { speed: 270, from: -170, stride: 1.16 } as const

/** Where the apprentice is in her walk. */
export const strideAt = (seconds: number): Stride => ({
  x: PACE.from + PACE.speed * seconds,
  turn: seconds / PACE.stride,
  seconds,
})

export const APPRENTICE: Actor = {
  paint: (c, seconds) => paintApprentice(c, strideAt(seconds)),
  frame(seconds) {
    const { x } = strideAt(seconds)
    const left = Math.max(0, Math.min(WIDTH - 1, Math.round(x) - 230))
    return { left, top: 100, width: Math.max(1, Math.min(WIDTH, Math.round(x) + 230) - left), height: HEIGHT - 100 }
  },
  x: seconds => strideAt(seconds).x,
}

/** The apprentice from head to foot: px a second, where she begins, how large she is. */
export const DUSK = { speed: 226, from: -120, scale: 0.62, stride: 0.86 } as const

export const duskAt = (seconds: number): number => DUSK.from + DUSK.speed * seconds

export const WALKER: Actor = {
  paint(c, seconds) {
    const stride = { x: 0, turn: seconds / DUSK.stride, seconds }
    c.save()
    c.translate(duskAt(seconds), ROAD + 8 - SOLE * DUSK.scale)
    c.scale(DUSK.scale, DUSK.scale)
    paintLegs(c, stride)
    paintApprentice(c, stride)
    c.restore()
  },
  frame(seconds) {
    const x = Math.round(duskAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 150))
    return { left, top: 140, width: Math.max(1, Math.min(WIDTH, x + 130) - left), height: 540 }
  },
  x: duskAt,
}

/** Seen so near that only her legs and the coat's hem are in the picture. */
const STEPS = { speed: 250, from: -330, scale: 1.18, stride: 1.34, begins: 0.2 } as const

const stepsAt = (seconds: number): number => STEPS.from + STEPS.speed * seconds
export const stepAt = (seconds: number): Stride => ({ x: 0, turn: STEPS.begins + seconds / STEPS.stride, seconds })
/** From px of her own to those of the picture. */
export const stepsMap = (seconds: number) => ({
  a: STEPS.scale,
  b: 0,
  c: 0,
  d: STEPS.scale,
  x: stepsAt(seconds),
  y: FLOOR - SOLE * STEPS.scale,
})

export const STEPPER: Actor = {
  paint(c, seconds) {
    const { a, d, x, y } = stepsMap(seconds)
    c.save()
    c.translate(x, y)
    c.scale(a, d)
    paintLegs(c, stepAt(seconds))
    paintApprentice(c, stepAt(seconds))
    c.restore()
  },
  frame(seconds) {
    const x = Math.round(stepsAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 280))
    return { left, top: 0, width: Math.max(1, Math.min(WIDTH, x + 280) - left), height: HEIGHT }
  },
  x: stepsAt,
}

/** It rolls past by itself. */
export const TROLLEY: Actor = {
  paint: paintTrolley,
  frame(seconds) {
    const x = Math.round(trolleyAt(seconds))
    const left = Math.max(0, Math.min(WIDTH - 1, x - 320))
    return { left, top: 80, width: Math.max(1, Math.min(WIDTH, x + 300) - left), height: HEIGHT - 80 }
  },
  x: trolleyAt,
}
