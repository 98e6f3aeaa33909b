// Planes of a decoder -> cells of 2×2 px in lifted codes, and those in another light.

/** Every second number of eight, from the first one on. */
// @ts-expect-error: decorator
@inline
function firsts(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 0, 1, 2, 3, 8, 9, 10, 11, 16, 17, 18, 19, 24, 25, 26, 27) }

// @ts-expect-error: decorator
@inline
function seconds(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 4, 5, 6, 7, 12, 13, 14, 15, 20, 21, 22, 23, 28, 29, 30, 31) }

/** n codes at src as f32 · scale + lift at dst. */
export function liftRow(src: usize, dst: usize, n: i32, scale: f32, lift: f32): void {
  const s = f32x4.splat(scale),
    l = f32x4.splat(lift)
  let i = 0
  for (; i + 8 <= n; i += 8) {
    const codes = i16x8.extend_low_i8x16_u(v128.load64_zero(src + i))
    const low = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(codes))
    const high = f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(codes))
    v128.store(dst + ((<usize>i) << 2), f32x4.add(f32x4.mul(low, s), l))
    v128.store(dst + ((<usize>i) << 2) + 16, f32x4.add(f32x4.mul(high, s), l))
  }
  for (; i < n; i++) store<f32>(dst + ((<usize>i) << 2), <f32>load<u8>(src + i) * scale + lift)
}

/** Means of 2×2 of two rows of width f32, the last column repeated where that is odd. */
export function halfRow(top: usize, bottom: usize, dst: usize, width: i32): void {
  const cells = (width + 1) >> 1
  const quarter = f32x4.splat(0.25)
  let x = 0
  for (; 2 * x + 8 <= width; x += 4) {
    const a = (<usize>x) << 3
    const t = v128.load(top + a), u = v128.load(top + a, 16), b = v128.load(bottom + a), c = v128.load(bottom + a, 16)
    const sum = f32x4.add(f32x4.add(f32x4.add(firsts(t, u), seconds(t, u)), firsts(b, c)), seconds(b, c))
    v128.store(dst + ((<usize>x) << 2), f32x4.mul(sum, quarter))
  }
  for (; x < cells; x++) {
    const a = (<usize>x) << 3
    const b = 2 * x + 1 < width ? a + 4 : a
    const sum = load<f32>(top + a) + load<f32>(top + b) + load<f32>(bottom + a) + load<f32>(bottom + b)
    store<f32>(dst + ((<usize>x) << 2), sum * 0.25)
  }
}

/** n cells (y, u, v) through a matrix of nine f32, row by row; whole registers are written. */
export function lightCells(
  y: usize,
  u: usize,
  v: usize,
  n: i32,
  matrix: usize,
  outY: usize,
  outU: usize,
  outV: usize,
): void {
  const yy = v128.load32_splat(matrix),
    yu = v128.load32_splat(matrix, 4),
    yv = v128.load32_splat(matrix, 8)
  const uy = v128.load32_splat(matrix, 12),
    uu = v128.load32_splat(matrix, 16),
    uv = v128.load32_splat(matrix, 20)
  const vy = v128.load32_splat(matrix, 24),
    vu = v128.load32_splat(matrix, 28),
    vv = v128.load32_splat(matrix, 32)
  for (let i: usize = 0; i < (<usize>n) << 2; i += 16) {
    const a = v128.load(y + i),
      b = v128.load(u + i),
      c = v128.load(v + i)
    v128.store(outY + i, f32x4.add(f32x4.mul(yy, a), f32x4.add(f32x4.mul(yu, b), f32x4.mul(yv, c))))
    v128.store(outU + i, f32x4.add(f32x4.mul(uy, a), f32x4.add(f32x4.mul(uu, b), f32x4.mul(uv, c))))
    v128.store(outV + i, f32x4.add(f32x4.mul(vy, a), f32x4.add(f32x4.mul(vu, b), f32x4.mul(vv, c))))
  }
}

/** Luma of a picture through the first row of that matrix, u and v being those of its cells; their rows begin `step` px and `cells` cells apart, those of out close together. */
export function lightLuma(
  luma: usize,
  step: i32,
  u: usize,
  v: usize,
  cells: i32,
  width: i32,
  height: i32,
  matrix: usize,
  out: usize,
): void {
  const yy = load<f32>(matrix),
    yu = load<f32>(matrix, 4),
    yv = load<f32>(matrix, 8)
  const vy = f32x4.splat(yy),
    vu = f32x4.splat(yu),
    vv = f32x4.splat(yv)
  for (let y = 0; y < height; y++) {
    const row = luma + ((<usize>(y * step)) << 2), to = out + ((<usize>(y * width)) << 2)
    const beside = (<usize>((y >> 1) * cells)) << 2
    let x = 0
    for (; x + 4 <= width; x += 4) {
      const at = (<usize>x) << 2
      const cell = beside + ((<usize>x) << 1)
      const du = v128.load64_zero(u + cell),
        dv = v128.load64_zero(v + cell)
      const two = i32x4.shuffle(du, du, 0, 0, 1, 1),
        three = i32x4.shuffle(dv, dv, 0, 0, 1, 1)
      const rest = f32x4.add(f32x4.mul(vu, two), f32x4.mul(vv, three))
      v128.store(to + at, f32x4.add(f32x4.mul(vy, v128.load(row + at)), rest))
    }
    for (; x < width; x++) {
      const at = (<usize>x) << 2
      const cell = beside + ((<usize>x >> 1) << 2)
      store<f32>(to + at, yy * load<f32>(row + at) + (yu * load<f32>(u + cell) + yv * load<f32>(v + cell)))
    }
  }
}

/** Squared half differences of the least and the most of 3×3 cells. */
export function slopePlane(plane: usize, width: i32, height: i32, least: usize, most: usize, out: usize): void {
  const stride = (<usize>width) << 2
  for (let y = 0; y < height; y++) {
    const here = plane + <usize>y * stride
    const above = y > 0 ? here - stride : here
    const below = y < height - 1 ? here + stride : here
    for (let i: usize = 0; i < stride; i += 16) {
      const a = v128.load(above + i),
        b = v128.load(here + i),
        c = v128.load(below + i)
      v128.store(least + i, f32x4.pmin(a, f32x4.pmin(b, c)))
      v128.store(most + i, f32x4.pmax(a, f32x4.pmax(b, c)))
    }
    for (let x = 0; x < width; x++) {
      const i = (<usize>x) << 2
      const l = x > 0 ? i - 4 : i
      const r = x < width - 1 ? i + 4 : i
      const top = max(load<f32>(most + l), max(load<f32>(most + i), load<f32>(most + r)))
      const bottom = min(load<f32>(least + l), min(load<f32>(least + i), load<f32>(least + r)))
      store<f32>(out + <usize>y * stride + i, (top - bottom) * (top - bottom) * 0.25)
    }
  }
}
