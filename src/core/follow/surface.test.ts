// Something flat that turns away, followed.
import { beforeAll, describe, expect, it } from 'vitest'
import { testKernels } from '../../testing/kernels'
import { filmSheet, onSheet, SHEET_SIZE, sheetOff } from '../../testing/sheet'
import { grainOf } from '../../testing/texture'
import type { Kernels } from '../render'
import { followSurface, pyramid, refill } from '.'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const { width, height } = SHEET_SIZE

function filmed() {
  const grain = grainOf()
  const data = k.floats(k.alloc(width * height * 4), width * height)
  filmSheet(0, null, grain, data)
  const now = pyramid(k, { width, height, data })
  return {
    now,
    next(i: number, passing: number | null) {
      filmSheet(i, passing, grain, data)
      refill(now)
    },
    blank() {
      data.fill(80)
      refill(now)
    },
  }
}

describe('a sheet that turns', () => {
  it('is told to a tenth of a px at its corners, and to a few tenths while somebody goes by before it', () => {
    const film = filmed()
    const follower = followSurface(film.now, onSheet)!
    const off = Array.from({ length: 50 }, (_, i) => {
      film.next(i + 1, (i + 1) * 8 - 60)
      const { map } = follower.next(film.now)
      return map ? sheetOff(map, i + 1) : Number.POSITIVE_INFINITY
    })
    expect(Math.max(...off)).toBeLessThan(0.4)
    // Where less than a third of it is hidden.
    expect([...off].sort((a, b) => a - b)[38]).toBeLessThan(0.1)
  })

  it('is lost where it is hidden, found again, and not followed at all where it is plain', () => {
    const film = filmed()
    const follower = followSurface(film.now, onSheet)!
    film.next(1, null)
    expect(follower.next(film.now).sure).toBeGreaterThan(0.9)
    film.blank()
    expect(follower.next(film.now)).toEqual({ map: null, sure: 0 })
    film.next(3, null)
    const { map } = follower.next(film.now)
    expect(map && sheetOff(map, 3)).toBeLessThan(0.1)
    film.blank()
    expect(followSurface(film.now, onSheet)).toBeNull()
    expect(followSurface(film.now, () => false)).toBeNull()
  })
})
