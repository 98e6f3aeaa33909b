// How much of a pixel is covered: read from pictures, and shown as grey.

/** The alpha of n premultiplied linear pixels as n f32 in 0..1. */
export function alphaRow(src: usize, out: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const a = load<f32>(src + (i << 4), 12);
    store<f32>(out + (i << 2), max<f32>(0, min<f32>(1, a)));
  }
}

/** The brightness of n opaque codes as n f32 in 0..1: BT.709 luma, so that grey is its code. */
export function brightRow(src: usize, out: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const code = load<u32>(src + (i << 2));
    // The shares sum up to 65536: white is 1 to the bit.
    const sum = (code & 255) * 13933 + ((code >> 8) & 255) * 46871 + ((code >> 16) & 255) * 4732;
    store<f32>(out + (i << 2), <f32>sum / <f32>(65536 * 255));
  }
}

/** The alpha of n premultiplied linear pixels as n opaque codes of grey. */
export function greyRow(src: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const a = load<f32>(src + (i << 4), 12);
    const code = <u32>nearest(max<f32>(0, min<f32>(1, a)) * 255);
    store<u32>(dst + (i << 2), 0xff000000 | (code * 0x010101));
  }
}
