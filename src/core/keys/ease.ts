// How a value goes from one key to the next.

/** Two handles of a curve from (0, 0) to (1, 1), time before value; time within 0..1, so that it never runs back. */
export type Handles = readonly [x1: number, y1: number, x2: number, y2: number]

export type Ease = 'hold' | 'linear' | 'smooth' | { curve: Handles }

/** How far a drawn curve may swing beyond both keys, of the way between them. */
export const SWING = 4

/** The curve that a new one begins as: slow at both ends, as `smooth` nearly is. */
export const FIRST_CURVE: Handles = [0.4, 0, 0.6, 1]

const cubic = (a: number, b: number, t: number): number => {
  const s = 1 - t
  return 3 * s * s * t * a + 3 * s * t * t * b + t * t * t
}

/** How far along a curve its time is x, by halving: time runs one way. */
function along(x: number, [x1, , x2]: Handles): number {
  let [low, high] = [0, 1]
  for (let i = 0; i < 40; i++) {
    const t = (low + high) / 2
    if (cubic(x1, x2, t) < x) low = t
    else high = t
  }
  return (low + high) / 2
}

/** What share of the way to the next key the value has gone at share t of the time, 0..1. */
export function eased(ease: Ease, t: number): number {
  if (ease === 'hold') return 0
  if (ease === 'linear') return t
  if (ease === 'smooth') return t * t * (3 - 2 * t)
  return cubic(ease.curve[1], ease.curve[3], along(t, ease.curve))
}

/** The same way gone backwards. */
export function reversedEase(ease: Ease): Ease {
  if (typeof ease === 'string') return ease
  const [x1, y1, x2, y2] = ease.curve
  return { curve: [1 - x2, 1 - y2, 1 - x1, 1 - y1] }
}

/** What an ease is called. */
export const easeName = (ease: Ease): string => (typeof ease === 'string' ? ease : 'curve')
