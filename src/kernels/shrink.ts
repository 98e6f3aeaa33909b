// A plane of codes made smaller: each place the mean of the area that it covers.

// @ts-expect-error: decorator
@inline
function overlap(at: i32, from: f32, to: f32): f32 {
  const left = <f32>at, right = <f32>(at + 1);
  return (right < to ? right : to) - (left > from ? left : from);
}

/**
 * Codes (u8) of width × height, rows `stride` bytes apart, as f32 · scale + lift of toWidth × toHeight, rows close together, which is smaller on both sides. row: width f32 and
 * slack.
 */
export function shrinkPlane(
  src: usize, stride: i32, width: i32, height: i32, dst: usize, toWidth: i32, toHeight: i32, scale: f32, lift: f32, row: usize,
): void {
  const across: f32 = <f32>width / <f32>toWidth, down: f32 = <f32>height / <f32>toHeight;
  const share: f32 = scale / (across * down);
  for (let y = 0; y < toHeight; y++) {
    const top = <f32>y * down, bottom = <f32>(y + 1) * down;
    memory.fill(row, 0, <usize>width << 2);
    for (let sy = i32(top); sy < height && <f32>sy < bottom; sy++) {
      const weight = f32x4.splat(overlap(sy, top, bottom));
      const from = src + <usize>(sy * stride);
      for (let x = 0; x < width; x += 8) {
        const codes = i16x8.extend_low_i8x16_u(v128.load64_zero(from + <usize>x));
        const at = row + (<usize>x << 2);
        const low = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(codes));
        const high = f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(codes));
        v128.store(at, f32x4.add(v128.load(at), f32x4.mul(low, weight)));
        v128.store(at, f32x4.add(v128.load(at, 16), f32x4.mul(high, weight)), 16);
      }
    }
    for (let x = 0; x < toWidth; x++) {
      const left = <f32>x * across, right = <f32>(x + 1) * across;
      let sum: f32 = 0;
      for (let sx = i32(left); sx < width && <f32>sx < right; sx++) sum += load<f32>(row + (<usize>sx << 2)) * overlap(sx, left, right);
      store<f32>(dst + (<usize>(y * toWidth + x) << 2), sum * share + lift);
    }
  }
}
