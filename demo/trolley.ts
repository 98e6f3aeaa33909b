// The delivery trolley: four wheels, a tall clock under canvas, crates, and a dial that looks out.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { corner, type OutlinePoint } from '../src/core/outline'
import { chance } from './chance'
import { CLOCKS, paintClock } from './clocks'
import { plank } from './wood'
import { ROAD } from './yard'

const WHEEL = { x: 158, radius: 58 } as const
const BED = -118
const TOP = -548

/** Where its middle is, px a second it rolls, and how far it has rolled. */
export const ROLL = { from: -330, speed: 318 } as const

export const trolleyAt = (seconds: number): number => ROLL.from + ROLL.speed * seconds

function wheel(c: SKRSContext2D, x: number, rolled: number, light: number): void {
  const { radius } = WHEEL
  c.save()
  c.translate(x, -radius)
  c.rotate(rolled / radius)
  c.strokeStyle = `hsl(24 30% ${light}%)`
  c.lineWidth = 7
  for (let i = 0; i < 8; i++) {
    c.beginPath()
    c.moveTo(0, 0)
    c.lineTo(Math.cos((i * Math.PI) / 4) * radius * 0.9, Math.sin((i * Math.PI) / 4) * radius * 0.9)
    c.stroke()
  }
  c.lineWidth = 11
  c.beginPath()
  c.arc(0, 0, radius - 9, 0, 7)
  c.stroke()
  c.strokeStyle = `hsl(210 6% ${light - 6}%)`
  c.lineWidth = 5
  c.beginPath()
  c.arc(0, 0, radius - 3, 0, 7)
  c.stroke()
  c.fillStyle = `hsl(40 30% ${light + 12}%)`
  c.beginPath()
  c.arc(0, 0, 13, 0, 7)
  c.fill()
  c.restore()
}

/** Canvas that hangs over something tall, tied twice; its hem moves a little. */
function covered(c: SKRSContext2D, seconds: number): void {
  const next = chance(17)
  const hem = (x: number) => BED - 6 + Math.sin(x * 0.09 + seconds * 4.2) * 5
  const cloth = c.createLinearGradient(-94, 0, 94, 0)
  cloth.addColorStop(0, '#8b7c5e')
  cloth.addColorStop(0.3, '#cdbd96')
  cloth.addColorStop(0.62, '#b09e78')
  cloth.addColorStop(1, '#6d6048')
  c.fillStyle = cloth
  c.beginPath()
  c.moveTo(-88, hem(-88))
  c.bezierCurveTo(-92, -300, -78, -420, -74, -470)
  c.bezierCurveTo(-70, TOP + 10, -40, TOP - 4, 0, TOP)
  c.bezierCurveTo(44, TOP - 2, 70, TOP + 12, 74, -468)
  c.bezierCurveTo(80, -400, 92, -280, 90, hem(90))
  for (let x = 90; x >= -88; x -= 10) c.lineTo(x, hem(x))
  c.closePath()
  c.fill()
  c.save()
  c.clip()
  for (let i = 0; i < 34; i++) {
    const [x, dark] = [-90 + next() * 180, next() > 0.5]
    c.strokeStyle = dark ? 'rgba(58,46,26,0.22)' : 'rgba(255,246,220,0.18)'
    c.lineWidth = 2 + next() * 8
    c.beginPath()
    c.moveTo(x * 0.8, TOP)
    c.bezierCurveTo(x * 0.86, -420, x + next() * 20 - 10, -300, x * 1.05, BED)
    c.stroke()
  }
  c.strokeStyle = '#5a4a2c'
  c.lineWidth = 6
  for (const y of [-262, -424]) {
    c.beginPath()
    c.moveTo(-100, y + 8)
    c.quadraticCurveTo(0, y + 22, 100, y)
    c.stroke()
  }
  c.restore()
}

function crate(c: SKRSContext2D, x: number, y: number, width: number, height: number, seed: number): void {
  for (let i = 0; i < 4; i++) {
    const slat = { x, y: y + (i * height) / 4, width, height: height / 4 }
    plank(c, { ...slat, hue: 30, sat: 34, light: 42, seed: seed + i, upright: false })
  }
  for (const left of [x, x + width - 16])
    plank(c, { x: left, y, width: 16, height, hue: 30, sat: 32, light: 36, seed: seed + 9, upright: true })
}

/** Draws it with its middle at x, on the road. */
export function paintTrolley(c: SKRSContext2D, seconds: number): void {
  const x = trolleyAt(seconds)
  const bob = Math.sin(x * 0.13) * 0.9 + Math.sin(x * 0.31) * 0.5
  c.save()
  c.translate(x, ROAD)
  for (const side of [-1, 1]) wheel(c, side * WHEEL.x + 16, x, 18)
  c.translate(0, bob)
  // The bar by which it is drawn, when it is.
  c.strokeStyle = '#4a3420'
  c.lineWidth = 12
  c.lineCap = 'round'
  c.beginPath()
  c.moveTo(-222, BED + 18)
  c.lineTo(-266, -302)
  c.moveTo(-290, -304)
  c.lineTo(-240, -300)
  c.stroke()
  crate(c, -218, -246, 124, 124, 800)
  crate(c, -196, -330, 92, 84, 820)
  covered(c, seconds)
  paintClock(c, { ...CLOCKS[2]!, x: 160, y: -196, radius: 70 })
  crate(c, 100, -142, 122, 26, 840)
  plank(c, { x: -240, y: BED, width: 480, height: 34, hue: 26, sat: 36, light: 30, seed: 860, upright: false })
  c.translate(0, -bob)
  for (const side of [-1, 1]) wheel(c, side * WHEEL.x, x, 26)
  c.restore()
}

/**
 * About it as somebody would draw it once and then only move: tight along the canvas, which passes before the letters, generous where only its own
 * picture lies behind it. Told from its middle on the road.
 */
export const trolleyOutline = (): OutlinePoint[] =>
  (
    [
      [-300, 24],
      [-304, -322],
      [-232, -322],
      [-208, -342],
      [-96, -342],
      [-83, -400],
      [-74, -472],
      [-66, -524],
      [-40, -546],
      [0, -549],
      [42, -546],
      [66, -524],
      [74, -470],
      [84, -390],
      [96, -282],
      [244, -282],
      [262, 24],
    ] as const
  ).map(([x, y]) => corner({ x, y: y + ROAD }))
