// The clockmaker: a figure of limbs on joints, drawn from a pose.
import type { SKRSContext2D } from '@napi-rs/canvas'

export interface Point {
  x: number
  y: number
}

/** Measured in px; hands are relative to the feet's place on the floor line, as everything is. */
export interface Pose {
  /** Middle of the body. */
  x: number
  /** Radians; leaning to the right is positive. */
  lean: number
  /** Radians; nodding to the right is positive. */
  tilt: number
  /** -1 looks left, 1 looks right. */
  look: number
  /** Raised by so many px, as with a breath. */
  rise: number
  left: Point
  right: Point
  /** 0..1: how open the mouth is. */
  mouth: number
  /** 0..1: how far the brows go up. */
  brows: number
  /** Which hand holds the pocket watch. */
  holds: 'left' | 'right' | null
}

const HIP = 520
const SHOULDER = 334
const UPPER = 92
const LOWER = 88

/**
 * Where the elbow of an arm lies (law of cosines). A hanging arm bends outwards, a reaching one downwards; between the
 * two the elbow swings through the picture plane, so that the arm looks foreshortened, not broken.
 */
function elbow(from: Point, to: Point, outward: -1 | 1): { joint: Point; end: Point } {
  const dx = to.x - from.x
  const dy = to.y - from.y
  const reach = Math.min(Math.hypot(dx, dy), UPPER + LOWER - 1)
  const along = Math.atan2(dy, dx)
  const middle = (UPPER * UPPER + reach * reach - LOWER * LOWER) / (2 * reach)
  const out = Math.sqrt(Math.max(0, UPPER * UPPER - middle * middle))
  const down = Math.asin(Math.sin(along)) * (180 / Math.PI)
  const turn = outward * Math.max(-1, Math.min(1, (52 - down) / 22))
  const ux = Math.cos(along)
  const uy = Math.sin(along)
  const joint = { x: from.x + ux * middle - uy * out * turn, y: from.y + uy * middle + ux * out * turn }
  return { joint, end: { x: from.x + ux * reach, y: from.y + uy * reach } }
}

function limb(c: SKRSContext2D, a: Point, b: Point, wa: number, wb: number, fill: string): void {
  const angle = Math.atan2(b.y - a.y, b.x - a.x)
  const sx = Math.sin(angle)
  const cx = Math.cos(angle)
  c.fillStyle = fill
  c.beginPath()
  c.arc(a.x, a.y, wa, angle + Math.PI / 2, angle - Math.PI / 2)
  c.lineTo(b.x + sx * wb, b.y - cx * wb)
  c.arc(b.x, b.y, wb, angle - Math.PI / 2, angle + Math.PI / 2)
  c.closePath()
  c.fill()
}

function arm(c: SKRSContext2D, shoulder: Point, hand: Point, side: -1 | 1, holds: boolean): void {
  const { joint, end } = elbow(shoulder, hand, side)
  limb(c, shoulder, joint, 25, 19, '#c9bfa8')
  limb(c, joint, end, 18.5, 13, '#d6ccb5')
  c.strokeStyle = 'rgba(70,55,40,0.35)'
  c.lineWidth = 2
  c.beginPath()
  c.arc(joint.x, joint.y, 15, 0.4, 2.2)
  c.stroke()
  const angle = Math.atan2(end.y - joint.y, end.x - joint.x)
  c.save()
  c.translate(end.x, end.y)
  c.rotate(angle)
  c.fillStyle = '#8d8069'
  c.fillRect(-7, -14, 9, 28)
  const skin = c.createLinearGradient(0, -12, 0, 14)
  skin.addColorStop(0, '#dfae8b')
  skin.addColorStop(1, '#b37d5c')
  c.fillStyle = skin
  c.beginPath()
  c.ellipse(13, 0, 15, 12, 0, 0, 7)
  c.fill()
  for (let i = 0; i < 4; i++) {
    c.beginPath()
    c.ellipse(26, -8 + i * 5.2, 9, 3.1, (i - 1.5) * 0.1, 0, 7)
    c.fill()
  }
  c.beginPath()
  c.ellipse(12, side > 0 ? -12 : 12, 10, 4, side > 0 ? -0.7 : 0.7, 0, 7)
  c.fill()
  if (holds) {
    c.rotate(-angle)
    c.strokeStyle = '#caa24e'
    c.lineWidth = 1.6
    c.beginPath()
    c.moveTo(Math.cos(angle) * 24, Math.sin(angle) * 24)
    c.quadraticCurveTo(
      Math.cos(angle) * 24 + 4,
      Math.sin(angle) * 24 + 14,
      Math.cos(angle) * 26,
      Math.sin(angle) * 24 + 26,
    )
    c.stroke()
    c.translate(Math.cos(angle) * 26, Math.sin(angle) * 24 + 40)
    c.fillStyle = '#d7ab52'
    c.beginPath()
    c.arc(0, 0, 15, 0, 7)
    c.fill()
    c.fillStyle = '#f5ecd4'
    c.beginPath()
    c.arc(0, 0, 11, 0, 7)
    c.fill()
    c.strokeStyle = '#2a1d12'
    c.lineWidth = 1.6
    c.beginPath()
    c.moveTo(0, -8)
    c.lineTo(0, 0)
    c.lineTo(2, 6)
    c.stroke()
  }
  c.restore()
}

function head(c: SKRSContext2D, pose: Pose): void {
  const look = pose.look
  c.fillStyle = '#b98461'
  c.beginPath()
  c.moveTo(-15, -6)
  c.lineTo(15, -6)
  c.lineTo(20, 22)
  c.lineTo(-20, 22)
  c.fill()
  c.translate(0, -38)
  c.rotate(pose.tilt)
  // Ears, then the face over them.
  c.fillStyle = '#c48f6c'
  for (const side of [-1, 1]) {
    c.beginPath()
    c.ellipse(side * 36 - look * 6, 2, 7, 12, 0, 0, 7)
    c.fill()
  }
  const skin = c.createRadialGradient(look * 10 - 6, -14, 6, 0, 0, 56)
  skin.addColorStop(0, '#efc29f')
  skin.addColorStop(0.7, '#d39f7a')
  skin.addColorStop(1, '#a8714f')
  c.fillStyle = skin
  c.beginPath()
  c.moveTo(-35, -18)
  c.bezierCurveTo(-37, 20, -26, 44, 0, 47)
  c.bezierCurveTo(26, 44, 37, 20, 35, -18)
  c.bezierCurveTo(33, -50, -33, -50, -35, -18)
  c.fill()
  // Hair: grey, swept back.
  const hair = c.createLinearGradient(0, -58, 0, -8)
  hair.addColorStop(0, '#d5d0c6')
  hair.addColorStop(1, '#8c857a')
  c.fillStyle = hair
  c.beginPath()
  c.moveTo(-38, 2)
  c.bezierCurveTo(-46, -44, -22, -62, 4, -59)
  c.bezierCurveTo(34, -58, 45, -34, 38, 2)
  c.bezierCurveTo(36, -14, 32, -24, 26 - look * 3, -30)
  c.bezierCurveTo(6, -24, -16, -38, -26 - look * 3, -28)
  c.bezierCurveTo(-33, -20, -36, -10, -38, 2)
  c.fill()
  c.strokeStyle = 'rgba(90,84,76,0.5)'
  c.lineWidth = 1
  for (let i = 0; i < 9; i++) {
    c.beginPath()
    c.moveTo(-30 + i * 7, -30 + Math.abs(i - 4) * 2)
    c.quadraticCurveTo(-24 + i * 7, -52, -8 + i * 5, -56 + Math.abs(i - 4))
    c.stroke()
  }
  const ex = look * 11
  for (const side of [-1, 1]) {
    const x = ex + side * 14
    c.fillStyle = '#f7f1e6'
    c.beginPath()
    c.ellipse(x, -4, 6.5, 4.4, 0, 0, 7)
    c.fill()
    c.fillStyle = '#3b2c20'
    c.beginPath()
    c.arc(x + look * 2.4, -4, 3.1, 0, 7)
    c.fill()
    c.strokeStyle = '#a09789'
    c.lineWidth = 4.2
    c.lineCap = 'round'
    c.beginPath()
    c.moveTo(x - 8, -15 - pose.brows * 6 + side * 1.2)
    c.quadraticCurveTo(x, -19 - pose.brows * 8, x + 8, -15 - pose.brows * 6 - side * 1.2)
    c.stroke()
    c.strokeStyle = '#c8a24f'
    c.lineWidth = 2
    c.beginPath()
    c.arc(x, -3, 11, 0, 7)
    c.stroke()
  }
  c.beginPath()
  c.moveTo(ex - 3, -4)
  c.lineTo(ex + 3, -4)
  c.stroke()
  c.fillStyle = '#c98d69'
  c.beginPath()
  c.moveTo(ex + look * 3, -4)
  c.quadraticCurveTo(ex + look * 14 + 4, 14, ex + look * 8, 17)
  c.quadraticCurveTo(ex - 4, 19, ex - 7, 14)
  c.closePath()
  c.fill()
  c.fillStyle = '#5c2f24'
  c.beginPath()
  c.ellipse(ex * 0.8, 30, 9, 1.5 + pose.mouth * 6, 0, 0, 7)
  c.fill()
  c.fillStyle = '#b9b2a6'
  c.beginPath()
  c.moveTo(ex - 1, 19)
  c.bezierCurveTo(ex - 14, 16, ex - 27, 24, ex - 27, 30)
  c.bezierCurveTo(ex - 16, 29, ex - 7, 28, ex, 25)
  c.bezierCurveTo(ex + 7, 28, ex + 16, 29, ex + 27, 30)
  c.bezierCurveTo(ex + 27, 24, ex + 14, 16, ex - 1, 19)
  c.fill()
}

/** Draws the whole figure; the counter is painted over its lower half later. */
export function paintClockmaker(c: SKRSContext2D, pose: Pose): void {
  c.save()
  c.translate(pose.x, HIP - pose.rise * 0.3)
  c.rotate(pose.lean)
  c.translate(0, -HIP)
  const y = SHOULDER - pose.rise
  const turn = pose.look * 7
  const shoulders = { left: { x: -64 + turn * 0.4, y: y + 12 }, right: { x: 64 + turn * 0.4, y: y + 12 } }
  // The hands are given on the floor plan; bring them into the leaning body.
  const into = (p: Point): Point => {
    const dx = p.x - pose.x
    const dy = p.y - HIP
    const s = Math.sin(-pose.lean)
    const k = Math.cos(-pose.lean)
    return { x: dx * k - dy * s, y: dx * s + dy * k + HIP }
  }
  const far = pose.look > 0 ? 'right' : 'left'
  const near = far === 'right' ? 'left' : 'right'
  const paintArm = (which: 'left' | 'right') =>
    arm(c, shoulders[which], into(pose[which]), which === 'left' ? -1 : 1, pose.holds === which)
  paintArm(far)
  // Shirt, waistcoat, apron.
  c.fillStyle = '#cfc5ae'
  c.beginPath()
  c.moveTo(-70, y + 14)
  c.bezierCurveTo(-52, y - 12, -20, y - 14, 0, y - 14)
  c.bezierCurveTo(20, y - 14, 52, y - 12, 70, y + 14)
  c.lineTo(60, y + 210)
  c.lineTo(-60, y + 210)
  c.closePath()
  c.fill()
  const cloth = c.createLinearGradient(-70, 0, 70, 0)
  cloth.addColorStop(0, '#33271f')
  cloth.addColorStop(0.4, '#5b4637')
  cloth.addColorStop(1, '#2c211a')
  c.fillStyle = cloth
  c.beginPath()
  c.moveTo(-58, y + 2)
  c.quadraticCurveTo(-30, y - 10, -19, y - 10)
  c.lineTo(turn, y + 78)
  c.lineTo(19, y - 10)
  c.quadraticCurveTo(30, y - 10, 58, y + 2)
  c.lineTo(62, y + 210)
  c.lineTo(-62, y + 210)
  c.closePath()
  c.fill()
  c.fillStyle = '#7d6a4a'
  c.beginPath()
  c.moveTo(-40 + turn * 0.5, y + 96)
  c.lineTo(40 + turn * 0.5, y + 96)
  c.lineTo(56, y + 240)
  c.lineTo(-56, y + 240)
  c.closePath()
  c.fill()
  c.strokeStyle = '#c9a452'
  c.lineWidth = 1.8
  c.beginPath()
  c.moveTo(turn, y + 82)
  c.quadraticCurveTo(turn + 26, y + 104, turn + 44, y + 84)
  c.stroke()
  c.fillStyle = '#d9b765'
  for (let i = 0; i < 2; i++) {
    c.beginPath()
    c.arc(turn, y + 50 + i * 20, 3, 0, 7)
    c.fill()
  }
  c.fillStyle = '#7c2a20'
  c.beginPath()
  c.moveTo(turn * 0.6, y - 2)
  c.lineTo(turn * 0.6 - 22, y - 13)
  c.lineTo(turn * 0.6 - 22, y + 9)
  c.lineTo(turn * 0.6 + 22, y - 13)
  c.lineTo(turn * 0.6 + 22, y + 9)
  c.closePath()
  c.fill()
  c.save()
  c.translate(turn * 0.8, y - 22)
  head(c, pose)
  c.restore()
  paintArm(near)
  c.restore()
}
