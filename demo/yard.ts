// The yard behind the shop on a bright morning: limewashed plaster, a green door, cobbles, the roof's shadow across it all.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { chance } from './chance'
import { HEIGHT, WIDTH } from './shop'
import { plank } from './wood'

/** Where the wall meets the ground, and where wheels stand on it. */
const GROUND = 566
export const ROAD = 648

function plaster(c: SKRSContext2D): void {
  const next = chance(61)
  const g = c.createLinearGradient(0, 0, 0, GROUND)
  g.addColorStop(0, '#d8d1c0')
  g.addColorStop(0.75, '#cdc5b2')
  g.addColorStop(1, '#9c9583')
  c.fillStyle = g
  c.fillRect(0, 0, WIDTH, GROUND)
  // The brush's strokes, and where the wash has come off.
  for (let i = 0; i < 900; i++) {
    c.strokeStyle = `hsl(${36 + next() * 10} ${10 + next() * 10}% ${next() > 0.5 ? 88 : 62}% / ${0.04 + next() * 0.07})`
    c.lineWidth = 2 + next() * 7
    const [x, y] = [next() * WIDTH, next() * GROUND]
    c.beginPath()
    c.moveTo(x, y)
    c.quadraticCurveTo(x + next() * 40 - 20, y + 20 + next() * 20, x + next() * 24 - 12, y + 40 + next() * 50)
    c.stroke()
  }
  for (const [x, y, r] of [
    [92, 470, 62],
    [318, 540, 48],
    [820, 528, 58],
    [1008, 96, 34],
  ] as const) {
    c.fillStyle = '#8d7a67'
    c.beginPath()
    for (let i = 0; i < 15; i++) {
      const far = r * (0.55 + next() * 0.6)
      c.lineTo(x + Math.cos((i / 15) * 6.283) * far * 1.3, y + Math.sin((i / 15) * 6.283) * far * 0.7)
    }
    c.fill()
  }
  c.strokeStyle = 'rgba(70,60,46,0.45)'
  for (let crack = 0; crack < 7; crack++) {
    c.lineWidth = 0.8 + next()
    let [x, y] = [next() * WIDTH, next() * 260]
    c.beginPath()
    c.moveTo(x, y)
    for (let i = 0; i < 12; i++) {
      x += next() * 30 - 15
      y += 8 + next() * 20
      c.lineTo(x, y)
    }
    c.stroke()
  }
}

function door(c: SKRSContext2D): void {
  const [left, top, width] = [1058, 168, 176]
  c.fillStyle = '#3a3a30'
  c.fillRect(left - 14, top - 16, width + 28, GROUND - top + 16)
  for (let i = 0; i < 6; i++) {
    const board = { x: left + (i * width) / 6, y: top, width: width / 6, height: GROUND - top }
    plank(c, { ...board, hue: 152, sat: 26, light: 27, seed: 300 + i, upright: true })
  }
  for (const y of [top + 40, top + 316]) {
    plank(c, { x: left - 2, y, width: width + 4, height: 34, hue: 152, sat: 26, light: 23, seed: y, upright: false })
  }
  c.fillStyle = '#8a7440'
  c.beginPath()
  c.arc(left + 24, top + 208, 8, 0, 7)
  c.fill()
}

function cobbles(c: SKRSContext2D): void {
  const next = chance(77)
  c.fillStyle = '#3c3a36'
  c.fillRect(0, GROUND, WIDTH, HEIGHT - GROUND)
  // Rows grow as they come nearer.
  for (let y = GROUND + 3, row = 0; y < HEIGHT + 20; row++) {
    const high = 9 + (y - GROUND) * 0.15
    const wide = high * 1.9
    for (let x = -wide + (row % 2) * wide * 0.5; x < WIDTH + wide; x += wide) {
      const light = 40 + next() * 18
      const g = c.createLinearGradient(0, y, 0, y + high)
      g.addColorStop(0, `hsl(${34 + next() * 14} 7% ${light + 14}%)`)
      g.addColorStop(1, `hsl(32 7% ${light - 14}%)`)
      c.fillStyle = g
      c.beginPath()
      c.roundRect(x + next() * 2, y + next(), wide - 3 - next() * 2, high - 2, high * 0.42)
      c.fill()
    }
    y += high
  }
}

export function paintYard(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  plaster(c)
  door(c)
  cobbles(c)
  return canvas
}

/** Morning from the left over a roof: its shadow lies across the wall's upper right, softly edged. */
export function yardLight(x: number, y: number, nearer: boolean): readonly [number, number, number] {
  const under = (nearer ? -70 : 0) + 0.42 * (x - 500) - (y - 20)
  const sun = 1 / (1 + Math.exp(under / 14))
  const far = 1 - 0.1 * ((x - 500) / 640) ** 2
  return [(0.42 + 0.62 * sun) * far, (0.47 + 0.55 * sun) * far, (0.58 + 0.4 * sun) * far]
}

/** The same yard from its other end, mirrored so to speak. */
export function paintYardTurned(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  c.translate(WIDTH, 0)
  c.scale(-1, 1)
  c.drawImage(paintYard(), 0, 0)
  return canvas
}

/** Dusk, and a lantern that somebody has hung beyond the picture's right border. */
export function duskLight(x: number, y: number, nearer: boolean): readonly [number, number, number] {
  const [dx, dy] = [(x - 1190) / (nearer ? 760 : 640), (y - 250) / (nearer ? 560 : 430)]
  const lantern = 0.95 / (1 + 2.4 * (dx * dx + dy * dy))
  const sky = 0.9 + 0.22 * (1 - y / HEIGHT)
  return [0.14 * sky + lantern, 0.19 * sky + lantern * 0.66, 0.36 * sky + lantern * 0.3]
}
