/** Turns n pixels from B, G, R, A to R, G, B, A in place; with `opaque` the last is no alpha and becomes 255. The row has 12 bytes of slack. */
export function orderRow(row: usize, n: i32, opaque: i32): void {
  const full = i32x4.splat(opaque ? 0xff000000 : 0);
  for (let i = 0; i < n; i += 4) {
    const at = row + (i << 2);
    const p = v128.load(at);
    v128.store(at, v128.or(i8x16.shuffle(p, p, 2, 1, 0, 3, 6, 5, 4, 7, 10, 9, 8, 11, 14, 13, 12, 15), full));
  }
}
