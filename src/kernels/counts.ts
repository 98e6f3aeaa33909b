// How often a frame differs from its plate by how much.
import { plane } from "./table";

/** Counts in so many parts of a code up to `largest`, and how many bins of brightness over so many codes there are. */
const PARTS: f32 = 16;
const BINS = 16;
const CODES: f32 = 272;

// @ts-expect-error: decorator
@inline
function count(counts: usize, value: f32, last: i32): void {
  const at = counts + (<usize>min(last, i32(value * PARTS)) << 2);
  store<u32>(at, load<u32>(at) + 1);
}

/**
 * Counts differences of every `step`th cell either way where nobody is and the brightness does not differ by more than `largest` codes. planes: addresses of the frame's y, u, v, the plate's y, u, v, its
 * squared slopes, and of what is known to be somebody, 0..1, or nought. out, u32, nought at first: tables of `largest` · 16 + 1, of y by brightness (16), of u, of v, and, as hundredths of the slope where that is steep, of y, and of u and v.
 */
export function countNoise(planes: usize, width: i32, height: i32, step: i32, largest: i32, out: usize): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5), slopes = plane(planes, 6), busy = plane(planes, 7);
  const last = largest * i32(PARTS), table = <usize>(last + 1) << 2;
  const us = out + <usize>BINS * table, vs = us + table, steep = vs + table, steepC = steep + table;
  for (let y = 1; y < height; y += step) {
    for (let x = 1; x < width; x += step) {
      const i = <usize>(y * width + x) << 2;
      if (busy != 0 && load<f32>(busy + i) > 0.02) continue;
      const plate = load<f32>(py + i), d = abs(load<f32>(fy + i) - plate);
      if (!(d <= <f32>largest)) continue;
      const du = abs(load<f32>(fu + i) - load<f32>(pu + i)), dv = abs(load<f32>(fv + i) - load<f32>(pv + i));
      const slope = load<f32>(slopes + i);
      if (slope < 9) {
        count(out + <usize>max(0, min(BINS - 1, i32(plate * (<f32>BINS / CODES)))) * table, d, last);
        count(us, du, last);
        count(vs, dv, last);
      } else if (slope > 36) {
        const share: f32 = <f32>100 / sqrt<f32>(slope);
        count(steep, d * share, last);
        count(steepC, du * share, last);
        count(steepC, dv * share, last);
      }
    }
  }
}
