// Log odds of cells to be somebody: how badly the plate, and the plate in shadow, explain them.
import { over } from "./four";
import { looked, plane, wholes } from "./table";

/** The variance of y of four cells: that of noise by brightness, and what slopes of the plate add. */
// @ts-expect-error: decorator
@inline
function varianceOf(grain: usize, y: v128, steep: v128, slope: v128): v128 {
  return f32x4.add(looked(grain, wholes(f32x4.mul(y, f32x4.splat(16.0 / 272.0)), 15)), f32x4.mul(steep, slope));
}

/** f·p, p·p and f·f, each the sum over y, u and v, at cross, square and power, the last less as many times its variance as a shadow may be uneven. planes, numbers: as `weighCells` has them. */
export function crossPlanes(planes: usize, n: i32, numbers: usize, cross: usize, square: usize, power: usize): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5), slopes = plane(planes, 6), grain = plane(planes, 13);
  const chroma = f32x4.add(v128.load32_splat(numbers), v128.load32_splat(numbers, 4)), steepC = v128.load32_splat(numbers, 12);
  const steep = f32x4.add(v128.load32_splat(numbers, 8), f32x4.add(steepC, steepC)), even = v128.load32_splat(numbers, 52);
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const y = v128.load(py + i), u = v128.load(pu + i), v = v128.load(pv + i);
    const ay = v128.load(fy + i), au = v128.load(fu + i), av = v128.load(fv + i);
    const variance = f32x4.add(chroma, varianceOf(grain, y, steep, v128.load(slopes + i)));
    const ff = f32x4.add(f32x4.mul(ay, ay), f32x4.add(f32x4.mul(au, au), f32x4.mul(av, av)));
    v128.store(cross + i, f32x4.add(f32x4.mul(ay, y), f32x4.add(f32x4.mul(au, u), f32x4.mul(av, v))));
    v128.store(square + i, f32x4.add(f32x4.mul(y, y), f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v))));
    v128.store(power + i, f32x4.sub(ff, f32x4.mul(even, variance)));
  }
}

/** Of the means of such planes: how much light is left, cross / max(1, square), at cross; and by how much more than it may the frame differs from the plate in that light, at power. */
export function ratioPlane(cross: usize, square: usize, power: usize, n: i32): void {
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const fp = v128.load(cross + i), ratio = f32x4.div(fp, f32x4.max(f32x4.splat(1), v128.load(square + i)));
    v128.store(cross + i, ratio);
    v128.store(power + i, f32x4.sub(v128.load(power + i), f32x4.mul(ratio, fp)));
  }
}

/** Of four cells: their bins of colour. */
const FOUR: usize = memory.data(16, 16);

/** In which bin of colours cells lie: 24 of y, of u and of v. */
// @ts-expect-error: decorator
@inline
function coloursAt(y: v128, u: v128, v: v128): v128 {
  const lift = f32x4.splat(72), across = i32x4.splat(24);
  const rows = i32x4.mul(wholes(f32x4.mul(y, f32x4.splat(1.0 / 12.0)), 23), across);
  const columns = i32x4.mul(i32x4.add(rows, wholes(f32x4.mul(f32x4.add(u, lift), f32x4.splat(1.0 / 6.0)), 23)), across);
  return i32x4.add(columns, wholes(f32x4.mul(f32x4.add(v, lift), f32x4.splat(1.0 / 6.0)), 23));
}

/** Numbers of four cells that lie `by` cells after c..c+3, or those of the cells themselves where `there` is not. Nothing outside of 0..n is read. */
// @ts-expect-error: decorator
@inline
function beside(plane: usize, own: v128, there: v128, c: i32, by: i32, n: i32): v128 {
  const first = c + by;
  if (first >= 0 && first + 4 <= n) return v128.bitselect(v128.load(plane + (<usize>first << 2)), own, there);
  let found = own;
  if (i32x4.extract_lane(there, 0)) found = f32x4.replace_lane(found, 0, load<f32>(plane + (<usize>first << 2)));
  if (i32x4.extract_lane(there, 1)) found = f32x4.replace_lane(found, 1, load<f32>(plane + (<usize>first << 2), 4));
  if (i32x4.extract_lane(there, 2)) found = f32x4.replace_lane(found, 2, load<f32>(plane + (<usize>first << 2), 8));
  if (i32x4.extract_lane(there, 3)) found = f32x4.replace_lane(found, 3, load<f32>(plane + (<usize>first << 2), 12));
  return found;
}

/**
 * planes: addresses of the frame's y, u, v, the plate's y, u, v, the plate's squared slopes, how much light is left about each cell; odds and
 * light left, which are written, whole registers of them; tables of costs by quarters of squares (4096), of what somebody costs by quarters of variance (512), of somebody's colours
 * (24³), of variances by brightness (16); by how much more than it may the frame differs from the plate in that light, about each cell; the light that is left as far as it
 * is so evenly, which is written, too. numbers: f32 of variance of u and of v, shares of the slope in the variance of y and of u and v, light that shadows leave
 * as a rule, log odds to add, what a shadow costs, from where it is deep and what that costs, its tint, the light of none, a cost that is small
 * enough not to look for shadow, log odds at most, by how many times its noise a shadow may be uneven, and how quickly less is believed of its light beyond that. aside: cells to either side whose
 * shadow may be that of a cell, too.
 */
export function weighCells(planes: usize, n: i32, width: i32, numbers: usize, aside: i32): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5);
  const slopes = plane(planes, 6), local = plane(planes, 7), odds = plane(planes, 8), left = plane(planes, 9);
  const costs = plane(planes, 10), somebody = plane(planes, 11), colours = plane(planes, 12), grain = plane(planes, 13), power = plane(planes, 14), evenly = plane(planes, 15);
  const nu = v128.load32_splat(numbers), nv = v128.load32_splat(numbers, 4);
  const steep = v128.load32_splat(numbers, 8), steepC = v128.load32_splat(numbers, 12);
  const usual = v128.load32_splat(numbers, 16), bias = v128.load32_splat(numbers, 20), unlikely = v128.load32_splat(numbers, 24);
  const deep = v128.load32_splat(numbers, 28), deeper = v128.load32_splat(numbers, 32), tinted = v128.load32_splat(numbers, 36);
  const lit = v128.load32_splat(numbers, 40), well = v128.load32_splat(numbers, 44), most = v128.load32_splat(numbers, 48);
  const even = v128.load32_splat(numbers, 52), fades = v128.load32_splat(numbers, 56);
  const lowest = f32x4.neg(most), none = f32x4.splat(0), one = f32x4.splat(1);
  const lanes = i32x4(0, 1, 2, 3), all = i32x4.splat(n), across = i32x4.splat(width);
  const above = aside * width;
  let x = 0;
  for (let c = 0; c < n; c += 4) {
    const i = <usize>c << 2;
    const y = v128.load(py + i), u = v128.load(pu + i), v = v128.load(pv + i);
    const ay = v128.load(fy + i), au = v128.load(fu + i), av = v128.load(fv + i);
    const slope = v128.load(slopes + i);
    const vy = varianceOf(grain, y, steep, slope);
    const vu = f32x4.add(nu, f32x4.mul(steepC, slope)), vv = f32x4.add(nv, f32x4.mul(steepC, slope));
    const squares = f32x4.add(over(f32x4.sub(ay, y), vy), f32x4.add(over(f32x4.sub(au, u), vu), over(f32x4.sub(av, v), vv)));
    let cost = looked(costs, wholes(f32x4.mul(squares, f32x4.splat(4)), 4095));
    const own = v128.load(local + i);
    let light = own, uneven = none, tints = none;
    const doubtful = f32x4.gt(cost, well);
    if (v128.any_true(doubtful)) {
      const cells = i32x4.add(i32x4.splat(c), lanes);
      let columns = i32x4.add(i32x4.splat(x), lanes);
      while (v128.any_true(i32x4.ge_s(columns, across))) columns = i32x4.sub(columns, v128.and(i32x4.ge_s(columns, across), across));
      // As even as a shadow is anywhere about, so is it here: beside somebody's border nothing is.
      uneven = v128.load(power + i);
      for (let k = 0; k < 6; k++) {
        let s = own;
        if (k == 5) s = usual;
        else if (k > 0) {
          const by = k == 1 ? -aside : k == 2 ? aside : k == 3 ? -above : above;
          let there = i32x4.ge_s(columns, i32x4.splat(aside));
          if (k == 2) there = i32x4.lt_s(columns, i32x4.splat(width - aside));
          else if (k == 3) there = i32x4.ge_s(cells, i32x4.splat(above));
          else if (k == 4) there = i32x4.lt_s(cells, i32x4.sub(all, i32x4.splat(above)));
          s = beside(local, own, there, c, by, n);
          uneven = f32x4.pmin(uneven, beside(power, uneven, there, c, by, n));
        }
        const may = v128.and(doubtful, f32x4.lt(s, lit));
        if (!v128.any_true(may)) continue;
        const t = f32x4.mul(f32x4.mul(tinted, f32x4.sub(one, s)), y);
        const tint = f32x4.mul(t, t);
        const depth = f32x4.mul(f32x4.pmax(none, f32x4.sub(deep, s)), deeper);
        const ey = over(f32x4.sub(ay, f32x4.mul(s, y)), f32x4.add(vy, tint));
        const eu = over(f32x4.sub(au, f32x4.mul(s, u)), f32x4.add(vu, tint));
        const ev = over(f32x4.sub(av, f32x4.mul(s, v)), f32x4.add(vv, tint));
        const looks = looked(costs, wholes(f32x4.mul(f32x4.add(f32x4.add(ey, eu), ev), f32x4.splat(4)), 4095));
        const shaded = f32x4.add(f32x4.add(looks, unlikely), depth);
        const better = v128.and(may, f32x4.lt(shaded, cost));
        cost = v128.bitselect(shaded, cost, better);
        light = v128.bitselect(s, light, better);
        tints = v128.bitselect(tint, tints, better);
      }
    }
    // A shadow that changes from px to px is none.
    const per = f32x4.mul(even, f32x4.add(vy, f32x4.add(vu, vv)));
    const faded = f32x4.pmax(none, f32x4.pmin(one, f32x4.div(f32x4.mul(fades, f32x4.sub(uneven, f32x4.mul(even, tints))), per)));
    v128.store(left + i, light);
    v128.store(evenly + i, f32x4.add(light, f32x4.mul(f32x4.sub(one, light), faded)));
    const known = looked(colours, coloursAt(ay, au, av));
    const said = f32x4.add(f32x4.add(f32x4.sub(cost, looked(somebody, wholes(f32x4.mul(vy, f32x4.splat(4)), 511))), known), bias);
    v128.store(odds + i, f32x4.pmax(lowest, f32x4.pmin(most, said)));
    x += 4;
    while (x >= width) x -= width;
  }
}

/** Counts the colours of cells that are surely somebody, in the bins of `weighCells`; how many those are. counts: 24³ f32. */
export function countColours(y: usize, u: usize, v: usize, told: usize, n: i32, sure: f32, counts: usize): i32 {
  const least = f32x4.splat(sure);
  let all = 0;
  for (let c = 0; c < n; c += 4) {
    const i = <usize>c << 2;
    const is = i32x4.bitmask(f32x4.gt(v128.load(told + i), least));
    if (is == 0) continue;
    v128.store(FOUR, coloursAt(v128.load(y + i), v128.load(u + i), v128.load(v + i)));
    for (let lane = 0; lane < 4 && c + lane < n; lane++) {
      if (((is >> lane) & 1) == 0) continue;
      const at = counts + (<usize>load<i32>(FOUR + (<usize>lane << 2)) << 2);
      store<f32>(at, load<f32>(at) + 1);
      all++;
    }
  }
  return all;
}

/** Adds to odds by how much likelier colours are of one table of `weighCells` than of another, within `most` either way. */
export function weighColours(y: usize, u: usize, v: usize, n: i32, own: usize, other: usize, most: f32, odds: usize): void {
  const limit = f32x4.splat(most);
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const at = coloursAt(v128.load(y + i), v128.load(u + i), v128.load(v + i));
    const said = f32x4.sub(looked(own, at), looked(other, at));
    v128.store(odds + i, f32x4.add(v128.load(odds + i), f32x4.max(f32x4.neg(limit), f32x4.min(limit, said))));
  }
}
