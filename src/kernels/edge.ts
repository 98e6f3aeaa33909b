// One side of a straight line.
import { fillCoverage } from "./join";
import { pixelCoverage } from "./ramp";

/**
 * Coverage of row y, n f32 at out: 1 on the side the unit normal (nx, ny) points to, from the line through (px, py).
 * grow, inside and outside in px.
 */
export function edgeRow(
  out: usize, n: i32, y: f64, px: f64, py: f64, nx: f64, ny: f64, grow: f64, inside: f64, outside: f64,
): void {
  const start = (0.5 - px) * nx + (y + 0.5 - py) * ny + grow;
  // Only pixels in the feather's reach are computed; either side of them is full or empty.
  let from = 0, to = n;
  if (Math.abs(nx) > 1e-9) {
    const a = (-outside - 1 - start) / nx, b = (inside + 1 - start) / nx;
    from = i32(Math.max(0, Math.min(<f64>n, Math.floor(Math.min(a, b)))));
    to = i32(Math.max(0, Math.min(<f64>n, Math.ceil(Math.max(a, b)))));
  }
  const before: f32 = nx > 0 ? 0 : 1;
  fillCoverage(out, from, before);
  for (let x = from; x < to; x++) {
    store<f32>(out + (x << 2), <f32>pixelCoverage(start + <f64>x * nx, nx, ny, inside, outside));
  }
  fillCoverage(out + (to << 2), n - to, 1 - before);
}
