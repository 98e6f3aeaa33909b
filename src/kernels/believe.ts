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
    v128.store(to + at, f32x4.max(f32x4.neg(w), f32x4.min(w, m)));
  }
  for (; x < width; x++) {
    const at = <usize>x << 2;
    const sides = load<f32>(one + at) + load<f32>(other + at);
    store<f32>(to + at, held(load<f32>(odds + at) + load<f32>(mine + at) + sides, load<f32>(bond + at)));
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
    for (let y = 0; y < height; y++) {
      const row = <usize>y * stride;
      let carried: f32 = 0;
      for (let at = row; at < row + stride - 4; at += 4) {
        const own = load<f32>(odds + at) + load<f32>(above + at) + load<f32>(below + at);
        carried = held(own + carried, load<f32>(across + at));
        store<f32>(left + at + 4, carried);
      }
      carried = 0;
      for (let at = row + stride - 4; at > row; at -= 4) {
        const own = load<f32>(odds + at) + load<f32>(above + at) + load<f32>(below + at);
        carried = held(own + carried, load<f32>(across + at - 4));
        store<f32>(right + at - 4, carried);
      }
    }
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
