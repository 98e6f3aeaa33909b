interface Bounds {
  left: number
  top: number
  right: number
  bottom: number
}

/** What the ends of chords (`flatten`) lie within; null where there are none. */
export function boundsOf(ends: Float64Array): Bounds | null {
  if (ends.length === 0) return null
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (let i = 0; i < ends.length; i += 2) {
    bounds.left = Math.min(bounds.left, ends[i]!)
    bounds.right = Math.max(bounds.right, ends[i]!)
    bounds.top = Math.min(bounds.top, ends[i + 1]!)
    bounds.bottom = Math.max(bounds.bottom, ends[i + 1]!)
  }
  return bounds
}
