// The attic at noon, near the floor: striped paper, a white skirting board, pale planks, sun through a window's panes.
import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { chance } from './chance'
import { HEIGHT, WIDTH } from './shop'
import { plank } from './wood'

const SKIRTING = { top: 388, bottom: 470 } as const
/** Where boots stand. */
export const FLOOR = 662

function paper(c: SKRSContext2D): void {
  const next = chance(91)
  for (let x = 0, i = 0; x < WIDTH; x += 40, i++) {
    c.fillStyle = i % 2 ? '#b9c7a6' : '#d3dbbf'
    c.fillRect(x, 0, 40, SKIRTING.top)
    c.fillStyle = 'rgba(120,70,60,0.5)'
    for (let y = (i % 2) * 34; y < SKIRTING.top; y += 68) {
      c.beginPath()
      for (let petal = 0; petal < 5; petal++) {
        const a = (petal / 5) * 6.283 + next()
        c.ellipse(x + 20 + Math.cos(a) * 5, y + 20 + Math.sin(a) * 5, 4, 3, a, 0, 7)
      }
      c.fill()
    }
  }
}

function floor(c: SKRSContext2D): void {
  for (let y = SKIRTING.bottom, row = 0; y < HEIGHT; row++) {
    const high = 30 + row * 12
    for (let x = -((row * 290) % 620); x < WIDTH; x += 620)
      plank(c, {
        x,
        y,
        width: 620,
        height: high,
        hue: 34,
        sat: 32,
        light: 58 - row * 2,
        seed: 500 + row * 9 + (x & 7),
        upright: false,
      })
    y += high
  }
}

export function paintAttic(): Canvas {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  paper(c)
  plank(c, {
    x: -4,
    y: SKIRTING.top,
    width: WIDTH + 8,
    height: SKIRTING.bottom - SKIRTING.top,
    hue: 48,
    sat: 12,
    light: 82,
    seed: 12,
    upright: false,
  })
  c.fillStyle = 'rgba(60,50,36,0.35)'
  c.fillRect(0, SKIRTING.top + 16, WIDTH, 3)
  floor(c)
  return canvas
}

/** Four panes of sun, slanting over the wall and the floor. */
export function atticLight(x: number, y: number, nearer: boolean): readonly [number, number, number] {
  const along = x + (y - 360) * 0.55 - (nearer ? 40 : 0)
  const soft = (v: number, edge: number) => 1 / (1 + Math.exp(-v / edge))
  const pane = (from: number) => soft(along - from, 7) * soft(from + 190 - along, 7)
  const down = y < SKIRTING.bottom ? 1 : 0.95
  const bars = 1 - 0.85 * Math.exp(-(((y - 250) / 9) ** 2)) - 0.8 * Math.exp(-(((y - 566) / 12) ** 2))
  const sun = 0.75 * (pane(300) + pane(520)) * bars * down
  return [0.4 + sun, 0.44 + sun * 0.94, 0.5 + sun * 0.76]
}
