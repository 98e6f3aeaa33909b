// The chords that an outline is given as, and what lies near them.
export const NONE: i32 = -1;
/**
 * Bytes of a chord: where it begins, how far it goes, x before y, one by the square of its length (0 if it has none), and 1 if it is an echo, f64. An
 * echo is the last chord of a ring before its first one, or its first after its last: where there are several rings it lets chords find their neighbours, and counts
 * for nothing else.
 */
export const CHORD: usize = 48;
/** Chords that are looked at either way from one that is near. */
const STEPS: i32 = 24;
/** Squared cosine of the turn up to which two chords pass for one line. */
const STRAIGHT: f64 = 0.97;

/** Where chord i begins. */
// @ts-ignore: decorator
@inline
export function px(points: usize, i: i32): f64 {
  return load<f64>(points + <usize>i * CHORD);
}

// @ts-ignore: decorator
@inline
export function py(points: usize, i: i32): f64 {
  return load<f64>(points + <usize>i * CHORD, 8);
}

// @ts-ignore: decorator
@inline
export function isEcho(points: usize, i: i32): bool {
  return load<f64>(points + <usize>i * CHORD, 40) != 0;
}

export let nearX: f64 = 0;
export let nearY: f64 = 0;

/** Squared distance from (x, y) to chord i. Leaves the nearest point of it behind. */
// @ts-ignore: decorator
@inline
export function away(points: usize, i: i32, x: f64, y: f64): f64 {
  const at = points + <usize>i * CHORD;
  const ax = load<f64>(at), ay = load<f64>(at, 8), dx = load<f64>(at, 16), dy = load<f64>(at, 24);
  const t = min(1.0, max(0.0, ((x - ax) * dx + (y - ay) * dy) * load<f64>(at, 32)));
  nearX = ax + t * dx;
  nearY = ay + t * dy;
  return (x - nearX) * (x - nearX) + (y - nearY) * (y - nearY);
}

/** Squared distance from (x, y) to the nearest of the chords about chord i that go on from it without coming farther away first. */
export function nearby(points: usize, count: i32, i: i32, x: f64, y: f64): f64 {
  let best = away(points, i, x, y);
  for (let way = -1; way <= 1; way += 2) {
    let chord = i;
    for (let n = 0; n < STEPS; n++) {
      chord += way;
      if (chord < 0) chord = count - 1;
      if (chord >= count) chord = 0;
      const d = away(points, chord, x, y);
      if (d > best) break;
      best = d;
    }
  }
  return best;
}

/** Whether one chord goes on from another, by way of few between them and nearly straight: then they are one line to a pixel. */
// @ts-ignore: decorator
@inline
export function goesOn(points: usize, count: i32, i: i32, other: i32): bool {
  const apart = abs(i - other);
  if (min(apart, count - apart) > STEPS) return false;
  const one = points + <usize>i * CHORD, two = points + <usize>other * CHORD;
  const dx = load<f64>(one, 16), dy = load<f64>(one, 24), ex = load<f64>(two, 16), ey = load<f64>(two, 24);
  const dot = dx * ex + dy * ey;
  return dot > 0 && dot * dot > STRAIGHT * (dx * dx + dy * dy) * (ex * ex + ey * ey);
}

/** Whether a place lies within the pixel about (x, y), or next to it. */
// @ts-ignore: decorator
@inline
function inPixel(ax: f64, ay: f64, x: f64, y: f64): bool {
  return Math.abs(ax - x) < 1 && Math.abs(ay - y) < 1;
}

/** The chord that meets chord i in a corner, where that corner is what of it is nearest to (x, y), or lies right by; none where they go on nearly straight. */
export function meets(points: usize, count: i32, i: i32, x: f64, y: f64): i32 {
  const at = points + <usize>i * CHORD;
  const j = i + 1 < count ? i + 1 : 0;
  const ax = px(points, i), ay = py(points, i);
  const t = ((x - ax) * load<f64>(at, 16) + (y - ay) * load<f64>(at, 24)) * load<f64>(at, 32);
  let other = NONE;
  if (t <= 0 || (t < 0.5 && inPixel(ax, ay, x, y))) other = i > 0 ? i - 1 : count - 1;
  else if (t >= 1 || inPixel(px(points, j), py(points, j), x, y)) other = j;
  if (other == NONE) return NONE;
  return goesOn(points, count, i, other) ? NONE : other;
}
