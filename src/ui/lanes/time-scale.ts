// From frames to px along the lanes.

export const GUTTER = 112
const END = 20

export interface TimeScale {
  /** Px a frame. */
  perFrame: number
  x(frame: number): number
  frame(x: number): number
}

/** The scale at which a shot of this length fills lanes of this width. */
export function timeScale(length: number, width: number): TimeScale {
  const perFrame = Math.max(0.01, (width - GUTTER - END) / length)
  return { perFrame, x: frame => GUTTER + frame * perFrame, frame: x => (x - GUTTER) / perFrame }
}

const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]

/** Seconds between two marks of the ruler that stand at least 70 px apart. */
export function rulerStep(perFrame: number, framesPerSecond: number): number {
  const perSecond = perFrame * framesPerSecond
  return STEPS.find(s => s * perSecond >= 70) ?? 7200
}
