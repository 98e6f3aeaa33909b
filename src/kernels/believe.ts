// Min-sum belief propagation of two labels on a grid: a message is log odds, held within what the bond is worth.
import { evens, highs, lows, others } from "./transpose";

// @ts-expect-error: decorator
@inline
function held(m: f32, w: f32): f32 {
  return m < -w ? -w : m > w ? w : m;
}

// @ts-expect-error: decorator
@inline
function held4(m: v128, w: v128): v128 {
  return f32x4.pmax(f32x4.neg(w), f32x4.pmin(w, m));
}

// @ts-expect-error: decorator
@inline
function passDown(odds: usize, mine: usize, one: usize, other: usize, bond: usize, to: usize, width: i32): void {
  let x = 0;
  for (; x + 4 <= width; x += 4) {
    const at = <usize>x << 2;
    const sides = f32x4.add(v128.load(one + at), v128.load(other + at));
    const m = f32x4.add(f32x4.add(v128.load(odds + at), v128.load(mine + at)), sides);
    v128.store(to + at, held4(m, v128.load(bond + at)));
  }
  for (; x < width; x++) {
    const at = <usize>x << 2;
    const sides = load<f32>(one + at) + load<f32>(other + at);
    store<f32>(to + at, held(load<f32>(odds + at) + load<f32>(mine + at) + sides, load<f32>(bond + at)));
  }
}

/** What each cell of a row knows but from its sides. */
// @ts-expect-error: decorator
@inline
function gather(odds: usize, above: usize, below: usize, bytes: usize, own: usize): void {
  for (let i: usize = 0; i < bytes; i += 16) {
    v128.store(own + i, f32x4.add(v128.load(odds + i), f32x4.add(v128.load(above + i), v128.load(below + i))));
  }
}

// @ts-expect-error: decorator
@inline
function fourOf(row: usize, stride: usize): v128 {
  const two = v128.load32_lane(row + stride, v128.load32_zero(row), 1);
  return v128.load32_lane(row + 3 * stride, v128.load32_lane(row + 2 * stride, two, 2), 3);
}

// @ts-expect-error: decorator
@inline
function storeFour(row: usize, stride: usize, m: v128): void {
  v128.store32_lane(row, m, 0);
  v128.store32_lane(row + stride, m, 1);
  v128.store32_lane(row + 2 * stride, m, 2);
  v128.store32_lane(row + 3 * stride, m, 3);
}

/** To the right along four rows at once, four cells of them by one: each cell has to wait for the one beside it, rows need not for each other. */
function passRight(own: usize, across: usize, left: usize, stride: usize): void {
  let m = f32x4.splat(0);
  let at: usize = 0;
  for (; at + 20 <= stride; at += 16) {
    const o = own + at, w = across + at, l = left + at + 4;
    const o0 = v128.load(o), o1 = v128.load(o + stride), o2 = v128.load(o + 2 * stride), o3 = v128.load(o + 3 * stride);
    const w0 = v128.load(w), w1 = v128.load(w + stride), w2 = v128.load(w + 2 * stride), w3 = v128.load(w + 3 * stride);
    const oa = evens(o0, o1), ob = others(o0, o1), oc = evens(o2, o3), od = others(o2, o3);
    const wa = evens(w0, w1), wb = others(w0, w1), wc = evens(w2, w3), wd = others(w2, w3);
    const m0 = held4(f32x4.add(lows(oa, oc), m), lows(wa, wc));
    const m1 = held4(f32x4.add(lows(ob, od), m0), lows(wb, wd));
    const m2 = held4(f32x4.add(highs(oa, oc), m1), highs(wa, wc));
    m = held4(f32x4.add(highs(ob, od), m2), highs(wb, wd));
    const ma = evens(m0, m1), mb = others(m0, m1), mc = evens(m2, m), md = others(m2, m);
    v128.store(l, lows(ma, mc));
    v128.store(l + stride, lows(mb, md));
    v128.store(l + 2 * stride, highs(ma, mc));
    v128.store(l + 3 * stride, highs(mb, md));
  }
  for (; at + 4 < stride; at += 4) {
    m = held4(f32x4.add(fourOf(own + at, stride), m), fourOf(across + at, stride));
    storeFour(left + at + 4, stride, m);
  }
}

/** The same to the left. */
function passLeft(own: usize, across: usize, right: usize, stride: usize): void {
  let m = f32x4.splat(0);
  let at = stride;
  // `at` is behind the four cells that pass something on.
  for (; at >= 20; at -= 16) {
    const o = own + at - 16, w = across + at - 20, r = right + at - 20;
    const o0 = v128.load(o), o1 = v128.load(o + stride), o2 = v128.load(o + 2 * stride), o3 = v128.load(o + 3 * stride);
    const w0 = v128.load(w), w1 = v128.load(w + stride), w2 = v128.load(w + 2 * stride), w3 = v128.load(w + 3 * stride);
    const oa = evens(o0, o1), ob = others(o0, o1), oc = evens(o2, o3), od = others(o2, o3);
    const wa = evens(w0, w1), wb = others(w0, w1), wc = evens(w2, w3), wd = others(w2, w3);
    const m3 = held4(f32x4.add(highs(ob, od), m), highs(wb, wd));
    const m2 = held4(f32x4.add(highs(oa, oc), m3), highs(wa, wc));
    const m1 = held4(f32x4.add(lows(ob, od), m2), lows(wb, wd));
    m = held4(f32x4.add(lows(oa, oc), m1), lows(wa, wc));
    const ma = evens(m, m1), mb = others(m, m1), mc = evens(m2, m3), md = others(m2, m3);
    v128.store(r, lows(ma, mc));
    v128.store(r + stride, lows(mb, md));
    v128.store(r + 2 * stride, highs(ma, mc));
    v128.store(r + 3 * stride, highs(mb, md));
  }
  for (; at > 4; at -= 4) {
    m = held4(f32x4.add(fourOf(own + at - 4, stride), m), fourOf(across + at - 8, stride));
    storeFour(right + at - 8, stride, m);
  }
}

/** To the right and to the left along one row. */
function passAcross(own: usize, across: usize, left: usize, right: usize, stride: usize): void {
  let m: f32 = 0;
  for (let at: usize = 0; at + 4 < stride; at += 4) {
    m = held(load<f32>(own + at) + m, load<f32>(across + at));
    store<f32>(left + at + 4, m);
  }
  m = 0;
  for (let at = stride - 4; at > 0; at -= 4) {
    m = held(load<f32>(own + at) + m, load<f32>(across + at - 4));
    store<f32>(right + at - 4, m);
  }
}

/**
 * `sweeps` to the right, left, down and up. odds, across, down, out: planes of f32; left, right, above, below: planes for messages from those sides; own:
 * four rows. Needs a sweep at least. Rows go down as soon as those that still need what was above them have taken it: so each plane is read once on the way down, and once on the way up.
 */
export function believe(
  odds: usize, across: usize, down: usize, width: i32, height: i32, sweeps: i32,
  left: usize, right: usize, above: usize, below: usize, own: usize, out: usize,
): void {
  const stride = <usize>width << 2;
  const bytes = stride * <usize>height;
  const last = bytes - stride;
  // From beyond the border nothing is ever told.
  memory.fill(above, 0, stride);
  memory.fill(below + last, 0, stride);
  for (let y: usize = 0; y < bytes; y += stride) {
    store<f32>(left + y, 0);
    store<f32>(right + y + stride - 4, 0);
  }
  for (let sweep = 0; sweep < sweeps; sweep++) {
    let gone: usize = 0;
    for (let y: usize = 0; y < bytes; ) {
      const four = y + 4 * stride <= bytes;
      const rows: usize = four ? 4 * stride : stride;
      if (sweep == 0) memory.copy(own, odds + y, rows);
      else gather(odds + y, above + y, below + y, rows, own);
      if (four) {
        passRight(own, across + y, left + y, stride);
        passLeft(own, across + y, right + y, stride);
      } else passAcross(own, across + y, left + y, right + y, stride);
      y += rows;
      for (; gone < last && gone + stride < y; gone += stride) {
        passDown(odds + gone, above + gone, left + gone, right + gone, down + gone, above + gone + stride, width);
      }
    }
    for (let at = last; at > 0; at -= stride) {
      passDown(odds + at, below + at, left + at, right + at, down + at - stride, below + at - stride, width);
    }
  }
  for (let at: usize = 0; at < bytes; at += 16) {
    const sides = f32x4.add(f32x4.add(f32x4.add(v128.load(left + at), v128.load(right + at)), v128.load(above + at)), v128.load(below + at));
    v128.store(out + at, f32x4.add(v128.load(odds + at), sides));
  }
}
