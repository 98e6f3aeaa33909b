// The clocks on the wall of Half Past Never.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { NUMERALS } from './letters'

export interface Clock {
  x: number
  y: number
  radius: number
  rim: 'brass' | 'wood' | 'black' | 'copper' | 'green'
  /** Minutes after twelve that it has stopped at. */
  shows: number
  roman?: boolean
  /** Whether a second hand still runs. */
  runs?: boolean
}

export const CLOCKS: readonly Clock[] = [
  { x: 322, y: 96, radius: 46, rim: 'brass', shows: 390, roman: true, runs: true },
  { x: 424, y: 62, radius: 30, rim: 'black', shows: 152, runs: true },
  { x: 520, y: 122, radius: 54, rim: 'wood', shows: 690, roman: true },
  { x: 620, y: 60, radius: 34, rim: 'copper', shows: 270 },
  { x: 700, y: 138, radius: 48, rim: 'brass', shows: 30 },
  { x: 800, y: 70, radius: 42, rim: 'green', shows: 450 },
  { x: 898, y: 128, radius: 56, rim: 'wood', shows: 570, roman: true, runs: true },
  { x: 985, y: 60, radius: 30, rim: 'brass', shows: 95 },
  { x: 410, y: 178, radius: 26, rim: 'copper', shows: 615 },
  { x: 612, y: 206, radius: 30, rim: 'black', shows: 330 },
  { x: 792, y: 214, radius: 27, rim: 'brass', shows: 210 },
  { x: 1004, y: 196, radius: 34, rim: 'copper', shows: 510 },
  { x: 316, y: 214, radius: 31, rim: 'green', shows: 48 },
  { x: 520, y: 252, radius: 22, rim: 'brass', shows: 400 },
  { x: 700, y: 262, radius: 24, rim: 'wood', shows: 120 },
  { x: 892, y: 256, radius: 25, rim: 'black', shows: 260 },
]

const RIMS = {
  brass: ['#f0cf82', '#9c6f22', '#5d3d10'],
  wood: ['#8a5630', '#5a3217', '#2c170a'],
  black: ['#5a5450', '#26221f', '#0f0d0c'],
  copper: ['#e4a072', '#94512b', '#4a2412'],
  green: ['#7d9a80', '#3d5b46', '#1a2a20'],
} as const

const ROMAN = ['XII', 'I', 'II', 'III', 'IIII', 'V', 'VI', 'VII', 'VIII', 'IX', 'X', 'XI']

function hand(c: SKRSContext2D, turns: number, length: number, width: number, colour: string): void {
  c.save()
  c.rotate(turns * 2 * Math.PI)
  c.fillStyle = colour
  c.beginPath()
  c.moveTo(-width, length * 0.18)
  c.lineTo(-width * 0.7, -length * 0.7)
  c.lineTo(0, -length)
  c.lineTo(width * 0.7, -length * 0.7)
  c.lineTo(width, length * 0.18)
  c.closePath()
  c.fill()
  c.restore()
}

/** Case, face and figures; the hands of clocks that stand still. */
export function paintClock(c: SKRSContext2D, clock: Clock): void {
  const { x, y, radius: r } = clock
  const [light, mid, dark] = RIMS[clock.rim]
  c.save()
  c.translate(x, y)
  c.shadowColor = 'rgba(0,0,0,0.6)'
  c.shadowBlur = 16
  c.shadowOffsetX = -5
  c.shadowOffsetY = 9
  c.fillStyle = dark
  c.beginPath()
  c.arc(0, 0, r * 1.13, 0, 7)
  c.fill()
  c.shadowColor = 'transparent'
  const rim = c.createLinearGradient(-r, -r, r, r)
  rim.addColorStop(0, light)
  rim.addColorStop(0.45, mid)
  rim.addColorStop(0.7, dark)
  rim.addColorStop(1, mid)
  c.fillStyle = rim
  c.beginPath()
  c.arc(0, 0, r * 1.11, 0, 7)
  c.fill()
  c.fillStyle = dark
  c.beginPath()
  c.arc(0, 0, r * 0.985, 0, 7)
  c.fill()
  const face = c.createRadialGradient(-r * 0.25, -r * 0.3, r * 0.1, 0, 0, r)
  face.addColorStop(0, '#f6ecd2')
  face.addColorStop(0.75, '#e6d6b0')
  face.addColorStop(1, '#b9a276')
  c.fillStyle = face
  c.beginPath()
  c.arc(0, 0, r * 0.94, 0, 7)
  c.fill()
  c.strokeStyle = '#3a2c1c'
  c.fillStyle = '#3a2c1c'
  for (let i = 0; i < 60; i++) {
    const a = (i / 60) * 2 * Math.PI
    const hour = i % 5 === 0
    if (!hour && r < 34) continue
    c.lineWidth = hour ? Math.max(1, r * 0.035) : Math.max(0.5, r * 0.012)
    c.beginPath()
    c.moveTo(Math.sin(a) * r * (hour ? 0.8 : 0.85), -Math.cos(a) * r * (hour ? 0.8 : 0.85))
    c.lineTo(Math.sin(a) * r * 0.9, -Math.cos(a) * r * 0.9)
    c.stroke()
  }
  if (clock.roman) {
    c.font = `${Math.round(r * 0.2)}px "${NUMERALS}"`
    c.textAlign = 'center'
    c.textBaseline = 'middle'
    ROMAN.forEach((text, i) => {
      c.save()
      c.rotate((i / 12) * 2 * Math.PI)
      c.fillText(text, 0, -r * 0.66)
      c.restore()
    })
  }
  hand(c, clock.shows / 720, r * 0.5, r * 0.045, '#1d150d')
  hand(c, clock.shows / 60, r * 0.76, r * 0.032, '#1d150d')
  if (!clock.runs) cap(c, r)
  c.restore()
}

function cap(c: SKRSContext2D, r: number): void {
  c.fillStyle = '#6b4a1c'
  c.beginPath()
  c.arc(0, 0, r * 0.06, 0, 7)
  c.fill()
}

/** The second hands at a moment; they jump once a second, with a little recoil. */
export function paintSeconds(c: SKRSContext2D, seconds: number): void {
  const part = seconds % 1
  const recoil = part < 0.12 ? Math.sin(part * 80) * 0.1 * (1 - part / 0.12) : 0
  for (const clock of CLOCKS) {
    if (!clock.runs) continue
    c.save()
    c.translate(clock.x, clock.y)
    hand(
      c,
      (Math.floor(seconds) + recoil + clock.shows) / 60,
      clock.radius * 0.82,
      Math.max(0.8, clock.radius * 0.018),
      '#8c2f1c',
    )
    cap(c, clock.radius)
    c.restore()
  }
}

/** Seconds of one swing of the pendulum, there and back. */
export const SWING = 1.5

/** Where the pendulum hangs, how long it is and how far it swings (radians). */
export const PENDULUM = { x: 790, y: 322, length: 112, swing: 0.34, bob: 21 } as const

/** The tall clock's pendulum at a share of its swing, 0..1 there and back. */
export function paintPendulum(c: SKRSContext2D, share: number): void {
  const { x, y, length, swing, bob } = PENDULUM
  c.save()
  c.translate(x, y)
  c.fillStyle = '#4a2f14'
  c.beginPath()
  c.arc(0, 0, 8, 0, 7)
  c.fill()
  c.rotate(Math.sin(share * 2 * Math.PI) * swing)
  c.strokeStyle = '#c59a46'
  c.lineWidth = 4
  c.beginPath()
  c.moveTo(0, 4)
  c.lineTo(0, length)
  c.stroke()
  const [light, middle, dark] = RIMS.brass
  const disc = c.createRadialGradient(-bob * 0.3, length - bob * 0.3, 2, 0, length, bob)
  disc.addColorStop(0, light)
  disc.addColorStop(0.7, middle)
  disc.addColorStop(1, dark)
  c.fillStyle = disc
  c.beginPath()
  c.arc(0, length, bob, 0, 7)
  c.fill()
  c.restore()
}
