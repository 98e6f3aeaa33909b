// Where a layer's own picture lies in the shot: the exact share of each pixel that it covers.

// @ts-ignore: decorator
@inline
function overlap(at: f64, from: f64, to: f64): f64 {
  return max(0, min(at + 1, to) - max(at, from));
}

/** Coverage of row y, n f32 at out, of the upright rectangle from (left, top) to (right, bottom) in px. */
export function frameRectRow(out: usize, n: i32, y: f64, left: f64, top: f64, right: f64, bottom: f64): void {
  const down = overlap(y, top, bottom);
  for (let x = 0; x < n; x++) store<f32>(out + (x << 2), <f32>(down * overlap(<f64>x, left, right)));
}
