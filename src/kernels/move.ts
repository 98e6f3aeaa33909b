// A plane of f32 as a camera that stood elsewhere would have seen it: Catmull–Rom between its samples, its border going on beyond it.

// @ts-expect-error: decorator
@inline
function held(at: i32, last: i32): i32 {
  return at < 0 ? 0 : at > last ? last : at;
}

/** Weights of the four samples about a place t between the middle two. */
// @ts-expect-error: decorator
@inline
export function weightsAt(t: f32): v128 {
  const t2 = t * t, t3 = t2 * t;
  const a: f32 = (2 * t2 - t - t3) * 0.5, b: f32 = (2 - 5 * t2 + 3 * t3) * 0.5;
  const c: f32 = (t + 4 * t2 - 3 * t3) * 0.5, d: f32 = (t3 - t2) * 0.5;
  return f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(a), 1, b), 2, c), 3, d);
}

/** Weights of the same four in how much what lies there changes from sample to sample. */
// @ts-expect-error: decorator
@inline
export function slopesAt(t: f32): v128 {
  const t2 = t * t;
  const a: f32 = (4 * t - 1 - 3 * t2) * 0.5, b: f32 = (9 * t2 - 10 * t) * 0.5;
  const c: f32 = (1 + 8 * t - 9 * t2) * 0.5, d: f32 = (3 * t2 - 2 * t) * 0.5;
  return f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(a), 1, b), 2, c), 3, d);
}

/** Of width × height at src, each place shifted by (x, y) samples, at dst. row: width f32 and slack. */
export function shiftPlane(src: usize, width: i32, height: i32, x: f32, y: f32, dst: usize, row: usize): void {
  const ix = i32(floor<f32>(x)), iy = i32(floor<f32>(y));
  const across = weightsAt(x - <f32>ix), down = weightsAt(y - <f32>iy);
  const w0 = f32x4.splat(f32x4.extract_lane(across, 0)), w1 = f32x4.splat(f32x4.extract_lane(across, 1));
  const w2 = f32x4.splat(f32x4.extract_lane(across, 2)), w3 = f32x4.splat(f32x4.extract_lane(across, 3));
  const h0 = f32x4.splat(f32x4.extract_lane(down, 0)), h1 = f32x4.splat(f32x4.extract_lane(down, 1));
  const h2 = f32x4.splat(f32x4.extract_lane(down, 2)), h3 = f32x4.splat(f32x4.extract_lane(down, 3));
  const stride = <usize>width << 2;
  // Four px from one of the row need nothing from beyond it between these.
  const first = held(1 - ix, width), last = width - 5 - ix;
  for (let py = 0; py < height; py++) {
    const r0 = src + <usize>held(py + iy - 1, height - 1) * stride, r1 = src + <usize>held(py + iy, height - 1) * stride;
    const r2 = src + <usize>held(py + iy + 1, height - 1) * stride, r3 = src + <usize>held(py + iy + 2, height - 1) * stride;
    for (let i: usize = 0; i < stride; i += 16) {
      const upper = f32x4.add(f32x4.mul(h0, v128.load(r0 + i)), f32x4.mul(h1, v128.load(r1 + i)));
      const lower = f32x4.add(f32x4.mul(h2, v128.load(r2 + i)), f32x4.mul(h3, v128.load(r3 + i)));
      v128.store(row + i, f32x4.add(upper, lower));
    }
    const to = dst + <usize>py * stride;
    for (let px = 0; px < width; px++) {
      if (px >= first && px <= last && px + 4 <= width) {
        const at = row + (<usize>(px + ix - 1) << 2);
        const left = f32x4.add(f32x4.mul(w0, v128.load(at)), f32x4.mul(w1, v128.load(at, 4)));
        const right = f32x4.add(f32x4.mul(w2, v128.load(at, 8)), f32x4.mul(w3, v128.load(at, 12)));
        v128.store(to + (<usize>px << 2), f32x4.add(left, right));
        px += 3;
        continue;
      }
      let sum: f32 = 0;
      sum += f32x4.extract_lane(across, 0) * load<f32>(row + (<usize>held(px + ix - 1, width - 1) << 2));
      sum += f32x4.extract_lane(across, 1) * load<f32>(row + (<usize>held(px + ix, width - 1) << 2));
      sum += f32x4.extract_lane(across, 2) * load<f32>(row + (<usize>held(px + ix + 1, width - 1) << 2));
      sum += f32x4.extract_lane(across, 3) * load<f32>(row + (<usize>held(px + ix + 2, width - 1) << 2));
      store<f32>(to + (<usize>px << 2), sum);
    }
  }
}

/** Weights of places between samples, by so many parts: what is between those changes nothing that could be seen. */
const PARTS = 1024;
const WEIGHTS: usize = memory.data(1025 * 16, 16);
let areTold = false;

function tellWeights(): void {
  if (areTold) return;
  for (let i = 0; i <= PARTS; i++) v128.store(WEIGHTS + (<usize>i << 4), weightsAt(<f32>i / <f32>PARTS));
  areTold = true;
}

// @ts-expect-error: decorator
@inline
function fourFrom(row: usize, ix: i32, width: i32): v128 {
  if (ix >= 1 && ix + 2 < width) return v128.load(row + (<usize>(ix - 1) << 2));
  const a = v128.load32_zero(row + (<usize>held(ix - 1, width - 1) << 2));
  const b = v128.load32_lane(row + (<usize>held(ix, width - 1) << 2), a, 1);
  const c = v128.load32_lane(row + (<usize>held(ix + 1, width - 1) << 2), b, 2);
  return v128.load32_lane(row + (<usize>held(ix + 2, width - 1) << 2), c, 3);
}

/** Of width × height at src, the place (x, y) of dst lying at (x0 + cos · x − sin · y, y0 + sin · x + cos · y). */
export function turnPlane(src: usize, width: i32, height: i32, x0: f64, y0: f64, cos: f64, sin: f64, dst: usize): void {
  tellWeights();
  const stride = <usize>width << 2;
  for (let py = 0; py < height; py++) {
    let sx = x0 - sin * <f64>py, sy = y0 + cos * <f64>py;
    for (let px = 0; px < width; px++) {
      // By parts of samples, that whole ones and what is left come of shifts.
      const fx = i32(floor<f64>(sx * <f64>PARTS)), fy = i32(floor<f64>(sy * <f64>PARTS));
      const ix = fx >> 10, iy = fy >> 10;
      const across = v128.load(WEIGHTS + (<usize>(fx & (PARTS - 1)) << 4));
      const down = WEIGHTS + (<usize>(fy & (PARTS - 1)) << 4);
      const r0 = fourFrom(src + <usize>held(iy - 1, height - 1) * stride, ix, width);
      const r1 = fourFrom(src + <usize>held(iy, height - 1) * stride, ix, width);
      const r2 = fourFrom(src + <usize>held(iy + 1, height - 1) * stride, ix, width);
      const r3 = fourFrom(src + <usize>held(iy + 2, height - 1) * stride, ix, width);
      const upper = f32x4.add(f32x4.mul(v128.load32_splat(down), r0), f32x4.mul(v128.load32_splat(down, 4), r1));
      const lower = f32x4.add(f32x4.mul(v128.load32_splat(down, 8), r2), f32x4.mul(v128.load32_splat(down, 12), r3));
      const s = f32x4.mul(across, f32x4.add(upper, lower));
      const two = f32x4.add(s, i8x16.shuffle(s, s, 8, 9, 10, 11, 12, 13, 14, 15, 0, 1, 2, 3, 4, 5, 6, 7));
      store<f32>(dst + <usize>py * stride + (<usize>px << 2), f32x4.extract_lane(two, 0) + f32x4.extract_lane(two, 1));
      sx += cos;
      sy += sin;
    }
  }
}
