// Alpha without what is too small to be anything: single px unlike all round them, and islands of a few.

const NINE: usize = memory.data(16, 16);

/** The middle one of 3×3 px about p. */
function middleAt(p: usize, stride: usize): i32 {
  for (let y = 0; y < 3; y++) {
    for (let x = 0; x < 3; x++) {
      const value = load<u8>(p + <usize>y * stride + <usize>x - stride - 1);
      let at = y * 3 + x;
      for (; at > 0 && load<u8>(NINE + <usize>at - 1) > value; at--) store<u8>(NINE + <usize>at, load<u8>(NINE + <usize>at - 1));
      store<u8>(NINE + <usize>at, value);
    }
  }
  return <i32>load<u8>(NINE, 4);
}

/** Rows of width bytes, `stride` apart, close together at `to`. */
function gathered(from: usize, stride: usize, width: i32, height: i32, to: usize): void {
  for (let y = 0; y < height; y++) memory.copy(to + <usize>(y * width), from + <usize>y * stride, width);
}

// @ts-expect-error: decorator
@inline
function fillPit(p: usize, stride: usize, pit: i32, to: usize): void {
  const a = <i32>load<u8>(p);
  const middle = middleAt(p, stride);
  if (middle >= a + pit) store<u8>(to, <u8>middle);
}

/** Raises px of a plane of u8 to the middle one of those about them where they are less by `pit` or more. Rows begin `step` apart. before: width × height. */
export function fillPits(alpha: usize, step: i32, before: usize, width: i32, height: i32, pit: i32): void {
  const stride = <usize>width;
  const deep = i8x16.splat(<i8>pit), most = i8x16.splat(<i8>(255 - pit)), four = i8x16.splat(4);
  gathered(alpha, step, width, height, before);
  for (let y = 1; y < height - 1; y++) {
    const row = before + <usize>y * stride, to = alpha + <usize>(y * step);
    let x = 1;
    for (; x + 17 <= width; x += 16) {
      const p = row + <usize>x;
      const isLow = i8x16.le_u(v128.load(p), most);
      if (!v128.any_true(isLow)) continue;
      // Five of nine decide: where fewer are so much more, nothing is raised.
      const least = i8x16.add_sat_u(v128.load(p), deep);
      let more = i8x16.splat(0);
      for (let q = p - stride; q <= p + stride; q += stride) {
        more = i8x16.sub(more, i8x16.ge_u(v128.load(q - 1), least));
        more = i8x16.sub(more, i8x16.ge_u(v128.load(q), least));
        more = i8x16.sub(more, i8x16.ge_u(v128.load(q + 1), least));
      }
      let pits = i8x16.bitmask(v128.and(isLow, i8x16.gt_s(more, four)));
      for (; pits != 0; pits &= pits - 1) {
        const at = <usize>ctz<i32>(pits);
        fillPit(p + at, stride, pit, to + <usize>x + at);
      }
    }
    for (; x < width - 1; x++) fillPit(row + <usize>x, stride, pit, to + <usize>x);
  }
}

/** Whether sixteen px from p on are each as the one before them. */
// @ts-expect-error: decorator
@inline
function goOn(p: usize): bool {
  return !v128.any_true(v128.xor(v128.load(p), v128.load(p - 1)));
}

/**
 * Of a plane of u8: what is from `covered` on becomes 0, and what is below `bare` 255, where fewer than `needed` of the eight px round it are so too; what is less
 * than `covered` becomes 0 where `faint` of them are. The border stays. Rows begin `step` apart. before: width × height.
 */
export function dropSpecks(
  alpha: usize, step: i32, before: usize, width: i32, height: i32, covered: i32, bare: i32, needed: i32, faint: i32,
): void {
  const stride = <usize>width;
  const all = i8x16.splat(<i8>covered), none = i8x16.splat(0), most = i8x16.splat(<i8>bare);
  const few = i8x16.splat(<i8>needed), many = i8x16.splat(<i8>faint);
  gathered(alpha, step, width, height, before);
  for (let y = 1; y < height - 1; y++) {
    const row = before + <usize>y * stride, to = alpha + <usize>(y * step);
    let x = 1;
    for (; x + 17 <= width; x += 16) {
      const p = row + <usize>x;
      const a = v128.load(p);
      if (!v128.any_true(v128.or(v128.xor(a, v128.load(p - 1)), v128.xor(a, v128.load(p + 1))))) {
        // As both beside them: only what is faint may change.
        const isFaint = v128.andnot(v128.xor(i8x16.ge_u(a, all), i8x16.splat(-1)), i8x16.eq(a, none));
        if (!v128.any_true(isFaint)) continue;
      }
      let over = none, under = none, clear = none;
      for (let q = p - stride; q <= p + stride; q += stride) {
        for (let u: usize = 0; u < 3; u++) {
          const other = v128.load(q + u - 1);
          const isOver = i8x16.ge_u(other, all), isUnder = i8x16.lt_u(other, most), isClear = i8x16.eq(other, none);
          over = i8x16.sub(over, isOver);
          under = i8x16.sub(under, isUnder);
          clear = i8x16.sub(clear, isClear);
        }
      }
      const isOver = i8x16.ge_u(a, all), isUnder = i8x16.lt_u(a, most);
      // Each is counted with those round it.
      over = i8x16.add(over, isOver);
      under = i8x16.add(under, isUnder);
      const goes = v128.bitselect(i8x16.lt_s(over, few), i8x16.ge_s(clear, many), isOver);
      const fills = v128.andnot(v128.and(isUnder, i8x16.lt_s(under, few)), goes);
      v128.store(to + <usize>x, v128.or(v128.andnot(a, goes), fills));
    }
    for (; x < width - 1; x++) {
      const p = row + <usize>x;
      const a = <i32>load<u8>(p);
      let over = a >= covered ? -1 : 0, under = a < bare ? -1 : 0, clear = 0;
      for (let q = p - stride - 1; q <= p + stride - 1; q += stride) {
        for (let u: usize = 0; u < 3; u++) {
          const other = <i32>load<u8>(q + u);
          if (other >= covered) over++;
          if (other < bare) under++;
          if (other == 0) clear++;
        }
      }
      if (a >= covered ? over < needed : clear >= faint) store<u8>(to + <usize>x, 0);
      else if (a < bare && under < needed) store<u8>(to + <usize>x, 255);
    }
  }
}

// @ts-expect-error: decorator
@inline
function isBelow(p: usize, part: i32): bool {
  return <i32>load<u8>(p) >= part || <i32>load<u8>(p - 1) >= part || <i32>load<u8>(p + 1) >= part;
}

/** Whether anything from `part` on lies on the first row, or on the first or the last px of any. */
function isOpen(alpha: usize, width: i32, height: i32, part: i32): bool {
  for (let x = 0; x < width; x++) if (<i32>load<u8>(alpha + <usize>x) >= part) return true;
  for (let y = 1; y < height; y++) {
    const row = alpha + <usize>(y * width);
    if (<i32>load<u8>(row) >= part || <i32>load<u8>(row + <usize>width - 1) >= part) return true;
  }
  return false;
}

/** Of a plane of u8: connected px (eight neighbours) from `part` on that are fewer than `smallest` become 0. found: as many i32. */
export function dropIslands(alpha: usize, width: i32, height: i32, part: i32, smallest: i32, found: usize): void {
  const n = width * height;
  const near = isOpen(alpha, width, height, part) ? smallest : 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const start = y * width + x;
      const p = alpha + <usize>start;
      if (x + 16 < width && goOn(p)) {
        x += 15;
        continue;
      }
      // Each has a px with nothing to its left.
      if (<i32>load<u8>(p) < part || <i32>load<u8>(p - 1) >= part) continue;
      // What is above and still there was large; of what reaches the border nobody knows yet.
      if (x > near && y > near && isBelow(p - <usize>width, part)) continue;
      store<i32>(found, start);
      let count = 1;
      for (let next = 0; next < count && count < smallest; next++) {
        const at = load<i32>(found + (<usize>next << 2));
        for (let v = -width; v <= width && count < smallest; v += width) {
          for (let u = -1; u <= 1 && count < smallest; u++) {
            const other = at + v + u;
            if (other < 0 || other >= n || <i32>load<u8>(alpha + <usize>other) < part) continue;
            let isNew = true;
            for (let k = 0; k < count && isNew; k++) isNew = load<i32>(found + (<usize>k << 2)) != other;
            if (!isNew) continue;
            store<i32>(found + (<usize>count << 2), other);
            count++;
          }
        }
      }
      if (count >= smallest) continue;
      for (let k = 0; k < count; k++) store<u8>(alpha + <usize>load<i32>(found + (<usize>k << 2)), 0);
    }
  }
}

// @ts-expect-error: decorator
@inline
function isMarked(p: usize): bool {
  return <i32>load<u8>(p - 1) + <i32>load<u8>(p) + <i32>load<u8>(p + 1) > 0;
}

/** Marks what is from `faint` on and beside something marked: `by` 1 looks left and above, and goes down; -1 right and below, and goes up. */
function spread(alpha: usize, step: i32, marks: usize, width: i32, height: i32, faint: i32, by: i32): void {
  const stride = <usize>width;
  const least = i8x16.splat(<i8>faint);
  const firstX = by > 0 ? 1 : width - 2;
  const firstY = by > 0 ? 1 : height - 2;
  for (let y = firstY; y > 0 && y < height - 1; y += by) {
    const row = <usize>y * stride, own = alpha + <usize>(y * step);
    for (let x = firstX; x > 0 && x < width - 1; x += by) {
      const at = row + <usize>x;
      // Sixteen of which none may yet be marked.
      const first = by > 0 ? x : x - 15;
      if (first > 0 && first + 16 < width) {
        const may = v128.andnot(i8x16.ge_u(v128.load(own + <usize>first), least), v128.load(marks + row + <usize>first));
        if (!v128.any_true(may)) {
          x += 15 * by;
          continue;
        }
      }
      if (<i32>load<u8>(own + <usize>x) < faint || load<u8>(marks + at) != 0) continue;
      const beside = by > 0 ? marks + at - stride : marks + at + stride;
      const before = by > 0 ? marks + at - 1 : marks + at + 1;
      if (load<u8>(before) != 0 || isMarked(beside)) store<u8>(marks + at, 255);
    }
  }
}

/**
 * Of a plane of u8: what is less than `firm` becomes 0 where nothing from `faint` on leads from it to something firm (morphological reconstruction: Vincent 1993, some rounds of
 * it). The border stays. Rows begin `step` apart. marks: width × height.
 */
export function dropFaint(
  alpha: usize, step: i32, marks: usize, width: i32, height: i32, firm: i32, faint: i32, rounds: i32,
): void {
  const least = i8x16.splat(<i8>firm);
  for (let y = 0; y < height; y++) {
    const from = alpha + <usize>(y * step), to = marks + <usize>(y * width);
    let x = 0;
    for (; x + 16 <= width; x += 16) v128.store(to + <usize>x, i8x16.ge_u(v128.load(from + <usize>x), least));
    for (; x < width; x++) store<u8>(to + <usize>x, <i32>load<u8>(from + <usize>x) >= firm ? 255 : 0);
  }
  for (let round = 0; round < rounds; round++) {
    spread(alpha, step, marks, width, height, faint, 1);
    spread(alpha, step, marks, width, height, faint, -1);
  }
  const stride = <usize>width;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const p = alpha + <usize>(y * step + x);
      // None or firm: they stay.
      if (x + 16 < width && !v128.any_true(v128.andnot(v128.load(p), i8x16.ge_u(v128.load(p), least)))) {
        x += 15;
        continue;
      }
      const value = <i32>load<u8>(p);
      if (value == 0 || value >= firm) continue;
      const m = marks + <usize>y * stride + <usize>x;
      const isKept = value >= faint ? load<u8>(m) != 0 : isMarked(m - stride) || isMarked(m) || isMarked(m + stride);
      if (!isKept) store<u8>(p, 0);
    }
  }
}
