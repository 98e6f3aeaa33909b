// How much light of the set is taken away where it shows, and beneath somebody as it is beside them.
import { total } from "./four";
import { looked, wholes } from "./table";

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
  const close = f32x4.splat(0.001), one = f32x4.splat(1), none = f32x4.splat(0);
  for (let y = 0; y < height; y++) {
    const row = <usize>(y * width) << 2, sums = <usize>((y >> 2) * quarter) << 2;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const i = row + (<usize>x << 2);
      const shows = f32x4.le(v128.load(near + i), close);
      if (!v128.any_true(shows)) {
        v128.store(out + i, none);
        v128.store(seen + i, none);
        continue;
      }
      const s = f32x4.pmin(one, v128.load(left + i));
      const told = looked(table, wholes(f32x4.mul(s, f32x4.splat(1024)), 1024));
      const taken = v128.and(told, shows);
      const sees = v128.and(one, shows);
      v128.store(out + i, taken);
      v128.store(seen + i, sees);
      const q = sums + <usize>x;
      store<f32>(outs + q, load<f32>(outs + q) + total(taken));
      store<f32>(seens + q, load<f32>(seens + q) + total(sees));
    }
    for (; x < width; x++) {
      const i = row + (<usize>x << 2);
      const shows = load<f32>(near + i) <= 0.001;
      const s = min(<f32>1, load<f32>(left + i));
      const taken: f32 = shows ? load<f32>(table + (<usize>i32(max(<f32>0, s) * 1024) << 2)) : 0;
      store<f32>(out + i, taken);
      store<f32>(seen + i, shows ? 1 : 0);
      if (!shows) continue;
      const q = sums + (<usize>(x >> 2) << 2);
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

/** The number at (x, y) of a plane, between its cells by lines. */
function between(plane: usize, across: i32, down: i32, x: f32, y: f32): f32 {
  const fx = held(x, across - 1), fy = held(y, down - 1);
  const l = i32(fx), r = min(across - 1, l + 1), t = i32(fy), b = min(down - 1, t + 1);
  const u = fx - <f32>l, v = fy - <f32>t;
  const top = plane + (<usize>(t * across) << 2), bottom = plane + (<usize>(b * across) << 2);
  const above = load<f32>(top + (<usize>l << 2)), below = load<f32>(bottom + (<usize>l << 2));
  const first = above + (load<f32>(top + (<usize>r << 2)) - above) * u;
  return first * (1 - v) + (below + (load<f32>(bottom + (<usize>r << 2)) - below) * u) * v;
}

/** Where seen is nought, at out, what a plane of a quarter of the sides says, between its cells by lines. */
export function fillCells(seen: usize, filled: usize, width: i32, height: i32, out: usize): void {
  const across = (width + 3) >> 2, down = (height + 3) >> 2;
  const steps = f32x4(0.125, 0.375, 0.625, 0.875), none = f32x4.splat(0);
  for (let y = 0; y < height; y++) {
    const fy = held((<f32>y - 1.5) * 0.25, down - 1);
    const t = i32(fy), b = min(down - 1, t + 1);
    const v = fy - <f32>t;
    const top = filled + (<usize>(t * across) << 2), bottom = filled + (<usize>(b * across) << 2);
    const row = <usize>(y * width) << 2;
    for (let x = 0; x < width; x++) {
      const i = row + (<usize>x << 2);
      // From the middle of one of those cells to that of the next there are four.
      if ((x & 3) == 2 && x + 4 <= width && x + 2 < across << 2) {
        const sees = f32x4.ne(v128.load(seen + i), none);
        if (!i32x4.all_true(sees)) {
          const q = <usize>((x - 2) >> 2) << 2;
          const l = load<f32>(top + q) * (1 - v) + load<f32>(bottom + q) * v;
          const r = load<f32>(top + q + 4) * (1 - v) + load<f32>(bottom + q + 4) * v;
          const told = f32x4.add(f32x4.splat(l), f32x4.mul(f32x4.splat(r - l), steps));
          v128.store(out + i, v128.bitselect(v128.load(out + i), told, sees));
        }
        x += 3;
      } else if (load<f32>(seen + i) == 0) {
        store<f32>(out + i, between(filled, across, down, (<f32>x - 1.5) * 0.25, fy));
      }
    }
  }
}
