// Labels of cells -> alpha of px.
import { type Cells, LIFT } from './cells'
import type { Knowledge } from './evidence'
import { POWER } from './light'
import { boxMean, type Part, type Plane, partAt, placed, pxOf, roomFor } from './plane'
import { dropIslands, dropSpecks, fillPits } from './specks'
import { STRANDS, strandsOf } from './strands'

/** Cells outside and inside of the border between somebody and the set in which alpha is solved for, and over which inwards is told. */
const OUT = 2
const INTO = 3
const TELLING = 2
/** Cells over which the light of the set beside it is gathered. */
const ASIDE = 6
/** How many cells farther in the colours are looked up that may be mixed with the set's. */
const INWARD = [1, 2, 3.5, 5, 7, 10]
/** Cells round somebody that their border tells of or is told by. */
const ROUND = 12
/** By how much somebody's colour may change from there, codes². */
const VARIES = 14
/** How far alpha may be from what the border lets expect. */
const LOOSE = 0.35
/** The same among strands. */
const AIRY = 0.5
/** Codes by which thin things have to differ from the set to be one. */
const THIN = 14
/** Noise of a px, in that of the mean of a cell. */
const SINGLE = 3
/** What a colour of somebody's costs that is none of those. */
const UNKNOWN = 26
/** How much a colour of somebody's varies, in what is seen of a px: squares. What is next to all theirs is told by itself, what is next to nothing by what lies farther in. */
const LITTLE = 0.8
/** A mean of what may be is never quite none nor all: alpha that is none, that stays as it is, and that is all. */
const [NONE, STAYS, ALL] = [0.04, 0.7, 0.93]
/** How much px beside one count that is told only roughly, the codes by which they may differ, and the variance of alpha that each of them has besides its own. */
const [BESIDE, ALIKE, APART] = [0.5, 12, 0.02]
/** What is told more roughly than that, in 400ths of all. */
const ROUGH = 25
/** Colour is told by half as many px, and less finely: its variance in that of luma. */
const COLOUR = 6
/** The light of lifted codes by quarters, 255 being that of white. */
const LIGHT = Float32Array.from({ length: 2048 }, (_, i) => (i / 4 / (255 + LIFT)) ** (1 / POWER) * 255)
/** Of squares by sixteenths; what is next to impossible counts for nothing. */
const LIKELY = Float32Array.from({ length: 1024 }, (_, i) => (i < 1023 ? Math.exp(-i / 32) : 0))

/** Where somebody is, with as much round it as their border may tell or be told by. Nobody: nothing. */
export function standing({ k, width, height }: Cells, told: Plane, is: Plane): Part {
  return k.scope(() => {
    const box = k.alloc(16)
    k.standingCells(told.byteOffset, width, height, is.byteOffset, box)
    const [left, right, top, bottom] = k.ints(box, 4) as unknown as [number, number, number, number]
    if (right < left) return { x: 0, y: 0, width: 0, height: 0 }
    const [x, y] = [Math.max(0, left - ROUND), Math.max(0, top - ROUND)]
    return { x, y, width: Math.min(width, right + ROUND + 1) - x, height: Math.min(height, bottom + ROUND + 1) - y }
  })
}

/**
 * Alpha near the border by projection onto the line from the plate's colour, which is known, to somebody's own, sampled from farther in (as in
 * sampling-based matting: Wang and Cohen 2007, Gastal and Oliveira 2010); all candidates count by how well they explain what is
 * seen. What is told only roughly then goes by what lies beside it and looks alike (as by the Laplacian of Levin, Lischinski and Weiss 2008, in one step). `is`: 1 where somebody is, all of it in `part`; `left`: what the shadow leaves of the plate; `isGuess`: whether the plate is one, so that what differs from it says nothing of strands. Written to `alpha`, where px lie, 0..255, and to `colours`,
 * straight codes of what is soft, in light that is somebody's own (Chuang 2001). Throws OutOfMemory.
 */
export function soften(
  frame: Cells,
  plate: Cells,
  { slopes, noise, isGuess }: Pick<Knowledge, 'slopes' | 'noise'> & { isGuess: boolean },
  { is, part, left }: { is: Plane; part: Part; left: Plane },
  alpha: number,
  colours: number,
): void {
  const { k, width, height, full } = frame
  if (part.width === 0) return void k.bytes(alpha, full.width * full.height).fill(0)
  k.scope(() => {
    const n = width * height
    const [share, deep, inward, setW, setS] = Array.from({ length: 5 }, () => roomFor(k, n)) as [
      Plane,
      Plane,
      Plane,
      Plane,
      Plane,
    ]
    const mean = (plane: Plane, r: number, out: Plane) => boxMean(k, frame, plane, r, out, part)
    mean(is, OUT, share)
    mean(is, INTO, deep)
    const [shown, light, weights, sums] = [share, left, setW, setS].map(plane => partAt(plane, width, part)) as Four
    k.besideCells({ share: shown, left: light, step: width, width: part.width, height: part.height, weights, sums })
    mean(setW, ASIDE, setW)
    mean(setS, ASIDE, setS)
    mean(deep, TELLING, inward)
    const pictures = [frame.y, frame.u, frame.v, frame.luma, plate.y, plate.u, plate.v, plate.luma]
    const planes = [...pictures, slopes, is, share, deep, inward, setW, setS, left]
    const tables = [noise.y, LIGHT, LIKELY, INWARD].map(table => placed(k, table))
    const [raw, doubts] = [k.alloc(full.width * full.height), k.alloc(full.width * full.height)]
    const addresses = k.alloc(4 * 23)
    k.ints(addresses, 23).set([...planes.map(plane => plane.byteOffset), ...tables, raw, colours, doubts])
    const numbers = placed(k, [
      noise.u,
      noise.slope,
      SINGLE,
      COLOUR,
      VARIES,
      LOOSE,
      THIN,
      UNKNOWN,
      LITTLE,
      NONE,
      STAYS,
      ALL,
      AIRY,
      ...STRANDS,
    ])
    const [toX, toY] = [part.x + part.width, part.y + part.height]
    const asked = {
      tables: addresses,
      numbers,
      width,
      height,
      fullWidth: full.width,
      fullHeight: full.height,
      fromX: part.x,
      fromY: part.y,
      toX,
      toY,
    }
    const strands = isGuess ? 0 : strandsOf(k, asked, is)
    k.softenCells({ ...asked, fars: INWARD.length, strands })
    const px = pxOf(part, full)
    k.bytes(alpha, full.width * full.height).fill(0)
    const settle = placed(k, [BESIDE, 1 / (2 * ALIKE ** 2), APART, ROUGH, NONE, STAYS, ALL])
    const [endX, endY] = [px.x + px.width, px.y + px.height]
    const luma = frame.luma.byteOffset
    k.settleAlpha({
      raw,
      doubts,
      luma,
      width: full.width,
      height: full.height,
      fromX: px.x,
      fromY: px.y,
      toX: endX,
      toY: endY,
      numbers: settle,
      out: alpha,
    })
    // What was told roughly is of no more use.
    const before = doubts
    if (strands > 0) k.copyBytes(before, alpha, full.width * full.height)
    dropSpecks(k, full, alpha, px)
    fillPits(k, full, alpha, px)
    if (strands > 0) k.keepGaps({ ...asked, strands, before, alpha })
    dropIslands(k, full, alpha)
  })
}

type Four = [number, number, number, number]
