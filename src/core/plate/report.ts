// What a take's frames say about the camera, the light and who is there, in plain words.
import type { Gain } from './light'
import type { Movement } from './movement'

/** What was measured of a frame against the plate. */
export interface Seen {
  movement: Pick<Movement, 'x' | 'y'>
  gain: Gain
  /** 0..1: how much of the picture somebody fills. */
  share: number
  /** 0..1: how much of the border of somebody is told only just. */
  unsure: number
}

export interface Finding {
  about: 'camera' | 'light' | 'people'
  /** Frames, the last one included. */
  from: number
  to: number
  /** Whether something should be done about it. */
  isFault: boolean
  sentence: string
}

/** Frames on both sides of a bump that are compared. */
const BESIDE = 5
/** px by which the camera may wander and count as still, and by which it has to jump to have been bumped. */
const STILL = 0.15
const BUMP = 0.3
/** px from frame to frame, as a rule, of a camera that is held by hand. */
const HELD = 0.4
/** Shares of light: of a drift, of flicker from frame to frame, and of a light that goes on or off. */
const DRIFT = 0.01
const FLICKER = 0.004
const SWITCH = 0.08
/** Shares of the picture that are nobody yet, and those that are too much to tell anything. */
const NOBODY = 0.0015
const EVERYBODY = 0.6
/** Frames of the shortest stretch that is worth a word. */
const LEAST = 5

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1] ?? 0
}

const brightness = ({ gain }: Seen): number => 0.2126 * gain[0] + 0.7152 * gain[1] + 0.0722 * gain[2]
const px = (value: number): string => `${value.toFixed(value < 1 ? 2 : 1)} px`
const percent = (share: number): string => `${(100 * share).toFixed(Math.abs(share) < 0.1 ? 1 : 0)}%`

/** Where a value steps from one level to another by more than `least`: the frame that is the first of the new level, and by how much. */
function steps(values: readonly number[], least: number): { at: number; by: number }[] {
  const found: { at: number; by: number }[] = []
  for (let i = 1; i < values.length; i++) {
    const before = middle(values.slice(Math.max(0, i - BESIDE), i))
    const after = middle(values.slice(i, i + BESIDE))
    const by = after - before
    if (Math.abs(by) < least || Math.abs(values[i]! - values[i - 1]!) < least / 2) continue
    const last = found.at(-1)
    if (last && i - last.at < BESIDE) {
      if (Math.abs(by) > Math.abs(last.by)) found[found.length - 1] = { at: i, by }
    } else found.push({ at: i, by })
  }
  return found
}

function aboutCamera(frames: readonly Seen[]): Finding[] {
  const all = { about: 'camera', from: 0, to: frames.length - 1 } as const
  const [xs, ys] = [frames.map(f => f.movement.x), frames.map(f => f.movement.y)]
  const hops = frames.slice(1).map((f, i) => Math.hypot(f.movement.x - xs[i]!, f.movement.y - ys[i]!))
  if (middle(hops) > HELD) {
    const sentence = `The camera never stands still (${px(middle(hops))} from frame to frame): it was held by hand. A plate is of little use here.`
    return [{ ...all, isFault: true, sentence }]
  }
  const bumps = new Map([...steps(xs, BUMP), ...steps(ys, BUMP)].map(({ at }) => [at, at]))
  const found = [...bumps.keys()]
    .sort((a, b) => a - b)
    .filter((at, i, sorted) => i === 0 || at - sorted[i - 1]! >= BESIDE)
    .map((at): Finding => {
      const by = (values: number[]) =>
        middle(values.slice(at, at + BESIDE)) - middle(values.slice(Math.max(0, at - BESIDE), at))
      const far = Math.hypot(by(xs), by(ys))
      const sentence = `The camera is bumped at frame ${at}, by ${px(far)}. Cut-outs allow for it; a hand-drawn matte has to be steadied or keyed there.`
      return { about: 'camera', from: at, to: at, isFault: true, sentence }
    })
  if (found.length > 0) return found
  const reach = Math.max(...[xs, ys].map(v => Math.max(...v) - Math.min(...v)))
  if (reach <= STILL)
    return [{ ...all, isFault: false, sentence: `The camera stands still, within ${px(Math.max(0.01, reach))}.` }]
  return [
    { ...all, isFault: true, sentence: `The camera wanders by ${px(reach)} over the take. Steady it onto the plate.` },
  ]
}

function aboutLight(frames: readonly Seen[]): Finding[] {
  const all = { about: 'light', from: 0, to: frames.length - 1 } as const
  const levels = frames.map(brightness)
  const usual = middle(levels)
  const switched = steps(levels, SWITCH * usual).map(({ at, by }): Finding => {
    const sentence = `The light ${by > 0 ? 'goes up' : 'goes down'} at frame ${at}, by ${percent(Math.abs(by) / usual)}: something was switched, or the camera exposed anew. Cut the take there.`
    return { about: 'light', from: at, to: at, isFault: true, sentence }
  })
  if (switched.length > 0) return switched
  const found: Finding[] = []
  const flicker = middle(levels.slice(1).map((v, i) => Math.abs(v - levels[i]!))) / usual
  if (flicker > FLICKER) {
    found.push({
      ...all,
      isFault: true,
      sentence: `The light flickers by ${percent(flicker)} from frame to frame. Even it out before you mix takes.`,
    })
  }
  const begin = middle(levels.slice(0, BESIDE))
  const drift = middle(levels.slice(-BESIDE)) / begin - 1
  if (Math.abs(drift) > DRIFT) {
    const sentence = `The light ${drift > 0 ? 'grows' : 'falls'} by ${percent(Math.abs(drift))} from beginning to end. Match it to the plate.`
    found.push({ ...all, isFault: true, sentence })
  }
  if (found.length > 0) return found
  const off = begin - 1
  const isOther = Math.abs(off) > DRIFT
  const sentence = isOther
    ? `The light is even, ${percent(Math.abs(off))} ${off > 0 ? 'brighter' : 'darker'} than the plate's. Match it.`
    : `The light is even, and the plate's.`
  return [{ ...all, isFault: isOther, sentence }]
}

function aboutPeople(frames: readonly Seen[]): Finding[] {
  const all = { about: 'people', from: 0, to: frames.length - 1 } as const
  if (middle(frames.map(f => f.share)) > EVERYBODY) {
    const sentence = 'Most of the picture is unlike the plate: it shows another place, or somebody fills it.'
    return [{ ...all, isFault: true, sentence }]
  }
  const found: Finding[] = []
  let acts = 0
  for (let from = 0; from < frames.length; ) {
    const isEmpty = frames[from]!.share < NOBODY
    let to = from
    // What lasts for less than a stretch is part of what it interrupts.
    for (let next = from; next < frames.length; next++) {
      if (frames[next]!.share < NOBODY === isEmpty) to = next
      else if (next - to >= LEAST) break
    }
    if (isEmpty && to - from + 1 >= LEAST) {
      found.push({
        about: 'people',
        from,
        to,
        isFault: false,
        sentence: `Nobody is there from frame ${from} to ${to}: a plate.`,
      })
    } else if (!isEmpty) {
      acts++
      found.push({ about: 'people', from, to, isFault: false, sentence: `Act ${acts}: frames ${from} to ${to}.` })
    }
    from = to + 1
  }
  return found
}

/** Everything worth a word about a take, from the camera over the light to who is there. */
export const findings = (frames: readonly Seen[]): Finding[] =>
  frames.length === 0 ? [] : [...aboutCamera(frames), ...aboutLight(frames), ...aboutPeople(frames)]
