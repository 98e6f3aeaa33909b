// In which squares of cells a frame differs from its plate by more than noise.
import { over, total } from "./four";
import { plane } from "./table";

/**
 * At out, f32, of each square of `block`² cells: the mean of its squared differences, in variances; less than nought where it is only shaded, and nought where it is neither. planes: addresses of the frame's y, u, v, the plate's y, u, v, its squared slopes; a table of variances by brightness (16). Every
 * second row is looked at. numbers: f32 of variance of u and of v, shares of the slope in the variance of y and of u and v, squares of a cell at most, their mean from which on a square
 * differs, and share of its light that is missing in shadow. block is a multiple of four.
 */
export function differSquares(planes: usize, width: i32, height: i32, block: i32, numbers: usize, out: usize): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5);
  const slopes = plane(planes, 6), grain = plane(planes, 7);
  const perU = f32x4.splat(<f32>1 / load<f32>(numbers)), perV = f32x4.splat(<f32>1 / load<f32>(numbers, 4));
  const steep = v128.load32_splat(numbers, 8), steepC = f32x4.splat(load<f32>(numbers, 12) / load<f32>(numbers)), most = v128.load32_splat(numbers, 16);
  const differs = load<f32>(numbers, 20), missing = load<f32>(numbers, 24);
  const lanes = i32x4(0, 1, 2, 3);
  let at = out;
  for (let top = 0; top < height; top += block) {
    const bottom = min(height, top + block);
    for (let left = 0; left < width; left += block) {
      const right = min(width, left + block);
      let squares = f32x4.splat(0), taken = squares, lit = squares, spread = squares;
      const middle = load<f32>(py + (<usize>(((top + bottom) >> 1) * width + ((left + right) >> 1)) << 2));
      const own = v128.load32_splat(grain + (<usize>max(0, min(15, i32(middle * (16.0 / 272.0)))) << 2));
      let count = 0;
      for (let y = min(top + 1, bottom - 1); y < bottom; y += 2) {
        for (let x = left; x < right; x += 4) {
          const i = <usize>(y * width + x) << 2;
          const p = v128.load(py + i), d = f32x4.sub(v128.load(fy + i), p), slope = v128.load(slopes + i);
          const vy = f32x4.add(own, f32x4.mul(steep, slope));
          const du = f32x4.sub(v128.load(fu + i), v128.load(pu + i)), dv = f32x4.sub(v128.load(fv + i), v128.load(pv + i));
          const colour = f32x4.add(f32x4.mul(du, f32x4.mul(du, perU)), f32x4.mul(dv, f32x4.mul(dv, perV)));
          // Where the plate has edges, its colours vary as well.
          const all = f32x4.add(over(d, vy), f32x4.div(colour, f32x4.add(f32x4.splat(1), f32x4.mul(steepC, slope))));
          const there = i32x4.lt_s(i32x4.add(i32x4.splat(x), lanes), i32x4.splat(right));
          squares = f32x4.add(squares, v128.and(there, f32x4.pmin(most, all)));
          taken = f32x4.sub(taken, v128.and(there, d));
          lit = f32x4.add(lit, v128.and(there, p));
          spread = f32x4.add(spread, v128.and(there, vy));
          count += min(4, right - x);
        }
      }
      const dark = total(taken);
      // Neighbours are off together, by the codec: sums vary by more than they would else.
      const isShaded = dark > missing * total(lit) && dark * dark > 16 * total(spread);
      const mean = total(squares) / <f32>count;
      store<f32>(at, mean > differs ? mean : isShaded ? -1 : 0);
      at += 4;
    }
  }
}
