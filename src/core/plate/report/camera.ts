// How still the camera stands.
import { BESIDE, type Finding, middle, overall, px, type Seen, steps } from './finding'

/** px by which the camera may wander and count as still, and by which it has to jump to have been bumped. */
const STILL = 0.15
const BUMP = 0.3
/** px from frame to frame, as a rule, of a camera that is held by hand. */
const HELD = 0.4

/** px from frame to frame, as a rule. */
const unrest = (frames: readonly Seen[]): number =>
  middle(
    frames
      .slice(1)
      .map(({ movement: { x, y } }, i) => Math.hypot(x - frames[i]!.movement.x, y - frames[i]!.movement.y)),
  )

export const isHeldByHand = (frames: readonly Seen[]): boolean => unrest(frames) > HELD

export function aboutCamera(frames: readonly Seen[], first: number): Finding[] {
  const all = { about: 'camera', ...overall(frames) } as const
  const [xs, ys] = [frames.map(f => f.movement.x), frames.map(f => f.movement.y)]
  if (isHeldByHand(frames)) {
    const sentence = `The camera never stands still (${px(unrest(frames))} from frame to frame): it was held by hand. A plate is of little use here.`
    return [{ ...all, isFault: true, sentence, advice: null }]
  }
  const bumps = new Map([...steps(xs, BUMP), ...steps(ys, BUMP)].map(({ at }) => [at, at]))
  const found = [...bumps.keys()]
    .sort((a, b) => a - b)
    .filter((at, i, sorted) => i === 0 || at - sorted[i - 1]! >= BESIDE)
    .map((at): Finding => {
      const by = (values: number[]) =>
        middle(values.slice(at, at + BESIDE)) - middle(values.slice(Math.max(0, at - BESIDE), at))
      const far = Math.hypot(by(xs), by(ys))
      const sentence = `The camera is bumped at frame ${first + at}, by ${px(far)}. Cut-outs allow for it; for anything else steady the take onto the plate.`
      return { about: 'camera', from: at, to: at, isFault: true, word: 'bumped', sentence, advice: 'steady' }
    })
  if (found.length > 0) return found
  const range = (values: readonly number[]) =>
    values.reduce((most, v) => Math.max(most, v), Number.NEGATIVE_INFINITY) -
    values.reduce((least, v) => Math.min(least, v), Number.POSITIVE_INFINITY)
  const reach = Math.max(range(xs), range(ys))
  if (reach <= STILL)
    return [
      {
        ...all,
        isFault: false,
        sentence: `The camera stands still, within ${px(Math.max(0.01, reach))}.`,
        advice: null,
      },
    ]
  const sentence = `The camera wanders by ${px(reach)} over the take. Steady it onto the plate.`
  return [{ ...all, isFault: true, sentence, advice: 'steady' }]
}
