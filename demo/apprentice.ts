// The apprentice, who walks past: seen from the knees up, in a coat, with a scarf that flies and hair that will not lie.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { type OutlinePoint, roundOutlinePoint } from '../src/core/outline'
import { chance } from './chance'
import type { Point } from './clockmaker'

/** Px of the picture; she walks to the right. */
export interface Stride {
  /** Middle of the body. */
  x: number
  /** Where she is in her stride, in turns: a whole one is two steps. */
  turn: number
  /** Seconds, for all that flutters. */
  seconds: number
}

const HEAD = 214
const SHOULDER = 318
const HIP = 566

/** Where the parts of her are at a moment. */
export function joints({ x, turn, seconds }: Stride) {
  const swing = Math.sin(turn * 2 * Math.PI)
  const bob = Math.abs(Math.cos(turn * 2 * Math.PI)) * 9
  const head: Point = { x: x + 18, y: HEAD - bob + Math.sin(seconds * 2.1) * 2 }
  const shoulder: Point = { x: x + 4, y: SHOULDER - bob }
  const hip: Point = { x: x - 2, y: HIP - bob * 0.6 }
  const hand = (way: 1 | -1): Point => ({ x: x + 6 + way * swing * 88, y: 548 - bob - Math.abs(swing) * 26 })
  const elbow = (way: 1 | -1): Point => ({ x: x - 6 + way * swing * 42, y: 440 - bob - Math.abs(swing) * 4 })
  const flutter = Math.sin(seconds * 5.3) * 0.5 + Math.sin(seconds * 8.7 + 1) * 0.3
  const tail: Point = { x: x - 128 + flutter * 12, y: 352 - bob + flutter * 34 }
  return {
    head,
    shoulder,
    hip,
    near: hand(1),
    nearElbow: elbow(1),
    far: hand(-1),
    farElbow: elbow(-1),
    tail,
    bob,
    swing,
  }
}

function sleeve(c: SKRSContext2D, from: Point, elbow: Point, to: Point, cloth: readonly [string, string]): void {
  const g = c.createLinearGradient(from.x - 30, from.y, from.x + 34, from.y + 60)
  g.addColorStop(0, cloth[0])
  g.addColorStop(1, cloth[1])
  c.strokeStyle = g
  c.lineCap = 'round'
  c.lineJoin = 'round'
  for (const [width, a, b] of [
    [56, from, elbow],
    [46, elbow, to],
  ] as const) {
    c.lineWidth = width
    c.beginPath()
    c.moveTo(a.x, a.y)
    c.lineTo(b.x, b.y)
    c.stroke()
  }
  c.strokeStyle = 'rgba(30,20,8,0.28)'
  c.lineWidth = 2.2
  for (let i = 0; i < 4; i++) {
    c.beginPath()
    c.arc(elbow.x, elbow.y, 12 + i * 5, 0.5 + i * 0.1, 1.7)
    c.stroke()
  }
  // A cuff, and what comes out of it.
  const angle = Math.atan2(to.y - elbow.y, to.x - elbow.x)
  c.save()
  c.translate(to.x, to.y)
  c.rotate(angle)
  c.fillStyle = '#54402a'
  c.fillRect(6, -22, 13, 44)
  const skin = c.createLinearGradient(0, -14, 0, 16)
  skin.addColorStop(0, '#c68f6a')
  skin.addColorStop(1, '#8d5d40')
  c.fillStyle = skin
  c.beginPath()
  c.ellipse(31, 0, 18, 13.5, 0, 0, 7)
  c.fill()
  for (let i = 0; i < 4; i++) {
    c.beginPath()
    c.ellipse(45, -8 + i * 5.4, 10, 3.4, 0.3, 0, 7)
    c.fill()
  }
  c.restore()
}

function coat(c: SKRSContext2D, { shoulder, hip, swing }: ReturnType<typeof joints>, seconds: number): void {
  const g = c.createLinearGradient(shoulder.x - 90, 0, shoulder.x + 100, 0)
  g.addColorStop(0, '#6d4d1c')
  g.addColorStop(0.45, '#b8862f')
  g.addColorStop(1, '#8a6122')
  c.fillStyle = g
  const hem = Math.sin(seconds * 4.6) * 7
  c.beginPath()
  c.moveTo(shoulder.x - 26, shoulder.y - 34)
  c.bezierCurveTo(shoulder.x - 74, shoulder.y - 18, shoulder.x - 84, shoulder.y + 40, hip.x - 78, hip.y - 96)
  c.bezierCurveTo(hip.x - 84, hip.y - 20, hip.x - 104, hip.y + 80, hip.x - 122 - swing * 10 + hem, 740)
  c.lineTo(hip.x + 116 + swing * 10 + hem * 0.6, 740)
  c.bezierCurveTo(hip.x + 96, hip.y + 70, hip.x + 80, hip.y - 10, hip.x + 74, hip.y - 100)
  c.bezierCurveTo(shoulder.x + 84, shoulder.y + 60, shoulder.x + 76, shoulder.y - 4, shoulder.x + 36, shoulder.y - 34)
  c.closePath()
  c.fill()
  const next = chance(31)
  for (let i = 0; i < 26; i++) {
    const x = hip.x - 90 + next() * 176
    const y = shoulder.y + 60 + next() * 330
    c.strokeStyle = `rgba(40,26,8,${0.08 + next() * 0.16})`
    c.lineWidth = 1.5 + next() * 3
    c.beginPath()
    c.moveTo(x, y)
    c.quadraticCurveTo(x - 8 + next() * 16, y + 40, x - 12 + next() * 24 + hem * 0.4, y + 90 + next() * 40)
    c.stroke()
  }
  c.fillStyle = '#3d2c17'
  c.fillRect(hip.x - 82, hip.y - 92, 158, 21)
  c.fillStyle = '#caa24e'
  c.fillRect(hip.x + 22, hip.y - 96, 26, 29)
  c.fillStyle = '#3d2c17'
  c.fillRect(hip.x + 28, hip.y - 90, 14, 17)
  c.fillStyle = '#e1c27a'
  for (let i = 0; i < 3; i++) {
    c.beginPath()
    c.arc(shoulder.x + 42, shoulder.y + 44 + i * 46, 5, 0, 7)
    c.fill()
  }
}

function scarfTail(c: SKRSContext2D, { shoulder, tail }: ReturnType<typeof joints>, seconds: number): void {
  const from = { x: shoulder.x - 20, y: shoulder.y - 34 }
  const bend = { x: (from.x + tail.x) / 2, y: (from.y + tail.y) / 2 - 26 + Math.sin(seconds * 6.1) * 14 }
  for (const [width, colour] of [
    [38, '#7e2a2f'],
    [26, '#a8434a'],
  ] as const) {
    c.strokeStyle = colour
    c.lineWidth = width
    c.lineCap = 'butt'
    c.beginPath()
    c.moveTo(from.x, from.y)
    c.quadraticCurveTo(bend.x, bend.y, tail.x, tail.y)
    c.stroke()
  }
  // A fringe, thread by thread.
  const next = chance(57)
  const along = Math.atan2(tail.y - bend.y, tail.x - bend.x)
  c.lineWidth = 1.6
  c.strokeStyle = '#8e343a'
  for (let i = 0; i < 13; i++) {
    const off = (i - 6) * 3
    const x = tail.x - Math.sin(along) * off
    const y = tail.y + Math.cos(along) * off
    const long = 16 + next() * 12
    const droop = along + Math.sin(seconds * 7 + i) * 0.22
    c.beginPath()
    c.moveTo(x, y)
    c.lineTo(x + Math.cos(droop) * long, y + Math.sin(droop) * long)
    c.stroke()
  }
}

function hair(c: SKRSContext2D, head: Point, seconds: number, behind: boolean): void {
  const next = chance(behind ? 91 : 17)
  c.lineCap = 'round'
  for (let i = 0; i < (behind ? 150 : 34); i++) {
    const start = behind
      ? { x: head.x - 30 + next() * 34, y: head.y - 24 + next() * 40 }
      : { x: head.x - 10 + next() * 46, y: head.y - 32 + next() * 8 }
    const wild = next()
    const wave = Math.sin(seconds * (3 + wild * 4) + i) * (2 + wild * 5)
    const long = behind ? 48 + wild * 62 : 14 + wild * 18
    const end = { x: start.x - 22 - wild * 46 + wave, y: start.y + long * (behind ? 0.86 : 0.9) + wave * 0.4 }
    c.strokeStyle = `hsl(${18 + next() * 10} ${38 + next() * 16}% ${13 + next() * 17}%)`
    c.lineWidth = 0.9 + next() * (behind ? 3.2 : 1.4)
    c.beginPath()
    c.moveTo(start.x, start.y)
    c.quadraticCurveTo(start.x - 26 - wild * 22, start.y + long * 0.2, end.x, end.y)
    c.stroke()
  }
}

function face(c: SKRSContext2D, head: Point): void {
  c.save()
  c.translate(head.x, head.y)
  c.fillStyle = '#9d6a49'
  c.beginPath()
  c.moveTo(-20, 30)
  c.lineTo(22, 34)
  c.lineTo(24, 84)
  c.lineTo(-28, 84)
  c.fill()
  const skin = c.createRadialGradient(14, -6, 6, 2, 4, 62)
  skin.addColorStop(0, '#d9a680')
  skin.addColorStop(0.7, '#b9835d')
  skin.addColorStop(1, '#85583c')
  c.fillStyle = skin
  // From the side, a little towards us: brow, nose, lips, chin.
  c.beginPath()
  c.moveTo(-34, -20)
  c.bezierCurveTo(-30, -52, 30, -56, 40, -24)
  c.bezierCurveTo(41, -14, 40, -10, 43, -5)
  c.bezierCurveTo(50, 6, 57, 13, 52, 17)
  c.bezierCurveTo(46, 19, 44, 21, 45, 26)
  c.bezierCurveTo(47, 30, 45, 33, 43, 35)
  c.bezierCurveTo(44, 46, 34, 55, 20, 54)
  c.bezierCurveTo(-8, 52, -34, 30, -34, -20)
  c.fill()
  c.fillStyle = '#f3ece1'
  c.beginPath()
  c.ellipse(28, -6, 6.5, 4.2, 0.05, 0, 7)
  c.fill()
  c.fillStyle = '#33261b'
  c.beginPath()
  c.arc(31, -6, 3.3, 0, 7)
  c.fill()
  c.strokeStyle = '#4a2f1e'
  c.lineWidth = 3.4
  c.beginPath()
  c.moveTo(17, -17)
  c.quadraticCurveTo(28, -23, 39, -16)
  c.stroke()
  c.strokeStyle = '#7c4136'
  c.lineWidth = 3
  c.beginPath()
  c.moveTo(43, 30)
  c.quadraticCurveTo(35, 33, 29, 30)
  c.stroke()
  c.fillStyle = '#a36f4d'
  c.beginPath()
  c.ellipse(-7, 2, 7, 11, -0.1, 0, 7)
  c.fill()
  c.restore()
}

function cap(c: SKRSContext2D, head: Point): void {
  c.save()
  c.translate(head.x, head.y - 30)
  const g = c.createLinearGradient(-50, -40, 50, 20)
  g.addColorStop(0, '#27343d')
  g.addColorStop(0.5, '#4d6470')
  g.addColorStop(1, '#202b32')
  c.fillStyle = g
  c.beginPath()
  c.moveTo(-46, 8)
  c.bezierCurveTo(-58, -34, -20, -52, 16, -44)
  c.bezierCurveTo(44, -38, 52, -14, 46, 0)
  c.bezierCurveTo(60, 2, 74, 8, 72, 14)
  c.bezierCurveTo(50, 12, 20, 4, -46, 8)
  c.fill()
  c.strokeStyle = 'rgba(10,16,20,0.5)'
  c.lineWidth = 2
  c.beginPath()
  c.moveTo(-8, -46)
  c.quadraticCurveTo(-4, -20, -12, 5)
  c.stroke()
  c.restore()
}

/** Draws her whole. */
export function paintApprentice(c: SKRSContext2D, stride: Stride): void {
  const at = joints(stride)
  const { seconds } = stride
  sleeve(c, { x: at.shoulder.x + 14, y: at.shoulder.y + 12 }, at.farElbow, at.far, ['#4e3714', '#6d4d1c'])
  hair(c, at.head, seconds, true)
  scarfTail(c, at, seconds)
  coat(c, at, seconds)
  face(c, at.head)
  hair(c, at.head, seconds, false)
  cap(c, at.head)
  // The scarf's turn about her neck.
  const wool = c.createLinearGradient(0, at.shoulder.y - 52, 0, at.shoulder.y + 6)
  wool.addColorStop(0, '#b84f56')
  wool.addColorStop(1, '#6f2328')
  c.fillStyle = wool
  c.beginPath()
  c.ellipse(at.shoulder.x + 8, at.shoulder.y - 28, 54, 27, 0.1, 0, 7)
  c.fill()
  sleeve(c, { x: at.shoulder.x - 8, y: at.shoulder.y + 14 }, at.nearElbow, at.near, ['#7d5920', '#c29138'])
}

/** How far a handle goes along the line between a point's neighbours. */
const BOW = 1 / 6

/**
 * An outline about her as somebody would draw it: tight where her head, scarf and shoulders are, generous where only her own picture lies behind
 * her. As many points at every moment.
 */
export function silhouette(stride: Stride): OutlinePoint[] {
  const { head, shoulder, hip, tail, swing } = joints(stride)
  const { x } = stride
  const arms = 88 * Math.abs(swing)
  const bend = { x: (shoulder.x - 20 + tail.x) / 2, y: (shoulder.y - 34 + tail.y) / 2 }
  const around: [x: number, y: number, sharp?: true][] = [
    [head.x + 75, head.y - 17, true],
    [head.x + 46, head.y - 36],
    [head.x + 30, head.y - 66],
    [head.x - 2, head.y - 81],
    [head.x - 36, head.y - 70],
    [head.x - 52, head.y - 36],
    [head.x - 70, head.y + 14],
    [head.x - 96, head.y + 56],
    [shoulder.x - 62, shoulder.y - 42],
    [bend.x - 10, bend.y - 30],
    [tail.x - 26, tail.y - 16, true],
    [tail.x - 16, tail.y + 34, true],
    [bend.x + 6, bend.y + 32],
    [shoulder.x - 74, shoulder.y + 6],
    [x - 84, 400],
    [x - Math.max(96, 30 + arms * 0.5), 460],
    [x - Math.max(100, 60 + arms), 560],
    [hip.x - 130, 735, true],
    [hip.x + 130, 735, true],
    [x + Math.max(100, 70 + arms), 580],
    [x + Math.max(80, 22 + arms * 0.5), 450],
    [x + 76, 372],
    [shoulder.x + 68, shoulder.y - 8],
    [shoulder.x + 64, shoulder.y - 40],
    [head.x + 44, head.y + 48],
    [head.x + 58, head.y + 16],
    [head.x + 44, head.y - 10],
  ]
  return around.map(([px, py, sharp], i) => {
    const at = (n: number) => around[(i + n + around.length) % around.length]!
    const [dx, dy] = sharp ? [0, 0] : [(at(1)[0] - at(-1)[0]) * BOW, (at(1)[1] - at(-1)[1]) * BOW]
    return roundOutlinePoint({ x: px, y: py, inX: -dx, inY: -dy, outX: dx, outY: dy })
  })
}
