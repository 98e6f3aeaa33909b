// The exact area of a free outline, given as a polygon of straight chords.
import { isEcho, px, py } from "./chord";

/** What differs from nothing or all by less is nothing or all: sums along a row leave as much behind. */
const CLEAR: f32 = 1e-4;

// @ts-ignore: decorator
@inline
function add(at: usize, what: f64): void {
  store<f32>(at, load<f32>(at) + <f32>what);
}

/** The area left of a chord that lies within one row, added to the cells of that row; x in 0..width. */
function addPart(row: usize, x0: f64, x1: f64, height: f64): void {
  const from = min(x0, x1), to = max(x0, x1);
  const first = <i32>Math.floor(from), last = <i32>Math.ceil(to);
  let at = row + (<usize>first << 2);
  if (last <= first + 1) {
    // All of it in one cell.
    const share = 0.5 * (from + to) - <f64>first;
    add(at, height - height * share);
    add(at + 4, height * share);
    return;
  }
  // The cells that it crosses get their share one after the other.
  const slope = height / (to - from);
  const lead = 1 - (from - <f64>first);
  const begin = 0.5 * slope * lead * lead;
  add(at, begin);
  if (last == first + 2) {
    const tail = to - <f64>(last - 1);
    const end = 0.5 * slope * tail * tail;
    add(at + 4, height - begin - end);
    add(at + 8, end);
    return;
  }
  const next = slope * (1.5 - (from - <f64>first));
  add(at + 4, next - begin);
  for (let x = first + 2; x < last - 1; x++) {
    at = row + (<usize>x << 2);
    add(at, slope);
  }
  const before = next + <f64>(last - first - 3) * slope;
  const tail = to - <f64>(last - 1);
  const end = 0.5 * slope * tail * tail;
  at = row + (<usize>(last - 1) << 2);
  add(at, height - before - end);
  add(at + 4, end);
}

/** A chord from (x0, y0) to (x1, y1), y0 < y1, with x within 0..width and y within 0..height; winds 1 or -1. */
function addChord(out: usize, stride: usize, x0: f64, y0: f64, x1: f64, y1: f64, wind: f64): void {
  const perRow = (x1 - x0) / (y1 - y0);
  const last = <i32>Math.ceil(y1);
  let x = x0, y = y0;
  for (let row = <i32>Math.floor(y0); row < last; row++) {
    const nextY = Math.min(<f64>(row + 1), y1);
    if (nextY <= y) continue;
    const nextX = nextY == y1 ? x1 : x0 + (nextY - y0) * perRow;
    addPart(out + <usize>row * stride, x, nextX, (nextY - y) * wind);
    x = nextX;
    y = nextY;
  }
}

/** As `addChord`, of a chord that may reach beyond the sides; what lies right of them covers nothing. */
function addClipped(out: usize, stride: usize, width: f64, x0: f64, y0: f64, x1: f64, y1: f64, wind: f64): void {
  // Left of the picture a chord covers whole rows: as one that stands on its border.
  let cutLeft = y0, cutRight = y1;
  if (x0 < 0 || x1 < 0) {
    if (x0 <= 0 && x1 <= 0) {
      addChord(out, stride, 0, y0, 0, y1, wind);
      return;
    }
    const y = y0 + ((0 - x0) / (x1 - x0)) * (y1 - y0);
    if (x0 < 0) {
      if (y > y0) addChord(out, stride, 0, y0, 0, Math.min(y, y1), wind);
      cutLeft = Math.min(Math.max(y, y0), y1);
      x0 = 0;
    } else {
      if (y < y1) addChord(out, stride, 0, Math.max(y, y0), 0, y1, wind);
      cutRight = Math.min(Math.max(y, y0), y1);
      x1 = 0;
    }
    y0 = cutLeft;
    y1 = cutRight;
  }
  if (x0 >= width && x1 >= width) return;
  if (x0 > width || x1 > width) {
    const y = y0 + ((width - x0) / (x1 - x0)) * (y1 - y0);
    if (x0 > width) {
      y0 = Math.min(Math.max(y, y0), y1);
      x0 = width;
    } else {
      y1 = Math.min(Math.max(y, y0), y1);
      x1 = width;
    }
  }
  if (y1 > y0) addChord(out, stride, x0, y0, x1, y1, wind);
}

/**
 * Exact area of a polygon in each pixel of a picture, all that it winds round counted once: height rows of stride bytes at out, of width
 * f32 in 0..1 and two more that are spare. The polygon is count chords, each from where it begins to where the next one does, and may consist of several rings. The area is summed up from
 * what each chord has to its left (as in Levien's font-rs).
 */
export function outlineArea(points: usize, count: i32, width: i32, height: i32, out: usize, stride: usize): void {
  memory.fill(out, 0, stride * <usize>height);
  const bottom = <f64>height;
  for (let i = 0; i < count; i++) {
    const j = i + 1 < count ? i + 1 : 0;
    let x0 = px(points, i), y0 = py(points, i), x1 = px(points, j), y1 = py(points, j);
    if (y0 == y1 || isEcho(points, i)) continue;
    let wind = 1.0;
    if (y0 > y1) {
      let t = y0;
      y0 = y1;
      y1 = t;
      t = x0;
      x0 = x1;
      x1 = t;
      wind = -1;
    }
    if (y1 <= 0 || y0 >= bottom) continue;
    const slope = (x1 - x0) / (y1 - y0);
    if (y0 < 0) {
      x0 -= y0 * slope;
      y0 = 0;
    }
    if (y1 > bottom) {
      x1 -= (y1 - bottom) * slope;
      y1 = bottom;
    }
    if (y1 > y0) addClipped(out, stride, <f64>width, x0, y0, x1, y1, wind);
  }
  for (let y = 0; y < height; y++) {
    const row = out + <usize>y * stride;
    let sum: f32 = 0, cover: f32 = 0;
    for (let x = 0; x < width; x++) {
      const at = row + (<usize>x << 2);
      // Where no chord goes through, four pixels are as the one before.
      if ((x & 3) == 0 && !v128.any_true(v128.load(at))) {
        v128.store(at, f32x4.splat(cover));
        x += 3;
        continue;
      }
      sum += load<f32>(at);
      const area = abs<f32>(sum);
      cover = area < CLEAR ? 0 : area > 1 - CLEAR ? 1 : area;
      store<f32>(at, cover);
    }
  }
}
