// What it costs to part neighbouring cells.

// @ts-expect-error: decorator
@inline
function apart(a: usize, b: usize, i: usize, j: usize): f32 {
  const d = load<f32>(a + i) - load<f32>(b + i) - load<f32>(a + j) + load<f32>(b + j);
  return d * d;
}

/**
 * fy, fu, fv: planes of the frame; py, pu, pv: of the plate. table: 256 f32, what parting costs by how differently frame and plate change from
 * one cell to the next (codes², times scale). across, down: planes.
 */
export function bondPlanes(
  fy: usize, fu: usize, fv: usize, py: usize, pu: usize, pv: usize,
  width: i32, height: i32, scale: f32, table: usize, across: usize, down: usize,
): void {
  const stride = <usize>width << 2;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = <usize>y * stride + (<usize>x << 2);
      if (x < width - 1) {
        const far = (apart(fy, py, i, i + 4) + apart(fu, pu, i, i + 4) + apart(fv, pv, i, i + 4)) * scale;
        store<f32>(across + i, load<f32>(table + (<usize>i32(min(far, <f32>255)) << 2)));
      }
      if (y < height - 1) {
        const far = (apart(fy, py, i, i + stride) + apart(fu, pu, i, i + stride) + apart(fv, pv, i, i + stride)) * scale;
        store<f32>(down + i, load<f32>(table + (<usize>i32(min(far, <f32>255)) << 2)));
      }
    }
  }
}
