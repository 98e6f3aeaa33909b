// Ways for a layer to meet what is behind it, on premultiplied linear pixels
// (W3C Compositing and Blending Level 1; the modes that are separable, written without dividing by alpha).

const ADD: i32 = 1;
const SCREEN: i32 = 2;
const MULTIPLY: i32 = 3;
const LIGHTEN: i32 = 4;
const DARKEN: i32 = 5;

// @ts-ignore: decorator
@inline
function alphaOf(p: v128): v128 {
  return i8x16.shuffle(p, p, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15);
}

/**
 * Blends src * (coverage * opacity) with dst, n pixels; coverage: n f32 in 0..1, or 0 for full coverage.
 * mode: 1 add, 2 screen, 3 multiply, 4 lighten, 5 darken, 6 difference. The alpha that comes out is that of "over".
 */
export function blendRow(dst: usize, src: usize, coverage: usize, n: i32, opacity: f32, mode: i32): void {
  for (let i = 0; i < n; i++) {
    const c = coverage ? load<f32>(coverage + (i << 2)) * opacity : opacity;
    const s = f32x4.mul(v128.load(src + (i << 4)), f32x4.splat(c));
    const d = v128.load(dst + (i << 4));
    const sa = alphaOf(s);
    const da = alphaOf(d);
    const both = f32x4.mul(s, d);
    const sum = f32x4.add(s, d);
    const sd = f32x4.mul(s, da);
    const ds = f32x4.mul(d, sa);
    let out: v128;
    if (mode == ADD) out = sum;
    else if (mode == SCREEN) out = f32x4.sub(sum, both);
    else {
      // What shows of each where the other is not.
      const apart = f32x4.add(f32x4.sub(s, sd), f32x4.sub(d, ds));
      if (mode == MULTIPLY) out = f32x4.add(apart, both);
      else if (mode == LIGHTEN) out = f32x4.add(apart, f32x4.pmax(sd, ds));
      else if (mode == DARKEN) out = f32x4.add(apart, f32x4.pmin(sd, ds));
      else out = f32x4.sub(sum, f32x4.mul(f32x4.splat(2), f32x4.pmin(sd, ds)));
    }
    const alpha = f32x4.sub(f32x4.add(sa, da), f32x4.mul(sa, da));
    v128.store(dst + (i << 4), i8x16.shuffle(out, alpha, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 28, 29, 30, 31));
  }
}
