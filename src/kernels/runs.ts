// Which layer alone shows at a pixel: decides what is copied and what is computed.

/** No layer has claimed the pixel yet. */
const OPEN: u8 = 255;
/** More than one thing shows: the pixel is composited in float. */
const SOFT: u8 = 254;

/**
 * Lets one layer, nearest first, claim pixels of a row of classes.
 * coverage: n f32 (0 for full coverage); opaque: 0 when the layer can never fully hide what is behind it.
 * Returns 1 while any pixel is still open. The row must have 16 bytes of slack, filled with 255 like the rest.
 */
export function classifyRow(classes: usize, coverage: usize, n: i32, layer: i32, opaque: i32): i32 {
  const own = i8x16.splat(<i8>layer);
  const soft = i8x16.splat(<i8>SOFT);
  const open = i8x16.splat(<i8>OPEN);
  const zero = f32x4.splat(0);
  const full = opaque ? f32x4.splat(1) : f32x4.splat(2);
  const claim = opaque ? own : soft;
  let left = v128.splat<i8>(0);
  for (let i = 0; i < n; i += 16) {
    const was = v128.load(classes + i);
    const free = i8x16.eq(was, open);
    let now: v128;
    if (!coverage) {
      now = v128.bitselect(claim, was, free);
    } else {
      const at = coverage + (i << 2);
      const a = v128.load(at), b = v128.load(at, 16), c = v128.load(at, 32), d = v128.load(at, 48);
      const some = i8x16.narrow_i16x8_s(
        i16x8.narrow_i32x4_s(f32x4.gt(a, zero), f32x4.gt(b, zero)),
        i16x8.narrow_i32x4_s(f32x4.gt(c, zero), f32x4.gt(d, zero)),
      );
      const all = i8x16.narrow_i16x8_s(
        i16x8.narrow_i32x4_s(f32x4.ge(a, full), f32x4.ge(b, full)),
        i16x8.narrow_i32x4_s(f32x4.ge(c, full), f32x4.ge(d, full)),
      );
      now = v128.bitselect(v128.bitselect(claim, soft, all), was, v128.and(free, some));
    }
    v128.store(classes + i, now);
    left = v128.or(left, i8x16.eq(now, open));
  }
  return i32(v128.any_true(left));
}

/** The first of n f32 that is not nought; n where all are. */
export function firstCovered(coverage: usize, n: i32): i32 {
  const none = f32x4.splat(0);
  let i = 0;
  while (i + 4 <= n && !v128.any_true(f32x4.ne(v128.load(coverage + (i << 2)), none))) i += 4;
  while (i < n && load<f32>(coverage + (i << 2)) == 0) i++;
  return i;
}

/** One past the last of n f32 that is not nought; 0 where all are. */
export function lastCovered(coverage: usize, n: i32): i32 {
  const none = f32x4.splat(0);
  let i = n;
  while (i >= 4 && !v128.any_true(f32x4.ne(v128.load(coverage + ((i - 4) << 2)), none))) i -= 4;
  while (i > 0 && load<f32>(coverage + ((i - 1) << 2)) == 0) i--;
  return i;
}

/** 1 where each of n f32 is at least 1. */
export function isCovered(coverage: usize, n: i32): i32 {
  const all = f32x4.splat(1);
  let i = 0;
  while (i + 4 <= n && v128.all_true<i32>(f32x4.ge(v128.load(coverage + (i << 2)), all))) i += 4;
  while (i < n && load<f32>(coverage + (i << 2)) >= 1) i++;
  return i32(i == n);
}

/** Splits a row of n classes into runs of equal class: (start, end, class) as i32 at out. Returns how many. */
export function findRuns(classes: usize, n: i32, out: usize): i32 {
  let count = 0;
  let x = 0;
  while (x < n) {
    const kind = load<u8>(classes + x);
    const same = i8x16.splat(<i8>kind);
    const start = x;
    x++;
    while (x < n) {
      const differs = ~i8x16.bitmask(i8x16.eq(v128.load(classes + x), same)) & 0xffff;
      if (differs) {
        x += ctz(differs);
        break;
      }
      x += 16;
    }
    if (x > n) x = n;
    const at = out + count * 12;
    store<i32>(at, start);
    store<i32>(at, x, 4);
    store<i32>(at, <i32>kind, 8);
    count++;
  }
  return count;
}
