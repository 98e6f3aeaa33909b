// The set: the shop's back wall and the counter in front of it, as surface colours without light.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { CLOCKS, paintClock } from './clocks'
import type { Hour } from './hours'
import { SIGNS } from './letters'
import { plank } from './wood'

export const WIDTH = 1280
export const HEIGHT = 720
/** Where the counter's top begins. */
export const COUNTER = 498

function windowPane(c: SKRSContext2D, { sky, outside }: Hour): void {
  const x = 34
  const y = 44
  const w = 190
  const h = 330
  const glass = c.createLinearGradient(0, y, 0, y + h)
  sky.forEach((colour, i) => {
    glass.addColorStop([0, 0.6, 1][i]!, colour)
  })
  c.fillStyle = glass
  c.fillRect(x, y, w, h)
  outside(c, x, y, w, h)
  const bars: [number, number, number, number][] = [
    [x - 14, y - 14, w + 28, 16],
    [x - 14, y + h - 2, w + 28, 20],
    [x - 14, y - 14, 16, h + 28],
    [x + w - 2, y - 14, 16, h + 28],
    [x + w / 2 - 5, y, 10, h],
    [x, y + h * 0.42, w, 9],
  ]
  bars.forEach(([bx, by, bw, bh], i) => {
    plank(c, { x: bx, y: by, width: bw, height: bh, hue: 24, sat: 38, light: 19, seed: 300 + i, upright: bh > bw })
  })
}

function door(c: SKRSContext2D): void {
  const x = 1074
  const y = 66
  const w = 172
  const h = COUNTER - y + 10
  plank(c, { x: x - 16, y: y - 16, width: w + 32, height: 18, hue: 22, sat: 40, light: 15, seed: 401, upright: false })
  plank(c, { x: x - 16, y, width: 18, height: h, hue: 22, sat: 40, light: 15, seed: 402, upright: true })
  plank(c, { x: x + w - 2, y, width: 18, height: h, hue: 22, sat: 40, light: 15, seed: 403, upright: true })
  plank(c, { x, y, width: w, height: h, hue: 196, sat: 26, light: 22, seed: 404, upright: true })
  for (const [px, py, ph] of [
    [x + 18, y + 24, 150],
    [x + 94, y + 24, 150],
    [x + 18, y + 204, 190],
    [x + 94, y + 204, 190],
  ] as const) {
    const panel = c.createLinearGradient(px, py, px + 60, py + ph)
    panel.addColorStop(0, 'hsl(198 28% 15%)')
    panel.addColorStop(1, 'hsl(194 24% 26%)')
    c.fillStyle = panel
    c.fillRect(px, py, 60, ph)
    c.strokeStyle = 'hsl(196 25% 9%)'
    c.lineWidth = 2
    c.strokeRect(px, py, 60, ph)
    c.strokeStyle = 'hsl(196 20% 38% / 0.6)'
    c.lineWidth = 1
    c.strokeRect(px + 2, py + 2, 56, ph - 4)
  }
  c.fillStyle = '#c79a4b'
  c.beginPath()
  c.arc(x + 14, y + 208, 8, 0, 7)
  c.fill()
  c.font = `15px "${SIGNS}"`
  c.fillStyle = '#d8c089'
  c.textAlign = 'center'
  c.fillText('back room', x + w / 2, y + 14)
}

/** A pendant's shade; its light is in the light map. */
function lamp(c: SKRSContext2D, x: number, burns: boolean): void {
  c.strokeStyle = '#15100b'
  c.lineWidth = 3
  c.beginPath()
  c.moveTo(x, -4)
  c.lineTo(x, 14)
  c.stroke()
  const shade = c.createLinearGradient(x - 44, 0, x + 44, 0)
  shade.addColorStop(0, '#1d3a30')
  shade.addColorStop(0.35, '#4d7a66')
  shade.addColorStop(1, '#16281f')
  c.fillStyle = shade
  c.beginPath()
  c.moveTo(x - 12, 12)
  c.quadraticCurveTo(x - 40, 18, x - 46, 40)
  c.lineTo(x + 46, 40)
  c.quadraticCurveTo(x + 40, 18, x + 12, 12)
  c.closePath()
  c.fill()
  const bulb = c.createLinearGradient(0, 36, 0, 47)
  bulb.addColorStop(0, burns ? '#fff6d8' : '#4a4d46')
  bulb.addColorStop(1, burns ? '#ffd98a' : '#35382f')
  c.fillStyle = bulb
  c.beginPath()
  c.ellipse(x, 40, 40, 6, 0, 0, 7)
  c.fill()
}

const LAMPS = [470, 858] as const

/** What reaches a place of the wall, or of somebody a step before it: red, green, blue. */
export function shopLight(hour: Hour, x: number, y: number, nearer: boolean): readonly [number, number, number] {
  let warm = 0.16 * hour.glow
  LAMPS.forEach((lx, i) => {
    if (!hour.lamps[i]) return
    const dx = (x - lx) / 330
    const dy = (y - 60) / (nearer ? 420 : 340)
    // A pool under the shade, and what spills.
    const cone = y > 44 ? 1 : 0.35 + 0.65 * Math.exp(-(((44 - y) / 16) ** 2))
    warm += (nearer ? 1.0 : 1.1) * hour.glow * cone * Math.exp(-(dx * dx + dy * dy))
  })
  const [red, green, blue] = hour.daylight(x, y, nearer)
  return [warm * 1.06 + red, warm * 0.84 + green, warm * 0.56 + blue]
}

/** Everything behind the people. */
export function paintWall(hour: Hour): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  for (let i = 0, x = -20; x < WIDTH; i++) {
    const width = 62 + ((i * 37) % 29)
    plank(c, { x, y: -4, width, height: COUNTER + 30, hue: 27, sat: 42, light: 31, seed: 10 + i, upright: true })
    x += width
  }
  plank(c, { x: 0, y: 372, width: WIDTH, height: 15, hue: 22, sat: 42, light: 22, seed: 90, upright: false })
  plank(c, { x: 0, y: 300, width: WIDTH, height: 7, hue: 22, sat: 42, light: 20, seed: 91, upright: false })
  windowPane(c, hour)
  door(c)
  c.fillStyle = '#2b1c10'
  c.fillRect(556, 300, 168, 42)
  c.strokeStyle = '#b58b46'
  c.lineWidth = 2
  c.strokeRect(560, 304, 160, 34)
  c.font = `19px "${SIGNS}"`
  c.textAlign = 'center'
  c.fillStyle = '#e6c57c'
  c.fillText('Half Past Never', 640, 327)
  for (const clock of CLOCKS) paintClock(c, clock)
  LAMPS.forEach((x, i) => {
    lamp(c, x, hour.lamps[i]!)
  })
  return canvas
}

function bell(c: SKRSContext2D, x: number, y: number): void {
  const g = c.createRadialGradient(x - 6, y - 16, 2, x, y - 8, 26)
  g.addColorStop(0, '#fff0c0')
  g.addColorStop(0.5, '#c2953f')
  g.addColorStop(1, '#5c3d12')
  c.fillStyle = g
  c.beginPath()
  c.arc(x, y, 21, Math.PI, 0)
  c.fill()
  c.fillStyle = '#2a1c0d'
  c.fillRect(x - 24, y, 48, 5)
  c.fillStyle = '#d8ae57'
  c.fillRect(x - 2.5, y - 28, 5, 9)
}

/** The counter, in front of the people; transparent above it. */
export function paintCounter(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  plank(c, { x: -4, y: COUNTER, width: WIDTH + 8, height: 20, hue: 25, sat: 48, light: 38, seed: 500, upright: false })
  plank(c, {
    x: -4,
    y: COUNTER + 20,
    width: WIDTH + 8,
    height: 15,
    hue: 23,
    sat: 48,
    light: 26,
    seed: 501,
    upright: false,
  })
  plank(c, {
    x: -4,
    y: COUNTER + 35,
    width: WIDTH + 8,
    height: 200,
    hue: 22,
    sat: 44,
    light: 19,
    seed: 502,
    upright: false,
  })
  const edge = c.createLinearGradient(0, COUNTER + 33, 0, COUNTER + 58)
  edge.addColorStop(0, 'rgba(0,0,0,0.55)')
  edge.addColorStop(1, 'rgba(0,0,0,0)')
  c.fillStyle = edge
  c.fillRect(0, COUNTER + 33, WIDTH, 25)
  for (let i = 0; i < 8; i++) {
    const x = 22 + i * 157
    plank(c, { x, y: COUNTER + 62, width: 132, height: 150, hue: 22, sat: 46, light: 15, seed: 520 + i, upright: true })
    c.strokeStyle = 'hsl(26 45% 30% / 0.55)'
    c.lineWidth = 2
    c.strokeRect(x + 8, COUNTER + 70, 116, 140)
  }
  bell(c, 232, COUNTER + 2)
  // A carriage clock, a stack of papers and a jar of brass wheels.
  c.fillStyle = '#6d4a1d'
  c.fillRect(1010, COUNTER - 52, 54, 54)
  c.fillStyle = '#c99b48'
  c.fillRect(1006, COUNTER - 56, 62, 7)
  c.fillRect(1006, COUNTER - 3, 62, 7)
  paintClock(c, { x: 1037, y: COUNTER - 26, radius: 18, rim: 'brass', shows: 330 })
  c.fillStyle = '#d8cdb2'
  for (let i = 0; i < 5; i++) {
    c.save()
    c.translate(660, COUNTER + 1 - i * 3)
    c.rotate((i % 2 ? 1 : -1) * 0.012 * i)
    c.fillStyle = i % 2 ? '#cfc3a6' : '#e2d8bf'
    c.fillRect(-45, -4, 90, 3.4)
    c.restore()
  }
  c.fillStyle = 'rgba(190,215,220,0.35)'
  c.fillRect(116, COUNTER - 44, 40, 47)
  c.fillStyle = '#b98a3c'
  for (let i = 0; i < 14; i++) {
    c.beginPath()
    c.arc(122 + ((i * 17) % 29), COUNTER - 4 - ((i * 7) % 26), 5, 0, 7)
    c.fill()
  }
  c.strokeStyle = 'rgba(235,245,245,0.5)'
  c.lineWidth = 1.5
  c.strokeRect(116, COUNTER - 44, 40, 47)
  c.fillStyle = '#7b5a2b'
  c.fillRect(113, COUNTER - 50, 46, 8)
  return canvas
}
