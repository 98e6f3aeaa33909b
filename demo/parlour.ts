// The back room late in the evening: oak panelling, a candle on the left, the moon somewhere on the right.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { HEIGHT, WIDTH } from './shop'
import { plank } from './wood'

const CANDLE = { x: 236, y: 168 }
const STILE = 44
const COLUMN = 262
const RAIL = 486

/** A raised field in a frame of bevels, light from the upper left. */
function field(c: SKRSContext2D, x: number, y: number, width: number, height: number, seed: number): void {
  plank(c, { x, y, width, height, hue: 27, sat: 42, light: 27, seed, upright: true })
  const bevel = 20
  const sides = [
    ['rgba(255,226,180,0.20)', [x, y, x + width, y, x + width - bevel, y + bevel, x + bevel, y + bevel]],
    ['rgba(255,226,180,0.13)', [x, y, x + bevel, y + bevel, x + bevel, y + height - bevel, x, y + height]],
    [
      'rgba(0,0,0,0.34)',
      [x + width, y, x + width, y + height, x + width - bevel, y + height - bevel, x + width - bevel, y + bevel],
    ],
    [
      'rgba(0,0,0,0.42)',
      [x, y + height, x + bevel, y + height - bevel, x + width - bevel, y + height - bevel, x + width, y + height],
    ],
  ] as const
  for (const [colour, points] of sides) {
    c.fillStyle = colour
    c.beginPath()
    for (let i = 0; i < points.length; i += 2) c.lineTo(points[i]!, points[i + 1]!)
    c.fill()
  }
}

function panelling(c: SKRSContext2D): void {
  c.fillStyle = '#2a1a0e'
  c.fillRect(0, 0, WIDTH, HEIGHT)
  const across = { hue: 26, sat: 40, light: 21, upright: false } as const
  for (const [i, y, height] of [
    [0, -8, 52],
    [1, RAIL, 30],
    [2, RAIL + 34, 26],
  ] as const)
    plank(c, { x: -4, y, width: WIDTH + 8, height, ...across, seed: 40 + i })
  for (let column = -1; column < 6; column++) {
    const x = 14 + column * COLUMN
    plank(c, {
      x,
      y: 44,
      width: STILE,
      height: RAIL - 44,
      hue: 26,
      sat: 40,
      light: 22,
      seed: 60 + column,
      upright: true,
    })
    plank(c, {
      x,
      y: RAIL + 60,
      width: STILE,
      height: 240,
      hue: 26,
      sat: 40,
      light: 22,
      seed: 80 + column,
      upright: true,
    })
    field(c, x + STILE + 6, 54, COLUMN - STILE - 12, RAIL - 66, 100 + column)
    field(c, x + STILE + 6, RAIL + 70, COLUMN - STILE - 12, 230, 140 + column)
  }
  // The rail's edge catches the light.
  c.fillStyle = 'rgba(255,220,170,0.22)'
  c.fillRect(0, RAIL, WIDTH, 3)
}

function candle(c: SKRSContext2D): void {
  const { x, y } = CANDLE
  c.strokeStyle = '#6d5424'
  c.lineWidth = 8
  c.beginPath()
  c.moveTo(x, y + 150)
  c.quadraticCurveTo(x + 4, y + 110, x, y + 84)
  c.stroke()
  c.fillStyle = '#8a6d31'
  c.beginPath()
  c.ellipse(x, y + 84, 28, 8, 0, 0, 7)
  c.ellipse(x, y + 156, 15, 22, 0, 0, 7)
  c.fill()
  c.fillStyle = '#e9dcbc'
  c.fillRect(x - 9, y + 22, 18, 60)
  c.fillStyle = '#fff8dc'
  c.beginPath()
  c.moveTo(x, y - 18)
  c.quadraticCurveTo(x + 12, y + 8, x, y + 20)
  c.quadraticCurveTo(x - 12, y + 8, x, y - 18)
  c.fill()
}

export function paintParlour(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  panelling(c)
  candle(c)
  return canvas
}

export function parlourLight(x: number, y: number, nearer: boolean): readonly [number, number, number] {
  const reach = nearer ? 640 : 560
  const far = Math.hypot(x - CANDLE.x, (y - CANDLE.y) * 1.15) / reach
  const flame = (nearer ? 1.15 : 1.5) / (1 + (2.1 * far) ** 2)
  const moon = 0.55 * Math.exp(-(((WIDTH + 60 - x) / 470) ** 2)) * (0.6 + 0.4 * Math.exp(-(((y - 260) / 260) ** 2)))
  return [0.09 + flame + moon * 0.42, 0.1 + flame * 0.72 + moon * 0.62, 0.15 + flame * 0.4 + moon]
}
