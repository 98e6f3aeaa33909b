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
  return load<f32>(table + (<usize>i32(min(squares * 4, <f32>4095)) << 2));
}

// @ts-expect-error: decorator
@inline
function bin(value: f32, wide: f32): i32 {
  return max(0, min(23, i32(value * wide)));
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
  const rows = aside * width;
  let x = 0;
  for (let c = 0; c < n; c++) {
    const i = <usize>c << 2;
    const y = load<f32>(py + i), u = load<f32>(pu + i), v = load<f32>(pv + i);
    const ay = load<f32>(fy + i), au = load<f32>(fu + i), av = load<f32>(fv + i);
    const slope = load<f32>(slopes + i);
    const vy = load<f32>(grain + (<usize>max(0, min(15, i32(y * (16.0 / 272.0)))) << 2)) + steep * slope;
    const vu = nu + steepC * slope, vv = nv + steepC * slope;
    const dy = ay - y, du = au - u, dv = av - v;
    let cost = costOf(costs, (dy * dy) / vy + (du * du) / vu + (dv * dv) / vv);
    const own = load<f32>(local + i);
    let light = own;
    if (cost > well) {
      for (let k = 0; k < 6; k++) {
        let s = usual;
        if (k == 1) s = own;
        else if (k == 2) s = load<f32>(local + (<usize>(x >= aside ? c - aside : c) << 2));
        else if (k == 3) s = load<f32>(local + (<usize>(x < width - aside ? c + aside : c) << 2));
        else if (k == 4) s = load<f32>(local + (<usize>(c >= rows ? c - rows : c) << 2));
        else if (k == 5) s = load<f32>(local + (<usize>(c + rows < n ? c + rows : c) << 2));
        if (s >= lit) continue;
        const sy = ay - s * y, su = au - s * u, sv = av - s * v;
        const t = tinted * (1 - s) * y;
        const tint = t * t;
        const depth = s < deep ? (deep - s) * deeper : 0;
        const shaded = costOf(costs, (sy * sy) / (vy + tint) + (su * su) / (vu + tint) + (sv * sv) / (vv + tint)) + unlikely + depth;
        if (shaded >= cost) continue;
        cost = shaded;
        light = s;
      }
    }
    store<f32>(left + i, light);
    const colour = (bin(ay, 1.0 / 12.0) * 24 + bin(au + 72, 1.0 / 6.0)) * 24 + bin(av + 72, 1.0 / 6.0);
    const known = load<f32>(colours + (<usize>colour << 2));
    const said = cost - load<f32>(somebody + (<usize>i32(min(vy * 4, <f32>511)) << 2)) + known + bias;
    store<f32>(odds + i, max(-most, min(most, said)));
    x++;
    if (x == width) x = 0;
  }
}
