// Rows of 8-bit codes as their differences to the rows above (the filter "Up" of ISO/IEC 15948, 9.2), alpha kept or left out.

/** n RGBA8 pixels at src less those at above, modulo 256 -> n pixels of `channels` (3 or 4) bytes at dst, which has room for 4 bytes more. */
export function upRow(src: usize, above: usize, dst: usize, n: i32, channels: i32): void {
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const d = i8x16.sub(v128.load(src + (i << 2)), v128.load(above + (i << 2)));
    if (channels == 4) v128.store(dst + (i << 2), d);
    else v128.store(dst + i * 3, i8x16.swizzle(d, i8x16(0, 1, 2, 4, 5, 6, 8, 9, 10, 12, 13, 14, 16, 16, 16, 16)));
  }
  for (; i < n; i++) {
    for (let c = 0; c < channels; c++) {
      store<u8>(dst + i * channels + c, load<u8>(src + (i << 2) + c) - load<u8>(above + (i << 2) + c));
    }
  }
}
