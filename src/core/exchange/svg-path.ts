// Outlines as paths of SVG, and back.
import svgpath from 'svgpath'
import { corner, type OutlinePoint } from '../outline'
import type { Size } from '../shot'

/** Letters of a text that is looked into at most. */
const MOST = 4_000_000

const short = (v: number): string => String(Math.round(v * 100) / 100)

/** An outline as path data; `isOpen`: it does not come back to where it began. */
export function pathOf(points: readonly OutlinePoint[], isOpen = false): string {
  const [first] = points
  if (!first) return ''
  const to = (a: OutlinePoint, b: OutlinePoint) => {
    const isStraight = a.outX === 0 && a.outY === 0 && b.inX === 0 && b.inY === 0
    const ends = [a.x + a.outX, a.y + a.outY, b.x + b.inX, b.y + b.inY, b.x, b.y].map(short).join(' ')
    return isStraight ? `L${short(b.x)} ${short(b.y)}` : `C${ends}`
  }
  const on = points.slice(1).map((p, i) => to(points[i]!, p))
  const back = isOpen || points.length < 2 ? '' : `${to(points.at(-1)!, first)}Z`
  return `M${short(first.x)} ${short(first.y)}${on.join('')}${back}`
}

/** An outline as a drawing of some size, by itself. */
export const svgOf = (points: readonly OutlinePoint[], isOpen: boolean, { width, height }: Size): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}"><path ${isOpen ? 'fill="none" stroke="#000" ' : ''}d="${pathOf(points, isOpen)}"/></svg>\n`

/** Draws path data point by point. */
function ringsOf(data: string): OutlinePoint[][] | null {
  const path = svgpath(data).abs().unarc().unshort()
  if ('err' in path && path.err) return null
  const rings: OutlinePoint[][] = []
  path.iterate((segment, _, x, y) => {
    const [kind, ...n] = segment as [string, ...number[]]
    if (kind === 'M') return void rings.push([corner({ x: n[0]!, y: n[1]! })])
    const ring = rings.at(-1)
    const last = ring?.at(-1)
    if (!ring || !last) return
    const curve = (ax: number, ay: number, bx: number, by: number, ex: number, ey: number) => {
      last.outX = ax - last.x
      last.outY = ay - last.y
      ring.push({ ...corner({ x: ex, y: ey }), inX: bx - ex, inY: by - ey })
    }
    const third = (a: number, b: number) => a + ((b - a) * 2) / 3
    if (kind === 'L') ring.push(corner({ x: n[0]!, y: n[1]! }))
    if (kind === 'H') ring.push(corner({ x: n[0]!, y }))
    if (kind === 'V') ring.push(corner({ x, y: n[0]! }))
    if (kind === 'C') curve(n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!)
    if (kind === 'Q') curve(third(x, n[0]!), third(y, n[1]!), third(n[2]!, n[0]!), third(n[3]!, n[1]!), n[2]!, n[3]!)
  })
  return rings
}

/** A ring whose last point lies on its first is told without it. */
function closed(ring: OutlinePoint[]): OutlinePoint[] {
  const [first, last] = [ring[0], ring.at(-1)]
  if (!first || !last || ring.length < 3 || Math.hypot(first.x - last.x, first.y - last.y) > 0.01) return ring
  return [{ ...first, inX: last.inX, inY: last.inY }, ...ring.slice(1, -1)]
}

const PATHS = /<path\b[^>]*?\sd\s*=\s*(?:"([^"]*)"|'([^']*)')/gi
const BARE = /^\s*[Mm][\s\d.,+-]/

/** Whether a text may be an outline: path data, or a drawing with paths in it. */
const mayBePath = (text: string): boolean =>
  text.length <= MOST && (BARE.test(text) || (/<svg[\s>]/i.test(text) && /<path\b/i.test(text)))

/**
 * The outlines in path data or in the paths of a drawing, as they lie there: what a drawing does to its paths besides, such as turning
 * them, is left aside. null where there is none.
 */
export function outlinesIn(text: string): OutlinePoint[][] | null {
  if (!mayBePath(text)) return null
  const data = BARE.test(text) ? [text] : [...text.matchAll(PATHS)].map(([, a, b]) => a ?? b ?? '')
  const rings = data.flatMap(d => ringsOf(d) ?? []).map(closed)
  const whole = rings.filter(ring => ring.length > 1 && ring.every(p => Object.values(p).every(Number.isFinite)))
  return whole.length > 0 ? whole : null
}
