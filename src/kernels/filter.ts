// Separable resampling: weighted sums of premultiplied linear pixels, across a row and then down the rows.

/**
 * taps: per output pixel an i32 first source index; weights: count f32 per output pixel.
 * Reads f32 pixels at src, writes n at dst. The host clamps first so that first + count stays inside the row.
 */
export function filterRow(src: usize, dst: usize, n: i32, taps: usize, weights: usize, count: i32): void {
  for (let x = 0; x < n; x++) {
    let at = src + (load<i32>(taps + (x << 2)) << 4);
    let sum = f32x4.splat(0);
    for (let k = 0; k < count; k++) {
      sum = f32x4.add(sum, f32x4.mul(v128.load(at), v128.load32_splat(weights)));
      at += 16;
      weights += 4;
    }
    v128.store(dst + (x << 4), sum);
  }
}

/** dst += src * weight, n pixels. */
export function accumulateRow(dst: usize, src: usize, n: i32, weight: f32): void {
  const w = f32x4.splat(weight);
  for (let i = 0; i < n; i++) {
    const at = i << 4;
    v128.store(dst + at, f32x4.add(v128.load(dst + at), f32x4.mul(v128.load(src + at), w)));
  }
}

/** A premultiplied pixel brought back to what can be: 0..1, no colour brighter than its alpha. */
// @ts-ignore: decorator
@inline
function bound(px: v128): v128 {
  const p = f32x4.pmin(f32x4.splat(1), f32x4.pmax(f32x4.splat(0), px));
  return f32x4.pmin(p, i8x16.shuffle(p, p, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15));
}

/** The same of n of them. Filters swing over. */
export function boundRow(row: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const at = row + (i << 4);
    v128.store(at, bound(v128.load(at)));
  }
}

/** Sums `count` rows of n pixels, whose addresses (u32) are at rows, by their weights (f32), and brings what comes out back to what can be. */
export function combineRows(rows: usize, weights: usize, count: i32, n: i32, dst: usize): void {
  const bytes = <usize>n << 4;
  if (count == 4) {
    // As a rule, in an enlarged picture.
    const a: usize = load<u32>(rows), b: usize = load<u32>(rows, 4), c: usize = load<u32>(rows, 8), d: usize = load<u32>(rows, 12);
    const wa = v128.load32_splat(weights), wb = v128.load32_splat(weights, 4), wc = v128.load32_splat(weights, 8), wd = v128.load32_splat(weights, 12);
    for (let at: usize = 0; at < bytes; at += 16) {
      const two = f32x4.add(f32x4.mul(v128.load(a + at), wa), f32x4.mul(v128.load(b + at), wb));
      const sum = f32x4.add(f32x4.add(two, f32x4.mul(v128.load(c + at), wc)), f32x4.mul(v128.load(d + at), wd));
      v128.store(dst + at, bound(sum));
    }
    return;
  }
  for (let at: usize = 0; at < bytes; at += 16) {
    let sum = f32x4.splat(0);
    for (let k: usize = 0; k < <usize>count << 2; k += 4) {
      sum = f32x4.add(sum, f32x4.mul(v128.load(<usize>load<u32>(rows + k) + at), v128.load32_splat(weights + k)));
    }
    v128.store(dst + at, bound(sum));
  }
}

/** Multiplies red, green and blue of n pixels. */
export function gainRow(row: usize, n: i32, r: f32, g: f32, b: f32, offset: f32): void {
  const gain = f32x4(r, g, b, 1);
  const added = f32x4(offset, offset, offset, 0);
  for (let i = 0; i < n; i++) {
    const at = row + (i << 4);
    const px = v128.load(at);
    const alpha = i8x16.shuffle(px, px, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15);
    v128.store(at, f32x4.add(f32x4.mul(px, gain), f32x4.mul(alpha, added)));
  }
}
