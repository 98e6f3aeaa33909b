// From frames to px along the lanes.

/** Px that the lanes' heads take on the left. */
export const HEADS = 124
const END = 20
/** Px of a frame when the lanes are closest. */
export const CLOSEST = 60

export interface TimeScale {
  /** Px a frame. */
  perFrame: number
  /** The frame at the left edge, with fractions. */
  left: number
  /** Px that show time. */
  width: number
  x(frame: number): number
  frame(x: number): number
}

/** Lanes `width` px wide, zoomed as told or, with null, so that the whole length shows. x is counted from the heads on. */
export function timeScale(length: number, width: number, zoom: { perFrame: number; left: number } | null): TimeScale {
  const room = Math.max(40, width - END)
  const perFrame = zoom?.perFrame ?? Math.max(0.01, room / length)
  const left = zoom?.left ?? 0
  return { perFrame, left, width, x: frame => (frame - left) * perFrame, frame: x => x / perFrame + left }
}

/** The zoom by a factor that leaves the frame under x where it is; null once the whole length shows. */
export function zoomedAt(scale: TimeScale, factor: number, x: number, length: number) {
  const perFrame = Math.min(CLOSEST, scale.perFrame * factor)
  if (perFrame * length <= scale.width - END + 1e-6) return null
  const left = scale.frame(x) - x / perFrame
  return { perFrame, left: within(left, perFrame, scale.width, length) }
}

/** The zoom moved by px. */
export function scrolledBy(scale: TimeScale, px: number, length: number) {
  const { perFrame, width } = scale
  return { perFrame, left: within(scale.left + px / perFrame, perFrame, width, length) }
}

/** The zoom that has a frame in view: as it is, or so that the frame lies a little inside. */
export function bringingIn(scale: TimeScale, frame: number, length: number) {
  const x = scale.x(frame)
  if (x >= 0 && x + scale.perFrame <= scale.width) return null
  const left = frame - (x < 0 ? 0.8 : 0.1) * (scale.width / scale.perFrame)
  return { perFrame: scale.perFrame, left: within(left, scale.perFrame, scale.width, length) }
}

const within = (left: number, perFrame: number, width: number, length: number): number =>
  Math.max(0, Math.min(left, length - (width - END) / perFrame))

const SECONDS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]
const FRAMES = [1, 2, 5, 10]

/** Frames between two marks of the ruler that stand at least 70 px apart: whole seconds, or frames where one is wide. */
export function rulerStep(perFrame: number, framesPerSecond: number): number {
  const whole = Math.round(framesPerSecond)
  const fine = FRAMES.find(f => f * perFrame >= 70 && f < whole)
  return fine ?? (SECONDS.find(s => s * perFrame * framesPerSecond >= 70) ?? 7200) * framesPerSecond
}
