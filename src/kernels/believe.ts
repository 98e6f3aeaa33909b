// Min-sum belief propagation of two labels on a grid: a message is log odds, held within what the bond is worth.

// @ts-expect-error: decorator
@inline
function held(m: f32, w: f32): f32 {
  return max(-w, min(w, m));
}

// @ts-expect-error: decorator
@inline
function passDown(odds: usize, mine: usize, one: usize, other: usize, bond: usize, to: usize, width: i32): void {
  let x = 0;
  for (; x + 4 <= width; x += 4) {
    const at = <usize>x << 2;
    const w = v128.load(bond + at);
    const sides = f32x4.add(v128.load(one + at), v128.load(other + at));
    const m = f32x4.add(f32x4.add(v128.load(odds + at), v128.load(mine + at)), sides);
    v128.store(to + at, f32x4.pmax(f32x4.neg(w), f32x4.pmin(w, m)));
  }
  for (; x < width; x++) {
    const at = <usize>x << 2;
    const sides = load<f32>(one + at) + load<f32>(other + at);
    store<f32>(to + at, held(load<f32>(odds + at) + load<f32>(mine + at) + sides, load<f32>(bond + at)));
  }
}

/** What each cell of a row knows but from its sides. */
function gather(odds: usize, above: usize, below: usize, at: usize, stride: usize, own: usize): void {
  for (let i: usize = at; i < at + stride; i += 16) {
    v128.store(own + i, f32x4.add(v128.load(odds + i), f32x4.add(v128.load(above + i), v128.load(below + i))));
  }
}

/** To the right and to the left along one row. */
function passAcross(own: usize, across: usize, left: usize, right: usize, row: usize, stride: usize): void {
  let m: f32 = 0;
  for (let at = row; at < row + stride - 4; at += 4) {
    m = held(load<f32>(own + at) + m, load<f32>(across + at));
    store<f32>(left + at + 4, m);
  }
  m = 0;
  for (let at = row + stride - 4; at > row; at -= 4) {
    m = held(load<f32>(own + at) + m, load<f32>(across + at - 4));
    store<f32>(right + at - 4, m);
  }
}

// @ts-expect-error: decorator
@inline
function fourOf(a: usize, b: usize, c: usize, d: usize): v128 {
  return v128.load32_lane(d, v128.load32_lane(c, v128.load32_lane(b, v128.load32_zero(a), 1), 2), 3);
}

/** The same along two at once, and both ways: each cell has to wait for the one beside it, rows and ways need not for each other. */
function passAcross2(own: usize, across: usize, left: usize, right: usize, row: usize, stride: usize): void {
  let m = f32x4.splat(0);
  let to = row + stride - 4;
  for (let at = row; at < row + stride - 4; at += 4, to -= 4) {
    const w = fourOf(across + at, across + at + stride, across + to - 4, across + to + stride - 4);
    const told = fourOf(own + at, own + at + stride, own + to, own + to + stride);
    m = f32x4.pmax(f32x4.neg(w), f32x4.pmin(w, f32x4.add(told, m)));
    v128.store32_lane(left + at + 4, m, 0);
    v128.store32_lane(left + at + stride + 4, m, 1);
    v128.store32_lane(right + to - 4, m, 2);
    v128.store32_lane(right + to + stride - 4, m, 3);
  }
}

/**
 * `sweeps` to the right, left, down and up. odds, across, down, out: planes of f32; left, right, above, below: planes of messages
 * from those sides, which are cleared first.
 */
export function believe(
  odds: usize, across: usize, down: usize, width: i32, height: i32, sweeps: i32,
  left: usize, right: usize, above: usize, below: usize, out: usize,
): void {
  const stride = <usize>width << 2;
  const bytes = stride * <usize>height;
  memory.fill(left, 0, bytes);
  memory.fill(right, 0, bytes);
  memory.fill(above, 0, bytes);
  memory.fill(below, 0, bytes);
  for (let sweep = 0; sweep < sweeps; sweep++) {
    for (let y = 0; y < height; y++) gather(odds, above, below, <usize>y * stride, stride, out);
    let y = 0;
    for (; y + 2 <= height; y += 2) passAcross2(out, across, left, right, <usize>y * stride, stride);
    for (; y < height; y++) passAcross(out, across, left, right, <usize>y * stride, stride);
    for (let y = 0; y < height - 1; y++) {
      const at = <usize>y * stride;
      passDown(odds + at, above + at, left + at, right + at, down + at, above + at + stride, width);
    }
    for (let y = height - 1; y > 0; y--) {
      const at = <usize>y * stride;
      passDown(odds + at, below + at, left + at, right + at, down + at - stride, below + at - stride, width);
    }
  }
  for (let at: usize = 0; at < bytes; at += 4) {
    const sides = load<f32>(left + at) + load<f32>(right + at) + load<f32>(above + at) + load<f32>(below + at);
    store<f32>(out + at, load<f32>(odds + at) + sides);
  }
}
