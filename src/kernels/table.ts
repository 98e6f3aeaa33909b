// Numbers looked up four at a time.

/** Values as whole numbers in 0..most: what is no number is 0. */
// @ts-expect-error: decorator
@inline
export function wholes(values: v128, most: i32): v128 {
  return i32x4.max_s(i32x4.splat(0), i32x4.min_s(i32x4.splat(most), i32x4.trunc_sat_f32x4_s(values)));
}

/** The numbers (f32) of a table at four places. */
// @ts-expect-error: decorator
@inline
export function looked(table: usize, at: v128): v128 {
  const one = v128.load32_zero(table + (<usize>i32x4.extract_lane(at, 0) << 2));
  const two = v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 1) << 2), one, 1);
  const three = v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 2) << 2), two, 2);
  return v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 3) << 2), three, 3);
}

/** The address at a place of a table of addresses. */
// @ts-expect-error: decorator
@inline
export function plane(table: usize, i: i32): usize {
  return load<u32>(table + (<usize>i << 2));
}
