// Labels of cells -> alpha of px: near the border by projection in linear light, elsewhere all or nothing.

const FOUND: usize = memory.data(4 * 4 * 16, 16);
const RED_V: f32 = 1.5748, BLUE_U: f32 = 1.8556;

// @ts-ignore: decorator
@inline
function plane(table: usize, i: i32): usize {
  return load<u32>(table + (<usize>i << 2));
}

// @ts-ignore: decorator
@inline
function at(plane: usize, i: i32): f32 {
  return load<f32>(plane + (<usize>i << 2));
}

/** Light of a lifted code, by quarters. */
// @ts-ignore: decorator
@inline
function lightOf(table: usize, code: f32): f32 {
  return at(table, max(0, min(2044, i32(code * 4 + 0.5))));
}

/** The square of how much light one code more is. */
// @ts-ignore: decorator
@inline
function perCode(light: f32, code: f32): f32 {
  const d: f32 = (<f32>2.4 * light) / (code > 20 ? code : <f32>20);
  return d * d + <f32>0.0001;
}

/** Of squared standard deviations, by sixteenths. */
// @ts-ignore: decorator
@inline
function likely(table: usize, squares: f32): f32 {
  // Squares of what is next to impossible may be larger than any whole number.
  return at(table, squares < 63.9 ? i32(squares * 16) : 1023);
}

/** Codes of light by its square root in 1024ths: (L / 255)^(1 / 2.4) lifted. */
const CODES: usize = memory.data(1025 * 4, 16);
let areTold = false;

function tellCodes(): void {
  if (areTold) return;
  for (let i = 0; i <= 1024; i++) {
    const root = <f32>i / 1024;
    store<f32>(CODES + (<usize>i << 2), Mathf.pow(root * root, 1.0 / 2.4) * 269.025 - 14.025);
  }
  areTold = true;
}

/** The code of light 0..255. */
// @ts-ignore: decorator
@inline
function codeOf(light: f32): f32 {
  const share: f32 = light > 0 ? (light < 255 ? light * (1.0 / 255.0) : <f32>1) : 0;
  return at(CODES, i32(sqrt<f32>(share) * 1024 + 0.5));
}

// @ts-ignore: decorator
@inline
function byte(code: f32): u32 {
  return max(0, min(255, i32(code + 0.5)));
}

/** A share that is 0 at `low` and 1 at `high`, straight from `bend`, which it keeps, to both. */
// @ts-ignore: decorator
@inline
function drawnOut(a: f32, low: f32, bend: f32, high: f32): f32 {
  if (a <= low) return 0;
  if (a >= high) return 1;
  return a < bend ? ((a - low) * bend) / (bend - low) : bend + ((a - bend) * (<f32>1 - bend)) / (high - bend);
}

/** Remembers a colour that somebody may have: light of luma, and what red and blue differ from it. */
function remember(light: usize, y: f32, u: f32, v: f32, pure: f32, found: i32): void {
  const g = lightOf(light, y);
  const to = FOUND + (<usize>found << 4);
  // Colours near the border are mixed with the set's themselves.
  store<f32>(to, pure * pure * pure * pure + <f32>0.01, 12);
  store<f32>(to, lightOf(light, y + RED_V * v) - g);
  store<f32>(to + 4, g);
  store<f32>(to + 8, lightOf(light, y + BLUE_U * u) - g);
}

/**
 * tables: addresses of the frame's y, u, v and luma, the plate's, its squared slopes; labels (1 somebody), their means over a few cells outside and inside
 * of the border, a plane that rises inwards; shares and light of the set that shows near by, light left of each cell; variances by
 * brightness (16), light of codes (2048), likelihoods (1024), how far in colours are looked up (cells, f32); alpha, which is written, and somebody's own colour (u32 codes, with
 * the alpha that it was told with) of px that alpha is neither nought nor all of, which is written there alone.
 * numbers: f32 of the variance of u, the share of the slope in that of y, noise of a px in that of a cell, variance of colour in that of luma, by how much
 * somebody's colour varies, how loosely alpha is expected, codes of what is thin, what an unknown colour costs, how little is left of what is seen for a colour to be told by itself, and alpha that is none, that stays, and that is all. fars: how many. Only cells from `fromX` and
 * `fromY` to before `toX` and `toY` are told of; elsewhere nobody is.
 */
export function softenCells(
  tables: usize, numbers: usize, width: i32, height: i32, fullWidth: i32, fullHeight: i32, fars: i32,
  fromX: i32, fromY: i32, toX: i32, toY: i32,
): void {
  const fy = plane(tables, 0), fu = plane(tables, 1), fv = plane(tables, 2), fl = plane(tables, 3);
  const py = plane(tables, 4), pu = plane(tables, 5), pv = plane(tables, 6), pl = plane(tables, 7);
  const slopes = plane(tables, 8), is = plane(tables, 9), share = plane(tables, 10), deep = plane(tables, 11);
  const inward = plane(tables, 12), setW = plane(tables, 13), setS = plane(tables, 14), left = plane(tables, 15);
  const grain = plane(tables, 16), light = plane(tables, 17), falling = plane(tables, 18), far = plane(tables, 19);
  const alpha = plane(tables, 20), colours = plane(tables, 21);
  const nu = at(numbers, 0), steep = at(numbers, 1), single = at(numbers, 2), colour = at(numbers, 3);
  const varies = at(numbers, 4), loose: f32 = <f32>1 / at(numbers, 5), thin = at(numbers, 6), unknown = at(numbers, 7);
  const little = at(numbers, 8), low = at(numbers, 9), bend = at(numbers, 10), high = at(numbers, 11);
  tellCodes();
  memory.fill(alpha, 0, <usize>(fullWidth * fullHeight));
  for (let y = fromY; y < toY; y++) {
    for (let x = fromX; x < toX; x++) {
      const i = y * width + x;
      const shown = at(share, i), inside = at(deep, i);
      const down = min(2, fullHeight - 2 * y), across = min(2, fullWidth - 2 * x);
      if (shown <= 0.001) continue;
      if (inside >= 0.999) {
        for (let dy = 0; dy < down; dy++) {
          for (let dx = 0; dx < across; dx++) store<u8>(alpha + (2 * y + dy) * fullWidth + 2 * x + dx, 255);
        }
        continue;
      }
      const gx = at(inward, x < width - 1 ? i + 1 : i) - at(inward, x > 0 ? i - 1 : i);
      const gy = at(inward, y < height - 1 ? i + width : i) - at(inward, y > 0 ? i - width : i);
      const length = sqrt<f32>(gx * gx + gy * gy);
      const per: f32 = length > 0 ? <f32>1 / length : 1;
      const label = at(is, i);
      let found = 0;
      for (let c = 0; c < fars; c++) {
        const cx = i32(floor<f32>(<f32>x + gx * per * at(far, c) + 0.5));
        const cy = i32(floor<f32>(<f32>y + gy * per * at(far, c) + 0.5));
        if (cx < 0 || cy < 0 || cx >= width || cy >= height) continue;
        const j = cy * width + cx;
        if (at(is, j) == 0) continue;
        remember(light, at(fy, j), at(fu, j), at(fv, j), at(deep, j), found++);
      }
      let thinnest = -1;
      if (label == 0 || inside < 0.8) {
        // Thin things have no inside: what beside it differs most from the set.
        let most: f32 = thin;
        let best = -1;
        for (let ny = max(0, 2 * y - 2); ny < min(fullHeight, 2 * y + 4); ny++) {
          for (let nx = max(0, 2 * x - 2); nx < min(fullWidth, 2 * x + 4); nx++) {
            const p = ny * fullWidth + nx;
            const d = abs<f32>(at(fl, p) - at(pl, p));
            if (d <= most) continue;
            most = d;
            best = p;
          }
        }
        if (best >= 0) {
          const j = ((best / fullWidth) >> 1) * width + ((best % fullWidth) >> 1);
          thinnest = best;
          remember(light, at(fl, best), at(fu, j), at(fv, j), 0, found++);
        }
      }
      const beside = at(setW, i);
      const s: f32 = beside > 0.01 ? min(<f32>1.02, at(setS, i) / beside) : min(<f32>1, at(left, i));
      const bu = s * at(pu, i), bv = s * at(pv, i);
      const bin = max(0, min(15, i32(s * at(py, i) * (16.0 / 272.0))));
      const vn = at(grain, bin) * single + steep * at(slopes, i) + nu;
      const expected: f32 = label > 0 ? inside : shown * 0.5;
      const iu = at(fu, i), iv = at(fv, i);
      for (let dy = 0; dy < down; dy++) {
        for (let dx = 0; dx < across; dx++) {
          const p = (2 * y + dy) * fullWidth + 2 * x + dx;
          const by = s * at(pl, p), iy = at(fl, p);
          const bg = lightOf(light, by), ig = lightOf(light, iy);
          const br = lightOf(light, by + RED_V * bv) - bg, bb = lightOf(light, by + BLUE_U * bu) - bg;
          const ir = lightOf(light, iy + RED_V * iv) - ig, ib = lightOf(light, iy + BLUE_U * iu) - ig;
          const ng: f32 = <f32>1 / perCode(ig, iy);
          const nr: f32 = <f32>1 / (colour * perCode(ir + ig, iy + RED_V * iv));
          const nb: f32 = <f32>1 / (colour * perCode(ib + ig, iy + BLUE_U * iu));
          const dr = ir - br, dg = ig - bg, db = ib - bb;
          const none = expected * loose, all = (<f32>1 - expected) * loose;
          let w = likely(falling, (dr * dr * nr + dg * dg * ng + db * db * nb) / vn + none * none);
          let weights: f32 = w + <f32>1e-9;
          let sum: f32 = 0;
          let own: f32 = <f32>1e-9, ownR: f32 = 0, ownG: f32 = 0, ownB: f32 = 0;
          // What is nobody's own by the label is not told by itself alone.
          const told = label == 0 && p == thinnest ? found - 1 : found;
          for (let c = 0; c < told; c++) {
            const colourAt = FOUND + (<usize>c << 4);
            const cr = load<f32>(colourAt), cg = load<f32>(colourAt, 4), cb = load<f32>(colourAt, 8);
            const er = cr - br, eg = cg - bg, eb = cb - bb;
            const size = er * er * nr + eg * eg * ng + eb * eb * nb;
            const along: f32 = (dr * er * nr + dg * eg * ng + db * eb * nb) / (size > 1 ? size : <f32>1);
            const a: f32 = along > 0 ? (along < 1 ? along : <f32>1) : <f32>0;
            const rr = dr - a * er, rg = dg - a * eg, rb = db - a * eb;
            const prior = (a - expected) * loose;
            w = likely(falling, (rr * rr * nr + rg * rg * ng + rb * rb * nb) / (vn + a * a * varies) + prior * prior);
            weights += w;
            sum += w * a;
            w *= load<f32>(colourAt, 12);
            own += w;
            ownR += w * cr;
            ownG += w * cg;
            ownB += w * cb;
          }
          w = label == 0 ? 0 : likely(falling, unknown + all * all);
          const a = drawnOut((sum + w) / (weights + w), low, bend, high);
          store<u8>(alpha + p, <u8>i32(a * 255 + 0.5));
          if (a < 0.004 || a > 0.996) continue;
          // What explains it is where its own colour is looked for; what is seen says by how much it is another (Chuang 2001).
          own += w;
          const mr = (ownR + w * ir) / own, mg = (ownG + w * ig) / own, mb = (ownB + w * ib) / own;
          const rest: f32 = 1 - a, said: f32 = a / (a * a + little * rest);
          const g = mg + said * (ig - a * mg - rest * bg);
          const r = mr + said * (ir - a * mr - rest * br) + g, b = mb + said * (ib - a * mb - rest * bb) + g;
          const red = codeOf(r), blue = codeOf(b);
          // Light is reckoned of luma, red and blue: green is what luma has beside these (ITU-R BT.709).
          const green: f32 = (codeOf(g) - <f32>0.2126 * red - <f32>0.0722 * blue) * <f32>(1 / 0.7152);
          store<u32>(colours + (<usize>p << 2), (byte(a * 255) << 24) | byte(red) | (byte(green) << 8) | (byte(blue) << 16));
        }
      }
    }
  }
}

/** Where share (0..1, somebody about a cell) is next to nought: 1 at weights and left at sums; elsewhere 0. Of a part of planes whose rows begin `step` cells apart. */
export function besideCells(
  share: usize, left: usize, step: i32, width: i32, height: i32, weights: usize, sums: usize,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = <usize>(y * step + x) << 2;
      const isSet = load<f32>(share + i) < 0.001;
      store<f32>(weights + i, isSet ? 1 : 0);
      store<f32>(sums + i, isSet ? load<f32>(left + i) : 0);
    }
  }
}
