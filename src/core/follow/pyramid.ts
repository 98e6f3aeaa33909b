// A grey picture at half its size, and half of that, and so on.

export interface Grey {
  width: number
  height: number
  data: Float32Array
}

/** Levels beneath which a picture is too small to tell anything, px of its shorter side. */
const LEAST = 24

/** Halved by a binomial of three either way before every second px is taken. */
function halved({ width, height, data }: Grey): Grey {
  const [w, h] = [width >> 1, height >> 1]
  const across = new Float32Array(w * height)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < w; x++) {
      const at = y * width + 2 * x
      across[y * w + x] = (data[at - (x > 0 ? 1 : 0)]! + 2 * data[at]! + data[at + 1]!) / 4
    }
  }
  const out = new Float32Array(w * h)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at = 2 * y * w + x
      out[y * w + x] = (across[at - (y > 0 ? w : 0)]! + 2 * across[at]! + across[at + w]!) / 4
    }
  }
  return { width: w, height: h, data: out }
}

/** The picture itself and at most so many smaller ones; px at (x, y) of one lies at (x / 2, y / 2) of the next. */
export function pyramid(picture: Grey, levels: number): Grey[] {
  const all = [picture]
  while (all.length < levels && Math.min(all.at(-1)!.width, all.at(-1)!.height) >= 2 * LEAST)
    all.push(halved(all.at(-1)!))
  return all
}

/** Between px, of which (0, 0) is the middle of the first; beyond the picture what its border is. */
export function valueAt({ width, height, data }: Grey, x: number, y: number): number {
  const px = Math.max(0, Math.min(width - 1.001, x))
  const py = Math.max(0, Math.min(height - 1.001, y))
  const [left, top] = [Math.floor(px), Math.floor(py)]
  const [u, v] = [px - left, py - top]
  const at = top * width + left
  const one = data[at]! * (1 - u) + data[at + 1]! * u
  const two = data[at + width]! * (1 - u) + data[at + width + 1]! * u
  return one * (1 - v) + two * v
}

/**
 * A square of values a px apart, rows one after the other, its first at (x, y): as `valueAt` gives them. All lie at the same place between px, so that what is
 * mixed is told once.
 */
export function squareAt(picture: Grey, x: number, y: number, side: number, out: Float32Array): void {
  const { width, height, data } = picture
  const [left, top] = [Math.floor(x), Math.floor(y)]
  if (left < 0 || top < 0 || left + side >= width || top + side >= height) {
    for (let v = 0, i = 0; v < side; v++) for (let u = 0; u < side; u++, i++) out[i] = valueAt(picture, x + u, y + v)
    return
  }
  const [s, t] = [x - left, y - top]
  const [a, b, c, d] = [(1 - s) * (1 - t), s * (1 - t), (1 - s) * t, s * t]
  for (let v = 0, i = 0; v < side; v++) {
    let at = (top + v) * width + left
    for (let u = 0; u < side; u++, i++, at++)
      out[i] = a * data[at]! + b * data[at + 1]! + c * data[at + width]! + d * data[at + width + 1]!
  }
}
