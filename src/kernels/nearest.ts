// Which chord of an outline is nearest to each pixel about it.
import { away, CHORD, isEcho, NONE, px, py } from "./chord";

/** px from a chord within which pixels are told of it outright; from there they tell each other. */
const SEED: f64 = 1.5;
/** As many pixels as may be told by chords for each pixel of a picture, before it is quicker to let them tell each other. */
const TELLS: f64 = 8;

/** Lets pixel (x, y) know of chord i, if none that it knows of is nearer. */
// @ts-ignore: decorator
@inline
function tell(points: usize, i: i32, x: i32, y: i32, at: usize, near: usize, square: usize, most: f64): void {
  const d = away(points, i, <f64>x + 0.5, <f64>y + 0.5);
  if (d < most && (load<i32>(near + at) == NONE || <f32>d < load<f32>(square + at))) {
    store<f32>(square + at, <f32>d);
    store<i32>(near + at, i);
  }
}

// @ts-ignore: decorator
@inline
function hear(points: usize, x: i32, y: i32, at: usize, from: usize, near: usize, square: usize, most: f64): void {
  const i = load<i32>(near + from);
  if (i != NONE && i != load<i32>(near + at)) tell(points, i, x, y, at, near, square, most);
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

/** Tells the pixels within some px of a chord of it: those beside it, and about its ends as far as it turns there. */
function seed(points: usize, count: i32, i: i32, width: i32, height: i32, within: f64, near: usize, square: usize, stride: usize, most: f64): void {
  const next = i + 1 < count ? i + 1 : 0, last = i > 0 ? i - 1 : count - 1;
  const ax = px(points, i), ay = py(points, i), bx = px(points, next), by = py(points, next);
  const top = <i32>Math.max(0, Math.floor(Math.min(ay, by) - within - 0.5));
  const bottom = <i32>Math.min(<f64>(height - 1), Math.ceil(Math.max(ay, by) + within));
  const left = Math.min(ax, bx) - within - 0.5, right = Math.max(ax, bx) + within;
  const cos = ux(points, i), sin = uy(points, i);
  const length = (bx - ax) * cos + (by - ay) * sin;
  const low = -beyond(points, i, last, within), high = length + beyond(points, i, next, within);
  for (let y = top; y <= bottom; y++) {
    const dy = <f64>y + 0.5 - ay;
    let from = left, to = right;
    // How far along it and how far beside it a pixel may be: a stretch of the row each.
    if (Math.abs(cos) > 1e-6) {
      const one = ax + (low - dy * sin) / cos - 0.5, two = ax + (high - dy * sin) / cos - 0.5;
      from = Math.max(from, Math.min(one, two));
      to = Math.min(to, Math.max(one, two));
    } else if (length > 0 && (dy * sin < low || dy * sin > high)) continue;
    if (Math.abs(sin) > 1e-6) {
      const one = ax + (dy * cos - within) / sin - 0.5, two = ax + (dy * cos + within) / sin - 0.5;
      from = Math.max(from, Math.min(one, two));
      to = Math.min(to, Math.max(one, two));
    }
    const end = <i32>Math.min(<f64>(width - 1), Math.ceil(to));
    for (let x = <i32>Math.max(0, Math.floor(from)); x <= end; x++)
      tell(points, i, x, y, <usize>y * stride + (<usize>x << 2), near, square, most);
  }
}

/** Tells the border of the picture about a chord beyond it: whatever is nearest from out there is nearest to some pixel of the border too. */
function seedBorder(points: usize, i: i32, width: i32, height: i32, near: usize, square: usize, stride: usize, most: f64): void {
  for (let x = 0; x < width; x++) {
    tell(points, i, x, 0, <usize>x << 2, near, square, most);
    tell(points, i, x, height - 1, <usize>(height - 1) * stride + (<usize>x << 2), near, square, most);
  }
  for (let y = 0; y < height; y++) {
    tell(points, i, 0, y, <usize>y * stride, near, square, most);
    tell(points, i, width - 1, y, <usize>y * stride + (<usize>(width - 1) << 2), near, square, most);
  }
}

/** Pixels tell each other which chord is nearest, down and up the picture, to and fro in each row (after Danielsson, 1980). */
function spread(points: usize, width: i32, height: i32, near: usize, square: usize, stride: usize, most: f64): void {
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
          if (back >= 0 && back < width) hear(points, x, y, at, here + (<usize>back << 2), near, square, most);
          if (way == 0 && open) {
            const above = other + (<usize>x << 2);
            if (x > 0) hear(points, x, y, at, above - 4, near, square, most);
            hear(points, x, y, at, above, near, square, most);
            if (x + 1 < width) hear(points, x, y, at, above + 4, near, square, most);
          }
        }
      }
    }
  }
}

/**
 * Finds for each pixel of a picture the chord that is nearest, if one is within reach px: its number in near (NONE: none), the square of how far
 * it is in square, height rows of stride bytes each, of width i32 and f32.
 */
export function findNearest(points: usize, count: i32, width: i32, height: i32, reach: f64, near: usize, square: usize, stride: usize): void {
  memory.fill(near, 0xff, stride * <usize>height);
  const most = reach * reach;
  // Where few pixels are near, each chord tells all of them; else only those next to it, and they each other.
  let told = 0.0;
  for (let i = 0; i < count; i++) {
    const at = points + <usize>i * CHORD;
    const next = i + 1 < count ? i + 1 : 0;
    told += 2 * reach * (2 * beyond(points, i, next, reach) + Math.abs(load<f64>(at, 16)) + Math.abs(load<f64>(at, 24)));
  }
  const isNarrow = told < TELLS * <f64>width * <f64>height;
  for (let i = 0; i < count; i++) {
    if (isEcho(points, i)) continue;
    const j = i + 1 < count ? i + 1 : 0;
    seed(points, count, i, width, height, isNarrow ? reach : SEED, near, square, stride, most);
    if (isNarrow) continue;
    const left = Math.min(px(points, i), px(points, j)), right = Math.max(px(points, i), px(points, j));
    const top = Math.min(py(points, i), py(points, j)), bottom = Math.max(py(points, i), py(points, j));
    const within = left >= 0 && right <= <f64>width && top >= 0 && bottom <= <f64>height;
    const isNear = right > -reach && left < <f64>width + reach && bottom > -reach && top < <f64>height + reach;
    if (!within && isNear) seedBorder(points, i, width, height, near, square, stride, most);
  }
  if (!isNarrow) spread(points, width, height, near, square, stride, most);
}
