// Coverage by a line that has a width at each of its ends: hair, cables, the edge of a door.
import { pixelCoverage } from "./ramp";

/** Bytes of a chord: where it begins, how far it goes, x before y, one by the square of its length (0 if it has none), half its width where it begins and where it ends, f64. */
const CHORD: usize = 56;
/** px of feather up to which both borders of a thin line count in one pixel. */
const HARD: f64 = 1;

/** For each pixel: px from the middle of the line, half of how wide that is there, and which way it lies. */
function measure(points: usize, width: i32, height: i32, reach: f64, field: usize): void {
  const ax = load<f64>(points), ay = load<f64>(points, 8), dx = load<f64>(points, 16), dy = load<f64>(points, 24);
  const inverse = load<f64>(points, 32), from = load<f64>(points, 40), to = load<f64>(points, 48);
  const far = reach + max(from, to);
  const top = <i32>max(0, Math.floor(min(ay, ay + dy) - far)), bottom = <i32>min(<f64>(height - 1), Math.ceil(max(ay, ay + dy) + far));
  const left = <i32>max(0, Math.floor(min(ax, ax + dx) - far)), right = <i32>min(<f64>(width - 1), Math.ceil(max(ax, ax + dx) + far));
  for (let row = top; row <= bottom; row++) {
    const y = <f64>row + 0.5;
    // How far along the row a chord that stands steep can be near.
    let first = left, last = right;
    if (Math.abs(dy) > 1e-9) {
      const one = ax + ((y - far - ay) / dy) * dx, two = ax + ((y + far - ay) / dy) * dx;
      first = <i32>max(<f64>left, min(<f64>right + 1, Math.floor(min(one, two) - far)));
      last = <i32>min(<f64>right, max(<f64>left - 1, Math.ceil(max(one, two) + far)));
    }
    for (let column = first; column <= last; column++) {
      const x = <f64>column + 0.5;
      const t = min(1.0, max(0.0, ((x - ax) * dx + (y - ay) * dy) * inverse));
      const nx = x - ax - t * dx, ny = y - ay - t * dy;
      const away = Math.sqrt(nx * nx + ny * ny);
      const half = from + (to - from) * t;
      const at = field + (<usize>(row * width + column) << 4);
      if (half - away <= <f64>(load<f32>(at, 4) - load<f32>(at))) continue;
      store<f32>(at, <f32>away);
      store<f32>(at, <f32>half, 4);
      store<f32>(at, <f32>nx, 8);
      store<f32>(at, <f32>ny, 12);
    }
  }
}

/**
 * Coverage by a line of count chords that is grown by grow px and feathered by inside and outside px: height rows of width f32, close together, at
 * out. `field` is room for four f32 a pixel.
 */
export function stripCoverage(points: usize, count: i32, width: i32, height: i32, grow: f64, inside: f64, outside: f64, out: usize, field: usize): void {
  const reach = max(0, grow) + outside + 1;
  for (let at = field, end = field + (<usize>(width * height) << 4); at < end; at += 16) v128.store(at, f32x4(1e9, 0, 1, 0));
  for (let i = 0; i < count; i++) measure(points + <usize>i * CHORD, width, height, reach, field);
  const isHard = inside + outside < HARD;
  for (let i = 0; i < width * height; i++) {
    const at = field + (<usize>i << 4);
    const away = <f64>load<f32>(at);
    let c = 0.0;
    if (away < 1e8) {
      const half = <f64>load<f32>(at, 4) + grow;
      const r = away > 1e-6 ? 1 / away : 0;
      const nx = away > 1e-6 ? <f64>load<f32>(at, 8) * r : 1, ny = <f64>load<f32>(at, 12) * r;
      c = half > -outside ? pixelCoverage(half - away, nx, ny, inside, outside) : 0;
      if (isHard) c = max(0, c + pixelCoverage(half + away, nx, ny, inside, outside) - 1);
    }
    store<f32>(out + (<usize>i << 2), <f32>c);
  }
}
