// Decoder planes -> 8-bit RGB codes, in fixed point, so that every platform gets the same bits.
// Matrix and range arrive as 13-bit coefficients (ITU-T H.273 tables 3 and 4 give the constants).

const ROW: usize = memory.data(2 * 8448, 16);
const LAST: usize = memory.data(32, 16);

/**
 * One full-width chroma row at 16 times its code, centred on zero, as i16 at out.
 * near, far: the two chroma rows around the picture row; weight: quarters given to near (4 where rows coincide).
 * chromaWidth: samples in a chroma row (at most 8192); width: pixels; half: 1 if chroma has half the columns;
 * centred: 1 if chroma samples sit between columns, 0 if on the even ones.
 */
export function chromaRow(
  near: usize, far: usize, weight: i32, chromaWidth: i32, width: i32, half: i32, centred: i32, out: usize,
): void {
  const wNear = i16x8.splat(<i16>weight);
  const wFar = i16x8.splat(<i16>(4 - weight));
  const middle = i16x8.splat(512);
  const row = ROW + 16;
  for (let i = 0; i < chromaWidth; i += 8) {
    const a = i16x8.extend_low_i8x16_u(v128.load64_zero(near + i));
    const b = i16x8.extend_low_i8x16_u(v128.load64_zero(far + i));
    v128.store(row + (i << 1), i16x8.sub(i16x8.add(i16x8.mul(a, wNear), i16x8.mul(b, wFar)), middle));
  }
  store<i16>(row - 2, load<i16>(row));
  store<i16>(row + (chromaWidth << 1), load<i16>(row + ((chromaWidth - 1) << 1)));
  if (!half) {
    for (let i = 0; i < width; i += 8) v128.store(out + (i << 1), i16x8.shl(v128.load(row + (i << 1)), 2));
    return;
  }
  for (let i = 0; i < chromaWidth; i += 8) {
    const at = row + (i << 1);
    const here = v128.load(at);
    const next = v128.load(at + 2);
    let even: v128, odd: v128;
    if (centred) {
      const before = v128.load(at - 2);
      const three = i16x8.add(i16x8.shl(here, 1), here);
      even = i16x8.add(three, before);
      odd = i16x8.add(three, next);
    } else {
      even = i16x8.shl(here, 2);
      odd = i16x8.shl(i16x8.add(here, next), 1);
    }
    v128.store(out + (i << 2), i16x8.shuffle(even, odd, 0, 8, 1, 9, 2, 10, 3, 11));
    v128.store(out + (i << 2) + 16, i16x8.shuffle(even, odd, 4, 12, 5, 13, 6, 14, 7, 15));
  }
}

// @ts-ignore: decorator
@inline
function channel(a: v128, b: v128, weights: v128): v128 {
  const round = i32x4.splat(1 << 16);
  const low = i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 0, 8, 1, 9, 2, 10, 3, 11), weights);
  const high = i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 4, 12, 5, 13, 6, 14, 7, 15), weights);
  return i16x8.narrow_i32x4_s(i32x4.shr_s(i32x4.add(low, round), 17), i32x4.shr_s(i32x4.add(high, round), 17));
}

/**
 * n luma samples at luma and n chroma samples at u and v (from chromaRow) -> n opaque RGBA8 pixels at out.
 * black: the luma code of black; the other numbers are matrix coefficients times 8192.
 */
export function yuvRow(
  luma: usize, u: usize, v: usize, out: usize, n: i32,
  black: i32, y: i32, rv: i32, gu: i32, gv: i32, bu: i32,
): void {
  const offset = i16x8.splat(<i16>black);
  const toRed = i32x4.splat((y & 0xffff) | (rv << 16));
  const toGreen = i32x4.splat((gu & 0xffff) | (gv << 16));
  const toGreenY = i32x4.splat(y & 0xffff);
  const toBlue = i32x4.splat((y & 0xffff) | (bu << 16));
  const zero = i16x8.splat(0);
  const opaque = i8x16.splat(-1);
  const round = i32x4.splat(1 << 16);
  for (let i = 0; i < n; i += 8) {
    const y16 = i16x8.shl(i16x8.sub(i16x8.extend_low_i8x16_u(v128.load64_zero(luma + i)), offset), 4);
    const u16 = v128.load(u + (i << 1));
    const v16 = v128.load(v + (i << 1));
    const r = channel(y16, v16, toRed);
    const b = channel(y16, u16, toBlue);
    const gl = i32x4.add(
      i32x4.dot_i16x8_s(i16x8.shuffle(u16, v16, 0, 8, 1, 9, 2, 10, 3, 11), toGreen),
      i32x4.dot_i16x8_s(i16x8.shuffle(y16, zero, 0, 8, 1, 9, 2, 10, 3, 11), toGreenY),
    );
    const gh = i32x4.add(
      i32x4.dot_i16x8_s(i16x8.shuffle(u16, v16, 4, 12, 5, 13, 6, 14, 7, 15), toGreen),
      i32x4.dot_i16x8_s(i16x8.shuffle(y16, zero, 4, 12, 5, 13, 6, 14, 7, 15), toGreenY),
    );
    const g = i16x8.narrow_i32x4_s(i32x4.shr_s(i32x4.add(gl, round), 17), i32x4.shr_s(i32x4.add(gh, round), 17));
    const rb = i8x16.narrow_i16x8_u(r, b);
    const g8 = i8x16.narrow_i16x8_u(g, g);
    const rg = i8x16.shuffle(rb, g8, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
    const ba = i8x16.shuffle(rb, opaque, 8, 16, 9, 17, 10, 18, 11, 19, 12, 20, 13, 21, 14, 22, 15, 23);
    const first = i16x8.shuffle(rg, ba, 0, 8, 1, 9, 2, 10, 3, 11);
    const second = i16x8.shuffle(rg, ba, 4, 12, 5, 13, 6, 14, 7, 15);
    if (i + 8 <= n) {
      v128.store(out + (i << 2), first);
      v128.store(out + (i << 2) + 16, second);
    } else {
      v128.store(LAST, first);
      v128.store(LAST + 16, second);
      memory.copy(out + (i << 2), LAST, (n - i) << 2);
    }
  }
}
