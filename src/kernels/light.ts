// Lifted codes and light, four at a time.
import { looked, wholes } from "./table";

/** Light of four lifted codes, by quarters. */
// @ts-ignore: decorator
@inline
export function lights(table: usize, codes: v128): v128 {
  return looked(table, wholes(f32x4.add(f32x4.mul(codes, f32x4.splat(4)), f32x4.splat(0.5)), 2044));
}

export const RED_V: f32 = 1.5748, BLUE_U: f32 = 1.8556;

/** The light of lifted codes: of red without that of luma, of luma, of blue without that of luma; the last is of no use. */
// @ts-ignore: decorator
@inline
export function colourLight(table: usize, y: f32, u: f32, v: f32): v128 {
  const codes = f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(y), 0, y + RED_V * v), 2, y + BLUE_U * u);
  const lit = lights(table, codes);
  return f32x4.sub(lit, v128.and(i32x4.shuffle(lit, lit, 1, 1, 1, 1), i32x4(-1, 0, -1, 0)));
}

/** Codes of light by its square root in 1024ths: (L / 255)^(1 / 2.4) lifted. */
const CODES: usize = memory.data(1025 * 4, 16);
let areTold = false;

export function tellCodes(): void {
  if (areTold) return;
  for (let i = 0; i <= 1024; i++) {
    const root = <f32>i / 1024;
    store<f32>(CODES + (<usize>i << 2), Mathf.pow(root * root, 1.0 / 2.4) * 269.025 - 14.025);
  }
  areTold = true;
}

/** The codes of light 0..255, of four. */
// @ts-ignore: decorator
@inline
export function codesOf(light: v128): v128 {
  const share = f32x4.mul(f32x4.pmin(f32x4.pmax(light, f32x4.splat(0)), f32x4.splat(255)), f32x4.splat(1.0 / 255.0));
  return looked(CODES, wholes(f32x4.add(f32x4.mul(f32x4.sqrt(share), f32x4.splat(1024)), f32x4.splat(0.5)), 1024));
}
