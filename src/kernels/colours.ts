// Somebody's own colours where they are soft: packed, and laid out again with a little round them.

// @ts-expect-error: decorator
@inline
function code(value: f32): i32 {
  return max(0, min(255, i32(value + 0.5)));
}

/**
 * Red, green and blue of px whose alpha is neither nought nor 255, in order, at out; how many there are. colours: u32 codes, each with the alpha that it was told with: where that
 * has come to differ by more than stale, what is seen is told, by the luma of px and u and v of their cells (lifted codes).
 */
export function packColours(
  alpha: usize, colours: usize, luma: usize, u: usize, v: usize, width: i32, height: i32, lift: f32, stale: i32, out: usize,
): i32 {
  const cells = (width + 1) >> 1;
  const empty = i8x16.splat(0), full = i8x16.splat(-1);
  let count = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      if (x + 16 <= width) {
        const codes = v128.load(alpha + <usize>p);
        if (i8x16.all_true(v128.or(i8x16.eq(codes, empty), i8x16.eq(codes, full)))) {
          x += 15;
          continue;
        }
      }
      const a = load<u8>(alpha + <usize>p);
      if (a == 0 || a == 255) continue;
      let known = load<u32>(colours + (<usize>p << 2));
      if (abs<i32>(<i32>(known >> 24) - <i32>a) > stale) {
        const grey = load<f32>(luma + (<usize>p << 2)) - lift;
        const cell = <usize>((y >> 1) * cells + (x >> 1)) << 2;
        const cu = load<f32>(u + cell), cv = load<f32>(v + cell);
        known = code(grey + 1.5748 * cv) | (code(grey - 0.1873 * cu - 0.4681 * cv) << 8) | (code(grey + 1.8556 * cu) << 16);
      }
      const to = out + <usize>(count * 3);
      store<u8>(to, <u8>known);
      store<u8>(to, <u8>(known >> 8), 1);
      store<u8>(to, <u8>(known >> 16), 2);
      count++;
    }
  }
  return count;
}

/** Whether sixteen px from p on are clear. */
// @ts-expect-error: decorator
@inline
function allClear(p: usize): bool {
  return !v128.any_true(v128.load(p));
}

/**
 * The colours that `packColours` packed as straight codes of width × height at out, clear elsewhere; px round them that are clear in alpha have the mean of those beside them, `rings`
 * px far. most: px that are packed.
 */
export function spreadColours(
  alpha: usize, packed: usize, most: i32, width: i32, height: i32, rings: i32, out: usize,
): void {
  memory.fill(out, 0, <usize>(width * height) << 2);
  let count = 0, left = width, right = -1, top = height, bottom = -1;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let first = width, last = -1;
    for (let x = 0; x < width; x++) {
      const p = row + x;
      if (x + 16 <= width && allClear(alpha + <usize>p)) {
        x += 15;
        continue;
      }
      const a = load<u8>(alpha + <usize>p);
      if (a == 0 || a == 255 || count >= most) continue;
      const from = packed + <usize>(count * 3);
      const colour = <u32>load<u8>(from) | (<u32>load<u8>(from, 1) << 8) | (<u32>load<u8>(from, 2) << 16);
      store<u32>(out + (<usize>p << 2), 0xff000000 | colour);
      count++;
      if (last < 0) first = x;
      last = x;
    }
    if (last < 0) continue;
    left = min(left, first);
    right = max(right, last);
    top = min(top, y);
    bottom = y;
  }
  // Elsewhere all is clear and stays so.
  left = max(0, left - rings);
  right = min(width - 1, right + rings);
  top = max(0, top - rings);
  bottom = min(height - 1, bottom + rings);
  // Each ring is a little less than opaque until all are there, so that none is told by itself.
  for (let ring = 1; ring <= rings; ring++) {
    const known = <u32>(256 - ring);
    for (let y = top; y <= bottom; y++) {
      for (let x = left; x <= right; x++) {
        const p = y * width + x;
        const at = out + (<usize>p << 2);
        if (x > 0 && x + 5 < width && y > 0 && y < height - 1) {
          const above = at - (<usize>width << 2), below = at + (<usize>width << 2);
          const beside = v128.or(v128.load(at - 4), v128.load(at + 8));
          if (!v128.any_true(v128.or(beside, v128.or(near(above), near(below))))) {
            x += 3;
            continue;
          }
        }
        if (load<u32>(at) != 0 || load<u8>(alpha + <usize>p) != 0) continue;
        let r: u32 = 0, g: u32 = 0, b: u32 = 0, all: u32 = 0;
        for (let v = max(0, y - 1); v <= min(height - 1, y + 1); v++) {
          for (let u = max(0, x - 1); u <= min(width - 1, x + 1); u++) {
            const colour = load<u32>(out + (<usize>(v * width + u) << 2));
            if (colour >> 24 < known) continue;
            r += colour & 255;
            g += (colour >> 8) & 255;
            b += (colour >> 16) & 255;
            all++;
          }
        }
        if (all > 0) store<u32>(at, ((known - 1) << 24) | (r / all) | ((g / all) << 8) | ((b / all) << 16));
      }
    }
  }
  const none = i32x4.splat(0), opaque = i32x4.splat(0xff000000);
  for (let y = top; y <= bottom; y++) {
    const row = out + (<usize>(y * width) << 2);
    let x = left;
    for (; x + 4 <= right + 1; x += 4) {
      const at = row + (<usize>x << 2);
      const colours = v128.load(at);
      v128.store(at, v128.or(colours, v128.and(i32x4.ne(colours, none), opaque)));
    }
    for (; x <= right; x++) {
      const at = row + (<usize>x << 2);
      const colour = load<u32>(at);
      if (colour != 0) store<u32>(at, colour | 0xff000000);
    }
  }
}

// @ts-expect-error: decorator
@inline
function near(at: usize): v128 {
  return v128.or(v128.load(at - 4), v128.load(at + 8));
}

/** n codes at dst, those of src where it is not clear. */
export function overlayRow(dst: usize, src: usize, n: i32): void {
  const opaque = i32x4.splat(0xff000000);
  let i = 0;
  for (; i + 4 <= n; i += 4) {
    const at = <usize>i << 2;
    const over = v128.load(src + at);
    if (!v128.any_true(over)) continue;
    const mask = i32x4.ne(v128.and(over, opaque), i32x4.splat(0));
    v128.store(dst + at, v128.bitselect(over, v128.load(dst + at), mask));
  }
  for (; i < n; i++) {
    const over = load<u32>(src + (<usize>i << 2));
    if (over >> 24 != 0) store<u32>(dst + (<usize>i << 2), over);
  }
}
