// The hours at which the shop is filmed: what is seen through its window, and what light there is.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { chance } from './chance'

type Light = readonly [number, number, number]

export interface Hour {
  /** The sky from the window's top to its bottom. */
  sky: readonly [string, string, string]
  /** Paints what is outside, and on the glass, in a window of some size at (x, y). */
  outside(c: SKRSContext2D, x: number, y: number, w: number, h: number): void
  /** Which of the lamps burn. */
  lamps: readonly [boolean, boolean]
  /** What reaches a place of the wall, or of somebody a step before it, besides the lamps: red, green, blue. */
  daylight(x: number, y: number, nearer: boolean): Light
  /** How strongly the lamps burn. */
  glow: number
}

const bell = (d: number): number => Math.exp(-d * d)
const clamp01 = (v: number): number => Math.max(0, Math.min(1, v))

/** Lights of the street out of focus. */
function blurredLights(c: SKRSContext2D, x: number, y: number, w: number, h: number, next: () => number): void {
  for (let i = 0; i < 24; i++) {
    const r = 4 + next() * 15
    const warm = next() > 0.4
    const bx = x + next() * w
    const by = y + 110 + next() * (h - 120)
    const dot = c.createRadialGradient(bx, by, 0, bx, by, r)
    dot.addColorStop(0, warm ? 'rgba(255,196,110,0.75)' : 'rgba(150,190,230,0.55)')
    dot.addColorStop(0.75, warm ? 'rgba(255,176,90,0.5)' : 'rgba(130,170,220,0.35)')
    dot.addColorStop(1, 'rgba(255,180,90,0)')
    c.save()
    c.beginPath()
    c.rect(x, y, w, h)
    c.clip()
    c.fillStyle = dot
    c.fillRect(bx - r, by - r, 2 * r, 2 * r)
    c.restore()
  }
}

function rain(c: SKRSContext2D, x: number, y: number, w: number, h: number, next: () => number): void {
  for (let i = 0; i < 90; i++) {
    const rx = x + next() * w
    const ry = y + next() * h
    c.strokeStyle = `rgba(215,228,240,${0.08 + next() * 0.16})`
    c.lineWidth = 0.8 + next()
    c.beginPath()
    c.moveTo(rx, ry)
    c.lineTo(rx + next() * 3, Math.min(y + h, ry + 6 + next() * 34))
    c.stroke()
  }
}

/** Roofs across the street, with chimneys. */
function roofs(c: SKRSContext2D, x: number, y: number, w: number, h: number, fill: string): void {
  const next = chance(31)
  c.fillStyle = fill
  for (let rx = x; rx < x + w; ) {
    const width = Math.min(34 + next() * 40, x + w - rx)
    const top = y + h * (0.52 + next() * 0.16)
    c.beginPath()
    c.moveTo(rx, y + h)
    c.lineTo(rx, top)
    c.lineTo(rx + width / 2, top - 12 - next() * 20)
    c.lineTo(rx + width, top)
    c.lineTo(rx + width, y + h)
    c.closePath()
    c.fill()
    if (width > 20) c.fillRect(rx + width * 0.66, top - 26, 7, 26)
    rx += width
  }
}

/** A wet evening: both lamps burn. */
const EVENING: Hour = {
  sky: ['#20314a', '#33485c', '#4c5358'],
  outside(c, x, y, w, h) {
    const next = chance(77)
    blurredLights(c, x, y, w, h, next)
    rain(c, x, y, w, h, next)
  },
  lamps: [true, true],
  daylight(x, y) {
    const dusk = 0.3 * Math.exp(-(((x - 128) / 210) ** 2) - ((y - 230) / 260) ** 2)
    const back = 0.13 * Math.exp(-(((x - 1180) / 150) ** 2) - ((y - 300) / 260) ** 2)
    return [dusk * 0.62 + back * 0.7, dusk * 0.8 + back * 0.9, dusk * 1.15 + back * 1.15]
  },
  glow: 1,
}

/** Early sun, which lies on the wall in the shape of the window. */
const MORNING: Hour = {
  sky: ['#bcd6ea', '#dfe9ee', '#f6ecd2'],
  outside: (c, x, y, w, h) => roofs(c, x, y, w, h, '#9fb0bb'),
  lamps: [false, false],
  daylight(x, y, nearer) {
    // It comes from the left and falls: what stands nearer is hit farther to the left.
    const u = (x - (nearer ? 300 : 356) - (y - 210) * 0.5) / 230
    const v = (y - (nearer ? 170 : 210) - (x - 330) * 0.1) / 250
    const soft = 26
    const inside = (t: number) => clamp01(t * soft) * clamp01((1 - t) * soft)
    const bars = clamp01(Math.abs(u - 0.5) * 40 - 0.7) * clamp01(Math.abs(v - 0.42) * 46 - 0.7)
    const sun = inside(u) * inside(v) * bars
    const sky = 0.62 + 0.6 * bell((x - 128) / 640) * bell((y - 260) / 560)
    return [sky * 0.86 + sun * 0.92, sky * 0.92 + sun * 0.76, sky * 1.04 + sun * 0.46]
  },
  glow: 0,
}

/** Long after closing: one lamp is left, and the moon. */
const NIGHT: Hour = {
  sky: ['#060a16', '#0b1424', '#121b2a'],
  outside(c, x, y, w, h) {
    const next = chance(12)
    for (let i = 0; i < 26; i++) {
      c.fillStyle = `rgba(220,230,255,${0.25 + next() * 0.5})`
      c.fillRect(x + next() * w, y + next() * h * 0.5, 1.6, 1.6)
    }
    const moon = c.createRadialGradient(x + 146, y + 62, 14, x + 146, y + 62, 58)
    moon.addColorStop(0, 'rgba(196,214,246,0.5)')
    moon.addColorStop(1, 'rgba(120,150,210,0)')
    c.fillStyle = moon
    c.fillRect(x, y, w, 150)
    c.fillStyle = '#e6ecf6'
    c.beginPath()
    c.arc(x + 146, y + 62, 17, 0, 7)
    c.fill()
    roofs(c, x, y, w, h, '#05080f')
    c.fillStyle = '#e9b765'
    for (const [wx, wy] of [
      [30, 268],
      [64, 290],
      [150, 276],
    ] as const) {
      c.fillRect(x + wx, y + wy, 8, 11)
    }
  },
  lamps: [true, false],
  daylight(x, y) {
    const moon = 0.62 * bell((x - 128) / 300) * bell((y - 300) / 330)
    return [0.02 + moon * 0.36, 0.03 + moon * 0.56, 0.07 + moon]
  },
  glow: 0.66,
}

/** A white afternoon: snow falls, and nobody has lit a lamp yet. */
const SNOW: Hour = {
  sky: ['#c4d2df', '#d3dee8', '#e2eaf0'],
  outside(c, x, y, w, h) {
    roofs(c, x, y, w, h, '#a9b9c8')
    const next = chance(5)
    for (let i = 0; i < 120; i++) {
      c.fillStyle = `rgba(255,255,255,${0.5 + next() * 0.5})`
      c.beginPath()
      c.arc(x + next() * w, y + next() * h, 1 + next() * 2.4, 0, 7)
      c.fill()
    }
    // What has gathered on the bars.
    c.fillStyle = '#f4f8fb'
    for (const row of [y + h * 0.42, y + h - 2]) {
      c.beginPath()
      c.moveTo(x, row)
      for (let i = 0; i <= 10; i++) c.lineTo(x + (i * w) / 10, row - 6 - 6 * next())
      c.lineTo(x + w, row)
      c.closePath()
      c.fill()
    }
  },
  lamps: [false, false],
  daylight(x, y, nearer) {
    const sky = 0.46 + (nearer ? 0.82 : 0.9) * bell((x - 128) / 760) * bell((y - 240) / 560)
    return [sky * 0.78, sky * 0.96, sky * 1.26]
  },
  glow: 0,
}

/** The sun goes down behind the houses across the street, and its last light lies flat along the wall. */
const SUNSET: Hour = {
  sky: ['#6d5a94', '#d6748a', '#f3a86a'],
  outside(c, x, y, w, h) {
    const sun = c.createRadialGradient(x + 64, y + 150, 8, x + 64, y + 150, 120)
    sun.addColorStop(0, 'rgba(255,238,196,0.95)')
    sun.addColorStop(0.18, 'rgba(255,206,140,0.7)')
    sun.addColorStop(1, 'rgba(255,150,110,0)')
    c.fillStyle = sun
    c.fillRect(x, y, w, h)
    roofs(c, x, y, w, h, '#4b3350')
  },
  lamps: [false, false],
  daylight(x, y, nearer) {
    // It comes in level: a band as high as the window, fainter the farther it goes.
    const top = (nearer ? 96 : 84) - (x - 230) * 0.06
    const within = clamp01((y - top) / 26) * clamp01((top + 236 - y) / 26)
    const bar = clamp01(Math.abs(y - top - 104) / 9 - 0.5)
    const sun = within * bar * clamp01((x - (nearer ? 240 : 262)) / 24) * bell((x - 230) / 900)
    const sky = 0.42 + 0.5 * bell((x - 128) / 700) * bell((y - 260) / 560)
    return [sky * 1.0 + sun * 1.15, sky * 0.76 + sun * 0.5, sky * 1.12 + sun * 0.34]
  },
  glow: 0,
}

export const HOURS = {
  evening: EVENING,
  morning: MORNING,
  night: NIGHT,
  snow: SNOW,
  sunset: SUNSET,
} as const satisfies Record<string, Hour>
