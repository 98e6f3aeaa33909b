// How much light of the set is taken away where it shows, and beneath somebody as it is beside them.

/**
 * Where near is nought: what is taken away, by the 1024ths of light left (table, 1025 f32), at out, and 1 at seen; elsewhere 0 at both. Sums of both over 4×4 cells at outs and
 * seens, planes of a quarter of the sides, rounded up.
 */
export function shadeCells(
  near: usize, left: usize, width: i32, height: i32, table: usize, out: usize, seen: usize, outs: usize, seens: usize,
): void {
  const quarter = (width + 3) >> 2;
  const bytes = <usize>(quarter * ((height + 3) >> 2)) << 2;
  memory.fill(outs, 0, bytes);
  memory.fill(seens, 0, bytes);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = <usize>(y * width + x) << 2;
      if (load<f32>(near + i) > 0.001) {
        store<f32>(out + i, 0);
        store<f32>(seen + i, 0);
        continue;
      }
      const s = min(<f32>1, load<f32>(left + i));
      const taken: f32 = s > 0 ? load<f32>(table + (<usize>i32(s * 1024) << 2)) : 1;
      store<f32>(out + i, taken);
      store<f32>(seen + i, 1);
      const q = <usize>((y >> 2) * quarter + (x >> 2)) << 2;
      store<f32>(outs + q, load<f32>(outs + q) + taken);
      store<f32>(seens + q, load<f32>(seens + q) + 1);
    }
  }
}

// @ts-expect-error: decorator
@inline
function held(value: f32, most: i32): f32 {
  return max(<f32>0, min(<f32>most, value));
}

/** Where seen is nought, at out, what a plane of a quarter of the sides says, between its cells by lines. */
export function fillCells(seen: usize, filled: usize, width: i32, height: i32, out: usize): void {
  const across = (width + 3) >> 2, down = (height + 3) >> 2;
  for (let y = 0; y < height; y++) {
    const fy = held((<f32>y - 1.5) * 0.25, down - 1);
    const top = i32(fy), bottom = min(down - 1, top + 1);
    const v = fy - <f32>top;
    for (let x = 0; x < width; x++) {
      const i = <usize>(y * width + x) << 2;
      if (load<f32>(seen + i) != 0) continue;
      const fx = held((<f32>x - 1.5) * 0.25, across - 1);
      const l = i32(fx), r = min(across - 1, l + 1);
      const u = fx - <f32>l;
      const a = load<f32>(filled + (<usize>(top * across + l) << 2)), b = load<f32>(filled + (<usize>(top * across + r) << 2));
      const c = load<f32>(filled + (<usize>(bottom * across + l) << 2)), d = load<f32>(filled + (<usize>(bottom * across + r) << 2));
      store<f32>(out + i, (a + (b - a) * u) * (1 - v) + (c + (d - c) * u) * v);
    }
  }
}
