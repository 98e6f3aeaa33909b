// sRGB codes <-> linear light (IEC 61966-2-1), exact at every 8-bit code in both directions.

/** 256 f32: the linear value of each code. */
const LINEAR: usize = memory.data(256 * 4, 16);
/** 257 f32: the linear value at which rounding moves up to code i; [256] is out of reach. */
const THRESHOLD: usize = memory.data(257 * 4, 16);
/** 4096 u8: the code at the lower end of each bin of linear light. Bins are narrower than any step between codes. */
const BIN: usize = memory.data(4096, 16);
/** 4096 f32: the linear value within or beyond each bin at which rounding moves up to the next code. */
const NEXT: usize = memory.data(4096 * 4, 16);

function decode(code: f64): f64 {
  const v = code / 255.0;
  return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
}

/** Fills the tables; call once after instantiation. */
export function prepareTransfer(): void {
  for (let i = 0; i < 256; i++) {
    store<f32>(LINEAR + (i << 2), <f32>decode(<f64>i));
    store<f32>(THRESHOLD + (i << 2), i == 0 ? <f32>-1 : <f32>decode(<f64>i - 0.5));
  }
  store<f32>(THRESHOLD + (256 << 2), <f32>1e9);
  let code = 0;
  for (let bin = 0; bin < 4096; bin++) {
    const low = <f32>bin / <f32>4095;
    while (code < 255 && low >= load<f32>(THRESHOLD + ((code + 1) << 2))) code++;
    store<u8>(BIN + bin, <u8>code);
    store<f32>(NEXT + (bin << 2), load<f32>(THRESHOLD + ((code + 1) << 2)));
  }
}

// @ts-ignore: decorator
@inline
function decoded(p: u32): v128 {
  return f32x4(
    load<f32>(LINEAR + ((p & 255) << 2)),
    load<f32>(LINEAR + (((p >>> 8) & 255) << 2)),
    load<f32>(LINEAR + (((p >>> 16) & 255) << 2)),
    1,
  );
}

// @ts-ignore: decorator
@inline
function premultiplied(p: u32): v128 {
  const a = p >>> 24;
  return a == 255 ? decoded(p) : f32x4.mul(decoded(p), f32x4.splat(<f32>a / <f32>255));
}

/** n straight RGBA8 pixels at src -> n premultiplied linear f32 pixels at dst. */
export function toLinear(src: usize, dst: usize, n: i32): void {
  const none = f32x4.splat(0), opaque = i32x4.splat(0xff000000);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const four = v128.load(src);
    const alpha = v128.and(four, opaque);
    // Most pictures are opaque, and those of mattes clear nearly everywhere.
    if (i32x4.all_true(i32x4.eq(alpha, opaque))) {
      v128.store(dst, decoded(i32x4.extract_lane(four, 0)));
      v128.store(dst, decoded(i32x4.extract_lane(four, 1)), 16);
      v128.store(dst, decoded(i32x4.extract_lane(four, 2)), 32);
      v128.store(dst, decoded(i32x4.extract_lane(four, 3)), 48);
    } else if (!v128.any_true(alpha)) {
      v128.store(dst, none);
      v128.store(dst, none, 16);
      v128.store(dst, none, 32);
      v128.store(dst, none, 48);
    } else {
      v128.store(dst, premultiplied(i32x4.extract_lane(four, 0)));
      v128.store(dst, premultiplied(i32x4.extract_lane(four, 1)), 16);
      v128.store(dst, premultiplied(i32x4.extract_lane(four, 2)), 32);
      v128.store(dst, premultiplied(i32x4.extract_lane(four, 3)), 48);
    }
    src += 16;
    dst += 64;
  }
  for (; i < n; i++) {
    v128.store(dst, premultiplied(load<u32>(src)));
    src += 4;
    dst += 16;
  }
}

/** The codes of four values of linear light, clamped and rounded to the nearest. */
// @ts-ignore: decorator
@inline
function encoded(v: v128): v128 {
  const clamped = f32x4.pmin(f32x4.splat(1), f32x4.pmax(f32x4.splat(0), v));
  const bins = i32x4.trunc_sat_f32x4_u(f32x4.mul(clamped, f32x4.splat(4095)));
  const a = i32x4.extract_lane(bins, 0), b = i32x4.extract_lane(bins, 1);
  const c = i32x4.extract_lane(bins, 2), d = i32x4.extract_lane(bins, 3);
  let codes = i32x4.splat(0);
  codes = v128.load_lane<u8>(BIN + a, codes, 0);
  codes = v128.load_lane<u8>(BIN + b, codes, 4);
  codes = v128.load_lane<u8>(BIN + c, codes, 8);
  codes = v128.load_lane<u8>(BIN + d, codes, 12);
  let next = v128.load32_zero(NEXT + (a << 2));
  next = v128.load_lane<f32>(NEXT + (b << 2), next, 1);
  next = v128.load_lane<f32>(NEXT + (c << 2), next, 2);
  next = v128.load_lane<f32>(NEXT + (d << 2), next, 3);
  return i32x4.sub(codes, f32x4.ge(clamped, next));
}

/** The straight RGBA8 word of one premultiplied linear pixel. */
// @ts-ignore: decorator
@inline
function word(pixel: v128): u32 {
  const a = f32x4.extract_lane(pixel, 3);
  if (!(a < 0.9999)) return packed(encoded(pixel), 255);
  return packed(encoded(a > 0 ? f32x4.div(pixel, f32x4.splat(a)) : f32x4.splat(0)), u32(max<f32>(a, 0) * 255 + 0.5));
}

// @ts-ignore: decorator
@inline
function packed(codes: v128, alpha: u32): u32 {
  const small = i16x8.narrow_i32x4_u(codes, codes);
  return (i32x4.extract_lane(i8x16.narrow_i16x8_u(small, small), 0) & 0xffffff) | (alpha << 24);
}

/** n premultiplied linear f32 pixels at src -> n straight RGBA8 pixels at dst, clamped and rounded to the nearest code. */
export function toCodes(src: usize, dst: usize, n: i32): void {
  const solid = f32x4.splat(0.9999), opaque = i32x4.splat(0xff000000);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const a = v128.load(src), b = v128.load(src, 16), c = v128.load(src, 32), d = v128.load(src, 48);
    // Four pixels as four channels.
    const ab = v128.shuffle<i32>(a, b, 0, 4, 1, 5), cd = v128.shuffle<i32>(c, d, 0, 4, 1, 5);
    const abHigh = v128.shuffle<i32>(a, b, 2, 6, 3, 7), cdHigh = v128.shuffle<i32>(c, d, 2, 6, 3, 7);
    if (i32x4.all_true(f32x4.ge(v128.shuffle<i64>(abHigh, cdHigh, 1, 3), solid))) {
      const red = encoded(v128.shuffle<i64>(ab, cd, 0, 2));
      const green = encoded(v128.shuffle<i64>(ab, cd, 1, 3));
      const blue = encoded(v128.shuffle<i64>(abHigh, cdHigh, 0, 2));
      const rest = v128.or(i32x4.shl(green, 8), i32x4.shl(blue, 16));
      v128.store(dst, v128.or(v128.or(red, rest), opaque));
    } else {
      store<u32>(dst, word(a));
      store<u32>(dst, word(b), 4);
      store<u32>(dst, word(c), 8);
      store<u32>(dst, word(d), 12);
    }
    src += 64;
    dst += 16;
  }
  for (; i < n; i++) {
    store<u32>(dst, word(v128.load(src)));
    src += 16;
    dst += 4;
  }
}
