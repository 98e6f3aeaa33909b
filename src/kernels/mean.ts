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
  for (let from = src + (<usize>(r + 1) << 2); from < last; from += 4, to += 4) {
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
 * The mean of a plane of f32 over (2r + 1)² cells round each, at out, which may be the plane; rows of both begin `step` cells apart. room: as large, its rows close together;
 * sums: a row.
 */
export function boxMean(
  plane: usize, step: i32, width: i32, height: i32, r: i32, out: usize, room: usize, sums: usize,
): void {
  // In a picture so narrow that all is near, a little less is.
  const across = smaller(r, (width - 1) / 2);
  const stride = <usize>width << 2, rows = <usize>step << 2;
  for (let y = 0; y < height; y++) meanRow(plane + <usize>y * rows, room + <usize>y * stride, width, across);
  memory.fill(sums, 0, stride);
  for (let y = -r; y < height; y++) {
    const add = y + r, take = y - r - 1;
    const adds = add < height, takes = take >= 0;
    const from = room + <usize>add * stride, gone = room + <usize>take * stride;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const at = <usize>x << 2;
      let sum = v128.load(sums + at);
      if (adds) sum = f32x4.add(sum, v128.load(from + at));
      if (takes) sum = f32x4.sub(sum, v128.load(gone + at));
      v128.store(sums + at, sum);
    }
    for (; x < width; x++) {
      const at = <usize>x << 2;
      let sum = load<f32>(sums + at);
      if (adds) sum += load<f32>(from + at);
      if (takes) sum -= load<f32>(gone + at);
      store<f32>(sums + at, sum);
    }
    if (y < 0) continue;
    const many: i32 = smaller(height - 1, add) - (take < -1 ? -1 : take);
    const share = <f32>1 / <f32>many;
    const to = out + <usize>y * rows;
    x = 0;
    for (; x + 4 <= width; x += 4) {
      const at = <usize>x << 2;
      v128.store(to + at, f32x4.mul(v128.load(sums + at), f32x4.splat(share)));
    }
    for (; x < width; x++) store<f32>(to + (<usize>x << 2), load<f32>(sums + (<usize>x << 2)) * share);
  }
}
