// Hair before a plain wall: each strand thinner than a cell, the wall between them.
import { beforeAll, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import type { Kernels } from '../render'
import { blankCells, type Cells } from './cells'
import type { Noise } from './noise'
import { planeIn } from './plane'
import { soften, standing } from './soften'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const FULL = { width: 240, height: 200 }
const NOISE: Noise = { y: new Float32Array(16).fill(1), u: 1, v: 1, slope: 0.01, slopeC: 0.01 }
const MIDDLE = { x: 120, y: 110 }
const HEAD = 40
/** Codes: of the wall, of the face and of hair. */
const [WALL, FACE, HAIR] = [190, 120, 40]
const light = (code: number): number => (code / 269.025) ** 2.4
const FINE = 4

interface Look {
  hair: number
  face: number
}

/** How much of a px is face, and how much hair over the wall: `strands` of them, as long as every other one is, 1.6 px thick. */
function lookAt(px: number, py: number, strands: number): Look {
  const sum = { hair: 0, face: 0 }
  for (let i = 0; i < FINE * FINE; i++) {
    const x = px + ((i % FINE) + 0.5) / FINE - MIDDLE.x
    const y = py + (Math.floor(i / FINE) + 0.5) / FINE - MIDDLE.y
    const r = Math.hypot(x, y)
    if (r < HEAD) sum.face++
    else if (strands > 0 && r < HEAD + 34) {
      const turn = ((Math.atan2(y, x) / (2 * Math.PI) + 1) * strands) % 1
      const aside = Math.abs(turn - 0.5) * ((2 * Math.PI * r) / strands)
      if (aside < 0.8) sum.hair++
    }
  }
  return { hair: sum.hair / FINE ** 2, face: sum.face / FINE ** 2 }
}

/** Somebody with so many strands of hair; alpha as it is, and as it is told, of each px; those within `near` px of the head are taken for somebody as a whole. */
function told(strands: number, near: number, pattern = 0): { truth: number[]; found: Uint8Array } {
  const looks = Array.from({ length: FULL.width * FULL.height }, (_, p) =>
    lookAt(p % FULL.width, Math.floor(p / FULL.width), strands),
  )
  return k.scope(() => {
    const [frame, plate] = [blankCells(k, FULL), blankCells(k, FULL)] as [Cells, Cells]
    const labels = planeIn(k, frame.y.length)
    looks.forEach(({ hair, face }, p) => {
      const [x, y] = [p % FULL.width, Math.floor(p / FULL.width)]
      const i = (y >> 1) * frame.width + (x >> 1)
      const cloth = FACE + pattern * Math.sin(x * 0.8) * Math.sin(y * 0.7)
      const seen = (1 - hair - face) * light(WALL) + hair * light(HAIR) + face * light(cloth)
      plate.luma[p] = WALL
      frame.luma[p] = seen ** (1 / 2.4) * 269.025
      plate.y[i] = WALL
      frame.y[i]! += frame.luma[p]! / 4
      labels[i] = Math.hypot(x - MIDDLE.x, y - MIDDLE.y) < HEAD + near ? 5 : -5
    })
    const [is, left, slopes] = [planeIn(k, labels.length), planeIn(k, labels.length), planeIn(k, labels.length)]
    left.fill(1)
    const room = k.alloc(looks.length)
    const part = standing(frame, labels, is)
    soften(frame, plate, { slopes, noise: NOISE, isGuess: false }, { is, part, left }, room, k.alloc(looks.length * 4))
    return { truth: looks.map(({ hair, face }) => hair + face), found: k.bytes(room, looks.length).slice() }
  })
}

/** The mean error over a ring about the head, from `from` to `to` px outside of it. */
function error({ truth, found }: ReturnType<typeof told>, from: number, to: number): number {
  let [sum, count] = [0, 0]
  truth.forEach((alpha, p) => {
    const r = Math.hypot((p % FULL.width) - MIDDLE.x, Math.floor(p / FULL.width) - MIDDLE.y) - HEAD
    if (r < from || r >= to) return
    sum += Math.abs(found[p]! / 255 - alpha)
    count++
  })
  return sum / count
}

it('hair is told strand by strand: the wall shows between those within what is taken for somebody, and those beyond it go on', () => {
  const hair = told(90, 16)
  expect(error(hair, 4, 14)).toBeLessThan(0.15)
  expect(error(hair, 18, 32)).toBeLessThan(0.03)
})

it('a head without hair keeps its border, and cloth with a pattern is whole', () => {
  const plain = told(0, 0)
  expect(error(plain, -8, 8)).toBeLessThan(0.005)
  expect(error(told(0, 0, 60), -30, -12)).toBe(0)
})

it('gaps are told as far in as they are beside each other, where nothing but hair is to be seen beyond', () => {
  expect(error(told(60, 30), 2, 20)).toBeLessThan(0.05)
  expect(error(told(40, 30), 2, 20)).toBeLessThan(0.05)
})
