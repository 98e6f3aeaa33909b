// Where a layer's own picture lies in the shot: the exact share of each pixel that it covers.

// @ts-ignore: decorator
@inline
function overlap(at: f64, from: f64, to: f64): f64 {
  return max(0, min(at + 1, to) - max(at, from));
}

/** A column as a whole number in 0..n, however far off. */
// @ts-ignore: decorator
@inline
function within(at: f64, n: i32): i32 {
  return at > 0 ? (at < <f64>n ? i32(at) : n) : 0;
}

/** Coverage of row y, n f32 at out, of the upright rectangle from (left, top) to (right, bottom) in px. */
export function frameRectRow(out: usize, n: i32, y: f64, left: f64, top: f64, right: f64, bottom: f64): void {
  const down = overlap(y, top, bottom), inside = <f32>down;
  // What lies wholly within it from side to side has the same share, and is nearly all.
  const first = within(ceil(left), n), last = max(first, within(floor(right), n));
  const from = within(floor(left), n), to = within(ceil(right), n);
  memory.fill(out, 0, <usize>from << 2);
  for (let x = from; x < first; x++) store<f32>(out + (x << 2), <f32>(down * overlap(<f64>x, left, right)));
  let x = first;
  for (; x + 4 <= last; x += 4) v128.store(out + (x << 2), f32x4.splat(inside));
  for (; x < last; x++) store<f32>(out + (x << 2), inside);
  for (; x < to; x++) store<f32>(out + (x << 2), <f32>(down * overlap(<f64>x, left, right)));
  if (x < n) memory.fill(out + (x << 2), 0, <usize>(n - x) << 2);
}
