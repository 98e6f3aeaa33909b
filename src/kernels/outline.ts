// Coverage by the true distance to a free outline, given as a polygon of straight chords.
import { away, CHORD, goesOn, meets, nearby, nearX, nearY, NONE, px, py } from "./chord";
import { findNearest } from "./nearest";
import { feather, pixelCoverage } from "./ramp";
import { addWindings, rowLists, windsRound } from "./winding";

/** Feathers at least this wide change so little inside one pixel that its centre stands for it: by the straight, and where two chords meet. */
const WIDE: f64 = 16;
const WIDEST: f64 = 64;
/** px round a corner within which the lines of equal distance are bent too much to pass for straight: so many at most, fewer the softer it is. */
const BENT: f64 = 4;
const BENDS: f64 = 12;
/** Pixels that are sampled at most, and chords that a row may have for sides to be told within a pixel: beyond, an outline is no longer one that anybody drew. */
const SAMPLED: i32 = 150_000;
const CHORDS: i32 = 400;
/** px of feather from which fewer samples do. */
const SOFT: f64 = 2;
const SOFTER: f64 = 8;
/** The chords that count in a pixel: its own, one that meets it, and those of its four neighbours. */
const around: usize = memory.data(24, 4);

/** Mean of the feather over a pixel with its middle on (x, y), in which several chords count, from samples of it. */
function sampled(
  points: usize, count: i32, rows: usize, height: i32, chords: i32, x: f64, y: f64, inward: f64, crossed: bool, grow: f64, inside: f64, outside: f64,
): f64 {
  let sum = 0.0;
  // Hammersley's points: however a line lies, it parts them about as it parts the pixel. A hard border needs more of them.
  const bits = inside + outside < SOFT ? 8 : inside + outside < SOFTER ? 6 : 4;
  const samples = 1 << bits;
  const share = 1 / <f64>samples;
  for (let i = 0; i < samples; i++) {
    let turned = 0;
    for (let bit = 0; bit < bits; bit++) turned |= ((i >> bit) & 1) << (bits - 1 - bit);
    const sx = x + (<f64>i + 0.5) * share - 0.5, sy = y + (<f64>turned + 0.5) * share - 0.5;
    let best = Infinity;
    for (let n = 0; n < chords; n++) best = min(best, nearby(points, count, load<i32>(around + (<usize>n << 2)), sx, sy));
    const side: f64 = !crossed ? inward : windsRound(points, count, rows, height, sx, sy) ? 1 : -1;
    sum += feather(side * Math.sqrt(best) + grow, inside, outside);
  }
  return sum * share;
}

/** Whether another chord than a pixel's own is nearest to a neighbour, and pulls elsewhere; if so, it is counted in. */
// @ts-ignore: decorator
@inline
function counts(points: usize, count: i32, chords: i32, own: i32, other: i32, x: f64, y: f64, gx: f64, gy: f64, d: f64): i32 {
  if (other == NONE || other == own || goesOn(points, count, own, other)) return chords;
  for (let n = 1; n < chords; n++) if (load<i32>(around + (<usize>n << 2)) == other) return chords;
  const far = Math.sqrt(away(points, other, x, y));
  // What is not about as near cannot matter inside this pixel.
  if (far > Math.abs(d) + 1.5) return chords;
  const r = far > 1e-6 ? 1 / far : 0;
  const dot = ((x - nearX) * gx + (y - nearY) * gy) * r;
  if (dot > 0.998 && far > 1e-6) return chords;
  store<i32>(around + (<usize>chords << 2), other);
  return chords + 1;
}

/** How much softer the outline is at what of chord i is nearest to (x, y). */
// @ts-ignore: decorator
@inline
function softAt(points: usize, count: i32, softs: usize, i: i32, x: f64, y: f64): f64 {
  const at = points + <usize>i * CHORD;
  const along = ((x - load<f64>(at)) * load<f64>(at, 16) + (y - load<f64>(at, 8)) * load<f64>(at, 24)) * load<f64>(at, 32);
  const next = i + 1 < count ? i + 1 : 0;
  const from = load<f64>(softs + (<usize>i << 3)), to = load<f64>(softs + (<usize>next << 3));
  return from + (to - from) * min(1.0, max(0.0, along));
}

/**
 * Coverage by a polygon that is grown by grow px and feathered by inside and outside px, by the true distance to it: height rows of stride bytes
 * at out, of width f32. softs (0: none) is how many px wider the feather is where each chord begins, f64; share of that lies inside. near and square are room for as many rows, rows for height + 1 i32 and as many more as `outlineRows` says. What it winds round, either way, is inside.
 */
export function outlineDistance(
  points: usize, count: i32, width: i32, height: i32, grow: f64, inside: f64, outside: f64, softs: usize, share: f64, out: usize, near: usize, square: usize, stride: usize, rows: usize,
): void {
  const bytes = stride * <usize>height;
  memory.fill(out, 0, bytes);
  addWindings(points, count, width, height, out, stride);
  let softest = 0.0;
  if (softs) for (let i = 0; i < count; i++) softest = max(softest, load<f64>(softs + (<usize>i << 3)));
  const farthest = max(inside + softest * share - grow, outside + softest * (1 - share) + grow);
  findNearest(points, count, width, height, max(farthest, 0) + 2, near, square, stride);
  rowLists(points, count, height, rows);
  let budget = SAMPLED;
  const none = i32x4.splat(NONE), full = f32x4.splat(1), empty = f32x4.splat(0);
  const bent = min(BENT, BENDS / max(inside + outside, 1)) + 0.5;
  for (let row = 0; row < height; row++) {
    const y = <f64>row + 0.5;
    const isPlain = load<i32>(rows + (<usize>(row + 1) << 2)) - load<i32>(rows + (<usize>row << 2)) < CHORDS;
    let winding: f32 = 0;
    for (let column = 0; column < width; column++) {
      const at = <usize>row * stride + (<usize>column << 2);
      // Far from the outline four pixels are as the one before.
      if (column + 4 <= width && i32x4.all_true(i32x4.eq(v128.load(near + at), none)) && !v128.any_true(v128.load(out + at))) {
        v128.store(out + at, winding != 0 ? full : empty);
        column += 3;
        continue;
      }
      winding += load<f32>(out + at);
      const i = load<i32>(near + at);
      if (i == NONE) {
        store<f32>(out + at, winding != 0 ? 1 : 0);
        continue;
      }
      const inward: f64 = winding != 0 ? 1 : -1;
      const x = <f64>column + 0.5;
      const far = Math.sqrt(<f64>load<f32>(square + at));
      const d = inward * far + grow;
      let within = inside, without = outside;
      if (softs) {
        const more = softAt(points, count, softs, i, x, y);
        within += more * share;
        without += more * (1 - share);
      }
      const soft = within + without;
      if (d >= within + 0.75 || d <= -without - 0.75) {
        store<f32>(out + at, d > 0 ? 1 : 0);
        continue;
      }
      if (soft >= WIDEST) {
        store<f32>(out + at, <f32>feather(d, within, without));
        continue;
      }
      const exact = Math.sqrt(away(points, i, x, y));
      let gx = x - nearX, gy = y - nearY;
      if (exact > 1e-6) {
        gx /= exact;
        gy /= exact;
      } else {
        const j = i + 1 < count ? i + 1 : 0;
        gx = py(points, j) - py(points, i);
        gy = px(points, i) - px(points, j);
        const r = Math.sqrt(gx * gx + gy * gy);
        gx = r > 0 ? gx / r : 1;
        gy = r > 0 ? gy / r : 0;
      }
      store<i32>(around, i);
      let chords = 1;
      const other = exact < bent ? meets(points, count, i, x, y) : NONE;
      if (other != NONE) {
        store<i32>(around + 4, other);
        chords = 2;
      }
      if (column > 0) chords = counts(points, count, chords, i, load<i32>(near + at - 4), x, y, gx, gy, exact);
      if (column + 1 < width) chords = counts(points, count, chords, i, load<i32>(near + at + 4), x, y, gx, gy, exact);
      if (row > 0) chords = counts(points, count, chords, i, load<i32>(near + at - stride), x, y, gx, gy, exact);
      if (row + 1 < height) chords = counts(points, count, chords, i, load<i32>(near + at + stride), x, y, gx, gy, exact);
      if (chords > 1) budget--;
      const c = chords > 1 && budget > 0
        ? sampled(points, count, rows, height, chords, x, y, inward, isPlain && exact < 1, grow, within, without)
        : soft < WIDE ? pixelCoverage(inward * exact + grow, gx, gy, within, without) : feather(inward * exact + grow, within, without);
      store<f32>(out + at, <f32>c);
    }
  }
}
