// Alpha of a frame brought nearer to that before where nothing moves.

/**
 * alpha, before: planes of u8 of width px in rows; alpha is changed where both differ by less than near, in a part that begins at (x0, y0) and ends before (x1, y1). planes: addresses of y, u, v of the cells of this frame, then of that
 * before. grain: 16 f32, variance of y by its brightness; perU, perV: half of one over the variances of u and v. Where squares of 3×3 cells differ by `moves` unit variances
 * or more all is new, by `rest` less so much of the old stays as `keep` says.
 */
export function steadyAlpha(
  alpha: usize, before: usize, width: i32, height: i32, planes: usize, grain: usize, perU: f32, perV: f32,
  near: i32, keep: f32, moves: f32, rest: f32, x0: i32, y0: i32, x1: i32, y1: i32,
): void {
  const fy = <usize>load<u32>(planes), fu = <usize>load<u32>(planes, 4), fv = <usize>load<u32>(planes, 8);
  const by = <usize>load<u32>(planes, 12), bu = <usize>load<u32>(planes, 16), bv = <usize>load<u32>(planes, 20);
  const across = (width + 1) >> 1, down = (height + 1) >> 1;
  let told = -1;
  let still: f32 = 0;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const p = <usize>(y * width + x);
      if (x + 16 <= x1 && !v128.any_true(v128.xor(v128.load(alpha + p), v128.load(before + p)))) {
        x += 15;
        continue;
      }
      const a = <i32>load<u8>(alpha + p);
      const d = <i32>load<u8>(before + p) - a;
      if (d == 0 || d >= near || d <= -near) continue;
      const cx = x >> 1, cy = y >> 1;
      if (told != cy * across + cx) {
        told = cy * across + cx;
        let sum: f32 = 0, cells: f32 = 0;
        for (let v = max(0, cy - 1); v <= min(down - 1, cy + 1); v++) {
          for (let u = max(0, cx - 1); u <= min(across - 1, cx + 1); u++) {
            const i = <usize>(v * across + u) << 2;
            const luma = load<f32>(fy + i);
            const dy = luma - load<f32>(by + i), du = load<f32>(fu + i) - load<f32>(bu + i), dv = load<f32>(fv + i) - load<f32>(bv + i);
            const vy = load<f32>(grain + (<usize>max(0, min(15, i32(luma * (16.0 / 272.0)))) << 2));
            sum += (dy * dy) / (2 * vy) + du * du * perU + dv * dv * perV;
            cells += 1;
          }
        }
        still = max(<f32>0, min(<f32>1, (moves - sum / cells) / rest)) * keep;
      }
      store<u8>(alpha + p, <u8>i32(floor<f32>(<f32>a + <f32>d * still + 0.5)));
    }
  }
}
