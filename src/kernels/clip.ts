// Cells whose colours no picture can show -> the nearest that one can: films have room below black and above white, pictures have none.
import { BLUE_U, RED_V } from "./light";

/** Luma by ITU-R BT.709. */
const OF_RED: f32 = 0.2126, OF_BLUE: f32 = 0.0722;
const OF_GREEN: f32 = 1 - OF_RED - OF_BLUE;
const GREEN_U: f32 = (OF_BLUE * BLUE_U) / OF_GREEN, GREEN_V: f32 = (OF_RED * RED_V) / OF_GREEN;

// @ts-expect-error: decorator
@inline
function within(code: f32): f32 { return min<f32>(255, max<f32>(0, code)); }

/** Whether any of four px lies outside of 0..255 in red, green or blue. */
// @ts-expect-error: decorator
@inline
function isOutside(luma: v128, red: v128, green: v128, blue: v128): bool {
  const r = f32x4.add(luma, red), g = f32x4.sub(luma, green), b = f32x4.add(luma, blue);
  const least = f32x4.pmin(r, f32x4.pmin(g, b)), most = f32x4.pmax(r, f32x4.pmax(g, b));
  return v128.any_true(v128.or(f32x4.lt(least, f32x4.splat(0)), f32x4.gt(most, f32x4.splat(255))));
}

/** One cell of `across` times `down` px, each of which has the chroma of the cell. */
function clipOne(luma: usize, stride: usize, u: usize, v: usize, across: i32, down: i32, lift: f32): void {
  const cu = load<f32>(u), cv = load<f32>(v);
  let sumU: f32 = 0, sumV: f32 = 0;
  for (let y = 0; y < down; y++) {
    for (let x = 0; x < across; x++) {
      const at = luma + <usize>y * stride + (<usize>x << 2);
      const code = load<f32>(at) - lift;
      const r = within(code + RED_V * cv), g = within(code - GREEN_U * cu - GREEN_V * cv), b = within(code + BLUE_U * cu);
      const clipped = OF_RED * r + OF_GREEN * g + OF_BLUE * b;
      store<f32>(at, clipped + lift);
      sumU += (b - clipped) / BLUE_U;
      sumV += (r - clipped) / RED_V;
    }
  }
  const share = <f32>1 / <f32>(across * down);
  store<f32>(u, sumU * share);
  store<f32>(v, sumV * share);
}

/** luma: f32 codes of width · height px, lifted by `lift`; u and v: of their cells of 2×2 px, about nought; rows close together. By the matrix of BT.709. */
export function clipCells(luma: usize, u: usize, v: usize, width: i32, height: i32, lift: f32): void {
  const cells = (width + 1) >> 1;
  const stride = <usize>width << 2;
  for (let y = 0; y < height; y += 2) {
    const row = luma + <usize>y * stride;
    const down = min(2, height - y);
    const below = down > 1 ? row + stride : row;
    const chroma = <usize>((y >> 1) * cells) << 2;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const cell = chroma + (<usize>x << 1);
      const two = v128.load64_zero(u + cell), three = v128.load64_zero(v + cell);
      const cu = i32x4.shuffle(two, two, 0, 0, 1, 1), cv = i32x4.shuffle(three, three, 0, 0, 1, 1);
      const red = f32x4.sub(f32x4.mul(f32x4.splat(RED_V), cv), f32x4.splat(lift));
      const blue = f32x4.sub(f32x4.mul(f32x4.splat(BLUE_U), cu), f32x4.splat(lift));
      const green = f32x4.add(f32x4.add(f32x4.mul(f32x4.splat(GREEN_U), cu), f32x4.mul(f32x4.splat(GREEN_V), cv)), f32x4.splat(lift));
      const at = <usize>x << 2;
      if (!isOutside(v128.load(row + at), red, green, blue) && !isOutside(v128.load(below + at), red, green, blue)) continue;
      clipOne(row + at, stride, u + cell, v + cell, 2, down, lift);
      clipOne(row + at + 8, stride, u + cell + 4, v + cell + 4, 2, down, lift);
    }
    for (; x < width; x += 2) {
      const cell = chroma + (<usize>x << 1);
      clipOne(row + (<usize>x << 2), stride, u + cell, v + cell, min(2, width - x), down, lift);
    }
  }
}
