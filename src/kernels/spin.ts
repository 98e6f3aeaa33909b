// Turning a picture: bicubic samples along a slanted line.
import { bicubic } from "./bicubic";

/**
 * n premultiplied linear pixels at dst, taken from a picture of width x height along the line that begins at (u, v), in
 * px with whole numbers at pixel centres, and goes on by (du, dv). Beyond its border by up to two px the border
 * repeats; farther out there is nothing. src is where its first pixel lies, `across` how many pixels it is from row to
 * row; only the part that is read, up to three px about the line, has to be there.
 */
export function spinRow(
  src: usize,
  across: i32,
  width: i32,
  height: i32,
  dst: usize,
  n: i32,
  u: f64,
  v: f64,
  du: f64,
  dv: f64,
): void {
  for (let i = 0; i < n; i++) {
    const x = u + <f64>i * du;
    const y = v + <f64>i * dv;
    if (x < -2 || y < -2 || x > <f64>width + 1 || y > <f64>height + 1) {
      v128.store(dst + (<usize>i << 4), f32x4.splat(0));
      continue;
    }
    v128.store(dst + (<usize>i << 4), bicubic(src, across, width, height, x, y));
  }
}
