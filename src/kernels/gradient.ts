// Colours that go over into each other.

/** Steps that a gradient's table tells, besides its first entry. */
const STEPS: i32 = 1024;

/**
 * n premultiplied linear pixels of row y from column x on, at dst. Straight: from (ax, ay) on to (bx, by); round: from there outwards as far as
 * (bx, by) lies. `table` holds STEPS + 1 pixels.
 */
export function gradientRow(dst: usize, n: i32, x: f64, y: f64, ax: f64, ay: f64, bx: f64, by: f64, round: i32, table: usize): void {
  const dx = bx - ax, dy = by - ay;
  const square = dx * dx + dy * dy;
  const down = y + 0.5 - ay;
  for (let i = 0; i < n; i++) {
    const across = x + <f64>i + 0.5 - ax;
    let t: f64 = 1;
    if (square > 0) t = round ? Math.sqrt((across * across + down * down) / square) : (across * dx + down * dy) / square;
    const at = min(1.0, max(0.0, t)) * <f64>STEPS;
    const step = min(STEPS - 1, <i32>at);
    const share = f32x4.splat(<f32>(at - <f64>step));
    const one = v128.load(table + (<usize>step << 4)), other = v128.load(table + (<usize>(step + 1) << 4));
    v128.store(dst + (<usize>i << 4), f32x4.add(one, f32x4.mul(f32x4.sub(other, one), share)));
  }
}
