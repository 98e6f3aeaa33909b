// What several kernels do with four numbers at once.

/** Squares in variances. */
// @ts-expect-error: decorator
@inline
export function over(d: v128, variance: v128): v128 {
  return f32x4.div(f32x4.mul(d, d), variance);
}

/** Their sum. */
// @ts-expect-error: decorator
@inline
export function total(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3);
}
