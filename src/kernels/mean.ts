// Means over squares, in time that does not grow with them.

// @ts-expect-error: decorator
@inline
function smaller(a: i32, b: i32): i32 {
  return a < b ? a : b;
}

/** Of one row: the mean over r cells to either side, those outside left out. 2r < width. */
function meanRow(src: usize, dst: usize, width: i32, r: i32): void {
  let sum: f32 = 0;
  for (let x = 0; x < r; x++) sum += load<f32>(src + (<usize>x << 2));
  for (let x = 0; x <= r; x++) {
    sum += load<f32>(src + (<usize>(x + r) << 2));
    const cells: i32 = x + r + 1;
    store<f32>(dst + (<usize>x << 2), sum / <f32>cells);
  }
  const wide: i32 = 2 * r + 1;
  const whole = <f32>1 / <f32>wide;
  const ahead = <usize>r << 2;
  const last = src + (<usize>(width - r) << 2);
  let to = dst + (<usize>(r + 1) << 2);
  let from = src + (<usize>(r + 1) << 2);
  // Four at a time: what each adds to the sum is added up among them, so that only the fourth is waited for.
  const none = f32x4.splat(0), share = f32x4.splat(whole);
  let before = f32x4.splat(sum);
  for (; from + 12 < last; from += 16, to += 16) {
    const added = f32x4.sub(v128.load(from + ahead), v128.load(from - ahead - 4));
    const two = f32x4.add(added, i8x16.shuffle(none, added, 0, 1, 2, 3, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27));
    const four = f32x4.add(two, i8x16.shuffle(none, two, 0, 1, 2, 3, 4, 5, 6, 7, 16, 17, 18, 19, 20, 21, 22, 23));
    const sums = f32x4.add(before, four);
    v128.store(to, f32x4.mul(sums, share));
    before = i8x16.shuffle(sums, sums, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15, 12, 13, 14, 15);
  }
  sum = f32x4.extract_lane(before, 0);
  for (; from < last; from += 4, to += 4) {
    sum += load<f32>(from + ahead) - load<f32>(from - ahead - 4);
    store<f32>(to, sum * whole);
  }
  for (let x = max(width - r, r + 1); x < width; x++) {
    sum -= load<f32>(src + (<usize>(x - r - 1) << 2));
    const cells: i32 = width - x + r;
    store<f32>(dst + (<usize>x << 2), sum / <f32>cells);
  }
}

/**
 * The mean of a plane of f32 over (2r + 1)² cells round each, at out, which may be the plane; rows of both begin `step` cells apart. room: 2r + 2 rows, close together, each with
 * three cells more; sums: such a row. Each row is summed across as it is first needed, and kept until it has gone by.
 */
export function boxMean(
  plane: usize, step: i32, width: i32, height: i32, r: i32, out: usize, room: usize, sums: usize,
): void {
  // In a picture so narrow that all is near, a little less is.
  const across = smaller(r, (width - 1) / 2);
  const stride = <usize>((width + 3) & ~3) << 2, rows = <usize>step << 2;
  const kept = 2 * r + 2;
  memory.fill(sums, 0, stride);
  for (let y = -r; y < height; y++) {
    const add = y + r, take = y - r - 1;
    const adds = add < height, takes = take >= 0;
    const from = room + <usize>(add % kept) * stride, gone = room + <usize>((take + kept) % kept) * stride;
    if (adds) meanRow(plane + <usize>add * rows, from, width, across);
    if (adds && takes) {
      for (let at: usize = 0; at < stride; at += 16) {
        v128.store(sums + at, f32x4.sub(f32x4.add(v128.load(sums + at), v128.load(from + at)), v128.load(gone + at)));
      }
    } else if (adds) {
      for (let at: usize = 0; at < stride; at += 16) v128.store(sums + at, f32x4.add(v128.load(sums + at), v128.load(from + at)));
    } else if (takes) {
      for (let at: usize = 0; at < stride; at += 16) v128.store(sums + at, f32x4.sub(v128.load(sums + at), v128.load(gone + at)));
    }
    if (y < 0) continue;
    const many: i32 = smaller(height - 1, add) - (take < -1 ? -1 : take);
    const share = <f32>1 / <f32>many, shares = f32x4.splat(share);
    const to = out + <usize>y * rows;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const at = <usize>x << 2;
      v128.store(to + at, f32x4.mul(v128.load(sums + at), shares));
    }
    for (; x < width; x++) store<f32>(to + (<usize>x << 2), load<f32>(sums + (<usize>x << 2)) * share);
  }
}
