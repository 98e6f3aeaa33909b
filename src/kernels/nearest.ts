// Which chord of an outline is nearest to each pixel about it.
import { away, CHORD, isEcho, NONE, px, py } from "./chord";

/** px from a chord within which pixels are told of it outright; from there they tell each other. */
const SEED: f64 = 1.5;
/** As many pixels as may be told by chords for each pixel of a picture, before it is quicker to let them tell each other. */
const TELLS: f64 = 8;

/** Lets pixel (x, y) know of chord i, if none that it knows of is nearer. */
// @ts-ignore: decorator
@inline
function tell(points: usize, i: i32, x: i32, y: i32, at: usize, near: usize, square: usize): void {
  const d = away(points, i, <f64>x + 0.5, <f64>y + 0.5);
  if (<f32>d < load<f32>(square + at)) {
    store<f32>(square + at, <f32>d);
    store<i32>(near + at, i);
  }
}

// @ts-ignore: decorator
@inline
function hear(points: usize, x: i32, y: i32, at: usize, from: usize, near: usize, square: usize): void {
  const i = load<i32>(near + from);
  if (i != NONE && i != load<i32>(near + at)) tell(points, i, x, y, at, near, square);
}

// @ts-ignore: decorator
@inline
function ux(points: usize, i: i32): f64 {
  const at = points + <usize>i * CHORD;
  return load<f64>(at, 16) * Math.sqrt(load<f64>(at, 32));
}

// @ts-ignore: decorator
@inline
function uy(points: usize, i: i32): f64 {
  const at = points + <usize>i * CHORD;
  return load<f64>(at, 24) * Math.sqrt(load<f64>(at, 32));
}

/** How far along beyond its end a chord may still be the nearest one, of all within some px of it: as far as it turns there. */
function beyond(points: usize, i: i32, other: i32, within: f64): f64 {
  const dot = ux(points, i) * ux(points, other) + uy(points, i) * uy(points, other);
  const cross = Math.abs(ux(points, i) * uy(points, other) - uy(points, i) * ux(points, other));
  return dot > 0 ? Math.min(within, within * cross) + 1 : within + 1;
}

/** Tells the pixels of some rows within some px of a chord of it: those beside it, and about its ends as far as it turns there. */
function seed(points: usize, count: i32, i: i32, width: i32, first: i32, end: i32, within: f64, near: usize, square: usize, stride: usize): void {
  const next = i + 1 < count ? i + 1 : 0, last = i > 0 ? i - 1 : count - 1;
  const ax = px(points, i), ay = py(points, i), bx = px(points, next), by = py(points, next);
  const top = <i32>Math.max(<f64>first, Math.floor(Math.min(ay, by) - within - 0.5));
  const bottom = <i32>Math.min(<f64>(end - 1), Math.ceil(Math.max(ay, by) + within));
  if (top > bottom) return;
  const left = Math.min(ax, bx) - within - 0.5, right = Math.max(ax, bx) + within;
  const cos = ux(points, i), sin = uy(points, i);
  const length = (bx - ax) * cos + (by - ay) * sin;
  const low = -beyond(points, i, last, within), high = length + beyond(points, i, next, within);
  // What a row takes of it is a stretch, unless it lies along or across.
  const across = Math.abs(cos) > 1e-6, down = Math.abs(sin) > 1e-6;
  const perCos = across ? 1 / cos : 0, perSin = down ? 1 / sin : 0;
  for (let y = top; y <= bottom; y++) {
    const dy = <f64>y + 0.5 - ay;
    let from = left, to = right;
    // How far along it and how far beside it a pixel may be: a stretch of the row each.
    if (across) {
      const one = ax + (low - dy * sin) * perCos - 0.5, two = ax + (high - dy * sin) * perCos - 0.5;
      from = Math.max(from, Math.min(one, two));
      to = Math.min(to, Math.max(one, two));
    } else if (length > 0 && (dy * sin < low || dy * sin > high)) continue;
    if (down) {
      const one = ax + (dy * cos - within) * perSin - 0.5, two = ax + (dy * cos + within) * perSin - 0.5;
      from = Math.max(from, Math.min(one, two));
      to = Math.min(to, Math.max(one, two));
    }
    const stop = <i32>Math.min(<f64>(width - 1), Math.ceil(to));
    const start = <i32>Math.max(0, Math.floor(from));
    if (length > 0) tellAlong(i, start, stop, <usize>y * stride, <f64>start + 0.5 - ax, dy, cos, sin, length, near, square);
    else for (let x = start; x <= stop; x++) tell(points, i, x, y, <usize>y * stride + (<usize>x << 2), near, square);
  }
}

/** Tells a stretch of a row of a chord, four pixels at a time and up to three more; (x, y) is where the first one lies from where the chord begins. */
function tellAlong(i: i32, start: i32, end: i32, row: usize, x: f64, y: f64, cos: f64, sin: f64, length: f64, near: usize, square: usize): void {
  const own = i32x4.splat(i), zero = f32x4.splat(0), four = f32x4.splat(4);
  const along = f32x4.splat(<f32>cos), beside = f32x4.splat(<f32>sin);
  // Before its beginning, beyond its end, and beside it.
  const before = f32x4.splat(<f32>(-x * cos - y * sin)), after = f32x4.splat(<f32>(x * cos + y * sin - length)), off = f32x4.splat(<f32>(y * cos - x * sin));
  let step = f32x4(0, 1, 2, 3);
  for (let n = start; n <= end; n += 4) {
    const at = row + (<usize>n << 2);
    const far = f32x4.mul(step, along);
    const out = f32x4.pmax(zero, f32x4.pmax(f32x4.sub(before, far), f32x4.add(after, far)));
    const aside = f32x4.sub(off, f32x4.mul(step, beside));
    const d = f32x4.add(f32x4.mul(out, out), f32x4.mul(aside, aside));
    const known = v128.load(square + at);
    const nearer = f32x4.lt(d, known);
    if (v128.any_true(nearer)) {
      v128.store(square + at, v128.bitselect(d, known, nearer));
      v128.store(near + at, v128.bitselect(own, v128.load(near + at), nearer));
    }
    step = f32x4.add(step, four);
  }
}

/** Tells the border of the picture about a chord beyond it: whatever is nearest from out there is nearest to some pixel of the border too. */
function seedBorder(points: usize, i: i32, width: i32, height: i32, near: usize, square: usize, stride: usize): void {
  for (let x = 0; x < width; x++) {
    tell(points, i, x, 0, <usize>x << 2, near, square);
    tell(points, i, x, height - 1, <usize>(height - 1) * stride + (<usize>x << 2), near, square);
  }
  for (let y = 0; y < height; y++) {
    tell(points, i, 0, y, <usize>y * stride, near, square);
    tell(points, i, width - 1, y, <usize>y * stride + (<usize>(width - 1) << 2), near, square);
  }
}

/** Pixels tell each other which chord is nearest, down and up the picture, to and fro in each row (after Danielsson, 1980). */
function spread(points: usize, width: i32, height: i32, near: usize, square: usize, stride: usize): void {
  for (let pass = 0; pass < 2; pass++) {
    for (let row = 0; row < height; row++) {
      const y = pass == 0 ? row : height - 1 - row;
      const here = <usize>y * stride;
      const other = pass == 0 ? here - stride : here + stride;
      const open = row > 0;
      for (let way = 0; way < 2; way++) {
        const step = way == 0 ? 1 : -1;
        for (let n = 0; n < width; n++) {
          const x = way == 0 ? n : width - 1 - n;
          const at = here + (<usize>x << 2);
          // Stretches in which nobody knows anything yet are passed over, four at a time.
          if (way == 0 && x > 0 && x + 5 < width && load<i32>(near + at - 4) == NONE) {
            let known = v128.load(near + at);
            if (open) {
              const above = other + (<usize>x << 2);
              known = v128.and(known, v128.and(v128.load(near + above - 4), v128.load(near + above + 4)));
            }
            if (i32x4.all_true(i32x4.eq(known, i32x4.splat(NONE)))) {
              n += 3;
              continue;
            }
          }
          if (way == 1 && x > 4 && x + 1 < width && load<i32>(near + at + 4) == NONE) {
            if (i32x4.all_true(i32x4.eq(v128.load(near + at - 12), i32x4.splat(NONE)))) {
              n += 3;
              continue;
            }
          }
          const back = x - step;
          if (back >= 0 && back < width) hear(points, x, y, at, here + (<usize>back << 2), near, square);
          if (way == 0 && open) {
            const above = other + (<usize>x << 2);
            if (x > 0) hear(points, x, y, at, above - 4, near, square);
            hear(points, x, y, at, above, near, square);
            if (x + 1 < width) hear(points, x, y, at, above + 4, near, square);
          }
        }
      }
    }
  }
}

/** Whether so few pixels are within reach px of chords that each had better tell all of its own; else only those next to it, and they each other. */
export function areFew(points: usize, count: i32, width: i32, height: i32, reach: f64): bool {
  let told = 0.0;
  for (let i = 0; i < count; i++) {
    const at = points + <usize>i * CHORD;
    const next = i + 1 < count ? i + 1 : 0;
    told += 2 * reach * (2 * beyond(points, i, next, reach) + Math.abs(load<f64>(at, 16)) + Math.abs(load<f64>(at, 24)));
  }
  return told < TELLS * <f64>width * <f64>height;
}

/** Nobody knows of any chord yet: rows from first on, up to but without end. */
function forget(first: i32, end: i32, reach: f64, near: usize, square: usize, stride: usize): void {
  const farthest = f32x4.splat(<f32>(reach * reach)), none = i32x4.splat(NONE);
  const last = <usize>end * stride;
  for (let at = <usize>first * stride; at < last; at += 16) {
    v128.store(square + at, farthest);
    v128.store(near + at, none);
  }
}

/**
 * Finds for each pixel of some rows of a picture, from first up to but without end, the chord that is nearest, if one is within reach px: its number in near (NONE: none), the square of how far
 * it is in square, rows of stride bytes each from that of the picture on, of width i32 and f32.
 */
export function nearestInRows(points: usize, count: i32, width: i32, first: i32, end: i32, reach: f64, near: usize, square: usize, stride: usize): void {
  forget(first, end, reach, near, square, stride);
  for (let i = 0; i < count; i++) if (!isEcho(points, i)) seed(points, count, i, width, first, end, reach, near, square, stride);
}

/** The same of all rows, where many pixels are near. */
export function nearestInAll(points: usize, count: i32, width: i32, height: i32, reach: f64, near: usize, square: usize, stride: usize): void {
  forget(0, height, reach, near, square, stride);
  for (let i = 0; i < count; i++) {
    if (isEcho(points, i)) continue;
    const j = i + 1 < count ? i + 1 : 0;
    seed(points, count, i, width, 0, height, SEED, near, square, stride);
    const left = Math.min(px(points, i), px(points, j)), right = Math.max(px(points, i), px(points, j));
    const top = Math.min(py(points, i), py(points, j)), bottom = Math.max(py(points, i), py(points, j));
    const within = left >= 0 && right <= <f64>width && top >= 0 && bottom <= <f64>height;
    const isNear = right > -reach && left < <f64>width + reach && bottom > -reach && top < <f64>height + reach;
    if (!within && isNear) seedBorder(points, i, width, height, near, square, stride);
  }
  spread(points, width, height, near, square, stride);
}
