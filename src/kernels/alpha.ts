// How much of a pixel is covered: read from pictures, and shown as grey.

/** The alpha of n premultiplied linear pixels as n f32 in 0..1. */
export function alphaRow(src: usize, out: usize, n: i32): void {
  const none = f32x4.splat(0), all = f32x4.splat(1);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const at = src + (i << 4);
    const two = v128.load32_lane(at, v128.load32_zero(at, 12), 1, 28);
    const four = v128.load32_lane(at, v128.load32_lane(at, two, 2, 44), 3, 60);
    v128.store(out + (i << 2), f32x4.pmin(all, f32x4.pmax(none, four)));
  }
  for (; i < n; i++) {
    const a = load<f32>(src + (i << 4), 12);
    store<f32>(out + (i << 2), max<f32>(0, min<f32>(1, a)));
  }
}

/** n u8 of coverage as straight codes of white that covers as much. */
export function whiteRow(src: usize, dst: usize, n: i32): void {
  const white = i32x4.splat(0x00ffffff);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const codes = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(src + i)));
    v128.store(dst + (i << 2), v128.or(white, i32x4.shl(codes, 24)));
  }
  for (; i < n; i++) store<u32>(dst + (i << 2), 0x00ffffff | (<u32>load<u8>(src + i) << 24));
}

/** The brightness of n opaque codes as n f32 in 0..1: BT.709 luma, so that grey is its code. */
export function brightRow(src: usize, out: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const code = load<u32>(src + (i << 2));
    // The shares sum up to 65536: white is 1 to the bit.
    const sum = (code & 255) * 13933 + ((code >> 8) & 255) * 46871 + ((code >> 16) & 255) * 4732;
    store<f32>(out + (i << 2), <f32>sum / <f32>(65536 * 255));
  }
}

/** The alpha of n premultiplied linear pixels as n opaque codes of grey. */
export function greyRow(src: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const a = load<f32>(src + (i << 4), 12);
    const code = <u32>nearest(max<f32>(0, min<f32>(1, a)) * 255);
    store<u32>(dst + (i << 2), 0xff000000 | (code * 0x010101));
  }
}

/** The first and last column and row (four i32 at box) of a plane of u8 in which anything is not nought; where all is the last come before the first. */
export function coveredBox(plane: usize, width: i32, height: i32, box: usize): void {
  let left = width, right = -1, top = height, bottom = -1;
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * width);
    let first = 0, last = width - 1;
    while (first + 16 <= width && !v128.any_true(v128.load(row + <usize>first))) first += 16;
    while (first < width && load<u8>(row + <usize>first) == 0) first++;
    if (first == width) continue;
    while (last - 15 > first && !v128.any_true(v128.load(row + <usize>(last - 15)))) last -= 16;
    while (load<u8>(row + <usize>last) == 0) last--;
    left = min(left, first);
    right = max(right, last);
    top = min(top, y);
    bottom = y;
  }
  store<i32>(box, left);
  store<i32>(box, right, 4);
  store<i32>(box, top, 8);
  store<i32>(box, bottom, 12);
}
