// Cells and luma in a light that is multiplied and added to: channel by channel, since what is added bends codes.
import { looked } from "./table";

/** ITU-R BT.709: shares of red, green and blue in luma, and what u and v of full range add to it for them. */
const KR: f32 = 0.2126, KG: f32 = 0.7152, KB: f32 = 0.0722;
const CB: f32 = 2 * (1 - KB), CR: f32 = 2 * (1 - KR);

/** Codes of a table, four in each code of what is looked up; the last one is never reached. */
const FINE: f32 = 4, CODES = 1200;

// @ts-expect-error: decorator
@inline
function bent(table: usize, codes: v128): v128 {
  const x = f32x4.pmin(f32x4.pmax(f32x4.mul(codes, f32x4.splat(FINE)), f32x4.splat(0)), f32x4.splat(<f32>CODES - 2));
  const at = i32x4.trunc_sat_f32x4_s(x);
  const below = looked(table, at), above = looked(table + 4, at);
  return f32x4.add(below, f32x4.mul(f32x4.sub(x, f32x4.convert_i32x4_s(at)), f32x4.sub(above, below)));
}

// Red, green and blue of four, bent.
// @ts-expect-error: decorator
@inline
function red(tables: usize, y: v128, v: v128): v128 { return bent(tables, f32x4.add(y, f32x4.mul(f32x4.splat(CR), v))); }
// @ts-expect-error: decorator
@inline
function green(tables: usize, y: v128, u: v128, v: v128): v128 {
  const less = f32x4.add(f32x4.mul(f32x4.splat((KB * CB) / KG), u), f32x4.mul(f32x4.splat((KR * CR) / KG), v));
  return bent(tables + (CODES << 2), f32x4.sub(y, less));
}
// @ts-expect-error: decorator
@inline
function blue(tables: usize, y: v128, u: v128): v128 { return bent(tables + (CODES << 3), f32x4.add(y, f32x4.mul(f32x4.splat(CB), u))); }

// @ts-expect-error: decorator
@inline
function lumaOf(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.mul(f32x4.splat(KR), r), f32x4.add(f32x4.mul(f32x4.splat(KG), g), f32x4.mul(f32x4.splat(KB), b)));
}

/** n cells (y, u, v, lifted codes) through three tables of 1200 f32, of red, green and blue by quarters of lifted codes; whole registers are written. */
export function veilCells(y: usize, u: usize, v: usize, n: i32, tables: usize, outY: usize, outU: usize, outV: usize): void {
  for (let i: usize = 0; i < <usize>n << 2; i += 16) {
    const a = v128.load(y + i), cu = v128.load(u + i), cv = v128.load(v + i);
    const r = red(tables, a, cv), g = green(tables, a, cu, cv), b = blue(tables, a, cu);
    const luma = lumaOf(r, g, b);
    v128.store(outY + i, luma);
    v128.store(outU + i, f32x4.mul(f32x4.sub(b, luma), f32x4.splat(1 / CB)));
    v128.store(outV + i, f32x4.mul(f32x4.sub(r, luma), f32x4.splat(1 / CR)));
  }
}

/**
 * Luma of a picture through those tables, u and v being those of its cells; their rows begin `step` px and `cells` cells apart, those of out close together. Not in place: up to three px behind each row are written, too.
 */
export function veilLuma(
  luma: usize, step: i32, u: usize, v: usize, cells: i32, width: i32, height: i32, tables: usize, out: usize,
): void {
  for (let y = 0; y < height; y++) {
    const row = luma + (<usize>(y * step) << 2), beside = <usize>((y >> 1) * cells) << 2;
    const to = out + (<usize>(y * width) << 2);
    for (let x = 0; x < width; x += 4) {
      const at = <usize>x << 2, cell = beside + (<usize>x << 1);
      const du = v128.load64_zero(u + cell), dv = v128.load64_zero(v + cell);
      const cu = i32x4.shuffle(du, du, 0, 0, 1, 1), cv = i32x4.shuffle(dv, dv, 0, 0, 1, 1);
      const a = v128.load(row + at);
      v128.store(to + at, lumaOf(red(tables, a, cv), green(tables, a, cu, cv), blue(tables, a, cu)));
    }
  }
}
