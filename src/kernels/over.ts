// The over operator on premultiplied linear pixels (Porter and Duff, 1984); one pixel is one SIMD register.

/** dst = src * (coverage * opacity) over dst, n pixels; coverage: n f32 in 0..1, or 0 for full coverage. */
export function overRow(dst: usize, src: usize, coverage: usize, n: i32, opacity: f32): void {
  const one = f32x4.splat(1);
  for (let i = 0; i < n; i++) {
    const c = coverage ? load<f32>(coverage + (i << 2)) * opacity : opacity;
    const s = f32x4.mul(v128.load(src + (i << 4)), f32x4.splat(c));
    const d = v128.load(dst + (i << 4));
    const behind = f32x4.sub(one, i8x16.shuffle(s, s, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15));
    v128.store(dst + (i << 4), f32x4.add(s, f32x4.mul(d, behind)));
  }
}

/** Fills n pixels with one premultiplied linear colour. */
export function fillRow(dst: usize, n: i32, r: f32, g: f32, b: f32, a: f32): void {
  const colour = f32x4(r, g, b, a);
  for (let i = 0; i < n; i++) v128.store(dst + (i << 4), colour);
}
