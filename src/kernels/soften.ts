// Labels of cells -> raw alpha of px: near the border by projection in linear light, elsewhere all or nothing.
import { BLUE_U, codesOf, colourLight, lights, RED_V, tellCodes } from "./light";
import { at, setLight, setVariance } from "./set";
import { DOUBTS, drawnOut } from "./settle";
import { areBare, strandAt, strandColours } from "./strands";
import { looked, plane, wholes } from "./table";

/** Room for the colours from farther in, that of what is thin, and those of nine squares. */
const FOUND: usize = memory.data(4 * 4 * 20, 16);
/** The most that noise alone makes alpha vary: what looks like the set tells next to nothing. */
const MOST: f32 = 0.3;
/** How far along from the set a strand may be, in what the colour is that was found for it. */
const PURER: f32 = 1.6;
/** By how much more their colours vary. */
const VARIED: f32 = 4;
/** What a colour counts of which nothing is seen. */
const UNSEEN: f32 = 0.02;
/** Shares of somebody about a cell up to which it is the set, and within it from which on it is all somebody's. */
const SLIGHT: f32 = 0.001, NEARLY: f32 = 0.999;
/** What a colour of theirs counts at least where it is asked for. */
const LEAST: f32 = 0.000001;

/** The square of how much light one code more is, of four. */
// @ts-ignore: decorator
@inline
function perCode(light: v128, code: v128): v128 {
  const d = f32x4.div(f32x4.mul(f32x4.splat(2.4), light), f32x4.pmax(code, f32x4.splat(20)));
  return f32x4.add(f32x4.mul(d, d), f32x4.splat(0.0001));
}

/** Of squared standard deviations, by sixteenths; those of what is next to impossible may be larger than any whole number. */
// @ts-ignore: decorator
@inline
function likely(table: usize, squares: v128): v128 {
  return looked(table, wholes(f32x4.mul(squares, f32x4.splat(16)), 1023));
}

// @ts-ignore: decorator
@inline
function bytes(codes: v128): v128 {
  return wholes(f32x4.add(codes, f32x4.splat(0.5)), 255);
}

// @ts-ignore: decorator
@inline
function three(r: v128, g: v128, b: v128): v128 { return f32x4.add(f32x4.add(r, g), b); }

/** Writes bytes of the px of a cell, as far as there are four. */
// @ts-ignore: decorator
@inline
function putFour(plane: usize, codes: v128, top: i32, bottom: i32, across: i32, down: i32): void {
  store<u8>(plane + top, <u8>i32x4.extract_lane(codes, 0));
  if (across > 1) store<u8>(plane + top + 1, <u8>i32x4.extract_lane(codes, 1));
  if (down > 1) store<u8>(plane + bottom, <u8>i32x4.extract_lane(codes, 2));
  if (across > 1 && down > 1) store<u8>(plane + bottom + 1, <u8>i32x4.extract_lane(codes, 3));
}

// @ts-ignore: decorator
@inline
function fourAt(plane: usize, a: i32, b: i32, c: i32, d: i32): v128 {
  const two = v128.load32_lane(plane + (<usize>b << 2), v128.load32_zero(plane + (<usize>a << 2)), 1);
  return v128.load32_lane(plane + (<usize>d << 2), v128.load32_lane(plane + (<usize>c << 2), two, 2), 3);
}

/** Remembers a colour that somebody may have. */
function remember(light: usize, y: f32, u: f32, v: f32, pure: f32, found: i32): void {
  // Colours near the border are mixed with the set's themselves.
  const weight = pure * pure * pure * pure + <f32>0.01;
  v128.store(FOUND + (<usize>found << 4), f32x4.replace_lane(colourLight(light, y, u, v), 3, weight));
}

// @ts-ignore: decorator
@inline
function apart(one: usize, other: usize, p: i32): v128 {
  const at = <usize>p << 2;
  return f32x4.abs(f32x4.sub(v128.load(one + at), v128.load(other + at)));
}

/** The first of the px about a cell, two beside it to each side, at which two planes differ most; none: -1 where they do by no more than `least`. */
function mostApart(one: usize, other: usize, x: i32, y: i32, width: i32, height: i32, least: f32): i32 {
  const top = max(0, 2 * y - 2), bottom = min(height, 2 * y + 4), left = 2 * x - 2;
  if (left < 0 || left + 6 > width) {
    let most = least, best = -1;
    for (let v = top; v < bottom; v++) {
      for (let u = max(0, left); u < min(width, left + 6); u++) {
        const at = <usize>(v * width + u) << 2;
        const d = abs<f32>(load<f32>(one + at) - load<f32>(other + at));
        if (d <= most) continue;
        most = d;
        best = v * width + u;
      }
    }
    return best;
  }
  let found = f32x4.splat(least);
  for (let v = top; v < bottom; v++) {
    const p = v * width + left;
    found = f32x4.pmax(found, f32x4.pmax(apart(one, other, p), apart(one, other, p + 2)));
  }
  found = f32x4.pmax(found, i32x4.shuffle(found, found, 2, 3, 0, 1));
  found = f32x4.pmax(found, i32x4.shuffle(found, found, 1, 0, 3, 2));
  if (f32x4.extract_lane(found, 0) <= least) return -1;
  for (let v = top; v < bottom; v++) {
    const p = v * width + left;
    const first = i32x4.bitmask(f32x4.eq(apart(one, other, p), found));
    if (first != 0) return p + ctz<i32>(first);
    const last = i32x4.bitmask(f32x4.eq(apart(one, other, p + 2), found));
    if (last != 0) return p + 2 + ctz<i32>(last);
  }
  return -1;
}

/**
 * tables: addresses of the frame's y, u, v and luma, the plate's, its squared slopes; labels (1 somebody), their means over a few cells outside and inside
 * of the border, a plane that rises inwards; shares and light of the set that shows near by, light left of each cell; variances by
 * brightness (16), light of codes (2048), likelihoods (1024), how far in colours are looked up (cells, f32); alpha, which is written raw, and somebody's own colour (u32 codes, with
 * the alpha that it was told with) of px that alpha is neither nought nor all of, and of all among strands, 0 for others; how roughly alpha is
 * told (u8, DOUBTS for a standard deviation of all), 1 at least where it was told of colours, 0 elsewhere.
 * numbers: f32 of the variance of u, the share of the slope in that of y, noise of a px in that of a cell, variance of colour in that of luma, by how much
 * somebody's colour varies, how loosely alpha is expected, codes of what is thin, what an unknown colour costs, how little is left of what is seen for a colour to be told by itself, alpha that is none, that stays, and that is all, and how loosely it is expected among strands. fars: how many. strands: where there are any, as `strandShare` reads it; 0 for nowhere. Only cells from `fromX` and
 * `fromY` to before `toX` and `toY` are told of; elsewhere nobody is, and no colour is written.
 */
export function softenCells(
  tables: usize, numbers: usize, width: i32, height: i32, fullWidth: i32, fullHeight: i32, fars: i32,
  fromX: i32, fromY: i32, toX: i32, toY: i32, strands: usize,
): void {
  const fy = plane(tables, 0), fu = plane(tables, 1), fv = plane(tables, 2), fl = plane(tables, 3);
  const py = plane(tables, 4), pu = plane(tables, 5), pv = plane(tables, 6), pl = plane(tables, 7);
  const slopes = plane(tables, 8), is = plane(tables, 9), share = plane(tables, 10), deep = plane(tables, 11);
  const inward = plane(tables, 12), setW = plane(tables, 13), setS = plane(tables, 14), left = plane(tables, 15);
  const grain = plane(tables, 16), light = plane(tables, 17), falling = plane(tables, 18), far = plane(tables, 19);
  const alpha = plane(tables, 20), colours = plane(tables, 21), doubts = plane(tables, 22);
  const nu = at(numbers, 0), steep = at(numbers, 1), single = at(numbers, 2), colour = at(numbers, 3);
  const varies = at(numbers, 4), loose: f32 = <f32>1 / at(numbers, 5), thin = at(numbers, 6), unknown = at(numbers, 7);
  const little = at(numbers, 8), low = at(numbers, 9), bend = at(numbers, 10), high = at(numbers, 11);
  const airy = at(numbers, 12);
  const one = f32x4.splat(1), little4 = f32x4.splat(SLIGHT), nearly4 = f32x4.splat(NEARLY);
  tellCodes();
  memory.fill(alpha, 0, <usize>(fullWidth * fullHeight));
  memory.fill(doubts, 0, <usize>(fullWidth * fullHeight));
  const soft = <usize>(min(fullWidth, 2 * toX) - 2 * fromX) << 2;
  for (let y = 2 * fromY; y < min(fullHeight, 2 * toY); y++) memory.fill(colours + (<usize>(y * fullWidth + 2 * fromX) << 2), 0, soft);
  for (let y = fromY; y < toY; y++) {
    for (let x = fromX; x < toX; x++) {
      const i = y * width + x;
      if (x + 4 <= toX && 2 * x + 8 <= fullWidth && 2 * y + 2 <= fullHeight && (strands == 0 || areBare(strands, x, y))) {
        const four = <usize>i << 2;
        if (!v128.any_true(f32x4.gt(v128.load(share + four), little4))) {
          x += 3;
          continue;
        }
        // What lies deep inside is somebody, all of it.
        if (v128.all_true<i32>(f32x4.ge(v128.load(deep + four), nearly4))) {
          store<u64>(alpha + 2 * y * fullWidth + 2 * x, u64.MAX_VALUE);
          store<u64>(alpha + (2 * y + 1) * fullWidth + 2 * x, u64.MAX_VALUE);
          x += 3;
          continue;
        }
      }
      const shown = at(share, i), inside = at(deep, i);
      const down = min(2, fullHeight - 2 * y), across = min(2, fullWidth - 2 * x);
      const label = at(is, i);
      const strand = strands != 0 ? strandAt(strands, tables, width, x, y, fullWidth, fullHeight) : <f32>0;
      if (shown <= SLIGHT && strand <= 0) continue;
      if (inside >= NEARLY && strand <= 0) {
        for (let dy = 0; dy < down; dy++) {
          for (let dx = 0; dx < across; dx++) store<u8>(alpha + (2 * y + dy) * fullWidth + 2 * x + dx, 255);
        }
        continue;
      }
      const gx = at(inward, x < width - 1 ? i + 1 : i) - at(inward, x > 0 ? i - 1 : i);
      const gy = at(inward, y < height - 1 ? i + width : i) - at(inward, y > 0 ? i - width : i);
      const length = sqrt<f32>(gx * gx + gy * gy);
      const per: f32 = length > 0 ? <f32>1 / length : 1;
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
        thinnest = mostApart(fl, pl, x, y, fullWidth, fullHeight, thin);
        if (thinnest >= 0) {
          const j = ((thinnest / fullWidth) >> 1) * width + ((thinnest % fullWidth) >> 1);
          remember(light, at(fl, thinnest), at(fu, j), at(fv, j), 0, found++);
        }
      }
      const plain = found;
      if (strand > 0) found += strandColours(strands, x, y, FOUND + (<usize>found << 4));
      // Dark strands beyond somebody are taken for shadow: what lies between them has as much light as it says by itself.
      const s = strand > 0 && label == 0 ? max(setLight(setW, setS, left, i), min(<f32>1, at(left, i))) : setLight(setW, setS, left, i);
      const bu = s * at(pu, i), bv = s * at(pv, i);
      const vn = setVariance(grain, s * at(py, i), single, steep, at(slopes, i), nu);
      const expected: f32 = label > 0 ? inside : shown * 0.5;
      const iu = at(fu, i), iv = at(fv, i);
      // The four px of a cell are told at once; where there are fewer, some twice.
      const p0 = 2 * y * fullWidth + 2 * x;
      const p1 = across > 1 ? p0 + 1 : p0, p2 = down > 1 ? p0 + fullWidth : p0, p3 = p2 + p1 - p0;
      const by = f32x4.mul(f32x4.splat(s), fourAt(pl, p0, p1, p2, p3)), iy = fourAt(fl, p0, p1, p2, p3);
      const iyR = f32x4.add(iy, f32x4.splat(RED_V * iv)), iyB = f32x4.add(iy, f32x4.splat(BLUE_U * iu));
      const bg = lights(light, by), ig = lights(light, iy);
      const br = f32x4.sub(lights(light, f32x4.add(by, f32x4.splat(RED_V * bv))), bg);
      const bb = f32x4.sub(lights(light, f32x4.add(by, f32x4.splat(BLUE_U * bu))), bg);
      const litR = lights(light, iyR), litB = lights(light, iyB);
      const ir = f32x4.sub(litR, ig), ib = f32x4.sub(litB, ig);
      const ng = f32x4.div(one, perCode(ig, iy));
      const nr = f32x4.div(one, f32x4.mul(f32x4.splat(colour), perCode(litR, iyR)));
      const nb = f32x4.div(one, f32x4.mul(f32x4.splat(colour), perCode(litB, iyB)));
      const dr = f32x4.sub(ir, br), dg = f32x4.sub(ig, bg), db = f32x4.sub(ib, bb);
      const tr = f32x4.mul(dr, nr), tg = f32x4.mul(dg, ng), tb = f32x4.mul(db, nb);
      // Colours from farther in explain themselves: they count for less than strands do as soon as there may be any.
      const rare = (<f32>1 - strand) * (<f32>1 - strand) * (<f32>1 - strand) * (<f32>1 - strand);
      const tight = strand > 0 ? loose / ((<f32>1 - strand) + strand * loose * airy) : loose;
      const none = expected * tight, all = (<f32>1 - expected) * tight;
      const noise = f32x4.splat(vn), thought = f32x4.splat(expected);
      const bare = f32x4.div(three(f32x4.mul(dr, tr), f32x4.mul(dg, tg), f32x4.mul(db, tb)), noise);
      let weights = f32x4.add(likely(falling, f32x4.add(bare, f32x4.splat(none * none))), f32x4.splat(1e-9));
      let sum = f32x4.splat(0), squares = sum;
      let own = f32x4.splat(1e-9), ownR = sum, ownG = sum, ownB = sum;
      for (let c = 0; c < found; c++) {
        const colourAt = FOUND + (<usize>c << 4);
        const cr = v128.load32_splat(colourAt), cg = v128.load32_splat(colourAt, 4), cb = v128.load32_splat(colourAt, 8);
        const er = f32x4.sub(cr, br), eg = f32x4.sub(cg, bg), eb = f32x4.sub(cb, bb);
        const size = three(f32x4.mul(f32x4.mul(er, er), nr), f32x4.mul(f32x4.mul(eg, eg), ng), f32x4.mul(f32x4.mul(eb, eb), nb));
        const towards = three(f32x4.mul(tr, er), f32x4.mul(tg, eg), f32x4.mul(tb, eb));
        // A strand's own colour may lie farther from the set's than any that was found.
        const most = f32x4.splat(c < plain ? 1 : PURER);
        const along = f32x4.pmin(f32x4.pmax(f32x4.div(towards, f32x4.pmax(size, one)), f32x4.splat(0)), most);
        const a = f32x4.pmin(along, one);
        const rr = f32x4.sub(dr, f32x4.mul(along, er)), rg = f32x4.sub(dg, f32x4.mul(along, eg)), rb = f32x4.sub(db, f32x4.mul(along, eb));
        const prior = f32x4.mul(f32x4.sub(a, thought), f32x4.splat(tight));
        const off = three(f32x4.mul(f32x4.mul(rr, rr), nr), f32x4.mul(f32x4.mul(rg, rg), ng), f32x4.mul(f32x4.mul(rb, rb), nb));
        const spread = f32x4.add(noise, f32x4.mul(f32x4.mul(a, a), f32x4.splat(c < plain ? varies : varies * VARIED)));
        let w = likely(falling, f32x4.add(f32x4.div(off, spread), f32x4.mul(prior, prior)));
        if (strand > 0) w = f32x4.mul(w, f32x4.splat(c < plain ? rare : strand));
        // What is nobody's own by the label is not told by itself alone.
        if (label == 0 && thinnest >= 0 && c == plain - 1) {
          const others = i32x4.ne(i32x4(p0, p1, p2, p3), i32x4.splat(thinnest));
          w = v128.and(w, others);
        }
        weights = f32x4.add(weights, w);
        sum = f32x4.add(sum, f32x4.mul(w, a));
        // Besides how much they differ: how much each of them is off by noise.
        const blur = f32x4.pmin(f32x4.div(spread, f32x4.pmax(size, one)), f32x4.splat(MOST));
        squares = f32x4.add(squares, f32x4.mul(w, f32x4.add(f32x4.mul(a, a), blur)));
        // Of what lets it be the set's alone nothing is seen. But what lies among strands has their colour, also where none of it is told: those round it may say that it has.
        w = f32x4.mul(w, f32x4.add(a, f32x4.splat(UNSEEN)));
        if (c >= plain) w = f32x4.pmax(w, f32x4.splat(LEAST));
        w = f32x4.mul(w, v128.load32_splat(colourAt, 12));
        own = f32x4.add(own, w);
        ownR = f32x4.add(ownR, f32x4.mul(w, cr));
        ownG = f32x4.add(ownG, f32x4.mul(w, cg));
        ownB = f32x4.add(ownB, f32x4.mul(w, cb));
      }
      const w = f32x4.splat(label == 0 ? 0 : at(falling, i32(min<f32>(1023, (unknown + all * all) * 16))));
      const share = f32x4.div(one, f32x4.add(weights, w));
      const told = f32x4.mul(f32x4.add(sum, w), share);
      const variance = f32x4.sub(f32x4.mul(f32x4.add(squares, w), share), f32x4.mul(told, told));
      const raw = wholes(f32x4.add(f32x4.mul(told, f32x4.splat(255)), f32x4.splat(0.5)), 255);
      const rough = i32x4.max_s(i32x4.splat(1), wholes(f32x4.mul(f32x4.sqrt(f32x4.pmax(variance, f32x4.splat(0))), f32x4.splat(DOUBTS)), 255));
      putFour(alpha, raw, p0, p2, across, down);
      putFour(doubts, rough, p0, p2, across, down);
      const a = drawnOut(told, low, bend, high);
      const codes = wholes(f32x4.add(f32x4.mul(a, f32x4.splat(255)), f32x4.splat(0.5)), 255);
      const isSoft = found > plain
        ? i32x4.splat(-1)
        : v128.and(f32x4.ge(a, f32x4.splat(0.004)), f32x4.le(a, f32x4.splat(0.996)));
      if (!v128.any_true(isSoft)) continue;
      // What explains it is where its own colour is looked for; what is seen says by how much it is another (Chuang 2001).
      own = f32x4.add(own, w);
      const mr = f32x4.div(f32x4.add(ownR, f32x4.mul(w, ir)), own), mg = f32x4.div(f32x4.add(ownG, f32x4.mul(w, ig)), own);
      const mb = f32x4.div(f32x4.add(ownB, f32x4.mul(w, ib)), own);
      const rest = f32x4.sub(one, a);
      let said = f32x4.div(a, f32x4.add(f32x4.mul(a, a), f32x4.mul(f32x4.splat(little), rest)));
      // Of strands next to nothing is seen by itself, but where they are all that there is.
      if (strand > 0) said = f32x4.mul(said, f32x4.pmax(f32x4.splat(rare), f32x4.mul(f32x4.mul(a, a), f32x4.mul(a, a))));
      const g = f32x4.add(mg, f32x4.mul(said, f32x4.sub(f32x4.sub(ig, f32x4.mul(a, mg)), f32x4.mul(rest, bg))));
      const r = f32x4.add(f32x4.add(mr, f32x4.mul(said, f32x4.sub(f32x4.sub(ir, f32x4.mul(a, mr)), f32x4.mul(rest, br)))), g);
      const b = f32x4.add(f32x4.add(mb, f32x4.mul(said, f32x4.sub(f32x4.sub(ib, f32x4.mul(a, mb)), f32x4.mul(rest, bb)))), g);
      const red = codesOf(r), blue = codesOf(b);
      // Light is reckoned of luma, red and blue: green is what luma has beside these (ITU-R BT.709).
      const others = f32x4.sub(f32x4.sub(codesOf(g), f32x4.mul(f32x4.splat(0.2126), red)), f32x4.mul(f32x4.splat(0.0722), blue));
      const green = bytes(f32x4.mul(others, f32x4.splat(1 / 0.7152)));
      const packed = v128.or(v128.or(i32x4.shl(codes, 24), bytes(red)), v128.or(i32x4.shl(green, 8), i32x4.shl(bytes(blue), 16)));
      const soft = i32x4.bitmask(isSoft);
      if (soft & 1) v128.store32_lane(colours + (<usize>p0 << 2), packed, 0);
      if (across > 1 && soft & 2) v128.store32_lane(colours + (<usize>p1 << 2), packed, 1);
      if (down > 1 && soft & 4) v128.store32_lane(colours + (<usize>p2 << 2), packed, 2);
      if (across > 1 && down > 1 && soft & 8) v128.store32_lane(colours + (<usize>p3 << 2), packed, 3);
    }
  }
}
