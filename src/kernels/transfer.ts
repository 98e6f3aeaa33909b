// sRGB codes <-> linear light (IEC 61966-2-1), exact at every 8-bit code in both directions.

/** 256 f32: the linear value of each code. */
const LINEAR: usize = memory.data(256 * 4, 16);
/** 257 f32: the linear value at which rounding moves up to code i; [256] is out of reach. */
const THRESHOLD: usize = memory.data(257 * 4, 16);
/** 4096 u8: the code at the lower end of each bin of linear light. Bins are narrower than any step between codes. */
const BIN: usize = memory.data(4096, 16);

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

// @ts-ignore: decorator
@inline
function encode(v: f32, bin: i32): u32 {
  const code = <u32>load<u8>(BIN + bin);
  return code + u32(v >= load<f32>(THRESHOLD + 4 + (code << 2)));
}

/** n premultiplied linear f32 pixels at src -> n straight RGBA8 pixels at dst, clamped and rounded to the nearest code. */
export function toCodes(src: usize, dst: usize, n: i32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const bins = f32x4.splat(4095);
  for (let i = 0; i < n; i++) {
    let v = v128.load(src);
    const a = f32x4.extract_lane(v, 3);
    let alpha: u32 = 255;
    if (a < 0.9999) {
      v = a > 0 ? f32x4.div(v, f32x4.splat(a)) : zero;
      alpha = u32(max<f32>(a, 0) * 255 + 0.5);
    }
    v = f32x4.pmin(one, f32x4.pmax(zero, v));
    const bin = i32x4.trunc_sat_f32x4_u(f32x4.mul(v, bins));
    store<u32>(
      dst,
      encode(f32x4.extract_lane(v, 0), i32x4.extract_lane(bin, 0)) |
        (encode(f32x4.extract_lane(v, 1), i32x4.extract_lane(bin, 1)) << 8) |
        (encode(f32x4.extract_lane(v, 2), i32x4.extract_lane(bin, 2)) << 16) |
        (alpha << 24),
    );
    src += 16;
    dst += 4;
  }
}
