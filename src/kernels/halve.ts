// Codes at half their size: quicker than to reduce light, and near enough for looking.

/** Sums of two neighbours each, of 16 codes of two rows. */
// @ts-expect-error: decorator
@inline
function fours(one: usize, other: usize): v128 {
  return i16x8.add(i16x8.extadd_pairwise_i8x16_u(v128.load(one)), i16x8.extadd_pairwise_i8x16_u(v128.load(other)));
}

/**
 * Codes (u8) of width × height, rows `stride` bytes apart, as the means of two by two of them, rounded: half as many, rounded up, in rows `toStride` bytes apart. Beyond an
 * odd border its px counts twice.
 */
export function halveCodes(src: usize, stride: i32, width: i32, height: i32, dst: usize, toStride: i32): void {
  const w = (width + 1) >> 1, h = (height + 1) >> 1;
  const half = i16x8.splat(2);
  for (let y = 0; y < h; y++) {
    const one = src + <usize>(2 * y * stride);
    const other = 2 * y + 1 < height ? one + <usize>stride : one;
    const to = dst + <usize>(y * toStride);
    let x = 0;
    for (; 2 * x + 32 <= width; x += 16) {
      const at = <usize>x << 1;
      const a = i16x8.shr_u(i16x8.add(fours(one + at, other + at), half), 2);
      const b = i16x8.shr_u(i16x8.add(fours(one + at + 16, other + at + 16), half), 2);
      v128.store(to + <usize>x, i8x16.narrow_i16x8_u(a, b));
    }
    for (; x < w; x++) {
      const at = <usize>x << 1, next = 2 * x + 1 < width ? at + 1 : at;
      const sum = <u32>load<u8>(one + at) + load<u8>(one + next) + load<u8>(other + at) + load<u8>(other + next);
      store<u8>(to + <usize>x, <u8>((sum + 2) >> 2));
    }
  }
}
