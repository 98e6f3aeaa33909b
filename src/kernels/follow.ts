// What followers of points spend their time on: pictures at half their size, squares of them between px, and where a square lies in another picture.

/** px of a square's side, and those of its rows in memory: whole registers, the last with one px in it. */
const SIDE = 21;
const ROW = 24;
const PLANE: usize = SIDE * ROW * 4;
/**
 * A patch: values about their mean, slopes to the right and down; mean, spread, the inverse of slopes squared (three), the sums of both slopes, and those of slopes times values.
 * Beyond the side all is nought.
 */
const STATS: usize = 3 * PLANE;
/** A square with a px more on each side, and one that is looked at just now. */
const WIDE = SIDE + 2;
const AROUND: usize = memory.data(23 * 24 * 4 + 64, 16);
const SEEN: usize = memory.data(22 * 24 * 4 + 64, 16);
/** What a place comes to, five sums: d, d², d times both slopes, d times the patch's values, where d is what is seen less the patch's mean. */
const SUMS: usize = memory.data(5 * 4, 16);

/** Half of width × height, each px by a binomial of three either way; the border goes on. room: a row of width f32 and slack. */
export function halvePlane(src: usize, width: i32, height: i32, dst: usize, room: usize): void {
  const w = width >> 1, h = height >> 1;
  const stride = <usize>width << 2;
  const two = f32x4.splat(2), sixteenth = f32x4.splat(1.0 / 16.0);
  for (let y = 0; y < h; y++) {
    const here = src + <usize>(2 * y) * stride;
    const above = y > 0 ? here - stride : here, below = here + stride;
    for (let i: usize = 0; i < stride; i += 16) {
      const sides = f32x4.add(v128.load(above + i), v128.load(below + i));
      v128.store(room + i, f32x4.mul(sixteenth, f32x4.add(sides, f32x4.mul(two, v128.load(here + i)))));
    }
    const to = dst + (<usize>(y * w) << 2);
    store<f32>(to, 3 * load<f32>(room) + load<f32>(room, 4));
    let x = 1;
    for (; x + 4 < w; x += 4) {
      const at = room + (<usize>x << 3);
      const a = v128.load(at), b = v128.load(at, 16), l = v128.load(at - 4), m = v128.load(at, 12);
      const even = i8x16.shuffle(a, b, 0, 1, 2, 3, 8, 9, 10, 11, 16, 17, 18, 19, 24, 25, 26, 27);
      const right = i8x16.shuffle(a, b, 4, 5, 6, 7, 12, 13, 14, 15, 20, 21, 22, 23, 28, 29, 30, 31);
      const left = i8x16.shuffle(l, m, 0, 1, 2, 3, 8, 9, 10, 11, 16, 17, 18, 19, 24, 25, 26, 27);
      v128.store(to + (<usize>x << 2), f32x4.add(f32x4.add(left, right), f32x4.mul(two, even)));
    }
    for (; x < w; x++) {
      const at = room + (<usize>x << 3);
      store<f32>(to + (<usize>x << 2), load<f32>(at - 4) + 2 * load<f32>(at) + load<f32>(at, 4));
    }
  }
}

/** Between px; beyond the picture what its border is. */
function valueAt(plane: usize, width: i32, height: i32, x: f64, y: f64): f32 {
  const px = max<f64>(0, min<f64>(<f64>width - 1.001, x)), py = max<f64>(0, min<f64>(<f64>height - 1.001, y));
  const left = i32(px), top = i32(py);
  const u = <f32>(px - <f64>left), v = <f32>(py - <f64>top);
  const at = plane + (<usize>(top * width + left) << 2);
  const below = at + (<usize>width << 2);
  const one = load<f32>(at) * (1 - u) + load<f32>(at, 4) * u;
  const two = load<f32>(below) * (1 - u) + load<f32>(below, 4) * u;
  return one * (1 - v) + two * v;
}

/** A square of values a px apart, its first at (x, y), in rows of ROW; what lies beyond its side in these means nothing. */
function squareAt(plane: usize, width: i32, height: i32, x: f64, y: f64, side: i32, out: usize): void {
  const isNear = x > -1e6 && x < 1e6 && y > -1e6 && y < 1e6;
  const left = isNear ? i32(floor<f64>(x)) : -1, top = isNear ? i32(floor<f64>(y)) : -1;
  if (left < 0 || top < 0 || left + side >= width || top + side >= height) {
    for (let v = 0; v < side; v++) {
      for (let u = 0; u < side; u++) {
        store<f32>(out + (<usize>(v * ROW + u) << 2), valueAt(plane, width, height, x + <f64>u, y + <f64>v));
      }
    }
    return;
  }
  const s = <f32>(x - <f64>left), t = <f32>(y - <f64>top);
  const a = f32x4.splat((1 - s) * (1 - t)), b = f32x4.splat(s * (1 - t)), c = f32x4.splat((1 - s) * t), d = f32x4.splat(s * t);
  const stride = <usize>width << 2;
  for (let v = 0; v < side; v++) {
    const at = plane + (<usize>((top + v) * width + left) << 2);
    for (let u: usize = 0; u < <usize>ROW * 4; u += 16) {
      const upper = f32x4.add(f32x4.mul(a, v128.load(at + u)), f32x4.mul(b, v128.load(at + u, 4)));
      const lower = f32x4.add(f32x4.mul(c, v128.load(at + u + stride)), f32x4.mul(d, v128.load(at + u + stride, 4)));
      v128.store(out + (<usize>(v * ROW) << 2) + u, f32x4.add(upper, lower));
    }
  }
}

// @ts-expect-error: decorator
@inline
function sumOf(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + (f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3));
}

/** Sums of a square between px beside a patch. */
function compare(plane: usize, width: i32, height: i32, patch: usize, x: f64, y: f64): void {
  const px = x - (SIDE - 1) / 2, py = y - (SIDE - 1) / 2;
  let left = -1, top = -1;
  if (px >= 0 && py >= 0 && px < <f64>(width - SIDE) && py < <f64>(height - SIDE)) {
    left = i32(px);
    top = i32(py);
  }
  let from = SEEN, stride: usize = ROW * 4;
  let s: f32 = 0, t: f32 = 0;
  if (left < 0) squareAt(plane, width, height, px, py, SIDE, SEEN);
  else {
    from = plane + (<usize>(top * width + left) << 2);
    stride = <usize>width << 2;
    s = <f32>(px - <f64>left);
    t = <f32>(py - <f64>top);
  }
  const s0 = f32x4.splat(1 - s), s1 = f32x4.splat(s), t0 = f32x4.splat(1 - t), t1 = f32x4.splat(t);
  const mean = f32x4.splat(load<f32>(patch + STATS));
  let sum = f32x4.splat(0), squares = sum, right = sum, down = sum, alike = sum;
  for (let u = 0; u < ROW; u += 4) {
    const isIn = u + 4 <= SIDE ? i32x4.splat(-1) : i32x4(-1, 0, 0, 0);
    let at = from + (<usize>u << 2), own = patch + (<usize>u << 2);
    let upper = f32x4.add(f32x4.mul(s0, v128.load(at)), f32x4.mul(s1, v128.load(at, 4)));
    for (let v = 0; v < SIDE; v++) {
      at += stride;
      const lower = f32x4.add(f32x4.mul(s0, v128.load(at)), f32x4.mul(s1, v128.load(at, 4)));
      const seen = f32x4.add(f32x4.mul(t0, upper), f32x4.mul(t1, lower));
      const d = v128.and(isIn, f32x4.sub(seen, mean));
      sum = f32x4.add(sum, d);
      squares = f32x4.add(squares, f32x4.mul(d, d));
      alike = f32x4.add(alike, f32x4.mul(d, v128.load(own)));
      right = f32x4.add(right, f32x4.mul(d, v128.load(own + PLANE)));
      down = f32x4.add(down, f32x4.mul(d, v128.load(own + 2 * PLANE)));
      upper = lower;
      own += ROW * 4;
    }
  }
  store<f32>(SUMS, sumOf(sum));
  store<f32>(SUMS, sumOf(squares), 4);
  store<f32>(SUMS, sumOf(right), 8);
  store<f32>(SUMS, sumOf(down), 12);
  store<f32>(SUMS, sumOf(alike), 16);
}

/** The spread of what `compare` saw. */
function spreadSeen(): f32 {
  const mean = load<f32>(SUMS) / <f32>(SIDE * SIDE);
  return sqrt<f32>(max<f32>(0, load<f32>(SUMS, 4) / <f32>(SIDE * SIDE) - mean * mean));
}

/**
 * The patch about (x, y) of a plane, with its slopes, at patch. slight: slopes that are too slight to hold on to (the smaller eigenvalue of their square, a px).
 * Whether it can be held on to.
 */
export function takePatch(plane: usize, width: i32, height: i32, x: f64, y: f64, slight: f32, patch: usize): bool {
  const half: f64 = (SIDE - 1) / 2;
  squareAt(plane, width, height, x - half - 1, y - half - 1, WIDE, AROUND);
  const mid = f32x4.splat(0.5);
  let aa = f32x4.splat(0), ab = f32x4.splat(0), bb = f32x4.splat(0);
  for (let v = 0; v < SIDE; v++) {
    for (let u = 0; u < ROW; u += 4) {
      const at = AROUND + (<usize>((v + 1) * ROW + u + 1) << 2);
      const to = patch + (<usize>(v * ROW + u) << 2);
      const isIn = u + 4 <= SIDE ? i32x4.splat(-1) : i32x4(-1, 0, 0, 0);
      const gx = v128.and(isIn, f32x4.mul(mid, f32x4.sub(v128.load(at, 4), v128.load(at - 4))));
      const gy = v128.and(isIn, f32x4.mul(mid, f32x4.sub(v128.load(at, 96), v128.load(at - 96))));
      v128.store(to, v128.and(isIn, v128.load(at)));
      v128.store(to + PLANE, gx);
      v128.store(to + 2 * PLANE, gy);
      aa = f32x4.add(aa, f32x4.mul(gx, gx));
      ab = f32x4.add(ab, f32x4.mul(gx, gy));
      bb = f32x4.add(bb, f32x4.mul(gy, gy));
    }
  }
  const a = sumOf(aa), b = sumOf(ab), c = sumOf(bb);
  const det = a * c - b * b;
  const smaller = (a + c - sqrt<f32>((a - c) * (a - c) + 4 * b * b)) * 0.5;
  if (!(smaller >= slight * <f32>(SIDE * SIDE)) || !(det > 0)) return false;
  let all = f32x4.splat(0);
  for (let i: usize = 0; i < PLANE; i += 16) all = f32x4.add(all, v128.load(patch + i));
  const mean = sumOf(all) / <f32>(SIDE * SIDE);
  const middle = f32x4.splat(mean);
  let squares = f32x4.splat(0), right = squares, down = squares, rightOwn = squares, downOwn = squares;
  for (let v = 0; v < SIDE; v++) {
    for (let u = 0; u < ROW; u += 4) {
      const at = patch + (<usize>(v * ROW + u) << 2);
      const isIn = u + 4 <= SIDE ? i32x4.splat(-1) : i32x4(-1, 0, 0, 0);
      const own = v128.and(isIn, f32x4.sub(v128.load(at), middle));
      const gx = v128.load(at + PLANE), gy = v128.load(at + 2 * PLANE);
      v128.store(at, own);
      squares = f32x4.add(squares, f32x4.mul(own, own));
      right = f32x4.add(right, gx);
      down = f32x4.add(down, gy);
      rightOwn = f32x4.add(rightOwn, f32x4.mul(gx, own));
      downOwn = f32x4.add(downOwn, f32x4.mul(gy, own));
    }
  }
  store<f32>(patch + STATS, mean);
  store<f32>(patch + STATS, sqrt<f32>(sumOf(squares) / <f32>(SIDE * SIDE)), 4);
  store<f32>(patch + STATS, c / det, 8);
  store<f32>(patch + STATS, -b / det, 12);
  store<f32>(patch + STATS, a / det, 16);
  store<f32>(patch + STATS, sumOf(right), 20);
  store<f32>(patch + STATS, sumOf(down), 24);
  store<f32>(patch + STATS, sumOf(rightOwn), 28);
  store<f32>(patch + STATS, sumOf(downOwn), 32);
  return true;
}

/**
 * Brings the place at place (two f64) onto where a patch lies in a plane (inverse compositional Lucas–Kanade, Baker and Matthews 2004), light apart: what is seen is
 * brought to the patch's mean and spread. rounds: at most; small: a step that is.
 */
export function settlePatch(
  plane: usize, width: i32, height: i32, patch: usize, rounds: i32, small: f64, place: usize,
): void {
  const spread = load<f32>(patch + STATS, 4);
  const ia = load<f32>(patch + STATS, 8), ib = load<f32>(patch + STATS, 12), ic = load<f32>(patch + STATS, 16);
  const right = load<f32>(patch + STATS, 20), down = load<f32>(patch + STATS, 24);
  const rightOwn = load<f32>(patch + STATS, 28), downOwn = load<f32>(patch + STATS, 32);
  let x = load<f64>(place), y = load<f64>(place, 8);
  for (let round = 0; round < rounds; round++) {
    compare(plane, width, height, patch, x, y);
    const mean = load<f32>(SUMS) / <f32>(SIDE * SIDE), wide = spreadSeen();
    const share: f32 = wide > 0 ? spread / wide : 1;
    const bx = share * (load<f32>(SUMS, 8) - mean * right) - rightOwn;
    const by = share * (load<f32>(SUMS, 12) - mean * down) - downOwn;
    const dx = <f64>(ia * bx + ib * by), dy = <f64>(ib * bx + ic * by);
    x -= dx;
    y -= dy;
    // Never so far away that a place is no number any more.
    if (!(x > -1e5 && x < 1e5 && y > -1e5 && y < 1e5)) return;
    if (dx * dx + dy * dy < small * small) break;
  }
  store<f64>(place, x);
  store<f64>(place, y, 8);
}

/** How alike the place at place looks to a patch, −1..1: their normalised correlation. */
export function likePatch(plane: usize, width: i32, height: i32, patch: usize, place: usize): f32 {
  compare(plane, width, height, patch, load<f64>(place), load<f64>(place, 8));
  const spread = load<f32>(patch + STATS, 4) * spreadSeen();
  return spread > 0 ? load<f32>(SUMS, 16) / (<f32>(SIDE * SIDE) * spread) : 0;
}
