// A sheet of cloth that turns, and goes to and fro, before another one: seen as it is known to lie.
import { type Projective, pinMap, project, type Quad, quadOf, unproject } from '../core/projective'
import { cloth } from './texture'

export const SHEET_SIZE = { width: 320, height: 200 }
/** Where it lies at first. */
export const SHEET = { left: 80, top: 50, right: 240, bottom: 150 }

/** From where it lay at first to where it lies `i` frames later: turned about its upright middle, nearer and farther. */
export function sheetAt(i: number): Projective {
  const turn = 0.7 * Math.sin(i * 0.04)
  const [near, far] = [12 * Math.sin(turn), -14 * Math.sin(turn)]
  const [by, down] = [24 * Math.sin(i * 0.03), 10 * Math.sin(i * 0.05)]
  const narrow = 80 * (1 - Math.cos(turn))
  const corners: Quad = [
    { x: SHEET.left + narrow + by, y: SHEET.top + near + down },
    { x: SHEET.right - narrow + by, y: SHEET.top + far + down },
    { x: SHEET.right - narrow + by, y: SHEET.bottom - far + down },
    { x: SHEET.left + narrow + by, y: SHEET.bottom - near + down },
  ]
  return pinMap(SHEET, corners)!
}

/** What a camera sees of it at a frame; `passing`: where a strip of 40 px begins that somebody hides. */
export function filmSheet(i: number, passing: number | null, grain: () => number, out: Float32Array): void {
  const back = unproject(sheetAt(i))
  const { width, height } = SHEET_SIZE
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = project(back, { x: x + 0.5, y: y + 0.5 })
      const isOn = p.x > SHEET.left && p.x < SHEET.right && p.y > SHEET.top && p.y < SHEET.bottom
      const isHidden = passing !== null && x > passing && x < passing + 40
      const seen = isOn ? cloth(p.x, p.y) : cloth(x + 500, y) * 0.5
      out[y * width + x] = (isHidden ? cloth(x - passing! + 900, y) : seen) + grain()
    }
  }
}

/** px by which its farthest corner is off under a map. */
export const sheetOff = (map: Projective, i: number): number =>
  Math.max(
    ...quadOf(SHEET).map(p => {
      const [one, other] = [project(map, p), project(sheetAt(i), p)]
      return Math.hypot(one.x - other.x, one.y - other.y)
    }),
  )

export const onSheet = (x: number, y: number): boolean =>
  x > SHEET.left && x < SHEET.right && y > SHEET.top && y < SHEET.bottom
