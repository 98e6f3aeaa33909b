// Codes of a frame beside those of its plate, channel by channel, and the ratio that most of them share.
import { total } from "./four";
import { BLUE_U, RED_V } from "./light";
import { plane } from "./table";

const GREEN_U: f32 = -(0.0722 * 1.8556) / 0.7152, GREEN_V: f32 = -(0.2126 * 1.5748) / 0.7152;

/**
 * Of every `step`th cell either way where nobody is, red, green and blue of plate and frame where both are at least `least` and at most `most`. planes: addresses of the plate's y, u, v,
 * the frame's y, u, v, and of what is known to be somebody, 0..1, or nought. out, f32: for each channel `room` codes of the plate, then as many of the frame; counts: how many there are, i32 × 3.
 */
export function lightPairs(planes: usize, width: i32, height: i32, step: i32, least: f32, most: f32, room: i32, out: usize, counts: usize): void {
  const py = plane(planes, 0), pu = plane(planes, 1), pv = plane(planes, 2);
  const fy = plane(planes, 3), fu = plane(planes, 4), fv = plane(planes, 5), busy = plane(planes, 6);
  const stride = <usize>room << 2;
  const toUs = f32x4(0, GREEN_U, BLUE_U, 0), toVs = f32x4(RED_V, GREEN_V, 0, 0);
  const low = f32x4.splat(least), high = f32x4.splat(most);
  let reds: usize = 0, greens: usize = 0, blues: usize = 0;
  for (let y = 1; y < height; y += step) {
    for (let x = 1; x < width; x += step) {
      const i = <usize>(y * width + x) << 2;
      if (busy != 0 && load<f32>(busy + i) > 0.02) continue;
      const a = f32x4.add(v128.load32_splat(py + i), f32x4.add(f32x4.mul(toUs, v128.load32_splat(pu + i)), f32x4.mul(toVs, v128.load32_splat(pv + i))));
      const b = f32x4.add(v128.load32_splat(fy + i), f32x4.add(f32x4.mul(toUs, v128.load32_splat(fu + i)), f32x4.mul(toVs, v128.load32_splat(fv + i))));
      const within = i32x4.bitmask(v128.and(f32x4.ge(f32x4.pmin(a, b), low), f32x4.le(f32x4.pmax(a, b), high)));
      if (within & 1) {
        store<f32>(out + reds, f32x4.extract_lane(a, 0));
        store<f32>(out + stride + reds, f32x4.extract_lane(b, 0));
        reds += 4;
      }
      if (within & 2) {
        store<f32>(out + 2 * stride + greens, f32x4.extract_lane(a, 1));
        store<f32>(out + 3 * stride + greens, f32x4.extract_lane(b, 1));
        greens += 4;
      }
      if (within & 4) {
        store<f32>(out + 4 * stride + blues, f32x4.extract_lane(a, 2));
        store<f32>(out + 5 * stride + blues, f32x4.extract_lane(b, 2));
        blues += 4;
      }
    }
  }
  store<i32>(counts, <i32>(reds >> 2));
  store<i32>(counts, <i32>(greens >> 2), 4);
  store<i32>(counts, <i32>(blues >> 2), 8);
}

/** Rounds of weighing, pairs without which nothing is told, and how many are enough to begin with. */
const ROUNDS = 10;
const FEW = 50;
const BEGIN = 4000;
/** Of the ratio: a step that is small enough. Codes by which those that count in full may be off, at first and most, and at least. */
const SETTLED: f32 = 5e-6;
const FIRST: f32 = 3, WIDE: f32 = 4, NARROW: f32 = 0.7;

/**
 * The logarithm of the ratio of n codes (f32, with slack behind) at `to` to those at `from` that most of them share: the mode of a histogram of ratios by `bins` within `reach` either way, made finer
 * by least squares of codes, iterated and reweighted (Tukey's biweight): noise is alike in all codes, whereas in ratios what is dark has more of it. histogram: bins × i32, nought.
 */
export function sharedRatio(from: usize, to: usize, n: i32, reach: f32, bins: i32, histogram: usize): f32 {
  const perBin = <f32>(bins - 1) / (2 * reach), end = <usize>n << 2;
  const step = max<usize>(4, end / BEGIN & ~3);
  let count = 0;
  for (let at: usize = 0; at < end; at += step) {
    const r = Mathf.log(load<f32>(to + at) / load<f32>(from + at));
    if (!(r < reach && r > -reach)) continue;
    const bin = histogram + (<usize>i32((r + reach) * perBin + 0.5) << 2);
    store<i32>(bin, load<i32>(bin) + 1);
    count++;
  }
  if (count < FEW) return 0;
  let best = 0, most = -1;
  for (let i = 2; i < bins - 2; i++) {
    const b = histogram + (<usize>(i - 2) << 2);
    const all = load<i32>(b) + 2 * load<i32>(b, 4) + 3 * load<i32>(b, 8) + 2 * load<i32>(b, 12) + load<i32>(b, 16);
    if (all <= most) continue;
    most = all;
    best = i;
  }
  // What makes the last four full lies beyond all that counts.
  v128.store(from + end, f32x4.splat(0));
  v128.store(to + end, f32x4.splat(1e9));
  let ratio = Mathf.exp(<f32>best / perBin - reach), spread = FIRST;
  const one = f32x4.splat(1), zero = f32x4.splat(0);
  for (let round = 0; round < ROUNDS; round++) {
    const gain = f32x4.splat(ratio), scale = f32x4.splat(1 / (4 * spread));
    let sum = zero, lengths = zero, weights = zero, squares = zero;
    for (let at: usize = 0; at < end; at += 16) {
      const code = v128.load(from + at), off = f32x4.sub(v128.load(to + at), f32x4.mul(gain, code)), t = f32x4.mul(off, scale);
      const near = f32x4.pmax(zero, f32x4.sub(one, f32x4.mul(t, t))), w = f32x4.mul(near, near);
      const weighed = f32x4.mul(w, code);
      sum = f32x4.add(sum, f32x4.mul(weighed, off));
      lengths = f32x4.add(lengths, f32x4.mul(weighed, code));
      weights = f32x4.add(weights, w);
      squares = f32x4.add(squares, f32x4.mul(w, f32x4.mul(off, off)));
    }
    const all = total(lengths);
    if (all == 0) break;
    const moved = total(sum) / all;
    ratio += moved;
    if (abs(moved) < SETTLED) break;
    spread = max(NARROW, min(WIDE, sqrt<f32>(total(squares) / total(weights))));
  }
  return Mathf.log(ratio);
}

/** Light of lifted codes up to white, by sixteenths: powers take their time. */
const FINE: f64 = 16, WHITE: f64 = 269.025;
const LAST = 4306;
const LINEAR: usize = memory.data(4307 * 8, 16);
let areTold = false;

function tellLinear(): void {
  if (areTold) return;
  for (let i = 0; i <= LAST; i++) store<f64>(LINEAR + (<usize>i << 3), NativeMath.pow(<f64>i / (FINE * WHITE), 2.4));
  areTold = true;
}

/** Light of a code between black and white, within some millionths of it. */
// @ts-expect-error: decorator
@inline
function linear(code: f32): f64 {
  const at = <f64>code * FINE, i = max(0, min(LAST - 1, i32(at))), entry = LINEAR + (<usize>i << 3);
  const low = load<f64>(entry);
  return low + (at - <f64>i) * (load<f64>(entry, 8) - low);
}

/** Linear light of n codes (f32) at `from` and `to`, and by how much the latter grows with its code: each n f64, one behind another at out. */
export function pairLights(from: usize, to: usize, n: i32, out: usize): void {
  tellLinear();
  const block = <usize>n << 3;
  for (let i = 0; i < n; i++) {
    const code = load<f32>(to + (<usize>i << 2)), light = linear(code), at = out + (<usize>i << 3);
    store<f64>(at, linear(load<f32>(from + (<usize>i << 2))));
    store<f64>(at + block, light);
    store<f64>(at + 2 * block, light * 2.4 / <f64>code);
  }
}

/**
 * What tells a line through n pairs of lights as `pairLights` gives them: those that are off from gain and offset by `reach` codes and more left out, others counted by how near (Tukey's biweight) and how sure
 * they are. sums, f64 × 7: of weights, of light from, of light to, of the squares of the former, of their products; of squares of codes off, and of the weights of these.
 */
export function lightSums(lights: usize, n: i32, gain: f64, offset: f64, reach: f64, sums: usize): void {
  const block = <usize>n << 3;
  let all: f64 = 0, a: f64 = 0, b: f64 = 0, aa: f64 = 0, ab: f64 = 0, squares: f64 = 0, shares: f64 = 0;
  for (let i = 0; i < n; i++) {
    const at = lights + (<usize>i << 3);
    const p = load<f64>(at), q = load<f64>(at + block), s = load<f64>(at + 2 * block);
    const off = (q - gain * p - offset) / s, t = off / reach;
    if (!(t < 1 && t > -1)) continue;
    const near = 1 - t * t, share = near * near, w = share / (s * s);
    squares += share * off * off;
    shares += share;
    all += w;
    a += w * p;
    b += w * q;
    aa += w * p * p;
    ab += w * p * q;
  }
  store<f64>(sums, all);
  store<f64>(sums, a, 8);
  store<f64>(sums, b, 16);
  store<f64>(sums, aa, 24);
  store<f64>(sums, ab, 32);
  store<f64>(sums, squares, 40);
  store<f64>(sums, shares, 48);
}
