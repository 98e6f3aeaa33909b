// What it costs to part neighbouring cells.
import { looked, wholes } from "./table";

// @ts-expect-error: decorator
@inline
function apart(a: usize, b: usize, i: usize, j: usize): v128 {
  const here = f32x4.sub(v128.load(a + i), v128.load(b + i));
  const d = f32x4.sub(here, f32x4.sub(v128.load(a + j), v128.load(b + j)));
  return f32x4.mul(d, d);
}

/**
 * fy, fu, fv: planes of the frame; py, pu, pv: of the plate. table: 256 f32, what parting costs by how differently frame and plate change from
 * one cell to the next (codes², times scale). across, down: planes; what is written for the last column and the last row means nothing. Whole registers are read and written
 * past the end.
 */
export function bondPlanes(
  fy: usize, fu: usize, fv: usize, py: usize, pu: usize, pv: usize,
  width: i32, height: i32, scale: f32, table: usize, across: usize, down: usize,
): void {
  const stride = <usize>width << 2, bytes = stride * <usize>height, upper = bytes - stride;
  const s = f32x4.splat(scale);
  for (let i: usize = 0; i < bytes; i += 16) {
    const beside = f32x4.add(apart(fy, py, i, i + 4), f32x4.add(apart(fu, pu, i, i + 4), apart(fv, pv, i, i + 4)));
    v128.store(across + i, looked(table, wholes(f32x4.mul(beside, s), 255)));
    if (i >= upper) continue;
    const j = i + stride;
    const below = f32x4.add(apart(fy, py, i, j), f32x4.add(apart(fu, pu, i, j), apart(fv, pv, i, j)));
    v128.store(down + i, looked(table, wholes(f32x4.mul(below, s), 255)));
  }
}
