// An ellipse at any angle, with the true distance to it.
import { fillCoverage } from "./join";
import { feather, pixelCoverage } from "./ramp";

/** Newton squares what is left with each step: one no longer than this leaves less than numbers of a pixel can tell. */
const SETTLED: f64 = 1e-6;
/** Half of the least width that is reckoned with, px. */
const SLIVER: f64 = 1e-4;

let nearX: f64 = 0;
let nearY: f64 = 0;
let lastS: f64 = 0;
/** How far that lay from the one before. */
let lastStep: f64 = 0;

/** Closest point of the ellipse a >= b > 0 to (x, y) in the first quadrant (Eberly, Distance from a Point to an Ellipse, 2013). */
function closest(x: f64, y: f64, a: f64, b: f64): void {
  if (y > 1e-12) {
    if (x > 1e-12) {
      const z0 = x / a, z1 = y / b, r = (a / b) * (a / b);
      let low = z1 - 1;
      const n0 = r * z0;
      let high = z0 * z0 + z1 * z1 < 1 ? 0 : Math.sqrt(n0 * n0 + z1 * z1) - 1;
      // The pixel before was solved by almost the same number, and the one before that tells which way it goes.
      const guess = lastS + lastStep;
      let s = guess > low && guess < high ? guess : 0.5 * (low + high);
      for (let i = 0; i < 60; i++) {
        const perR = 1 / (s + r), per1 = 1 / (s + 1);
        const p = n0 * perR, q = z1 * per1;
        const pp = p * p, qq = q * q;
        const g = pp + qq - 1;
        if (g > 0) low = s; else high = s;
        // Newton where it stays inside the bracket, bisection where it does not.
        let next = s + (0.5 * g) / (pp * perR + qq * per1);
        if (!(next > low && next < high)) next = 0.5 * (low + high);
        const moved = Math.abs(next - s);
        s = next;
        if (moved < SETTLED) break;
      }
      lastStep = s - lastS;
      lastS = s;
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
  // What has no width has no area either, but something may lie about it.
  if ((hw <= 0 || hh <= 0) && grow + outside <= 0) return;
  hw = max(hw, SLIVER);
  hh = max(hh, SLIVER);
  const small = min(hw, hh);
  const dy = y + 0.5 - cy;
  const perW = 1 / hw, perH = 1 / hh;
  // |f - 1| times the smaller half axis never exceeds the distance, with f the length of (lx / hw, ly / hh). Along a
  // row f squared is a quadratic, so what is surely empty and surely full is known before any pixel is looked at.
  const qa = cos * cos * perW * perW + sin * sin * perH * perH;
  const qb = dy * cos * sin * (perW * perW - perH * perH);
  const qc = dy * dy * (sin * sin * perW * perW + cos * cos * perH * perH);
  const middle = cx - 0.5 - qb / qa;
  const empty = 1 + Math.max(0, outside + 1 + grow) / small;
  const reaches = (qb * qb) / (qa * qa) - (qc - empty * empty) / qa;
  if (reaches <= 0) return;
  const half = Math.sqrt(reaches);
  const from = i32(Math.max(0, Math.floor(middle - half)));
  const to = i32(Math.min(<f64>n, Math.ceil(middle + half) + 1));
  let fullFrom = to, fullTo = to;
  const full = 1 - Math.max(0, inside + 1 - grow) / small;
  const fills = (qb * qb) / (qa * qa) - (qc - full * full) / qa;
  if (full > 0 && fills > 0) {
    const within = Math.sqrt(fills);
    fullFrom = i32(Math.min(<f64>to, Math.max(<f64>from, Math.ceil(middle - within))));
    fullTo = i32(Math.max(<f64>fullFrom, Math.min(<f64>to, Math.floor(middle + within))));
    fillCoverage(out + (fullFrom << 2), fullTo - fullFrom, 1);
  }
  const tiny = small + min(grow, 0) < 4 && inside + outside < 16;
  for (let x = from; x < to; x++) {
    if (x == fullFrom && fullTo > fullFrom) {
      x = fullTo - 1;
      continue;
    }
    const dx = <f64>x + 0.5 - cx;
    const lx = dx * cos + dy * sin, ly = dy * cos - dx * sin;
    let c: f64;
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
      let gx = nearX * perW * perW, gy = nearY * perH * perH;
      const r = 1 / Math.sqrt(gx * gx + gy * gy);
      gx = lx < 0 ? -gx * r : gx * r;
      gy = ly < 0 ? -gy * r : gy * r;
      c = pixelCoverage(d, gx * cos - gy * sin, gx * sin + gy * cos, inside, outside);
    }
    store<f32>(out + (x << 2), <f32>c);
  }
}
