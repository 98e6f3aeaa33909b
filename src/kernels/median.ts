// What is in the middle of many: the median of each of a row of values, over rows that are told apart by a stride.

/**
 * The median of each of n values over `rows` rows of f32, `stride` values apart, at `out`; of an even number of rows the mean of the two in the middle. n is rounded up to a multiple of 4 within the
 * stride, and the rows are changed. (The largest are carried to the end one by one, four values at a time: bubble sort, Knuth, The Art of Computer Programming 3, 5.2.2.)
 */
export function medianRow(src: usize, rows: i32, stride: i32, n: i32, out: usize): void {
  const step = <usize>stride << 2;
  const half = f32x4.splat(0.5);
  // The last one carried is the middle one, or the lower of two.
  const passes = (rows >> 1) + 1;
  for (let i = 0; i < n; i += 4) {
    const first = src + (<usize>i << 2);
    let most = v128.load(first);
    let second = most;
    for (let pass = 0; pass < passes; pass++) {
      second = most;
      most = v128.load(first);
      let at = first;
      for (let j = 1; j < rows - pass; j++) {
        const next = v128.load(at + step);
        v128.store(at, f32x4.min(most, next));
        most = f32x4.max(most, next);
        at += step;
      }
    }
    v128.store(out + (<usize>i << 2), rows & 1 ? most : f32x4.mul(f32x4.add(most, second), half));
  }
}
