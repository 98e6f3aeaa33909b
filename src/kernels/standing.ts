// Where somebody is, and what the rest of a frame's cells come to.

/**
 * 1 at is where told (log odds) is above nought, else 0. box: four i32, the first and last column and row with somebody; where nobody is the last come
 * before the first.
 */
export function standingCells(told: usize, width: i32, height: i32, is: usize, box: usize): void {
  let left = width, right = -1, top = height, bottom = -1;
  const one = f32x4.splat(1), none = f32x4.splat(0);
  for (let y = 0; y < height; y++) {
    const row = <usize>(y * width) << 2;
    let any = false;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const at = row + (<usize>x << 2);
      const mask = f32x4.gt(v128.load(told + at), none);
      v128.store(is + at, v128.and(mask, one));
      any = any || v128.any_true(mask);
    }
    for (; x < width; x++) {
      const at = row + (<usize>x << 2);
      const here = load<f32>(told + at) > 0;
      store<f32>(is + at, here ? 1 : 0);
      any = any || here;
    }
    if (!any) continue;
    if (top > y) top = y;
    bottom = y;
    for (let c = 0; c < left; c++) if (load<f32>(is + row + (<usize>c << 2)) > 0) left = c;
    for (let c = width - 1; c > right; c--) if (load<f32>(is + row + (<usize>c << 2)) > 0) right = c;
  }
  store<i32>(box, left);
  store<i32>(box, right, 4);
  store<i32>(box, top, 8);
  store<i32>(box, bottom, 12);
}

// @ts-expect-error: decorator
@inline
function summed(v: v128): i32 {
  return i32x4.extract_lane(v, 0) + i32x4.extract_lane(v, 1) + i32x4.extract_lane(v, 2) + i32x4.extract_lane(v, 3);
}

/**
 * Counts of n cells, four i32 at counts: those with somebody, places where that changes from one to the next, those told by less than doubt, and those in shadow
 * (less than shaded left) with nobody there.
 */
export function tallyCells(told: usize, is: usize, left: usize, n: i32, doubt: f32, shaded: f32, counts: usize): void {
  const none = f32x4.splat(0), sure = f32x4.splat(doubt), lit = f32x4.splat(shaded);
  let there = i32x4.splat(0), border = there, doubtful = there, shade = there;
  // Of the first nothing lies before it.
  store<f32>(is - 4, load<f32>(is));
  const bytes = <usize>n << 2;
  for (let i: usize = 0; i < bytes; i += 16) {
    const here = v128.load(is + i);
    // Comparisons that hold are −1; the last register may reach beyond the end.
    const counted = i + 16 <= bytes ? i32x4.splat(-1) : i32x4.lt_s(i32x4(0, 1, 2, 3), i32x4.splat(<i32>((bytes - i) >> 2)));
    const nobody = f32x4.eq(here, none);
    there = i32x4.sub(there, v128.andnot(counted, nobody));
    border = i32x4.sub(border, v128.and(counted, f32x4.ne(here, v128.load(is + i - 4))));
    doubtful = i32x4.sub(doubtful, v128.and(counted, f32x4.lt(f32x4.abs(v128.load(told + i)), sure)));
    shade = i32x4.sub(shade, v128.and(counted, v128.and(nobody, f32x4.lt(v128.load(left + i), lit))));
  }
  store<i32>(counts, summed(there));
  store<i32>(counts, summed(border), 4);
  store<i32>(counts, summed(doubtful), 8);
  store<i32>(counts, summed(shade), 12);
}

/** How many of n cells are darker than black, and how many brighter than white: two i32 at counts. */
export function clippedCells(y: usize, n: i32, black: f32, white: f32, counts: usize): void {
  const darkest = f32x4.splat(black), brightest = f32x4.splat(white);
  let dark = i32x4.splat(0), bright = dark;
  const bytes = <usize>n << 2, whole = bytes & ~15;
  for (let i: usize = 0; i < whole; i += 16) {
    const luma = v128.load(y + i);
    dark = i32x4.sub(dark, f32x4.lt(luma, darkest));
    bright = i32x4.sub(bright, f32x4.gt(luma, brightest));
  }
  let darker = summed(dark), brighter = summed(bright);
  for (let i = whole; i < bytes; i += 4) {
    darker += load<f32>(y + i) < black ? 1 : 0;
    brighter += load<f32>(y + i) > white ? 1 : 0;
  }
  store<i32>(counts, darker);
  store<i32>(counts, brighter, 4);
}

/**
 * By how much frame and plate change along rows where the plate does by `least` codes or more over two cells and nobody is: two f32 at sums, and how many places as an i32 behind
 * them. Every second row is looked at.
 */
export function changeSums(frame: usize, plate: usize, is: usize, width: i32, height: i32, least: f32, sums: usize): void {
  const limit = f32x4.splat(least), none = f32x4.splat(0);
  let own = none, other = none;
  let count = 0;
  for (let y = 2; y < height - 2; y += 2) {
    const row = <usize>(y * width) << 2;
    for (let x = 2; x + 6 <= width; x += 4) {
      const i = row + (<usize>x << 2);
      const slope = f32x4.abs(f32x4.sub(v128.load(plate + i + 4), v128.load(plate + i - 4)));
      const counts = v128.and(f32x4.ge(slope, limit), f32x4.eq(v128.load(is + i), none));
      if (!v128.any_true(counts)) continue;
      const change = f32x4.abs(f32x4.sub(v128.load(frame + i + 4), v128.load(frame + i - 4)));
      own = f32x4.add(own, v128.and(change, counts));
      other = f32x4.add(other, v128.and(slope, counts));
      count += popcnt<i32>(i32x4.bitmask(counts));
    }
  }
  store<f32>(sums, f32x4.extract_lane(own, 0) + f32x4.extract_lane(own, 1) + f32x4.extract_lane(own, 2) + f32x4.extract_lane(own, 3));
  store<f32>(sums, f32x4.extract_lane(other, 0) + f32x4.extract_lane(other, 1) + f32x4.extract_lane(other, 2) + f32x4.extract_lane(other, 3), 4);
  store<i32>(sums, count, 8);
}
