/** n bytes from src to dst, which may overlap. */
export function copyBytes(dst: usize, src: usize, n: i32): void {
  memory.copy(dst, src, n);
}

/** n bytes of each row from src to dst, whose rows begin `fromStep` and `toStep` bytes apart. */
export function copyRows(src: usize, fromStep: i32, dst: usize, toStep: i32, n: i32, rows: i32): void {
  for (let y = 0; y < rows; y++) memory.copy(dst + <usize>(y * toStep), src + <usize>(y * fromStep), n);
}
