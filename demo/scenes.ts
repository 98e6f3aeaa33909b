// The places that are filmed: what they look like, what light they have and how somebody's shadow falls there.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import type { Clip } from './acts'
import { atticLight, FLOOR, paintAttic } from './attic'
import { paintPendulum, paintSeconds, SWING } from './clocks'
import { HOURS, type Hour } from './hours'
import { paintParlour, parlourLight } from './parlour'
import { COUNTER, HEIGHT, paintCounter, paintWall, shopLight, WIDTH } from './shop'
import { paintStreet, streetLight } from './street'
import { duskLight, paintYard, paintYardTurned, ROAD, yardLight } from './yard'

/** Somebody who is filmed. */
export interface Actor {
  paint(c: SKRSContext2D, seconds: number): void
  /** What they lie within, whole px of the picture. */
  frame(seconds: number): { left: number; top: number; width: number; height: number }
  /** Where their middle is, px. */
  x(seconds: number): number
}

export interface Scene {
  back(): Canvas
  /** What stands before people; transparent elsewhere. */
  front?(): Canvas
  /** What moves by itself on the wall. */
  moving?(c: SKRSContext2D, seconds: number, clip: Clip): void
  /** Red, green and blue that reach a place of the wall, or of somebody before it. */
  light(x: number, y: number, nearer: boolean): readonly [number, number, number]
  /** Draws where a shadow falls. */
  shadow(c: SKRSContext2D, actor: Actor, seconds: number): void
  /** How much light it takes in a row, 0..1. */
  shade(y: number): number
}

const shopAt = (hour: Hour): Scene => ({
  back: () => paintWall(hour),
  front: paintCounter,
  moving(c, seconds, clip) {
    paintSeconds(c, seconds + clip.seed * 7)
    if (clip.pendulum) paintPendulum(c, seconds / SWING)
  },
  light: (x, y, nearer) => shopLight(hour, x, y, nearer),
  shadow(c, actor, seconds) {
    const x = actor.x(seconds)
    c.filter = 'blur(15px)'
    c.save()
    c.translate((x < 640 ? -1 : 1) * 30, 26)
    actor.paint(c, seconds)
    c.restore()
    c.filter = 'blur(11px)'
    c.fillStyle = '#000'
    c.beginPath()
    c.ellipse(x, COUNTER + 8, 118, 13, 0, 0, 7)
    c.fill()
  },
  shade: y => (y >= COUNTER ? 0.45 : 0.58),
})

const STREET: Scene = {
  back: paintStreet,
  light: streetLight,
  shadow(c, actor, seconds) {
    const sharp = createCanvas(WIDTH, HEIGHT)
    actor.paint(sharp.getContext('2d'), seconds)
    c.filter = 'blur(22px)'
    // From the lamp, and so away from it.
    c.drawImage(sharp, (actor.x(seconds) - 905) * 0.09, 54)
  },
  shade: () => 0.5,
}

const YARD: Scene = {
  back: paintYard,
  light: yardLight,
  shadow(c, actor, seconds) {
    const sharp = createCanvas(WIDTH, HEIGHT)
    actor.paint(sharp.getContext('2d'), seconds)
    // On the wall, low and to the right; and under it.
    c.filter = 'blur(9px)'
    c.drawImage(sharp, 46, 10)
    c.filter = 'blur(7px)'
    c.fillStyle = '#000'
    c.beginPath()
    c.ellipse(actor.x(seconds) + 16, ROAD + 2, 250, 20, 0, 0, 7)
    c.fill()
  },
  shade: y => (y > ROAD - 30 ? 0.62 : 0.4),
}

const DUSK: Scene = {
  back: paintYardTurned,
  light: duskLight,
  shadow(c, actor, seconds) {
    const sharp = createCanvas(WIDTH, HEIGHT)
    actor.paint(sharp.getContext('2d'), seconds)
    // Away from the lantern, longer the farther that is.
    c.filter = 'blur(12px)'
    c.drawImage(sharp, -30 - (1190 - actor.x(seconds)) * 0.06, 6)
    c.filter = 'blur(6px)'
    c.fillStyle = '#000'
    c.beginPath()
    c.ellipse(actor.x(seconds) - 14, ROAD + 6, 104, 12, 0, 0, 7)
    c.fill()
  },
  shade: y => (y > ROAD - 20 ? 0.55 : 0.4),
}

const ATTIC: Scene = {
  back: paintAttic,
  light: atticLight,
  shadow(c, actor, seconds) {
    const sharp = createCanvas(WIDTH, HEIGHT)
    actor.paint(sharp.getContext('2d'), seconds)
    c.filter = 'blur(14px)'
    c.drawImage(sharp, 90, -20)
    c.filter = 'blur(8px)'
    c.fillStyle = '#000'
    c.beginPath()
    c.ellipse(actor.x(seconds) + 34, FLOOR + 4, 190, 14, 0, 0, 7)
    c.fill()
  },
  shade: y => (y > FLOOR - 40 ? 0.5 : 0.34),
}

const PARLOUR: Scene = {
  back: paintParlour,
  light: parlourLight,
  shadow(c, actor, seconds) {
    const sharp = createCanvas(WIDTH, HEIGHT)
    actor.paint(sharp.getContext('2d'), seconds)
    // From the candle, and so away from it.
    c.filter = 'blur(16px)'
    c.drawImage(sharp, 40 + (actor.x(seconds) - 236) * 0.12, 26)
  },
  shade: () => 0.52,
}

export const SCENES = {
  shop: shopAt(HOURS.evening),
  'shop in the morning': shopAt(HOURS.morning),
  'shop at night': shopAt(HOURS.night),
  'shop in the snow': shopAt(HOURS.snow),
  'shop at sunset': shopAt(HOURS.sunset),
  street: STREET,
  yard: YARD,
  parlour: PARLOUR,
  dusk: DUSK,
  attic: ATTIC,
} as const satisfies Record<string, Scene>
