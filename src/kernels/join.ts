// Pieces joined into one matte: add = max, subtract = min(m, 1-c), intersect = min.

/** Fills n coverage values. */
export function fillCoverage(dst: usize, n: i32, value: f32): void {
  const v = f32x4.splat(value);
  let i = 0;
  for (; i + 4 <= n; i += 4) v128.store(dst + (i << 2), v);
  for (; i < n; i++) store<f32>(dst + (i << 2), value);
}

// @ts-ignore: decorator
@inline
function join4(m: v128, c: v128, mode: i32, strength: v128, inverted: i32): v128 {
  const one = f32x4.splat(1);
  if (inverted) c = f32x4.sub(one, c);
  if (mode == 0) return f32x4.pmax(m, f32x4.mul(c, strength));
  if (mode == 1) return f32x4.pmin(m, f32x4.sub(one, f32x4.mul(c, strength)));
  return f32x4.pmin(m, f32x4.sub(one, f32x4.mul(f32x4.sub(one, c), strength)));
}

/** Joins n values at piece into those at matte. mode: 0 add, 1 subtract, 2 intersect; strength in 0..1. */
export function joinRow(matte: usize, piece: usize, n: i32, mode: i32, strength: f32, inverted: i32): void {
  const s = f32x4.splat(strength);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    v128.store(matte + (i << 2), join4(v128.load(matte + (i << 2)), v128.load(piece + (i << 2)), mode, s, inverted));
  }
  for (; i < n; i++) {
    const at = i << 2;
    const v = join4(v128.load32_zero(matte + at), v128.load32_zero(piece + at), mode, s, inverted);
    store<f32>(matte + at, f32x4.extract_lane(v, 0));
  }
}

/** Multiplies n values at matte by those at other. */
export function multiplyRow(matte: usize, other: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    store<f32>(matte + (i << 2), load<f32>(matte + (i << 2)) * load<f32>(other + (i << 2)));
  }
}
