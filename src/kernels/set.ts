// The set beside somebody: how much light it has there, and how much what is seen of it may vary.

// @ts-ignore: decorator
@inline
export function at(plane: usize, i: i32): f32 {
  return load<f32>(plane + (<usize>i << 2));
}

/** How much of its light the set has at a cell: that of what shows of it near by, else what the cell's own shadow leaves. */
// @ts-ignore: decorator
@inline
export function setLight(weights: usize, sums: usize, left: usize, i: i32): f32 {
  const beside = at(weights, i);
  return beside > 0.01 ? min(<f32>1.02, at(sums, i) / beside) : min(<f32>1, at(left, i));
}

/** The variance of a px of the set as bright as `code`: of its noise by brightness, `single` times that of a cell's mean, of what its slope makes of a camera a little aside, and of its colour. */
// @ts-ignore: decorator
@inline
export function setVariance(grain: usize, code: f32, single: f32, steep: f32, slope: f32, colour: f32): f32 {
  return at(grain, max(0, min(15, i32(code * (16.0 / 272.0))))) * single + steep * slope + colour;
}

/** Where share (0..1, somebody about a cell) is next to nought: 1 at weights and left at sums; elsewhere 0. Of a part of planes whose rows begin `step` cells apart. */
export function besideCells(
  share: usize, left: usize, step: i32, width: i32, height: i32, weights: usize, sums: usize,
): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = <usize>(y * step + x) << 2;
      const isSet = load<f32>(share + i) < 0.001;
      store<f32>(weights + i, isSet ? 1 : 0);
      store<f32>(sums + i, isSet ? load<f32>(left + i) : 0);
    }
  }
}
