// Raw alpha -> alpha: what is told only roughly goes by what lies beside it and looks alike.
import { wholes } from "./table";

/** Codes of doubt (u8) for a standard deviation of alpha of all. */
export const DOUBTS: f32 = 400;

/** Shares that are 0 at `low` and 1 at `high`, straight from `bend`, which they keep, to both. */
// @ts-expect-error: decorator
@inline
export function drawnOut(a: v128, low: f32, bend: f32, high: f32): v128 {
  const less = f32x4.mul(f32x4.sub(a, f32x4.splat(low)), f32x4.splat(bend / (bend - low)));
  const over = f32x4.sub(a, f32x4.splat(bend));
  const more = f32x4.add(f32x4.splat(bend), f32x4.mul(over, f32x4.splat((<f32>1 - bend) / (high - bend))));
  const drawn = v128.bitselect(less, more, f32x4.lt(over, f32x4.splat(0)));
  return f32x4.pmin(f32x4.pmax(drawn, f32x4.splat(0)), f32x4.splat(1));
}

/** Four bytes as numbers. */
// @ts-expect-error: decorator
@inline
function four(at: usize): v128 {
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(at))));
}

// @ts-expect-error: decorator
@inline
function coded(shares: v128): v128 {
  return wholes(f32x4.add(f32x4.mul(shares, f32x4.splat(255)), f32x4.splat(0.5)), 255);
}

/**
 * raw: alpha of px as it was told, 0..255; doubts: how roughly (DOUBTS codes for a standard deviation of all; 0 where nothing is in doubt). luma: f32 of each px. All of width · height px, of which those from (fromX, fromY) to before
 * (toX, toY) are written to out. numbers: f32 of how much those beside count, of one over twice the square of the codes by which they may differ, of the variance that all of them have besides, of the doubt from which
 * on they count, and of alpha that is none, that stays, and that is all. Px in the first and the last column go by themselves.
 */
export function settleAlpha(
  raw: usize, doubts: usize, luma: usize, width: i32, height: i32, fromX: i32, fromY: i32, toX: i32, toY: i32, numbers: usize, out: usize,
): void {
  const pull = v128.load32_splat(numbers), alike = v128.load32_splat(numbers, 4), loose = v128.load32_splat(numbers, 8);
  const rough = v128.load32_splat(numbers, 12);
  const low = load<f32>(numbers, 16), bend = load<f32>(numbers, 20), high = load<f32>(numbers, 24);
  const share = f32x4.splat(1.0 / 255.0), unit = f32x4.splat(<f32>1 / DOUBTS), one = f32x4.splat(1);
  for (let y = fromY; y < toY; y++) {
    const above = y > 0 ? y - 1 : y, below = y < height - 1 ? y + 1 : y;
    for (let x = fromX; x < toX; x++) {
      let p = y * width + x;
      if (x + 16 <= toX && !v128.any_true(v128.load(doubts + p))) {
        // None or all: it stays.
        v128.store(out + p, v128.load(raw + p));
        x += 15;
        continue;
      }
      // Four at a time, the last four of a row over what is told of them already.
      const last = (toX < width ? toX : width - 1) - 4;
      if (x == 0 || x == width - 1 || last < 1) {
        const alone = coded(drawnOut(f32x4.splat(<f32>load<u8>(raw + p) / 255), low, bend, high));
        store<u8>(out + p, <u8>i32x4.extract_lane(alone, 0));
        continue;
      }
      if (x > last) {
        p += last - x;
        x = last;
      }
      const doubt = four(doubts + p);
      let a = f32x4.mul(four(raw + p), share);
      const isRough = f32x4.ge(doubt, rough);
      if (v128.any_true(isRough)) {
        const deviation = f32x4.mul(doubt, unit);
        const sure = f32x4.div(one, f32x4.mul(deviation, deviation));
        const here = v128.load(luma + (<usize>p << 2));
        let sum = f32x4.splat(0), weights = sum;
        for (let v = above; v <= y + 1; v++) {
          const row = (v > below ? below : v) * width + x;
          for (let q = row - 1; q <= row + 1; q++) {
            if (q == p) continue;
            const d = f32x4.sub(v128.load(luma + (<usize>q << 2)), here);
            const like = f32x4.div(one, f32x4.add(one, f32x4.mul(f32x4.mul(d, d), alike)));
            const deviates = f32x4.mul(four(doubts + q), unit);
            const w = f32x4.div(f32x4.mul(like, like), f32x4.add(f32x4.mul(deviates, deviates), loose));
            sum = f32x4.add(sum, f32x4.mul(w, f32x4.mul(four(raw + q), share)));
            weights = f32x4.add(weights, w);
          }
        }
        const settled = f32x4.div(f32x4.add(f32x4.mul(a, sure), f32x4.mul(pull, sum)), f32x4.add(sure, f32x4.mul(pull, weights)));
        a = v128.bitselect(settled, a, isRough);
      }
      const codes = coded(drawnOut(a, low, bend, high));
      const words = i16x8.narrow_i32x4_u(codes, codes);
      v128.store32_lane(out + p, i8x16.narrow_i16x8_u(words, words), 0);
      x += 3;
    }
  }
}
