// Where a piece is while the shutter is open.
import type { PlannedShape, Shape } from '../shape'
import { SHAPES } from '../shape'
import type { Blur } from '../shot'

/** px that a shape may move from one moment to the next. */
const STEP = 0.75
/** Moments at most, a power of two. */
const MOST = 64

/**
 * The shapes whose mean is the blurred one, as many as it moves far; none where it stands still. `at` is the shape at a frame,
 * fractions allowed. A shutter of 360° is open from one frame to the next; the phase says how much later it opens, in the same degrees.
 */
export function sweepOf(
  kind: Shape['kind'],
  { shutter, phase }: Blur,
  frame: number,
  at: (frame: number) => PlannedShape,
): PlannedShape[] {
  const { travel } = SHAPES[kind]
  if (shutter <= 0 || !travel) return []
  const moment = (share: number) => at(frame + (phase + shutter * share) / 360)
  const [begin, middle, end] = [moment(0), moment(0.5), moment(1)]
  const far = travel(begin, middle) + travel(middle, end)
  if (far < 0.01) return []
  let count = 4
  while (count < MOST && far / count > STEP) count *= 2
  return Array.from({ length: count }, (_, i) => moment((i + 0.5) / count))
}
