// The street outside, at night: a bare brick wall between the shop's window and a drainpipe, with a lamp above.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { chance } from './chance'
import { CLOCKS, paintClock } from './clocks'
import { HEIGHT, WIDTH } from './shop'
import { plank } from './wood'

const ROW = 33
const BRICK = 88
const LAMP = { x: 905, y: 70 }
const WINDOW = { x: -60, y: 96, width: 268, height: 560 }

function bricks(c: SKRSContext2D): void {
  const next = chance(5)
  c.fillStyle = '#6d675f'
  c.fillRect(0, 0, WIDTH, HEIGHT)
  for (let row = 0; row * ROW < HEIGHT; row++) {
    for (let x = -BRICK + (row % 2) * (BRICK / 2); x < WIDTH; x += BRICK) {
      const worn = next()
      c.fillStyle = `hsl(${10 + next() * 12} ${26 + next() * 16}% ${25 + next() * 13 + (worn > 0.93 ? 12 : 0)}%)`
      const [w, h] = [BRICK - 5 - next() * 2, ROW - 5 - next() * 2]
      c.beginPath()
      c.roundRect(x + 2 + next() * 1.5, row * ROW + 2 + next() * 1.5, w, h, 2 + next() * 2)
      c.fill()
      for (let i = 0; i < 12; i++) {
        c.fillStyle = `hsl(14 20% ${next() > 0.5 ? 12 : 46}% / ${0.06 + next() * 0.16})`
        c.fillRect(x + 4 + next() * (w - 6), row * ROW + 4 + next() * (h - 6), 1 + next() * 5, 1 + next() * 2.4)
      }
    }
  }
}

function shopWindow(c: SKRSContext2D): void {
  const { x, y, width, height } = WINDOW
  const glow = c.createLinearGradient(0, y, 0, y + height)
  glow.addColorStop(0, '#c9a05a')
  glow.addColorStop(0.6, '#9a6a30')
  glow.addColorStop(1, '#4f3214')
  c.fillStyle = glow
  c.fillRect(x, y, width, height)
  c.save()
  c.beginPath()
  c.rect(x, y, width, height)
  c.clip()
  for (const [i, clock] of CLOCKS.slice(0, 5).entries())
    paintClock(c, { ...clock, x: 30 + (i % 2) * 92, y: 180 + i * 86, radius: 34 + ((i * 13) % 20) })
  c.restore()
  const frame = { hue: 160, sat: 24, light: 15 } as const
  const bars = [
    [x, y - 26, width + 24, 28],
    [x, y + height - 4, width + 40, 30],
    [x + width - 4, y - 10, 26, height + 20],
    [x + 150, y, 10, height],
    [x, y + 190, width, 9],
  ] as const
  bars.forEach(([bx, by, w, h], i) => {
    plank(c, { x: bx, y: by, width: w, height: h, ...frame, seed: 700 + i, upright: h > w })
  })
}

function pipe(c: SKRSContext2D): void {
  const g = c.createLinearGradient(1176, 0, 1212, 0)
  g.addColorStop(0, '#23282a')
  g.addColorStop(0.35, '#7b8587')
  g.addColorStop(1, '#191d1f')
  c.fillStyle = g
  c.fillRect(1178, 0, 32, HEIGHT)
  for (const y of [88, 372, 640]) {
    c.fillStyle = '#2c3133'
    c.fillRect(1168, y, 52, 16)
  }
  // A notice that has been rained on.
  c.save()
  c.translate(1086, 470)
  c.rotate(-0.05)
  c.fillStyle = '#b9b097'
  c.fillRect(-44, -62, 88, 124)
  c.fillStyle = '#4a4436'
  for (let i = 0; i < 9; i++) c.fillRect(-34, -48 + i * 12, 40 + ((i * 29) % 28), i === 0 ? 7 : 3)
  c.restore()
}

function wallLamp(c: SKRSContext2D): void {
  c.strokeStyle = '#14181a'
  c.lineWidth = 7
  c.beginPath()
  c.moveTo(LAMP.x + 6, -6)
  c.quadraticCurveTo(LAMP.x + 8, 30, LAMP.x, 44)
  c.stroke()
  c.fillStyle = '#1b2123'
  c.beginPath()
  c.moveTo(LAMP.x - 15, 40)
  c.lineTo(LAMP.x + 15, 40)
  c.lineTo(LAMP.x + 40, 66)
  c.lineTo(LAMP.x - 40, 66)
  c.closePath()
  c.fill()
  c.fillStyle = '#fff3cf'
  c.beginPath()
  c.ellipse(LAMP.x, 68, 30, 9, 0, 0, 7)
  c.fill()
}

export function paintStreet(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  bricks(c)
  shopWindow(c)
  pipe(c)
  wallLamp(c)
  return canvas
}

/** What light reaches a place of the wall, or of somebody before it. */
export function streetLight(x: number, y: number, nearer: boolean): readonly [number, number, number] {
  const dx = (x - LAMP.x) / (nearer ? 430 : 400)
  const dy = (y - LAMP.y - 30) / (nearer ? 520 : 430)
  const cone = y > 62 ? 1 : 0.25
  const lamp = 0.95 * cone * Math.exp(-(dx * dx + dy * dy))
  const inside = x < 200 && y > 96 && y < 656 && !nearer
  const spill = inside
    ? 1.15
    : 0.75 * Math.exp(-Math.max(0, x - 150) / (nearer ? 260 : 210)) * Math.exp(-(((y - 380) / 330) ** 2))
  return [0.11 + lamp * 1.0 + spill * 1.12, 0.15 + lamp * 0.87 + spill * 0.74, 0.25 + lamp * 0.6 + spill * 0.36]
}
