// Grain laid over a row of codes: numbers of a tile that repeats, taken elsewhere for each channel, weighed by how bright each code is.

/** px of a side of the tile; a power of two. */
const SIDE: u32 = 512;

/** Mixes the bits of a number (two rounds of multiply and xor-shift). */
// @ts-ignore: decorator
@inline
function mixed(v: u32): u32 {
  v = (v ^ (v >>> 16)) * 0x7feb352d;
  v = (v ^ (v >>> 15)) * 0x846ca68b;
  return v ^ (v >>> 16);
}

// @ts-ignore: decorator
@inline
function rowOf(tile: usize, y: u32, place: u32): usize {
  return tile + ((((y + (place >>> 9)) & (SIDE - 1)) * SIDE) << 2);
}

// @ts-ignore: decorator
@inline
function at(row: usize, x: u32, place: u32): f32 {
  return load<f32>(row + (((x + place) & (SIDE - 1)) << 2));
}

// @ts-ignore: decorator
@inline
function added(code: u32, by: f32, table: usize): u32 {
  const v = <f32>code + by * load<f32>(table + (code << 2)) + <f32>0.5;
  return <u32>(v < 0 ? <f32>0 : v > 255 ? <f32>255 : v);
}

/**
 * Adds to n straight RGBA8 px at dst, of column x on in row y: `same` times a number that the channels share and `own` times one of each of them, times
 * what `table` (256 f32) says of the code. `seed`: another one is another grain.
 */
export function grainRow(dst: usize, n: i32, x: u32, y: u32, tile: usize, table: usize, seed: u32, same: f32, own: f32): void {
  const pr = mixed(seed * 4);
  const pg = mixed(seed * 4 + 1);
  const pb = mixed(seed * 4 + 2);
  const ps = mixed(seed * 4 + 3);
  const red = rowOf(tile, y, pr);
  const green = rowOf(tile, y, pg);
  const blue = rowOf(tile, y, pb);
  const grey = rowOf(tile, y, ps);
  for (let i = 0; i < n; i++, x++, dst += 4) {
    const shared = same * at(grey, x, ps);
    const p = load<u32>(dst);
    store<u32>(
      dst,
      added(p & 255, shared + own * at(red, x, pr), table) |
        (added((p >>> 8) & 255, shared + own * at(green, x, pg), table) << 8) |
        (added((p >>> 16) & 255, shared + own * at(blue, x, pb), table) << 16) |
        (p & 0xff000000),
    );
  }
}
