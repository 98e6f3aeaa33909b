// Coverage by the true distance to a free outline, given as a polygon of straight chords.
import { away, CHORD, goesOn, isEcho, meets, nearby, nearX, nearY, NONE, px, py } from "./chord";
import { areFew, nearestInAll, nearestInRows } from "./nearest";
import { feather, pixelCoverage } from "./ramp";
import { addWindings, rowLists, windsRound } from "./winding";

/** Feathers at least this wide change so little inside one pixel that its centre stands for it where chords meet. */
const WIDEST: f64 = 64;
/** px from its middle that a pixel reaches at most. */
const REACH: f32 = 0.7072;
/** px round a corner within which the lines of equal distance are bent too much to pass for straight: so many at most, fewer the softer it is. */
const BENT: f64 = 4;
const BENDS: f64 = 12;
/** Pixels that are sampled at most, and chords that a row may have for sides to be told within a pixel: beyond, an outline is no longer one that anybody drew. */
const SAMPLED: i32 = 150_000;
const CHORDS: i32 = 400;
/** px of feather from which fewer samples do. */
const SOFT: f64 = 2;
const SOFTER: f64 = 8;
/** Rows for which it is told at once which chords are near. */
const BAND: i32 = 32;
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

let leanX: f64 = 0;
let leanY: f64 = 0;

/** How far (x, y) is from chord i. Leaves behind which way it lies from there, as a vector of length 1. */
function lean(points: usize, count: i32, i: i32, x: f64, y: f64): f64 {
  const far = Math.sqrt(away(points, i, x, y));
  leanX = x - nearX;
  leanY = y - nearY;
  let length = far;
  if (far <= 1e-6) {
    const j = i + 1 < count ? i + 1 : 0;
    leanX = py(points, j) - py(points, i);
    leanY = px(points, i) - px(points, j);
    length = Math.sqrt(leanX * leanX + leanY * leanY);
  }
  leanX = length > 0 ? leanX / length : 1;
  leanY = length > 0 ? leanY / length : 0;
  return far;
}

/** Coverage of a pixel with its middle on (x, y) in which one smooth line counts, where the feather begins or ends in it. */
function ending(points: usize, count: i32, i: i32, x: f64, y: f64, inward: f64, grow: f64, inside: f64, outside: f64): f64 {
  const far = lean(points, count, i, x, y);
  return pixelCoverage(inward * far + grow, leanX, leanY, inside, outside);
}

/** Marks the chords from which both the one before and the one after go on: one byte each at bends, 0 for those, else 1. */
function markBends(points: usize, count: i32, bends: usize): void {
  for (let i = 0; i < count; i++) {
    const last = i > 0 ? i - 1 : count - 1, next = i + 1 < count ? i + 1 : 0;
    const isSmooth = !isEcho(points, i) && goesOn(points, count, last, i) && goesOn(points, count, i, next);
    store<u8>(bends + <usize>i, isSmooth ? 0 : 1);
  }
}

/** Whether neighbours of four pixels know the same chord as those, the one before or after it, or none. */
// @ts-ignore: decorator
@inline
function agree(own: v128, other: v128): v128 {
  const apart = i32x4.abs(i32x4.sub(own, other));
  return v128.or(i32x4.le_s(apart, i32x4.splat(1)), i32x4.eq(other, i32x4.splat(NONE)));
}

/** 1 where the chord of a lane bends into its neighbours. */
// @ts-ignore: decorator
@inline
function bendsIn(bends: usize, own: v128): i32 {
  let any = 0;
  const a = i32x4.extract_lane(own, 0), b = i32x4.extract_lane(own, 1), c = i32x4.extract_lane(own, 2), d = i32x4.extract_lane(own, 3);
  if (a != NONE) any |= load<u8>(bends + <usize>a);
  if (b != NONE) any |= load<u8>(bends + <usize>b);
  if (c != NONE) any |= load<u8>(bends + <usize>c);
  if (d != NONE) any |= load<u8>(bends + <usize>d);
  return any;
}

/**
 * Coverage by a polygon that is grown by grow px and feathered by inside and outside px, by the true distance to it: height rows of stride bytes
 * at out, of width f32. softs (0: none) is how many px wider the feather is where each chord begins, f64; share of that lies inside. near and square are room for as many rows, rows for height + 1 i32 and as many more as `outlineRows` says, bends for a byte a chord.
 * What it winds round, either way, is inside.
 */
export function outlineDistance(
  points: usize, count: i32, width: i32, height: i32, grow: f64, inside: f64, outside: f64, softs: usize, share: f64, out: usize, near: usize, square: usize, stride: usize, rows: usize, bends: usize,
): void {
  memory.fill(out, 0, stride * <usize>height);
  addWindings(points, count, width, height, out, stride);
  let softest = 0.0;
  if (softs) for (let i = 0; i < count; i++) softest = max(softest, load<f64>(softs + (<usize>i << 3)));
  const farthest = max(inside + softest * share - grow, outside + softest * (1 - share) + grow);
  const reach = max(farthest, 0) + 2;
  const isFew = areFew(points, count, width, height, reach);
  if (!isFew) nearestInAll(points, count, width, height, reach, near, square, stride);
  const nearRoom = near, squareRoom = square;
  rowLists(points, count, height, rows);
  markBends(points, count, bends);
  let budget = SAMPLED;
  const none = i32x4.splat(NONE), full = f32x4.splat(1), empty = f32x4.splat(0), two = f32x4.splat(2), three = f32x4.splat(3);
  const bent = min(BENT, BENDS / max(inside + outside, 1)) + 0.5;
  // The feather as a cubic of how far in a pixel lies, 0..1, and what its curvature adds over a pixel.
  const whole = inside + outside, perPx = whole > 0 ? 1 / whole : 0;
  const scale = f32x4.splat(<f32>perPx), shift = f32x4.splat(<f32>((grow + outside) * perPx)), grown = f32x4.splat(<f32>grow);
  const curve = f32x4.splat(<f32>(0.25 * perPx * perPx)), bow = f32x4.splat(<f32>(-0.5 * perPx * perPx));
  const high = f32x4.splat(<f32>inside - REACH), low = f32x4.splat(REACH - <f32>outside);
  const above = f32x4.splat(<f32>inside + REACH), below = f32x4.splat(-REACH - <f32>outside);
  for (let row = 0; row < height; row++) {
    if (isFew && row % BAND == 0) {
      // A band of rows at a time, with the rows above and below it: so what is known of them stays at hand, at the beginning of their room.
      const first = max(0, row - 1), end = min(height, row + BAND + 1);
      near = nearRoom - <usize>first * stride;
      square = squareRoom - <usize>first * stride;
      nearestInRows(points, count, width, first, end, reach, near, square, stride);
    }
    const y = <f64>row + 0.5;
    const isPlain = load<i32>(rows + (<usize>(row + 1) << 2)) - load<i32>(rows + (<usize>row << 2)) < CHORDS;
    const isAmong = softs == 0 && row > 0 && row + 1 < height;
    let winding: f32 = 0;
    let slow = 0;
    for (let column = 0; column < width; column++) {
      const at = <usize>row * stride + (<usize>column << 2);
      if (slow == 0 && column + 4 <= width) {
        const own = v128.load(near + at), turns = v128.load(out + at);
        // Far from the outline four pixels are as the one before.
        if (i32x4.all_true(i32x4.eq(own, none)) && !v128.any_true(turns)) {
          v128.store(out + at, winding != 0 ? full : empty);
          column += 3;
          continue;
        }
        slow = 4;
        if (isAmong && column > 0 && column + 4 < width) {
          const beside = v128.and(agree(own, v128.load(near + at - 4)), agree(own, v128.load(near + at + 4)));
          const over = v128.and(agree(own, v128.load(near + at - stride)), agree(own, v128.load(near + at + stride)));
          const alike = v128.or(v128.and(beside, over), i32x4.eq(own, none));
          if (i32x4.all_true(alike) && !bendsIn(bends, own)) {
            // One smooth line is all that counts here.
            let round = f32x4.add(turns, v128.shuffle<f32>(empty, turns, 3, 4, 5, 6));
            round = f32x4.add(f32x4.add(round, v128.shuffle<f32>(empty, round, 2, 3, 4, 5)), f32x4.splat(winding));
            winding = f32x4.extract_lane(round, 3);
            const isIn = f32x4.ne(round, empty);
            const far = f32x4.sqrt(v128.load(square + at));
            const inward = v128.bitselect(far, f32x4.neg(far), isIn);
            const d = f32x4.add(inward, grown);
            const t = f32x4.add(f32x4.mul(inward, scale), shift);
            const cubic = f32x4.add(f32x4.mul(f32x4.mul(t, t), f32x4.sub(three, f32x4.mul(two, t))), f32x4.add(curve, f32x4.mul(bow, t)));
            const isFull = f32x4.ge(d, above), isEmpty = f32x4.le(d, below);
            v128.store(out + at, v128.bitselect(full, v128.andnot(cubic, isEmpty), isFull));
            const isCubic = v128.and(f32x4.le(d, high), f32x4.ge(d, low));
            let ends = ~i32x4.bitmask(v128.or(isCubic, v128.or(isFull, isEmpty))) & 15;
            for (let lane = 0; ends != 0; lane++, ends >>= 1) {
              if (!(ends & 1)) continue;
              const here = at + (<usize>lane << 2);
              const sign: f64 = (i32x4.bitmask(isIn) >> lane) & 1 ? 1 : -1;
              store<f32>(out + here, <f32>ending(points, count, load<i32>(near + here), <f64>(column + lane) + 0.5, y, sign, grow, inside, outside));
            }
            slow = 0;
            column += 3;
            continue;
          }
        }
      }
      if (slow > 0) slow--;
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
      const exact = lean(points, count, i, x, y);
      const gx = leanX, gy = leanY;
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
        : pixelCoverage(inward * exact + grow, gx, gy, within, without);
      store<f32>(out + at, <f32>c);
    }
  }
}
