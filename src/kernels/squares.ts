// Where squares of a picture come from in the one before it.

/** What `seek` found. */
let foundX: i32 = 0, foundY: i32 = 0;

// @ts-expect-error: decorator
@inline
function within(value: i32, most: i32): i32 {
  return value < 0 ? 0 : value > most ? most : value;
}

/** By how much a square at (x, y) differs from the old picture shifted by (dx, dy), a cell; infinite once it is beyond `most`. `side` is a multiple of four. */
function apart(
  now: usize, old: usize, width: i32, height: i32, x: i32, y: i32, side: i32, dx: i32, dy: i32, most: f32,
): f32 {
  const limit = most * <f32>(side * side);
  const isInside = x >= 0 && x + dx >= 0 && x + side <= width && x + dx + side <= width;
  let sum: f32 = 0;
  for (let v = y < 0 ? 0 : y; v < y + side && v < height; v++) {
    const here = now + (<usize>(v * width) << 2), there = old + (<usize>(within(v + dy, height - 1) * width) << 2);
    if (isInside) {
      let four = f32x4.splat(0);
      for (let u = x; u < x + side; u += 4) {
        four = f32x4.add(four, f32x4.abs(f32x4.sub(v128.load(here + (<usize>u << 2)), v128.load(there + (<usize>(u + dx) << 2)))));
      }
      sum += f32x4.extract_lane(four, 0) + f32x4.extract_lane(four, 1) + f32x4.extract_lane(four, 2) + f32x4.extract_lane(four, 3);
    } else {
      for (let u = x < 0 ? 0 : x; u < x + side && u < width; u++) {
        sum += abs<f32>(load<f32>(here + (<usize>u << 2)) - load<f32>(there + (<usize>within(u + dx, width - 1) << 2)));
      }
    }
    if (sum > limit) return Infinity;
  }
  return sum / <f32>(side * side);
}

/** Looks about (cx, cy), `reach` to each side, for where a square differs least; `lazy` more for each cell that it lies farther. */
function seek(
  now: usize, old: usize, width: i32, height: i32, x: i32, y: i32, side: i32, cx: i32, cy: i32, reach: i32, lazy: f32,
): void {
  // The middle first: what lies about it is given up the sooner.
  let least = apart(now, old, width, height, x, y, side, cx, cy, Infinity);
  foundX = cx;
  foundY = cy;
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach; dx <= reach; dx++) {
      const cost = lazy * sqrt<f32>(<f32>(dx * dx + dy * dy));
      if (cost >= least) continue;
      const value = apart(now, old, width, height, x, y, side, cx + dx, cy + dy, least - cost) + cost;
      if (value >= least) continue;
      least = value;
      foundX = cx + dx;
      foundY = cy + dy;
    }
  }
}

/**
 * Of each square of `block`² cells that is wanted (u8, 1), row by row: where in the old picture it comes from, two i32 (x, y) at out; others stay. pictures: addresses of the new one and the old one, width · height f32, and of both
 * made `smaller` (smallWidth · smallHeight). It is looked for `far` cells of the small ones to each side, then `near` of the large ones; a square counts with `around` cells about it, and what hardly differs stays: `lazy` codes a cell.
 * One that differs by less than `calm` codes a cell where it is stays, too. block + 2 · around and block / smaller + 2 are multiples of four.
 */
export function squareShifts(
  pictures: usize, width: i32, height: i32, smallWidth: i32, smallHeight: i32, wanted: usize, block: i32, around: i32,
  smaller: i32, far: i32, near: i32, lazy: f32, calm: f32, out: usize,
): void {
  const now = <usize>load<u32>(pictures), old = <usize>load<u32>(pictures, 4);
  const small = <usize>load<u32>(pictures, 8), smallOld = <usize>load<u32>(pictures, 12);
  const columns = (width + block - 1) / block, rows = (height + block - 1) / block;
  const side = block + 2 * around, rough = block / smaller + 2;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const at = row * columns + column;
      const to = out + (<usize>at << 3);
      store<i32>(to, 0);
      store<i32>(to, 0, 4);
      if (load<u8>(wanted + at) == 0) continue;
      const x = column * block - around, y = row * block - around;
      const still = apart(now, old, width, height, x, y, side, 0, 0, Infinity);
      if (still < calm) continue;
      seek(small, smallOld, smallWidth, smallHeight, (column * block) / smaller - 1, (row * block) / smaller - 1, rough, 0, 0, far, lazy);
      seek(now, old, width, height, x, y, side, foundX * smaller, foundY * smaller, near, lazy);
      // What stands still is told by the exact picture.
      const there = apart(now, old, width, height, x, y, side, foundX, foundY, Infinity);
      if (still <= there + lazy * sqrt<f32>(<f32>(foundX * foundX + foundY * foundY))) continue;
      store<i32>(to, foundX);
      store<i32>(to, foundY, 4);
    }
  }
}

/** 1 at out, u8, of each square of `block`² cells in which some cell times `sign` is above nought. block is a multiple of four. */
export function squaresWith(plane: usize, width: i32, height: i32, block: i32, sign: f32, out: usize): void {
  const columns = (width + block - 1) / block, rows = (height + block - 1) / block;
  const signs = f32x4.splat(sign), none = f32x4.splat(0);
  memory.fill(out, 0, <usize>(columns * rows));
  for (let y = 0; y < height; y++) {
    const row = plane + (<usize>(y * width) << 2), to = out + (y / block) * columns;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      if (v128.any_true(f32x4.gt(f32x4.mul(v128.load(row + (<usize>x << 2)), signs), none))) store<u8>(to + x / block, 1);
    }
    for (; x < width; x++) if (load<f32>(row + (<usize>x << 2)) * sign > 0) store<u8>(to + x / block, 1);
  }
}
