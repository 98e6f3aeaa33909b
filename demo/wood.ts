// Planks with grain, knots and worn edges.
import type { SKRSContext2D } from '@napi-rs/canvas'
import { chance } from './chance'

export interface Plank {
  x: number
  y: number
  width: number
  height: number
  /** Base colour as hue, saturation, lightness. */
  hue: number
  sat: number
  light: number
  seed: number
  /** Whether the grain runs up and down. */
  upright: boolean
}

export function plank(c: SKRSContext2D, p: Plank): void {
  const next = chance(p.seed)
  c.save()
  c.beginPath()
  c.rect(p.x, p.y, p.width, p.height)
  c.clip()
  c.fillStyle = `hsl(${p.hue} ${p.sat}% ${p.light + (next() - 0.5) * 3}%)`
  c.fillRect(p.x, p.y, p.width, p.height)
  const across = p.upright ? p.width : p.height
  const along = p.upright ? p.height : p.width
  const knot = { at: next() * along, off: (0.2 + 0.6 * next()) * across, size: 4 + next() * 7 }
  const lines = Math.max(8, Math.round(across / 1.7))
  for (let i = 0; i < lines; i++) {
    const off = ((i + next()) / lines) * across
    const dark = next()
    c.strokeStyle = `hsl(${p.hue - 3} ${p.sat}% ${Math.max(2, p.light - 2 - dark * 6)}% / ${0.12 + 0.3 * next()})`
    c.lineWidth = 0.5 + next() * 1.3
    const wave = 2 + next() * 40
    const phase = next() * 7
    c.beginPath()
    for (let s = -5; s <= along + 5; s += 9) {
      const near = Math.exp(-(((s - knot.at) / (knot.size * 3)) ** 2))
      const bend = Math.sign(off - knot.off || 1) * near * knot.size * Math.exp(-Math.abs(off - knot.off) / 14)
      const o = off + Math.sin(s / (wave + 60) + phase) * 1.4 + bend
      const [x, y] = p.upright ? [p.x + o, p.y + s] : [p.x + s, p.y + o]
      if (s < 0) c.moveTo(x, y)
      else c.lineTo(x, y)
    }
    c.stroke()
  }
  c.restore()
  c.strokeStyle = `hsl(${p.hue} ${p.sat}% ${p.light * 0.35}% / 0.8)`
  c.lineWidth = 1.6
  c.strokeRect(p.x, p.y, p.width, p.height)
  c.strokeStyle = `hsl(${p.hue} ${p.sat}% ${p.light * 1.5}% / 0.25)`
  c.lineWidth = 1
  c.beginPath()
  c.moveTo(p.x + 1.5, p.y + p.height)
  c.lineTo(p.x + 1.5, p.y + 1.5)
  c.lineTo(p.x + p.width, p.y + 1.5)
  c.stroke()
}
