// Where the numbers of a row rise above nought, and where they fall to it again.

/**
 * Runs of cells that are above nought, or are not, row by row: at starts the column at which each begins (i32, width × height at most), at firsts which of them is the first of each row,
 * and behind those how many there are. That is also what it returns.
 */
export function signRuns(plane: usize, width: i32, height: i32, starts: usize, firsts: usize): i32 {
  const none = f32x4.splat(0);
  let count = 0;
  for (let y = 0; y < height; y++) {
    const row = plane + (<usize>(y * width) << 2);
    store<i32>(firsts + (<usize>y << 2), count);
    store<i32>(starts + (<usize>(count++) << 2), 0);
    for (let x = 1; x < width; x++) {
      const at = row + (<usize>x << 2);
      if (x + 4 <= width) {
        let changes = i32x4.bitmask(v128.xor(f32x4.gt(v128.load(at), none), f32x4.gt(v128.load(at - 4), none)));
        for (; changes != 0; changes &= changes - 1) store<i32>(starts + (<usize>(count++) << 2), x + ctz<i32>(changes));
        x += 3;
      } else if (load<f32>(at) > 0 != load<f32>(at - 4) > 0) store<i32>(starts + (<usize>(count++) << 2), x);
    }
  }
  store<i32>(firsts + (<usize>height << 2), count);
  return count;
}
