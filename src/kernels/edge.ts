// One side of a straight line.
import { pixelCoverage } from "./ramp";

/**
 * Coverage of row y, n f32 at out: 1 on the side the unit normal (nx, ny) points to, from the line through (px, py).
 * grow, inside and outside in px.
 */
export function edgeRow(
  out: usize, n: i32, y: f64, px: f64, py: f64, nx: f64, ny: f64, grow: f64, inside: f64, outside: f64,
): void {
  const start = (0.5 - px) * nx + (y + 0.5 - py) * ny + grow;
  for (let x = 0; x < n; x++) {
    store<f32>(out + (x << 2), <f32>pixelCoverage(start + <f64>x * nx, nx, ny, inside, outside));
  }
}
