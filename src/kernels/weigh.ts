// Log odds of cells to be somebody: how badly the plate, and the plate in shadow, explain them.

// @ts-expect-error: decorator
@inline
function plane(table: usize, i: i32): usize {
  return load<u32>(table + (<usize>i << 2));
}

/** f·p and p·p, each the sum over y, u and v, at cross and square. planes: those of frame and plate, as `weighCells` has them. */
export function crossPlanes(planes: usize, n: i32, cross: usize, square: usize): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5);
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const y = v128.load(py + i), u = v128.load(pu + i), v = v128.load(pv + i);
    const fp = f32x4.add(f32x4.mul(v128.load(fy + i), y), f32x4.add(f32x4.mul(v128.load(fu + i), u), f32x4.mul(v128.load(fv + i), v)));
    const pp = f32x4.add(f32x4.mul(y, y), f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v)));
    v128.store(cross + i, fp);
    v128.store(square + i, pp);
  }
}

/** cross / max(1, square), at cross. */
export function ratioPlane(cross: usize, square: usize, n: i32): void {
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    v128.store(cross + i, f32x4.div(v128.load(cross + i), f32x4.max(f32x4.splat(1), v128.load(square + i))));
  }
}

// @ts-expect-error: decorator
@inline
function costOf(table: usize, squares: f32): f32 {
  return load<f32>(table + (<usize>i32(squares < 1023.5 ? squares * 4 : <f32>4095) << 2));
}

/** Of four cells: squares, variances of y, u and v, and bins of colour, as they are told four at a time. */
const FOUR: usize = memory.data(5 * 16, 16);

// @ts-expect-error: decorator
@inline
function bins(value: v128, wide: f32, most: i32): v128 {
  const found = i32x4.trunc_sat_f32x4_s(f32x4.mul(value, f32x4.splat(wide)));
  return i32x4.max_s(i32x4.splat(0), i32x4.min_s(i32x4.splat(most), found));
}

// @ts-expect-error: decorator
@inline
function looked(table: usize, at: v128): v128 {
  const one = v128.load32_zero(table + (<usize>i32x4.extract_lane(at, 0) << 2));
  const two = v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 1) << 2), one, 1);
  const three = v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 2) << 2), two, 2);
  return v128.load32_lane(table + (<usize>i32x4.extract_lane(at, 3) << 2), three, 3);
}

// @ts-expect-error: decorator
@inline
function over(d: v128, variance: v128): v128 {
  return f32x4.div(f32x4.mul(d, d), variance);
}

/**
 * planes: addresses of the frame's y, u, v, the plate's y, u, v, the plate's squared slopes, how much light is left about each cell; odds and
 * light left, which are written; tables of costs by quarters of squares (4096), of what somebody costs by quarters of variance (512), of somebody's colours
 * (24³), of variances by brightness (16). numbers: f32 of variance of u and of v, shares of the slope in the variance of y and of u and v, light that shadows leave
 * as a rule, log odds to add, what a shadow costs, from where it is deep and what that costs, its tint, the light of none, a cost that is small
 * enough not to look for shadow, and log odds at most. aside: cells to either side whose shadow may be that of a cell, too.
 */
export function weighCells(planes: usize, n: i32, width: i32, numbers: usize, aside: i32): void {
  const fy = plane(planes, 0), fu = plane(planes, 1), fv = plane(planes, 2);
  const py = plane(planes, 3), pu = plane(planes, 4), pv = plane(planes, 5);
  const slopes = plane(planes, 6), local = plane(planes, 7), odds = plane(planes, 8), left = plane(planes, 9);
  const costs = plane(planes, 10), somebody = plane(planes, 11), colours = plane(planes, 12), grain = plane(planes, 13);
  const nu = load<f32>(numbers), nv = load<f32>(numbers + 4);
  const steep = load<f32>(numbers + 8), steepC = load<f32>(numbers + 12);
  const usual = load<f32>(numbers + 16), bias = load<f32>(numbers + 20), unlikely = load<f32>(numbers + 24);
  const deep = load<f32>(numbers + 28), deeper = load<f32>(numbers + 32), tinted = load<f32>(numbers + 36);
  const lit = load<f32>(numbers + 40), well = load<f32>(numbers + 44), most = load<f32>(numbers + 48);
  const above = aside * width;
  const su = f32x4.splat(nu), sv = f32x4.splat(nv), sy = f32x4.splat(steep), sc = f32x4.splat(steepC);
  const lift = f32x4.splat(72);
  let x = 0;
  for (let c = 0; c < n; c++) {
    const i = <usize>c << 2;
    const lane = <usize>(c & 3) << 2;
    if (lane == 0) {
      const y = v128.load(py + i), ay = v128.load(fy + i), au = v128.load(fu + i), av = v128.load(fv + i);
      const slope = v128.load(slopes + i);
      const vy = f32x4.add(looked(grain, bins(y, 16.0 / 272.0, 15)), f32x4.mul(sy, slope));
      const vu = f32x4.add(su, f32x4.mul(sc, slope)), vv = f32x4.add(sv, f32x4.mul(sc, slope));
      const du = f32x4.sub(au, v128.load(pu + i)), dv = f32x4.sub(av, v128.load(pv + i));
      v128.store(FOUR, f32x4.add(over(f32x4.sub(ay, y), vy), f32x4.add(over(du, vu), over(dv, vv))));
      v128.store(FOUR, vy, 16);
      v128.store(FOUR, vu, 32);
      v128.store(FOUR, vv, 48);
      const rows = i32x4.mul(bins(ay, 1.0 / 12.0, 23), i32x4.splat(24));
      const columns = i32x4.mul(i32x4.add(rows, bins(f32x4.add(au, lift), 1.0 / 6.0, 23)), i32x4.splat(24));
      v128.store(FOUR, i32x4.add(columns, bins(f32x4.add(av, lift), 1.0 / 6.0, 23)), 64);
    }
    const vy = load<f32>(FOUR + lane, 16);
    let cost = costOf(costs, load<f32>(FOUR + lane));
    const own = load<f32>(local + i);
    let light = own;
    if (cost > well) {
      const y = load<f32>(py + i), u = load<f32>(pu + i), v = load<f32>(pv + i);
      const ay = load<f32>(fy + i), au = load<f32>(fu + i), av = load<f32>(fv + i);
      const vu = load<f32>(FOUR + lane, 32), vv = load<f32>(FOUR + lane, 48);
      for (let k = 0; k < 6; k++) {
        let s = usual;
        if (k == 1) s = own;
        else if (k == 2) s = load<f32>(local + (<usize>(x >= aside ? c - aside : c) << 2));
        else if (k == 3) s = load<f32>(local + (<usize>(x < width - aside ? c + aside : c) << 2));
        else if (k == 4) s = load<f32>(local + (<usize>(c >= above ? c - above : c) << 2));
        else if (k == 5) s = load<f32>(local + (<usize>(c + above < n ? c + above : c) << 2));
        if (s >= lit) continue;
        const ey = ay - s * y, eu = au - s * u, ev = av - s * v;
        const t = tinted * (1 - s) * y;
        const tint = t * t;
        const depth = s < deep ? (deep - s) * deeper : 0;
        const shaded = costOf(costs, (ey * ey) / (vy + tint) + (eu * eu) / (vu + tint) + (ev * ev) / (vv + tint)) + unlikely + depth;
        if (shaded >= cost) continue;
        cost = shaded;
        light = s;
      }
    }
    store<f32>(left + i, light);
    const known = load<f32>(colours + (<usize>load<i32>(FOUR + lane, 64) << 2));
    const said = cost - load<f32>(somebody + (<usize>i32(vy < 127.5 ? vy * 4 : <f32>511) << 2)) + known + bias;
    store<f32>(odds + i, said > most ? most : said < -most ? -most : said);
    x++;
    if (x == width) x = 0;
  }
}

/** Counts the colours of cells that are surely somebody, in the bins of `weighCells`; how many those are. counts: 24³ f32. */
export function countColours(y: usize, u: usize, v: usize, told: usize, n: i32, sure: f32, counts: usize): i32 {
  const lift = f32x4.splat(72), least = f32x4.splat(sure);
  let all = 0;
  for (let c = 0; c < n; c += 4) {
    const i = <usize>c << 2;
    const is = i32x4.bitmask(f32x4.gt(v128.load(told + i), least));
    if (is == 0) continue;
    const rows = i32x4.mul(bins(v128.load(y + i), 1.0 / 12.0, 23), i32x4.splat(24));
    const columns = i32x4.mul(i32x4.add(rows, bins(f32x4.add(v128.load(u + i), lift), 1.0 / 6.0, 23)), i32x4.splat(24));
    v128.store(FOUR, i32x4.add(columns, bins(f32x4.add(v128.load(v + i), lift), 1.0 / 6.0, 23)), 64);
    for (let lane = 0; lane < 4 && c + lane < n; lane++) {
      if (((is >> lane) & 1) == 0) continue;
      const at = counts + (<usize>load<i32>(FOUR + (<usize>lane << 2), 64) << 2);
      store<f32>(at, load<f32>(at) + 1);
      all++;
    }
  }
  return all;
}

/** Adds to odds by how much likelier colours are of one table of `weighCells` than of another, within `most` either way. */
export function weighColours(y: usize, u: usize, v: usize, n: i32, own: usize, other: usize, most: f32, odds: usize): void {
  const lift = f32x4.splat(72), limit = f32x4.splat(most);
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const rows = i32x4.mul(bins(v128.load(y + i), 1.0 / 12.0, 23), i32x4.splat(24));
    const columns = i32x4.mul(i32x4.add(rows, bins(f32x4.add(v128.load(u + i), lift), 1.0 / 6.0, 23)), i32x4.splat(24));
    const at = i32x4.add(columns, bins(f32x4.add(v128.load(v + i), lift), 1.0 / 6.0, 23));
    const said = f32x4.sub(looked(own, at), looked(other, at));
    v128.store(odds + i, f32x4.add(v128.load(odds + i), f32x4.max(f32x4.neg(limit), f32x4.min(limit, said))));
  }
}
