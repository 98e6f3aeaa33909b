// From coverage in pixels to the outlines of what is covered: where it is one half.
// Marching squares (Lorensen and Cline 1987, in the plane), told from pixel centres, the crossings between them.

/** px that a chord may miss what it stands for by. */
const TOLERANCE = 0.02

/** The samples of a picture along one way with one more beyond each border, so far out that what reaches the border goes on. */
function along(length: number, reach: number): { at: Float64Array; from: Int32Array } {
  const n = length + 4
  const at = new Float64Array(n)
  const from = new Int32Array(n)
  for (let i = 0; i < n; i++) {
    from[i] = Math.max(0, Math.min(length - 1, i - 2))
    at[i] = i - 1.5
  }
  at[1] = 0.5 - reach - 1
  at[0] = at[1] - 1
  at[n - 2] = length - 0.5 + reach + 1
  at[n - 1] = at[n - 2]! + 1
  return { at, from }
}

/** Coverage from here on to the ends may be cut off: the border lies within a pixel. */
const CUT = 0.02

/** Where coverage is one half between two samples; beside one that is cut off, the other tells by itself how far the border is. */
function crossing(from: number, to: number, a: number, b: number): number {
  const isCut = (c: number) => c <= CUT || c >= 1 - CUT
  const share = isCut(a) === isCut(b) ? (0.5 - a) / (b - a) : isCut(b) ? Math.abs(0.5 - a) : 1 - Math.abs(0.5 - b)
  return from + share * (to - from)
}

/** A ring with those points left out that lie on the way, within the tolerance: each chord passes near all that it stands for (Williams 1978). */
function thinned(ring: readonly number[]): Float64Array {
  const n = ring.length / 2
  const kept: number[] = []
  let anchor = 0
  while (anchor < n) {
    const [ax, ay] = [ring[anchor * 2]!, ring[anchor * 2 + 1]!]
    kept.push(ax, ay)
    let [low, high] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY]
    let base = 0
    let next = anchor + 1
    for (let i = anchor + 1; i < n; i++) {
      const [dx, dy] = [ring[i * 2]! - ax, ring[i * 2 + 1]! - ay]
      const far = Math.hypot(dx, dy)
      if (far <= TOLERANCE) continue
      if (i === anchor + 1 || high === Number.POSITIVE_INFINITY) base = Math.atan2(dy, dx)
      let angle = Math.atan2(dy, dx) - base
      angle -= 2 * Math.PI * Math.round(angle / (2 * Math.PI))
      if (angle < low || angle > high) break
      next = i
      const wide = Math.asin(Math.min(1, TOLERANCE / far))
      low = Math.max(low, angle - wide)
      high = Math.min(high, angle + wide)
    }
    anchor = next
  }
  return Float64Array.from(kept)
}

/**
 * The rings along which coverage in rows, width × height values of 0..1, is one half; (0, 0) is the corner of the first pixel. What is
 * covered lies on one side of all of them, so holes wind the other way. Where it reaches the border it goes on for `reach` px.
 */
export function contours(coverage: Float32Array, width: number, height: number, reach: number): Float64Array[] {
  const { at: xs } = along(width, reach)
  const ys = along(height, reach)
  const [columns, rows] = [xs.length, ys.at.length]
  /** A row with nothing beyond its ends, and where it is covered by half. */
  const blank = () => ({ values: new Float32Array(columns), isIn: new Uint8Array(columns) })
  /** Row j of the grid; nothing at all beyond the first and last. */
  const read = (j: number, { values, isIn }: ReturnType<typeof blank>) => {
    values.fill(0)
    if (j > 0 && j < rows - 1) {
      const row = coverage.subarray(ys.from[j]! * width, (ys.from[j]! + 1) * width)
      values.set(row, 2)
      values[1] = row[0]!
      values[columns - 2] = row[width - 1]!
    }
    for (let i = 0; i < columns; i++) isIn[i] = values[i]! >= 0.5 ? 1 : 0
  }
  // By the grid's line that they cross: those that go right from (i, j) have even numbers, those that go down odd ones.
  const next = new Map<number, number>()
  const points = new Map<number, readonly [number, number]>()
  const right = (i: number, j: number, a: number, b: number) => {
    const id = 2 * (j * columns + i)
    if (!points.has(id)) points.set(id, [crossing(xs[i]!, xs[i + 1]!, a, b), ys.at[j]!])
    return id
  }
  const below = (i: number, j: number, a: number, b: number) => {
    const id = 2 * (j * columns + i) + 1
    if (!points.has(id)) points.set(id, [xs[i]!, crossing(ys.at[j]!, ys.at[j + 1]!, a, b)])
    return id
  }
  let [upper, lower] = [blank(), blank()]
  /** Joins what crosses the sides of a cell. Apart from the loop, whose counter would else be kept for each cell. */
  const joinCell = (i: number, j: number, kind: number) => {
    const [a, b, c, d] = [upper.values[i]!, upper.values[i + 1]!, lower.values[i + 1]!, lower.values[i]!]
    const sides = [
      () => right(i, j, a, b),
      () => below(i + 1, j, b, c),
      () => right(i, j + 1, d, c),
      () => below(i, j, a, d),
    ] as const
    const links = a + b + c + d >= 2 ? (SADDLES[kind] ?? LINKS[kind]!) : LINKS[kind]!
    for (const [from, to] of links) next.set(sides[from](), sides[to]())
  }
  for (let j = 0; j + 1 < rows; j++) {
    ;[upper, lower] = [lower, upper]
    read(j + 1, lower)
    const [above, beneath] = [upper.isIn, lower.isIn]
    for (let i = 0; i + 1 < columns; i++) {
      const kind = above[i]! | (above[i + 1]! << 1) | (beneath[i + 1]! << 2) | (beneath[i]! << 3)
      if (kind !== 0 && kind !== 15) joinCell(i, j, kind)
    }
  }
  const rings: Float64Array[] = []
  for (const begin of points.keys()) {
    if (!next.has(begin)) continue
    const ring: number[] = []
    for (let at: number | undefined = begin; at !== undefined; ) {
      ring.push(...points.get(at)!)
      const to: number | undefined = next.get(at)
      next.delete(at)
      at = to === begin ? undefined : to
    }
    rings.push(thinned(ring))
  }
  return rings
}

type Link = readonly [0 | 1 | 2 | 3, 0 | 1 | 2 | 3]

/** Sides of a cell that a line goes from and to, what is covered on its right: 0 above, 1 right, 2 below, 3 left; by which corners are covered. */
const LINKS: readonly (readonly Link[])[] = [
  [],
  [[0, 3]],
  [[1, 0]],
  [[1, 3]],
  [[2, 1]],
  [
    [0, 3],
    [2, 1],
  ],
  [[2, 0]],
  [[2, 3]],
  [[3, 2]],
  [[0, 2]],
  [
    [1, 0],
    [3, 2],
  ],
  [[1, 2]],
  [[3, 1]],
  [[0, 1]],
  [[3, 0]],
  [],
]

/** Where two corners across from each other are joined through the middle. */
const SADDLES: Readonly<Record<number, readonly Link[]>> = {
  5: [
    [0, 1],
    [2, 3],
  ],
  10: [
    [3, 0],
    [1, 2],
  ],
}
