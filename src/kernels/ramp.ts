// Coverage from the signed distance to an outline: a smoothstep feather averaged exactly over the pixel.

/** Of feathers at least this wide (px) the middle of a pixel stands for all of it: they change less inside one than numbers can tell where they begin. */
const WIDE: f64 = 4096;

/** First antiderivative of the feather: d px inside the outline, reaching inside px in, width px in all. */
// @ts-ignore: decorator
@inline
function once(d: f64, inside: f64, width: f64): f64 {
  if (d >= inside) return 0.5 * width + (d - inside);
  const t = (d - inside) / width + 1;
  return t <= 0 || width == 0 ? 0 : width * t * t * t * (1 - 0.5 * t);
}

/** Second antiderivative of the feather. */
// @ts-ignore: decorator
@inline
function twice(d: f64, inside: f64, width: f64): f64 {
  if (d >= inside) {
    const x = d - inside;
    return 0.15 * width * width + 0.5 * width * x + 0.5 * x * x;
  }
  const t = (d - inside) / width + 1;
  return t <= 0 || width == 0 ? 0 : width * width * t * t * t * t * (0.25 - 0.1 * t);
}

/** The feather itself, 0..1, at one point. */
export function feather(d: f64, inside: f64, outside: f64): f64 {
  if (d >= inside) return 1;
  if (d <= -outside) return 0;
  const t = (d + outside) / (inside + outside);
  return t * t * (3 - 2 * t);
}

/**
 * Mean of the feather over a square pixel whose centre lies d px inside a straight outline with normal (nx, ny).
 * The pixel seen along the normal is a trapezoid, the convolution of two boxes |nx| and |ny| wide.
 */
export function pixelCoverage(d: f64, nx: f64, ny: f64, inside: f64, outside: f64): f64 {
  if (d >= inside + 0.75) return 1;
  if (d <= -outside - 0.75) return 0;
  const width = inside + outside;
  if (width >= WIDE) return feather(d, inside, outside);
  const ax = Math.abs(nx), ay = Math.abs(ny);
  const a = max(ax, ay), b = min(ax, ay);
  const half = 0.5 * (a + b);
  if (d + half <= inside && d - half >= -outside) {
    // All of the pixel lies on the cubic: its mean is that of the middle and a share of its curvature, exactly.
    const r = 1 / width;
    const t = (d + outside) * r;
    return t * t * (3 - 2 * t) + (0.25 - 0.5 * t) * r * r;
  }
  let c: f64;
  if (b < 0.001) {
    c = (once(d + 0.5 * a, inside, width) - once(d - 0.5 * a, inside, width)) / a;
  } else {
    const far = half, near = 0.5 * (a - b);
    c = (twice(d + far, inside, width) - twice(d + near, inside, width) - twice(d - near, inside, width) + twice(d - far, inside, width)) / (a * b);
  }
  // Cancellation leaves some 1e-12 about the ends; full and empty must be exact for runs to be found.
  return c < 1e-7 ? 0 : c > 1 - 1e-7 ? 1 : c;
}
