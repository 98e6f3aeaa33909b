// A picture seen in perspective: bicubic samples, as many for each px as it covers of the picture.
import { bicubic } from "./bicubic";

/** Samples at most along either way of a px. */
const MOST: i32 = 16;

/** How far apart the samples for a px lie that covers so many px of the picture, all together, as a share of the px. */
// @ts-ignore: decorator
@inline
function spread(covers: f64): f64 {
  // A sample itself is one px wide: what is left of the width is for the distance between them.
  return covers > 1.5 ? sqrt(covers * covers - 1) / covers : 0;
}

/** A sample reaches far enough beyond its own px for half a px more. */
// @ts-ignore: decorator
@inline
function countOf(covers: f64): i32 {
  return covers > 1.5 ? <i32>min<f64>(<f64>MOST, ceil(covers - 0.5)) : 1;
}

/**
 * n premultiplied linear pixels at dst, the first of which has its centre at (x, y), taken from a picture of width x height and multiplied by n f32 of coverage; where that
 * is nought nothing is looked up. Of the thirteen f64 at map the first nine lead from px of the output to those of the picture: (a x + c y + x0) / q, (b x + d y + y0) / q,
 * q = g x + h y + w, in the order a c x0 b d y0 g h w; the rest are the box (left, top, right, bottom) that samples are brought into: two px about it have to be there, and
 * beyond the picture its border repeats. Where q is not above nought there is nothing. A px that covers much of the picture is the mean of samples spread over that (Heckbert,
 * Fundamentals of Texture Mapping and Image Warping, 1989), at most sixteen either way. src is where its first pixel lies, `across` how many pixels it is from row to row.
 */
export function warpRow(
  src: usize,
  across: i32,
  width: i32,
  height: i32,
  dst: usize,
  coverage: usize,
  n: i32,
  map: usize,
  x: f64,
  y: f64,
): void {
  const a = load<f64>(map), c = load<f64>(map, 8), x0 = load<f64>(map, 16);
  const b = load<f64>(map, 24), d = load<f64>(map, 32), y0 = load<f64>(map, 40);
  const g = load<f64>(map, 48), h = load<f64>(map, 56), w = load<f64>(map, 64);
  const left = load<f64>(map, 72), top = load<f64>(map, 80);
  const right = load<f64>(map, 88), bottom = load<f64>(map, 96);
  for (let i = 0; i < n; i++) {
    const px = x + <f64>i;
    const q = g * px + h * y + w;
    const at = dst + (<usize>i << 4);
    const shown = load<f32>(coverage + (<usize>i << 2));
    if (shown == 0 || !(q > 1e-12)) {
      v128.store(at, f32x4.splat(0));
      continue;
    }
    const u = (a * px + c * y + x0) / q;
    const v = (b * px + d * y + y0) / q;
    const ux = (a - g * u) / q, vx = (b - g * v) / q;
    const uy = (c - h * u) / q, vy = (d - h * v) / q;
    const wide = sqrt(ux * ux + vx * vx);
    const tall = sqrt(uy * uy + vy * vy);
    const nx = countOf(wide), ny = countOf(tall);
    const stepX = spread(wide) / <f64>nx, stepY = spread(tall) / <f64>ny;
    let sum = f32x4.splat(0);
    for (let k = 0; k < ny; k++) {
      const down = (<f64>k - <f64>(ny - 1) * 0.5) * stepY;
      for (let j = 0; j < nx; j++) {
        const over = (<f64>j - <f64>(nx - 1) * 0.5) * stepX;
        const su = max<f64>(left, min<f64>(right, u + over * ux + down * uy)) - 0.5;
        const sv = max<f64>(top, min<f64>(bottom, v + over * vx + down * vy)) - 0.5;
        sum = f32x4.add(sum, bicubic(src, across, width, height, su, sv));
      }
    }
    v128.store(at, f32x4.mul(sum, f32x4.splat(shown / <f32>(nx * ny))));
  }
}
