// Cloth that is known everywhere, and grain that is the same each time.

/** A number for each place of a lattice, the same each time. */
export function lattice(x: number, y: number): number {
  const h = Math.imul(Math.imul(x, 374761393) + Math.imul(y, 668265263), 1274126177)
  return ((h ^ (h >>> 15)) >>> 0) / 2 ** 32
}

/** Cloth: lattices of several widths, smooth between their places. */
export function cloth(x: number, y: number): number {
  let sum = 60
  for (const wide of [48, 24, 12, 6]) {
    const [u, v] = [x / wide, y / wide]
    const [i, j] = [Math.floor(u), Math.floor(v)]
    const ease = (t: number) => t * t * t * (t * (6 * t - 15) + 10)
    const [s, t] = [ease(u - i), ease(v - j)]
    const row = (k: number) => lattice(i, k) * (1 - s) + lattice(i + 1, k) * s
    sum += 34 * (row(j) * (1 - t) + row(j + 1) * t)
  }
  return sum
}

/** Grain from -1 to 1, in order. */
export function grainOf(): () => number {
  let state = 1
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 31 - 1
  }
}
