// A picture between its px (Keys, Cubic Convolution Interpolation for Digital Image Processing, 1981, a = -1/2).

// @ts-ignore: decorator
@inline
function clampIndex(i: i32, most: i32): i32 {
  return max(0, min(most, i));
}

/** Weight of the sample less than one px away. */
// @ts-ignore: decorator
@inline
function inner(t: f32): f32 {
  return (<f32>1.5 * t - <f32>2.5) * t * t + 1;
}

/** Weight of the sample beyond that one, on the same side of a point at t from the nearer one. */
// @ts-ignore: decorator
@inline
function outer(t: f32): f32 {
  return ((<f32>-0.5 * t + 1) * t - <f32>0.5) * t;
}

/** Four pixels beside each other, at p and three others that lie so many bytes on, by the four weights. */
// @ts-ignore: decorator
@inline
function four(p: usize, b: usize, c: usize, d: usize, w0: v128, w1: v128, w2: v128, w3: v128): v128 {
  const near = f32x4.add(f32x4.mul(v128.load(p), w0), f32x4.mul(v128.load(p + b), w1));
  const far = f32x4.add(f32x4.mul(v128.load(p + c), w2), f32x4.mul(v128.load(p + d), w3));
  return f32x4.add(near, far);
}

/** Four pixels that lie one after the other. */
// @ts-ignore: decorator
@inline
function fourAt(p: usize, w0: v128, w1: v128, w2: v128, w3: v128): v128 {
  const near = f32x4.add(f32x4.mul(v128.load(p), w0), f32x4.mul(v128.load(p, 16), w1));
  const far = f32x4.add(f32x4.mul(v128.load(p, 32), w2), f32x4.mul(v128.load(p, 48), w3));
  return f32x4.add(near, far);
}

/**
 * A picture of width x height premultiplied linear pixels, `across` of them from row to row, at (x, y) in px with whole numbers at pixel centres, no farther than some px
 * beyond its border, which repeats. src is where its first pixel lies.
 */
// @ts-ignore: decorator
@inline
export function bicubic(src: usize, across: i32, width: i32, height: i32, x: f64, y: f64): v128 {
  const right = width - 1;
  const bottom = height - 1;
  const stride = <usize>across << 4;
  const fx = floor(x);
  const fy = floor(y);
  const t = <f32>(x - fx);
  const s = <f32>(y - fy);
  const ix = <i32>fx;
  const iy = <i32>fy;
  const a0 = f32x4.splat(outer(t)), a1 = f32x4.splat(inner(t));
  const a2 = f32x4.splat(inner(1 - t)), a3 = f32x4.splat(outer(1 - t));
  const b0 = f32x4.splat(outer(s)), b1 = f32x4.splat(inner(s));
  const b2 = f32x4.splat(inner(1 - s)), b3 = f32x4.splat(outer(1 - s));
  let r0: v128, r1: v128, r2: v128, r3: v128;
  if (ix >= 1 && iy >= 1 && ix + 2 <= right && iy + 2 <= bottom) {
    const p = src + (<usize>(ix - 1) << 4) + <usize>(iy - 1) * stride;
    r0 = fourAt(p, a0, a1, a2, a3);
    r1 = fourAt(p + stride, a0, a1, a2, a3);
    r2 = fourAt(p + 2 * stride, a0, a1, a2, a3);
    r3 = fourAt(p + 3 * stride, a0, a1, a2, a3);
  } else {
    const x0 = clampIndex(ix - 1, right);
    const p = src + (<usize>x0 << 4);
    const b = <usize>(clampIndex(ix, right) - x0) << 4;
    const c = <usize>(clampIndex(ix + 1, right) - x0) << 4;
    const d = <usize>(clampIndex(ix + 2, right) - x0) << 4;
    r0 = four(p + <usize>clampIndex(iy - 1, bottom) * stride, b, c, d, a0, a1, a2, a3);
    r1 = four(p + <usize>clampIndex(iy, bottom) * stride, b, c, d, a0, a1, a2, a3);
    r2 = four(p + <usize>clampIndex(iy + 1, bottom) * stride, b, c, d, a0, a1, a2, a3);
    r3 = four(p + <usize>clampIndex(iy + 2, bottom) * stride, b, c, d, a0, a1, a2, a3);
  }
  const top = f32x4.add(f32x4.mul(r0, b0), f32x4.mul(r1, b1));
  const low = f32x4.add(f32x4.mul(r2, b2), f32x4.mul(r3, b3));
  return f32x4.add(top, low);
}
