// An ellipse at any angle, with the true distance to it.
import { feather, pixelCoverage } from "./ramp";

let nearX: f64 = 0;
let nearY: f64 = 0;

/** Closest point of the ellipse a >= b > 0 to (x, y) in the first quadrant (Eberly, Distance from a Point to an Ellipse, 2013). */
function closest(x: f64, y: f64, a: f64, b: f64): void {
  if (y > 1e-12) {
    if (x > 1e-12) {
      const z0 = x / a, z1 = y / b, r = (a / b) * (a / b);
      let low = z1 - 1;
      const n0 = r * z0;
      let high = z0 * z0 + z1 * z1 < 1 ? 0 : Math.sqrt(n0 * n0 + z1 * z1) - 1;
      let s = 0.5 * (low + high);
      for (let i = 0; i < 60; i++) {
        const p = n0 / (s + r), q = z1 / (s + 1);
        const g = p * p + q * q - 1;
        if (g > 0) low = s; else high = s;
        // Newton where it stays inside the bracket, bisection where it does not.
        const slope = -2 * ((p * p) / (s + r) + (q * q) / (s + 1));
        let next = s - g / slope;
        if (!(next > low && next < high)) next = 0.5 * (low + high);
        if (Math.abs(next - s) < 1e-13) break;
        s = next;
      }
      nearX = (r * x) / (s + r);
      nearY = y / (s + 1);
    } else {
      nearX = 0;
      nearY = b;
    }
    return;
  }
  const top = a * x, bottom = a * a - b * b;
  if (top < bottom) {
    const t = top / bottom;
    nearX = a * t;
    nearY = b * Math.sqrt(1 - t * t);
  } else {
    nearX = a;
    nearY = 0;
  }
}

/** Signed distance inside the ellipse with half axes hw, hh at local point (lx, ly); leaves the closest point behind. */
function depth(lx: f64, ly: f64, hw: f64, hh: f64): f64 {
  const x = Math.abs(lx), y = Math.abs(ly);
  if (hw >= hh) closest(x, y, hw, hh);
  else {
    closest(y, x, hh, hw);
    const t = nearX;
    nearX = nearY;
    nearY = t;
  }
  const d = Math.sqrt((x - nearX) * (x - nearX) + (y - nearY) * (y - nearY));
  return (x * x) / (hw * hw) + (y * y) / (hh * hh) < 1 ? d : -d;
}

/** Coverage of row y, n f32 at out, of the oval centred on (cx, cy) with half axes hw, hh (px), turned by cos, sin. */
export function ovalRow(
  out: usize, n: i32, y: f64, cx: f64, cy: f64, hw: f64, hh: f64, cos: f64, sin: f64, grow: f64, inside: f64, outside: f64,
): void {
  memory.fill(out, 0, n << 2);
  if (hw <= 0 || hh <= 0) return;
  const small = min(hw, hh);
  const reach = max(grow, 0) + outside + 1;
  const ex = Math.sqrt(cos * cos * hw * hw + sin * sin * hh * hh) + reach;
  const ey = Math.sqrt(sin * sin * hw * hw + cos * cos * hh * hh) + reach;
  const dy = y + 0.5 - cy;
  if (Math.abs(dy) > ey) return;
  const from = max(0, i32(Math.floor(cx - ex)));
  const to = min(n, i32(Math.ceil(cx + ex)));
  const perW = 1 / hw, perH = 1 / hh;
  const tiny = small + min(grow, 0) < 4 && inside + outside < 16;
  for (let x = from; x < to; x++) {
    const dx = <f64>x + 0.5 - cx;
    const lx = dx * cos + dy * sin, ly = dy * cos - dx * sin;
    // |f - 1| times the smaller half axis never exceeds the distance: most pixels need no solving.
    const u = lx * perW, v = ly * perH;
    const f = Math.sqrt(u * u + v * v);
    const bound = (1 - f) * small + grow;
    let c = 1.0;
    if (f > 1 && bound < -outside - 1) c = 0;
    else if (!(f < 1 && bound > inside + 1)) {
      const d = depth(lx, ly, hw, hh) + grow;
      if (tiny && d > -outside - 1 && d < inside + 1) {
        c = 0;
        for (let j = 0; j < 8; j++) {
          for (let i = 0; i < 8; i++) {
            const sx = dx + (<f64>i - 3.5) / 8, sy = dy + (<f64>j - 3.5) / 8;
            c += feather(depth(sx * cos + sy * sin, sy * cos - sx * sin, hw, hh) + grow, inside, outside);
          }
        }
        c /= 64;
      } else {
        let gx = nearX / (hw * hw), gy = nearY / (hh * hh);
        const r = Math.sqrt(gx * gx + gy * gy);
        gx = lx < 0 ? -gx / r : gx / r;
        gy = ly < 0 ? -gy / r : gy / r;
        c = pixelCoverage(d, gx * cos - gy * sin, gx * sin + gy * cos, inside, outside);
      }
    }
    store<f32>(out + (x << 2), <f32>c);
  }
}
