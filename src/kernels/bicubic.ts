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

// @ts-ignore: decorator
@inline
function fourAcross(row: usize, x0: i32, x1: i32, x2: i32, x3: i32, w0: f32, w1: f32, w2: f32, w3: f32): v128 {
  const near = f32x4.add(
    f32x4.mul(v128.load(row + (<usize>x0 << 4)), f32x4.splat(w0)),
    f32x4.mul(v128.load(row + (<usize>x1 << 4)), f32x4.splat(w1)),
  );
  const far = f32x4.add(
    f32x4.mul(v128.load(row + (<usize>x2 << 4)), f32x4.splat(w2)),
    f32x4.mul(v128.load(row + (<usize>x3 << 4)), f32x4.splat(w3)),
  );
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
  const x0 = clampIndex(ix - 1, right), x1 = clampIndex(ix, right);
  const x2 = clampIndex(ix + 1, right), x3 = clampIndex(ix + 2, right);
  const a0 = outer(t), a1 = inner(t), a2 = inner(1 - t), a3 = outer(1 - t);
  const b0 = outer(s), b1 = inner(s), b2 = inner(1 - s), b3 = outer(1 - s);
  const r0 = fourAcross(src + <usize>clampIndex(iy - 1, bottom) * stride, x0, x1, x2, x3, a0, a1, a2, a3);
  const r1 = fourAcross(src + <usize>clampIndex(iy, bottom) * stride, x0, x1, x2, x3, a0, a1, a2, a3);
  const r2 = fourAcross(src + <usize>clampIndex(iy + 1, bottom) * stride, x0, x1, x2, x3, a0, a1, a2, a3);
  const r3 = fourAcross(src + <usize>clampIndex(iy + 2, bottom) * stride, x0, x1, x2, x3, a0, a1, a2, a3);
  const top = f32x4.add(f32x4.mul(r0, f32x4.splat(b0)), f32x4.mul(r1, f32x4.splat(b1)));
  const low = f32x4.add(f32x4.mul(r2, f32x4.splat(b2)), f32x4.mul(r3, f32x4.splat(b3)));
  return f32x4.add(top, low);
}
