// A rectangle at any angle. Growing rounds its corners, shrinking keeps them: both follow the true distance.
import { feather, pixelCoverage } from "./ramp";

// @ts-ignore: decorator
@inline
function depth(lx: f64, ly: f64, hw: f64, hh: f64): f64 {
  const qx = Math.abs(lx) - hw, qy = Math.abs(ly) - hh;
  if (qx > 0 && qy > 0) return -Math.sqrt(qx * qx + qy * qy);
  return -max(qx, qy);
}

/**
 * Coverage of row y, n f32 at out, of the box centred on (cx, cy) with half sizes hw, hh (px), turned by cos, sin.
 */
export function boxRow(
  out: usize, n: i32, y: f64, cx: f64, cy: f64, hw: f64, hh: f64, cos: f64, sin: f64, grow: f64, inside: f64, outside: f64,
): void {
  memory.fill(out, 0, n << 2);
  const reach = max(grow, 0) + outside + 1;
  const ex = Math.abs(cos) * hw + Math.abs(sin) * hh + reach;
  const ey = Math.abs(sin) * hw + Math.abs(cos) * hh + reach;
  const dy = y + 0.5 - cy;
  // What has no width has no area either, but something may lie about it.
  if (Math.abs(dy) > ey || ((hw <= 0 || hh <= 0) && grow + outside <= 0)) return;
  const from = max(0, i32(Math.floor(cx - ex)));
  const to = min(n, i32(Math.ceil(cx + ex)));
  const sharp = inside + outside < 16;
  const thin = min(hw, hh) + grow < 1;
  for (let x = from; x < to; x++) {
    const dx = <f64>x + 0.5 - cx;
    const lx = dx * cos + dy * sin, ly = dy * cos - dx * sin;
    const d = depth(lx, ly, hw, hh) + grow;
    const qx = Math.abs(lx) - hw, qy = Math.abs(ly) - hh;
    let c: f64;
    if (sharp && (thin || Math.abs(qx - qy) < 1.5) && d > -outside - 1 && d < inside + 1) {
      // Two sides meet inside this pixel: sixty-four samples.
      let sum = 0.0;
      for (let j = 0; j < 8; j++) {
        for (let i = 0; i < 8; i++) {
          const sx = dx + (<f64>i - 3.5) / 8, sy = dy + (<f64>j - 3.5) / 8;
          sum += feather(depth(sx * cos + sy * sin, sy * cos - sx * sin, hw, hh) + grow, inside, outside);
        }
      }
      c = sum / 64;
    } else {
      let gx = 0.0, gy = 0.0;
      if (qx > 0 && qy > 0) {
        const r = Math.sqrt(qx * qx + qy * qy);
        gx = qx / r;
        gy = qy / r;
      } else if (qx > qy) gx = 1;
      else gy = 1;
      if (lx < 0) gx = -gx;
      if (ly < 0) gy = -gy;
      c = pixelCoverage(d, gx * cos - gy * sin, gx * sin + gy * cos, inside, outside);
    }
    store<f32>(out + (x << 2), <f32>c);
  }
}
