// Hair and fringes: where thin lines of somebody lie beyond their border, and the set shows in thin gaps within it; told by squares of cells.
import { colourLight } from "./light";
import { at, setLight, setVariance } from "./set";
import { plane } from "./table";

/** px to both sides of a line or a gap at which it is held against what lies there. */
const NEAR: i32 = 3, FAR: i32 = 5;
/** How much a difference of colour counts beside one of brightness. */
const TINT: f32 = 0.1;
/** The share of what differs from the set by which it varies at least where there are any. */
const EVEN: f32 = 0.5;

// @ts-ignore: decorator
@inline
function above(seen: usize, set: usize, light: f32, p: i32): f32 {
  return at(seen, p) - light * at(set, p);
}

/** By how much a px differs from the set. */
// @ts-ignore: decorator
@inline
function apart(seen: usize, set: usize, light: f32, p: i32): f32 {
  return abs<f32>(above(seen, set, light, p));
}

/** How little the px at both sides of one, `by` px away, differ from it: where that is nothing, it is the set that changes there. */
// @ts-ignore: decorator
@inline
function step(seen: usize, p: i32, by: i32): f32 {
  return min(abs<f32>(at(seen, p) - at(seen, p - by)), abs<f32>(at(seen, p) - at(seen, p + by)));
}

/** Whether a px that differs from the set by d is one of a line between what lies `by` px away at both sides. */
// @ts-ignore: decorator
@inline
function isLine(seen: usize, set: usize, light: f32, p: i32, d: f32, by: i32, high: f32, share: f32): bool {
  const most = max(apart(seen, set, light, p - by), apart(seen, set, light, p + by));
  return d > high * most && step(seen, p, by) > share * d;
}

/** Whether it is one of a gap between them, where both are darker than the set, or both brighter: from the dark to the bright any colour passes that of the set. */
// @ts-ignore: decorator
@inline
function isGap(seen: usize, set: usize, light: f32, p: i32, d: f32, by: i32, low: f32, share: f32, thin: f32): bool {
  const before = above(seen, set, light, p - by), after = above(seen, set, light, p + by);
  const least = min(abs<f32>(before), abs<f32>(after));
  return before * after > 0 && least > thin && d < low * least && step(seen, p, by) > share * least;
}

/** Whether a cell and all those about it are somebody (within: 1), or none of them (0). */
function isAllAbout(is: usize, width: i32, height: i32, x: i32, y: i32, within: bool): bool {
  if (at(is, y * width + x) > 0 != within) return false;
  for (let v = max(0, y - 1); v <= min(height - 1, y + 1); v++) {
    for (let u = max(0, x - 1); u <= min(width - 1, x + 1); u++) {
      if (at(is, v * width + u) > 0 != within) return false;
    }
  }
  return true;
}

/** Whether any px of a cell differs from the set by more than `least`. */
function isAnyApart(seen: usize, set: usize, light: f32, x: i32, y: i32, fullWidth: i32, fullHeight: i32, least: f32): bool {
  for (let k = 0; k < 4; k++) {
    const px = 2 * x + (k & 1), row = 2 * y + (k >> 1);
    if (px < fullWidth && row < fullHeight && apart(seen, set, light, row * fullWidth + px) > least) return true;
  }
  return false;
}

/** How much of each square of `block`² cells is somebody, f32 at out. */
export function squareShares(is: usize, width: i32, height: i32, block: i32, out: usize): void {
  const columns = (width + block - 1) / block, rows = (height + block - 1) / block;
  memory.fill(out, 0, <usize>(columns * rows) << 2);
  const each: f32 = <f32>1 / <f32>(block * block);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let square = out + (<usize>((y / block) * columns) << 2);
    for (let x = 0; x < width; x += block) {
      let share = load<f32>(square);
      for (let u = x; u < min(width, x + block); u++) if (at(is, row + u) > 0) share += each;
      store<f32>(square, share);
      square += 4;
    }
  }
}

/**
 * Of each square of `block`² cells that is wanted (u8, 1): what share of its cells differ from the set, and what share do so in a thin line, where nobody is about (f32, two planes of squares
 * at out); `within`: what share is a thin gap of the set, where somebody is all about (the first plane). tables, numbers: as softenCells takes them, from whose part cells are looked at; the numbers after those by how much a line stands out, a
 * gap lies low, what share of that is seen in the picture itself, and how many standard deviations of noise anything has to differ by.
 */
export function strandSquares(
  tables: usize, numbers: usize, width: i32, height: i32, fullWidth: i32, fullHeight: i32,
  fromX: i32, fromY: i32, toX: i32, toY: i32, block: i32, wanted: usize, within: i32, out: usize,
): void {
  const fu = plane(tables, 1), fv = plane(tables, 2), pu = plane(tables, 5), pv = plane(tables, 6);
  const seen = plane(tables, 3), py = plane(tables, 4), set = plane(tables, 7), slopes = plane(tables, 8), is = plane(tables, 9);
  const setW = plane(tables, 13), setS = plane(tables, 14), left = plane(tables, 15), grain = plane(tables, 16);
  const nu = at(numbers, 0), steep = at(numbers, 1), single = at(numbers, 2), thin = at(numbers, 6);
  const high = at(numbers, 13), low = at(numbers, 14), share = at(numbers, 15), sure = at(numbers, 16);
  const columns = (width + block - 1) / block, rows = (height + block - 1) / block;
  const squares = columns * rows;
  const lines = out + (<usize>squares << 2);
  const each: f32 = <f32>1 / <f32>(block * block);
  memory.fill(out, 0, <usize>squares << 3);
  for (let square = 0; square < squares; square++) {
    if (load<u8>(wanted + square) == 0) continue;
    const left0 = (square % columns) * block, top = (square / columns) * block;
    let differ: f32 = 0, lie: f32 = 0;
    for (let y = max(fromY, top); y < min(toY, top + block); y++) {
      for (let x = max(fromX, left0); x < min(toX, left0 + block); x++) {
        if (!isAllAbout(is, width, height, x, y, within != 0)) continue;
        const i = y * width + x;
        const s = setLight(setW, setS, left, i);
        if (within == 0 && !isAnyApart(seen, set, s, x, y, fullWidth, fullHeight, thin)) continue;
        const v = setVariance(grain, s * at(py, i), single, steep, at(slopes, i), nu);
        const needed = max(thin, sure * sqrt<f32>(v));
        // What is as bright as the set, but of another colour, is no gap.
        const tint = TINT * (abs<f32>(at(fu, i) - s * at(pu, i)) + abs<f32>(at(fv, i) - s * at(pv, i)));
        let does = false, lies = false;
        for (let k = 0; k < 4; k++) {
          const px = 2 * x + (k & 1), row = 2 * y + (k >> 1);
          if (px < FAR || row < FAR || px + FAR >= fullWidth || row + FAR >= fullHeight) continue;
          const p = row * fullWidth + px;
          const d = apart(seen, set, s, p) + (within != 0 ? tint : 0);
          if (within != 0) {
            if (
              isGap(seen, set, s, p, d, NEAR, low, share, thin) || isGap(seen, set, s, p, d, FAR, low, share, thin) ||
              isGap(seen, set, s, p, d, NEAR * fullWidth, low, share, thin) || isGap(seen, set, s, p, d, FAR * fullWidth, low, share, thin)
            ) does = true;
          } else if (d > needed) {
            does = true;
            if (
              isLine(seen, set, s, p, d, NEAR, high, share) || isLine(seen, set, s, p, d, FAR, high, share) ||
              isLine(seen, set, s, p, d, NEAR * fullWidth, high, share) || isLine(seen, set, s, p, d, FAR * fullWidth, high, share)
            ) lies = true;
          }
        }
        if (does) differ += each;
        if (lies) lie += each;
      }
    }
    store<f32>(out + (<usize>square << 2), differ);
    store<f32>(lines + (<usize>square << 2), lie);
  }
}

/** The luma of that px of a cell which differs most from the set. */
function farthestLuma(seen: usize, set: usize, light: f32, x: i32, y: i32, fullWidth: i32, fullHeight: i32): f32 {
  let farthest: f32 = -1, luma: f32 = 0;
  for (let v = 2 * y; v < min(fullHeight, 2 * y + 2); v++) {
    for (let u = 2 * x; u < min(fullWidth, 2 * x + 2); u++) {
      const p = v * fullWidth + u;
      const d = apart(seen, set, light, p);
      if (d <= farthest) continue;
      farthest = d;
      luma = at(seen, p);
    }
  }
  return luma;
}

/** Of each square that is wanted (u8, 1): the light of that colour of somebody's which is farthest from the set's (f32 × 4 at out; the last is 1, 0 where nobody is). tables: as softenCells takes them. */
export function farthestColours(
  tables: usize, width: i32, height: i32, fullWidth: i32, fullHeight: i32, block: i32, wanted: usize, out: usize,
): void {
  const fu = plane(tables, 1), fv = plane(tables, 2), seen = plane(tables, 3);
  const py = plane(tables, 4), pu = plane(tables, 5), pv = plane(tables, 6), set = plane(tables, 7), is = plane(tables, 9);
  const setW = plane(tables, 13), setS = plane(tables, 14), left = plane(tables, 15), light = plane(tables, 17);
  const columns = (width + block - 1) / block, rows = (height + block - 1) / block;
  for (let square = 0; square < columns * rows; square++) {
    const to = out + (<usize>square << 4);
    v128.store(to, f32x4.splat(0));
    if (load<u8>(wanted + square) == 0) continue;
    const left0 = (square % columns) * block, top = (square / columns) * block;
    let farthest: f32 = 0;
    for (let y = top; y < min(height, top + block); y++) {
      for (let x = left0; x < min(width, left0 + block); x++) {
        const i = y * width + x;
        if (at(is, i) <= 0) continue;
        const s = setLight(setW, setS, left, i);
        const luma = farthestLuma(seen, set, s, x, y, fullWidth, fullHeight);
        const own = colourLight(light, luma, at(fu, i), at(fv, i));
        const d = f32x4.abs(f32x4.sub(own, colourLight(light, s * at(py, i), s * at(pu, i), s * at(pv, i))));
        const far = f32x4.extract_lane(d, 0) + f32x4.extract_lane(d, 1) + f32x4.extract_lane(d, 2);
        if (far <= farthest) continue;
        farthest = far;
        v128.store(to, f32x4.replace_lane(own, 3, 1));
      }
    }
  }
}

// What is known of strands: addresses of how much of a square is among them within somebody and beyond (f32), of how much of what lies about it is not somebody (f32), of its
// farthest colours, of whether there is anything about it (u8); then block, columns and rows (i32).

/** A plane of squares at a cell, in between what its squares are in their middles. */
function between(squares: usize, columns: i32, rows: i32, u: f32, v: f32): f32 {
  const x = min(i32(u), max(0, columns - 2)), y = min(i32(v), max(0, rows - 2));
  const right = min(x + 1, columns - 1), below = min(y + 1, rows - 1);
  const fx = u - <f32>x, fy = v - <f32>y;
  const top = at(squares, y * columns + x) * (<f32>1 - fx) + at(squares, y * columns + right) * fx;
  const bottom = at(squares, below * columns + x) * (<f32>1 - fx) + at(squares, below * columns + right) * fx;
  return top * (<f32>1 - fy) + bottom * fy;
}

/** Whether what differs from the set about a cell differs alike, as it does within what is solid: by less than `share` of it. */
function isEven(
  seen: usize, set: usize, light: f32, x: i32, y: i32, fullWidth: i32, fullHeight: i32, share: f32,
): bool {
  let low: f32 = Infinity, high: f32 = 0;
  for (let v = max(0, 2 * y - 2); v < min(fullHeight, 2 * y + 4); v++) {
    for (let u = max(0, 2 * x - 2); u < min(fullWidth, 2 * x + 4); u++) {
      const d = apart(seen, set, light, v * fullWidth + u);
      low = min(low, d);
      high = max(high, d);
    }
  }
  return high - low < share * high;
}

// @ts-ignore: decorator
@inline
function isBare(strands: usize, x: i32, y: i32): bool {
  const block = <i32>load<u32>(strands, 20), columns = <i32>load<u32>(strands, 24);
  return load<u8>(plane(strands, 4) + (y / block) * columns + x / block) == 0;
}

/** Whether there are no strands about a cell and the three after it, of squares that are no narrower. */
export function areBare(strands: usize, x: i32, y: i32): bool {
  return isBare(strands, x, y) && isBare(strands, x + 3, y);
}

/** How much a cell goes by what is known of strands, 0..1. */
function strandShare(strands: usize, x: i32, y: i32, isSomebody: boolean): f32 {
  if (isBare(strands, x, y)) return 0;
  const block = <i32>load<u32>(strands, 20), columns = <i32>load<u32>(strands, 24), rows = <i32>load<u32>(strands, 28);
  const u = max(<f32>0, min(<f32>(columns - 1), (<f32>x + <f32>0.5) / <f32>block - <f32>0.5));
  const v = max(<f32>0, min(<f32>(rows - 1), (<f32>y + <f32>0.5) / <f32>block - <f32>0.5));
  if (!isSomebody) return between(plane(strands, 1), columns, rows, u, v);
  return between(plane(strands, 0), columns, rows, u, v) * min(<f32>1, between(plane(strands, 2), columns, rows, u, v));
}

/** By how much a cell is told by strands, 0..1: not at all where somebody is and what differs differs alike. tables: as softenCells takes them. */
export function strandAt(strands: usize, tables: usize, width: i32, x: i32, y: i32, fullWidth: i32, fullHeight: i32): f32 {
  const i = y * width + x;
  const isSomebody = at(plane(tables, 9), i) > 0;
  const share = strandShare(strands, x, y, isSomebody);
  if (share <= 0 || !isSomebody) return share;
  const light = setLight(plane(tables, 13), plane(tables, 14), plane(tables, 15), i);
  return isEven(plane(tables, 3), plane(tables, 7), light, x, y, fullWidth, fullHeight, EVEN) ? 0 : share;
}

/** The colours that strands about a cell may have, one after the other at out; returns how many. */
export function strandColours(strands: usize, x: i32, y: i32, out: usize): i32 {
  const block = <i32>load<u32>(strands, 20), columns = <i32>load<u32>(strands, 24), rows = <i32>load<u32>(strands, 28);
  const colours = plane(strands, 3);
  let found = 0;
  for (let v = max(0, y / block - 1); v <= min(rows - 1, y / block + 1); v++) {
    for (let u = max(0, x / block - 1); u <= min(columns - 1, x / block + 1); u++) {
      const colour = v128.load(colours + (<usize>(v * columns + u) << 4));
      if (f32x4.extract_lane(colour, 3) <= 0) continue;
      v128.store(out + (<usize>found << 4), colour);
      found++;
    }
  }
  return found;
}

/**
 * Lets alpha (u8) of px that go by what is known of strands be no more than it was `before`: a gap among them is no pit. Their colours are told with whatever alpha they have by now. tables: as
 * softenCells takes them.
 */
export function keepGaps(
  tables: usize, strands: usize, width: i32, height: i32, fullWidth: i32, fullHeight: i32, before: usize, alpha: usize,
): void {
  const colours = plane(tables, 21), touched = plane(strands, 4), block = <i32>load<u32>(strands, 20), columns = <i32>load<u32>(strands, 24);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (load<u8>(touched + (y / block) * columns + x / block) == 0) {
        x += block - 1 - (x % block);
        continue;
      }
      if (strandAt(strands, tables, width, x, y, fullWidth, fullHeight) < 0.25) continue;
      for (let v = 2 * y; v < min(fullHeight, 2 * y + 2); v++) {
        for (let u = 2 * x; u < min(fullWidth, 2 * x + 2); u++) {
          const p = <usize>(v * fullWidth + u);
          const a = min(load<u8>(before + p), load<u8>(alpha + p));
          store<u8>(alpha + p, a);
          // Where none was told there is none to keep.
          if (load<u32>(colours + (p << 2)) != 0) store<u8>(colours + (p << 2), a, 3);
        }
      }
    }
  }
}
