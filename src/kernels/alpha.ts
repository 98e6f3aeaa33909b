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

/** The alpha of n straight codes as n f32 in 0..1. */
export function codesAlphaRow(src: usize, out: usize, n: i32): void {
  const most = f32x4.splat(255);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const codes = i32x4.shr_u(v128.load(src + (i << 2)), 24);
    v128.store(out + (i << 2), f32x4.div(f32x4.convert_i32x4_s(codes), most));
  }
  for (; i < n; i++) store<f32>(out + (i << 2), <f32>load<u8>(src + (i << 2), 3) / <f32>255);
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

/** n f32 in 0..1 as n u8, rounded as sums of doubles would be. */
export function shareCodes(src: usize, out: usize, n: i32): void {
  const white = f64x2.splat(255), half = f64x2.splat(0.5);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const four = v128.load(src + (i << 2));
    const two = i8x16.shuffle(four, four, 8, 9, 10, 11, 12, 13, 14, 15, 0, 0, 0, 0, 0, 0, 0, 0);
    const low = i32x4.trunc_sat_f64x2_s_zero(f64x2.add(f64x2.mul(f64x2.promote_low_f32x4(four), white), half));
    const high = i32x4.trunc_sat_f64x2_s_zero(f64x2.add(f64x2.mul(f64x2.promote_low_f32x4(two), white), half));
    const words = i16x8.narrow_i32x4_u(i64x2.shuffle(low, high, 0, 2), low);
    v128.store32_lane(out + i, i8x16.narrow_i16x8_u(words, words), 0);
  }
  for (; i < n; i++) store<u8>(out + i, <u8>max(0, min(255, <i32>(<f64>load<f32>(src + (i << 2)) * 255 + 0.5))));
}

/** u8 of cells of 2×2 px, each for all its px, as width × height of u8 at out. */
export function spreadCells(cells: usize, width: i32, height: i32, out: usize): void {
  const across = (width + 1) >> 1;
  for (let y = 0; y < height; y += 2) {
    const from = cells + <usize>((y >> 1) * across), to = out + <usize>(y * width);
    let x = 0;
    for (; x + 16 <= width; x += 16) {
      const eight = v128.load64_zero(from + (x >> 1));
      v128.store(to + x, i8x16.shuffle(eight, eight, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 5, 5, 6, 6, 7, 7));
    }
    for (; x < width; x++) store<u8>(to + x, load<u8>(from + (x >> 1)));
    if (y + 1 < height) memory.copy(to + <usize>width, to, width);
  }
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
