// A plane of codes made smaller: each place the mean of the area that it covers.
import { evens, highs, lows, others } from "./transpose";

/** By how much from..to reaches over the place at `at`. */
// @ts-expect-error: decorator
@inline
function overlap(at: i32, from: f32, to: f32): f32 {
  const left = <f32>at, right = <f32>(at + 1);
  const over: f32 = (right < to ? right : to) - (left > from ? left : from);
  return over > 0 ? over : 0;
}

/** The sums of four registers each, as one. */
// @ts-expect-error: decorator
@inline
function sums(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = f32x4.add(evens(a, b), others(a, b)), cd = f32x4.add(evens(c, d), others(c, d));
  return f32x4.add(lows(ab, cd), highs(ab, cd));
}

/** What place x takes of a row: `taps` px from the first one on, by their weights. */
// @ts-expect-error: decorator
@inline
function taken(row: usize, firsts: usize, weights: usize, x: i32, taps: i32): v128 {
  const from = row + (<usize>load<i32>(firsts + (<usize>x << 2)) << 2);
  const by = weights + (<usize>(x * taps) << 2);
  let sum = f32x4.mul(v128.load(from), v128.load(by));
  for (let t: usize = 16; t < <usize>taps << 2; t += 16) sum = f32x4.add(sum, f32x4.mul(v128.load(from + t), v128.load(by + t)));
  return sum;
}

/** The sum of so many rows of codes, at most 256, of eight px. */
// @ts-expect-error: decorator
@inline
function summed(src: usize, stride: i32, rows: i32): v128 {
  let sum = i16x8.extend_low_i8x16_u(v128.load64_zero(src));
  for (let y = 1; y < rows; y++) {
    sum = i16x8.add(sum, i16x8.extend_low_i8x16_u(v128.load64_zero(src + <usize>(y * stride))));
  }
  return sum;
}

/** The sum of so many rows of codes, as f32. */
function sumWhole(src: usize, stride: i32, width: i32, rows: i32, row: usize): void {
  for (let x = 0; x < width; x += 8) {
    const sum = summed(src + <usize>x, stride, rows), at = row + (<usize>x << 2);
    v128.store(at, f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(sum)));
    v128.store(at, f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(sum)), 16);
  }
}

/** Of so many rows of codes, and of two px across each, the means, by fours as far as those go. Returns how many. */
function halve(src: usize, stride: i32, toWidth: i32, rows: i32, to: usize, share: v128, lifted: v128): i32 {
  let x = 0;
  for (; x + 4 <= toWidth; x += 4) {
    const sum = f32x4.convert_i32x4_u(i32x4.extadd_pairwise_i16x8_u(summed(src + (<usize>x << 1), stride, rows)));
    v128.store(to + (<usize>x << 2), f32x4.add(f32x4.mul(sum, share), lifted));
  }
  return x;
}

/** The sum of the rows of codes between top and bottom, of the first and the last of them such a share as lies there, as f32. */
function sumParts(src: usize, stride: i32, width: i32, height: i32, top: f32, bottom: f32, row: usize): void {
  let isFirst = true;
  for (let sy = i32(top); sy < height && <f32>sy < bottom; sy++) {
    const weight = f32x4.splat(overlap(sy, top, bottom));
    const from = src + <usize>(sy * stride);
    for (let x = 0; x < width; x += 8) {
      const codes = i16x8.extend_low_i8x16_u(v128.load64_zero(from + <usize>x));
      const at = row + (<usize>x << 2);
      const low = f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(codes)), weight);
      const high = f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(codes)), weight);
      if (isFirst) {
        v128.store(at, low);
        v128.store(at, high, 16);
      } else {
        v128.store(at, f32x4.add(v128.load(at), low));
        v128.store(at, f32x4.add(v128.load(at, 16), high), 16);
      }
    }
    isFirst = false;
  }
}

/**
 * Codes (u8) of width × height, rows `stride` bytes apart, as f32 · scale + lift of toWidth × toHeight, rows close together, which is smaller on both
 * sides. row: width f32 and 4 + taps more; firsts: toWidth i32 and slack; weights: `taps` f32 for each place across, which are as many as it may cover, of four.
 */
export function shrinkPlane(
  src: usize, stride: i32, width: i32, height: i32, dst: usize, toWidth: i32, toHeight: i32, scale: f32, lift: f32,
  row: usize, firsts: usize, weights: usize, taps: i32,
): void {
  const across: f32 = <f32>width / <f32>toWidth, down: f32 = <f32>height / <f32>toHeight;
  const share = f32x4.splat(scale / (across * down)), lifted = f32x4.splat(lift);
  const isWhole = <f32>i32(down) == down && down <= 256;
  for (let x = 0; x < toWidth; x++) {
    const left = <f32>x * across, right = <f32>(x + 1) * across;
    const first = i32(left);
    store<i32>(firsts + (<usize>x << 2), first);
    for (let t = 0; t < taps; t++) {
      store<f32>(weights + (<usize>(x * taps + t) << 2), first + t < width ? overlap(first + t, left, right) : 0);
    }
  }
  // What is behind a row counts for nothing, but has to be a number.
  memory.fill(row + (<usize>width << 2), 0, <usize>(4 + taps) << 2);
  for (let y = 0; y < toHeight; y++) {
    const top = <f32>y * down, bottom = <f32>(y + 1) * down;
    const to = dst + (<usize>(y * toWidth) << 2);
    const from = src + <usize>(i32(top) * stride);
    let x = isWhole && across == 2 ? halve(from, stride, toWidth, i32(down), to, share, lifted) : 0;
    if (x == toWidth) continue;
    if (isWhole) sumWhole(from, stride, width, i32(down), row);
    else sumParts(src, stride, width, height, top, bottom, row);
    for (; x + 4 <= toWidth; x += 4) {
      const sum = sums(
        taken(row, firsts, weights, x, taps), taken(row, firsts, weights, x + 1, taps),
        taken(row, firsts, weights, x + 2, taps), taken(row, firsts, weights, x + 3, taps),
      );
      v128.store(to + (<usize>x << 2), f32x4.add(f32x4.mul(sum, share), lifted));
    }
    for (; x < toWidth; x++) {
      const one = taken(row, firsts, weights, x, taps);
      const sum = f32x4.add(f32x4.mul(sums(one, one, one, one), share), lifted);
      v128.store32_lane(to + (<usize>x << 2), sum, 0);
    }
  }
}
