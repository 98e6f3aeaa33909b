// Whether an outline winds round a place.
import { isEcho, px, py } from "./chord";

/** How many entries `rowLists` makes: a chord for each row of a picture that it goes through. */
export function outlineRows(points: usize, count: i32, height: i32): i32 {
  let entries = 0;
  for (let i = 0; i < count; i++) {
    if (isEcho(points, i)) continue;
    const j = i + 1 < count ? i + 1 : 0;
    const top = firstRow(py(points, i), py(points, j)), bottom = lastRow(py(points, i), py(points, j), height);
    if (bottom >= top) entries += bottom - top + 1;
  }
  return entries;
}

// @ts-ignore: decorator
@inline
function firstRow(a: f64, b: f64): i32 {
  return <i32>Math.max(0, Math.min(1e9, Math.floor(Math.min(a, b))));
}

// @ts-ignore: decorator
@inline
function lastRow(a: f64, b: f64, height: i32): i32 {
  return <i32>Math.min(<f64>(height - 1), Math.max(-1, Math.floor(Math.max(a, b))));
}

/** The chords that go through each row: where each row's list begins, as height + 1 i32, and behind them the lists. */
export function rowLists(points: usize, count: i32, height: i32, rows: usize): void {
  memory.fill(rows, 0, <usize>(height + 1) << 2);
  for (let pass = 0; pass < 2; pass++) {
    for (let i = 0; i < count; i++) {
      if (isEcho(points, i)) continue;
      const j = i + 1 < count ? i + 1 : 0;
      const bottom = lastRow(py(points, i), py(points, j), height);
      for (let y = firstRow(py(points, i), py(points, j)); y <= bottom; y++) {
        const at = rows + (<usize>y << 2);
        if (pass == 0) store<i32>(at, load<i32>(at) + 1);
        else {
          // Filled from the end, so that each count becomes the place of the list.
          const place = load<i32>(at) - 1;
          store<i32>(at, place);
          store<i32>(rows + (<usize>(height + 1 + place) << 2), i);
        }
      }
    }
    if (pass == 1) break;
    let sum = 0;
    for (let y = 0; y <= height; y++) {
      const at = rows + (<usize>y << 2);
      sum += load<i32>(at);
      store<i32>(at, sum);
    }
  }
}

/** Whether the outline winds round (x, y). */
export function windsRound(points: usize, count: i32, rows: usize, height: i32, x: f64, y: f64): bool {
  const row = <i32>Math.floor(y);
  const end = load<i32>(rows + (<usize>(row + 1) << 2));
  let winding = 0;
  for (let n = load<i32>(rows + (<usize>row << 2)); n < end; n++) {
    const i = load<i32>(rows + (<usize>(height + 1 + n) << 2));
    const j = i + 1 < count ? i + 1 : 0;
    const ay = py(points, i), by = py(points, j);
    if (ay <= y == by <= y) continue;
    const ax = px(points, i);
    if (ax + ((y - ay) / (by - ay)) * (px(points, j) - ax) < x) winding += ay < by ? 1 : -1;
  }
  return winding != 0;
}

/**
 * How often more an outline winds round each pixel's middle than round that of the one before it in its row: added up to height rows of stride
 * bytes at out, of width f32 and one that is spare.
 */
export function addWindings(points: usize, count: i32, width: i32, height: i32, out: usize, stride: usize): void {
  for (let i = 0; i < count; i++) {
    const j = i + 1 < count ? i + 1 : 0;
    const ax = px(points, i), ay = py(points, i), bx = px(points, j), by = py(points, j);
    if (ay == by || isEcho(points, i)) continue;
    const top = <i32>Math.max(0, Math.ceil(Math.min(ay, by) - 0.5));
    const bottom = <i32>Math.min(<f64>height, Math.ceil(Math.max(ay, by) - 0.5));
    const wind: f32 = ay < by ? 1 : -1;
    const slope = (bx - ax) / (by - ay);
    for (let y = top; y < bottom; y++) {
      const x = ax + (<f64>y + 0.5 - ay) * slope;
      if (x > <f64>width) continue;
      const at = out + <usize>y * stride + (<usize><i32>Math.max(0, Math.ceil(x - 0.5)) << 2);
      store<f32>(at, load<f32>(at) + wind);
    }
  }
}
