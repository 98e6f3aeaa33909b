// 8-bit RGB codes -> BT.709 limited-range luma and chroma planes for an encoder (ITU-R BT.709-6, 4:2:0).

// @ts-ignore: decorator
@inline
function luma(p: u32): i32 {
  // 0.2126, 0.7152, 0.0722 times 219/255, in 1/65536.
  return (11966 * <i32>(p & 255) + 40254 * <i32>((p >>> 8) & 255) + 4064 * <i32>((p >>> 16) & 255) + 32768 + (16 << 16)) >> 16;
}

/** n RGBA8 pixels at src -> n luma codes at dst. */
export function lumaRow(src: usize, dst: usize, n: i32): void {
  const low = i32x4.splat(255);
  const wr = i32x4.splat(11966), wg = i32x4.splat(40254), wb = i32x4.splat(4064);
  const base = i32x4.splat(32768 + (16 << 16));
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const p = v128.load(src + (i << 2));
    let y = i32x4.add(base, i32x4.mul(v128.and(p, low), wr));
    y = i32x4.add(y, i32x4.mul(v128.and(i32x4.shr_u(p, 8), low), wg));
    y = i32x4.shr_u(i32x4.add(y, i32x4.mul(v128.and(i32x4.shr_u(p, 16), low), wb)), 16);
    const y16 = i16x8.narrow_i32x4_u(y, y);
    v128.store32_lane(dst + i, i8x16.narrow_i16x8_u(y16, y16), 0);
  }
  for (; i < n; i++) store<u8>(dst + i, <u8>luma(load<u32>(src + (i << 2))));
}

// @ts-ignore: decorator
@inline
function channelSums(a: usize, b: usize, left: i32, at: i32, right: i32): v128 {
  // 1-2-1 across (chroma sits on even columns), both rows: weights add to 8.
  const l = v128.load32_zero(a + left), l2 = v128.load32_zero(b + left);
  const c = v128.load32_zero(a + at), c2 = v128.load32_zero(b + at);
  const r = v128.load32_zero(a + right), r2 = v128.load32_zero(b + right);
  const side = i16x8.add(
    i16x8.add(i16x8.extend_low_i8x16_u(l), i16x8.extend_low_i8x16_u(l2)),
    i16x8.add(i16x8.extend_low_i8x16_u(r), i16x8.extend_low_i8x16_u(r2)),
  );
  const mid = i16x8.add(i16x8.extend_low_i8x16_u(c), i16x8.extend_low_i8x16_u(c2));
  return i16x8.add(side, i16x8.shl(mid, 1));
}

/**
 * Two rows of width RGBA8 pixels -> their chroma codes at u and v, those of columns [from, to) only, from being even. Give
 * the same row twice at an odd last row. The pixels beside the columns are read too.
 */
export function chromaPairRow(top: usize, bottom: usize, u: usize, v: usize, width: i32, from: i32, to: i32): void {
  const half = (to + 1) >> 1;
  // -0.1146, -0.3854, 0.5 and 0.5, -0.4542, -0.0458 times 224/255, in 1/16384; the sums carry a factor of 8.
  const toU = i16x8(-1649, -5547, 7196, 0, 0, 0, 0, 0);
  const toV = i16x8(7196, -6536, -660, 0, 0, 0, 0, 0);
  for (let i = from >> 1; i < half; i++) {
    const x = i << 1;
    const sums = channelSums(top, bottom, max(x - 1, 0) << 2, x << 2, min(x + 1, width - 1) << 2);
    const pu = i32x4.dot_i16x8_s(sums, toU);
    const pv = i32x4.dot_i16x8_s(sums, toV);
    const round = (1 << 16) + (128 << 17);
    store<u8>(u + i, <u8>((i32x4.extract_lane(pu, 0) + i32x4.extract_lane(pu, 1) + round) >> 17));
    store<u8>(v + i, <u8>((i32x4.extract_lane(pv, 0) + i32x4.extract_lane(pv, 1) + round) >> 17));
  }
}
