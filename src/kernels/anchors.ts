// Places of a plane by which it is told how a camera moved: what shows there, and by how much it is off.
import { total } from "./four";
import { slopesAt, weightsAt } from "./move";

/** A plane at n places that are not at its border (f32 of x, then of y), smoothed by a binomial of five either way, its codes multiplied by `share`; f32 at out. */
export function smoothAnchors(plane: usize, width: i32, xs: usize, ys: usize, n: i32, share: f32, out: usize): void {
  const stride = <usize>width << 2, binomial = f32x4(1, 4, 6, 4), four = f32x4.splat(4), six = f32x4.splat(6);
  for (let i = 0; i < n; i++) {
    const x = i32(load<f32>(xs + (<usize>i << 2))), y = i32(load<f32>(ys + (<usize>i << 2)));
    const a = plane + (<usize>((y - 2) * width + x - 2) << 2), b = a + stride, c = b + stride, d = c + stride, e = d + stride;
    const first = f32x4.add(f32x4.add(v128.load(a), v128.load(e)), f32x4.add(f32x4.mul(four, f32x4.add(v128.load(b), v128.load(d))), f32x4.mul(six, v128.load(c))));
    const last = load<f32>(a, 16) + load<f32>(e, 16) + 4 * (load<f32>(b, 16) + load<f32>(d, 16)) + 6 * load<f32>(c, 16);
    store<f32>(out + (<usize>i << 2), (total(f32x4.mul(binomial, first)) + last) * 0.00390625 * share);
  }
}

/**
 * By how much a plane, at where n places (f32 of x, then of y) lie in it, differs from what is shown there (f32): between its samples by Catmull–Rom, and `beyond` of what it does not show; f32 at out.
 * gxs, gys: by how much it changes there, across and down, codes a sample, as Catmull–Rom has it. The place (x, y) lies at (x0 + cos · x − sin · y, y0 + sin · x + cos · y).
 */
export function anchorsOff(plane: usize, width: i32, height: i32, xs: usize, ys: usize, n: i32, shown: usize, x0: f64, y0: f64, cos: f64, sin: f64, beyond: f32, out: usize, gxs: usize, gys: usize): void {
  const stride = <usize>width << 2;
  for (let i = 0; i < n; i++) {
    const at = <usize>i << 2;
    const x = <f64>load<f32>(xs + at), y = <f64>load<f32>(ys + at);
    const sx = x0 + cos * x - sin * y, sy = y0 + sin * x + cos * y;
    if (!(sx > 1 && sy > 1 && sx < <f64>(width - 2) && sy < <f64>(height - 2))) {
      store<f32>(out + at, beyond);
      store<f32>(gxs + at, 0);
      store<f32>(gys + at, 0);
      continue;
    }
    const ix = i32(sx), iy = i32(sy), u = <f32>(sx - <f64>ix), v = <f32>(sy - <f64>iy);
    const row = plane + (<usize>((iy - 1) * width + ix - 1) << 2);
    const a = v128.load(row), b = v128.load(row + stride), c = v128.load(row + 2 * stride), d = v128.load(row + 3 * stride);
    const across = weightsAt(u), columns = ofFour(weightsAt(v), a, b, c, d);
    store<f32>(out + at, total(f32x4.mul(across, columns)) - load<f32>(shown + at));
    store<f32>(gxs + at, total(f32x4.mul(slopesAt(u), columns)));
    store<f32>(gys + at, total(f32x4.mul(across, ofFour(slopesAt(v), a, b, c, d))));
  }
}

/** Four rows by four weights. */
// @ts-expect-error: decorator
@inline
function ofFour(weights: v128, a: v128, b: v128, c: v128, d: v128): v128 {
  const upper = f32x4.add(f32x4.mul(i32x4.shuffle(weights, weights, 0, 0, 0, 0), a), f32x4.mul(i32x4.shuffle(weights, weights, 1, 1, 1, 1), b));
  const lower = f32x4.add(f32x4.mul(i32x4.shuffle(weights, weights, 2, 2, 2, 2), c), f32x4.mul(i32x4.shuffle(weights, weights, 3, 3, 3, 3), d));
  return f32x4.add(upper, lower);
}

// @ts-expect-error: decorator
@inline
function told(sums: usize, i: i32, v: v128): void {
  store<f32>(sums + (<usize>i << 2), total(v));
}

/**
 * The normal equations of a step of Gauss and Newton: shift across and down, turn and scale about (cx, cy) in parts of 1 / `per`, of places (f32 each of x, y, and the slopes there, n a multiple of four)
 * weighed by Tukey's biweight of what they are `off` by, nought from `reach` on. sums, f32 × 14: xx, xy, yy, xt, yt, xs, ys, tt, ts, ss, and x, y, t and s of what is off.
 */
export function anchorSums(xs: usize, ys: usize, gxs: usize, gys: usize, off: usize, n: i32, reach: f32, cx: f32, cy: f32, per: f32, sums: usize): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), perReach = f32x4.splat(1 / reach), size = f32x4.splat(per);
  const middleX = f32x4.splat(cx), middleY = f32x4.splat(cy);
  let xx = zero, xy = zero, yy = zero, xt = zero, yt = zero, xScale = zero, yScale = zero, tt = zero, ts = zero, ss = zero;
  let bx = zero, by = zero, bt = zero, bs = zero;
  for (let at: usize = 0; at < <usize>n << 2; at += 16) {
    const r = v128.load(off + at), t = f32x4.mul(r, perReach);
    const near = f32x4.pmax(zero, f32x4.sub(one, f32x4.mul(t, t)));
    if (!v128.any_true(near)) continue;
    const w = f32x4.mul(near, near), gx = v128.load(gxs + at), gy = v128.load(gys + at);
    const dx = f32x4.mul(f32x4.sub(v128.load(xs + at), middleX), size), dy = f32x4.mul(f32x4.sub(v128.load(ys + at), middleY), size);
    const jt = f32x4.sub(f32x4.mul(gy, dx), f32x4.mul(gx, dy)), js = f32x4.add(f32x4.mul(gx, dx), f32x4.mul(gy, dy));
    const wx = f32x4.mul(w, gx), wy = f32x4.mul(w, gy), wt = f32x4.mul(w, jt), ws = f32x4.mul(w, js);
    xx = f32x4.add(xx, f32x4.mul(wx, gx));
    xy = f32x4.add(xy, f32x4.mul(wx, gy));
    yy = f32x4.add(yy, f32x4.mul(wy, gy));
    xt = f32x4.add(xt, f32x4.mul(wx, jt));
    yt = f32x4.add(yt, f32x4.mul(wy, jt));
    xScale = f32x4.add(xScale, f32x4.mul(wx, js));
    yScale = f32x4.add(yScale, f32x4.mul(wy, js));
    tt = f32x4.add(tt, f32x4.mul(wt, jt));
    ts = f32x4.add(ts, f32x4.mul(wt, js));
    ss = f32x4.add(ss, f32x4.mul(ws, js));
    bx = f32x4.sub(bx, f32x4.mul(wx, r));
    by = f32x4.sub(by, f32x4.mul(wy, r));
    bt = f32x4.sub(bt, f32x4.mul(wt, r));
    bs = f32x4.sub(bs, f32x4.mul(ws, r));
  }
  told(sums, 0, xx);
  told(sums, 1, xy);
  told(sums, 2, yy);
  told(sums, 3, xt);
  told(sums, 4, yt);
  told(sums, 5, xScale);
  told(sums, 6, yScale);
  told(sums, 7, tt);
  told(sums, 8, ts);
  told(sums, 9, ss);
  told(sums, 10, bx);
  told(sums, 11, by);
  told(sums, 12, bt);
  told(sums, 13, bs);
}

/** Of width × height at src, smoothed by a binomial of three either way, its border going on beyond it, at out. row: width f32 and slack. */
export function smoothPlane(src: usize, width: i32, height: i32, row: usize, out: usize): void {
  const stride = <usize>width << 2, two = f32x4.splat(2), sixteenth = f32x4.splat(0.0625);
  for (let y = 0; y < height; y++) {
    const middle = src + <usize>y * stride;
    const up = y > 0 ? middle - stride : middle, down = y < height - 1 ? middle + stride : middle;
    for (let i: usize = 0; i < stride; i += 16) {
      const sides = f32x4.add(v128.load(up + i), v128.load(down + i));
      v128.store(row + i, f32x4.add(sides, f32x4.mul(two, v128.load(middle + i))));
    }
    const to = out + <usize>y * stride;
    let x = 0;
    for (; x < width; x++) {
      const at = row + (<usize>x << 2);
      if (x > 0 && x + 5 <= width) {
        const sides = f32x4.add(v128.load(at - 4), v128.load(at + 4));
        v128.store(to + (<usize>x << 2), f32x4.mul(sixteenth, f32x4.add(sides, f32x4.mul(two, v128.load(at)))));
        x += 3;
        continue;
      }
      const left = x > 0 ? at - 4 : at, right = x < width - 1 ? at + 4 : at;
      store<f32>(to + (<usize>x << 2), (load<f32>(left) + 2 * load<f32>(at) + load<f32>(right)) * 0.0625);
    }
  }
}

/**
 * Of each tile of a plane that is not at its border the place where it changes most, if by more than `least` codes a sample. out: x and y, f32 × 2 each, tile after tile; how many there are is returned.
 */
export function steepestPlaces(plane: usize, width: i32, height: i32, border: i32, tile: i32, least: f32, out: usize): i32 {
  const stride = <usize>width << 2;
  let found = 0;
  for (let top = border; top < height - border; top += tile) {
    for (let left = border; left < width - border; left += tile) {
      let most = least * least * 4, atX = -1, atY = 0;
      for (let y = top; y < min(top + tile, height - border); y++) {
        for (let x = left; x < min(left + tile, width - border); x++) {
          const at = plane + <usize>y * stride + (<usize>x << 2);
          const across = load<f32>(at, 4) - load<f32>(at - 4), down = load<f32>(at + stride) - load<f32>(at - stride);
          const size = across * across + down * down;
          if (size <= most) continue;
          most = size;
          atX = x;
          atY = y;
        }
      }
      if (atX < 0) continue;
      store<f32>(out + (<usize>found << 3), <f32>atX);
      store<f32>(out + (<usize>found << 3), <f32>atY, 4);
      found++;
    }
  }
  return found;
}
