// What the apprentice walks on, where the picture shows it: stockings and boots under the coat's hem.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { corner, type OutlinePoint } from '../src/core/outline'
import { joints, type Stride } from './apprentice'

/** Where her soles are, in px of her own. */
export const SOLE = 892

/** Half of how wide a stocking is. */
const THICK = 19

/** A boot about its ankle, from the shin's back over the toe and along the sole. */
const BOOT = [
  [-24, -42],
  [22, -42],
  [24, -8],
  [40, 5],
  [62, 14],
  [66, 36],
  [-31, 36],
  [-29, 2],
] as const

/** 1: the nearer leg. */
function limbs(stride: Stride, way: 1 | -1) {
  const { hip } = joints(stride)
  const at = stride.turn * 2 * Math.PI
  const [swing, ahead] = [way * Math.sin(at), way * Math.cos(at)]
  // Whichever comes forward is lifted.
  const lift = Math.max(0, ahead) * 40
  const ankle = { x: hip.x + 4 - swing * 84, y: SOLE - 34 - lift }
  const knee = { x: (hip.x + ankle.x) / 2 + 14 + lift * 0.5, y: (hip.y + 60 + ankle.y) / 2 }
  const turned = Math.max(0, ahead) * -0.28 + (swing > 0 ? swing * 0.3 : 0)
  return { hip, knee, ankle, turned }
}

function leg(c: SKRSContext2D, stride: Stride, way: 1 | -1, light: number): void {
  const { hip, knee, ankle, turned } = limbs(stride, way)
  c.strokeStyle = `hsl(28 14% ${light}%)`
  c.lineCap = 'round'
  c.lineJoin = 'round'
  c.lineWidth = 2 * THICK
  c.beginPath()
  c.moveTo(hip.x, hip.y + 90)
  c.lineTo(knee.x, knee.y)
  c.lineTo(ankle.x, ankle.y - 10)
  c.stroke()
  c.save()
  c.translate(ankle.x, ankle.y)
  c.rotate(turned)
  c.fillStyle = `hsl(18 34% ${light + 2}%)`
  c.beginPath()
  c.moveTo(-24, -42)
  c.lineTo(22, -42)
  c.quadraticCurveTo(24, -4, 34, 4)
  c.quadraticCurveTo(66, 8, 64, 30)
  c.lineTo(-28, 30)
  c.quadraticCurveTo(-30, 0, -24, -42)
  c.fill()
  c.fillStyle = '#15100c'
  c.fillRect(-30, 28, 96, 7)
  c.restore()
}

/** Draws both, the farther first; the coat goes over them. */
export function paintLegs(c: SKRSContext2D, stride: Stride): void {
  leg(c, stride, -1, 12)
  leg(c, stride, 1, 18)
}

/** About the nearer leg, from under the coat's hem to the sole, in px of her own. As many points at every moment. */
export function nearerLeg(stride: Stride): OutlinePoint[] {
  const { hip, knee, ankle, turned } = limbs(stride, 1)
  const [cos, sin] = [Math.cos(turned), Math.sin(turned)]
  const boot = BOOT.map(([x, y]) => ({ x: ankle.x + x * cos - y * sin, y: ankle.y + x * sin + y * cos }))
  const [back, ...front] = boot
  return [
    { x: hip.x - THICK, y: hip.y + 90 },
    { x: hip.x + THICK, y: hip.y + 90 },
    { x: knee.x + THICK + 1, y: knee.y },
    ...front,
    back!,
    { x: knee.x - THICK - 1, y: knee.y },
  ].map(corner)
}
