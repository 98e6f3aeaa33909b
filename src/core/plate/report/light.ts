// How even the light is.
import { type Light, lightsOf } from '../light'
import { BESIDE, FEW, type Finding, middle, overall, percent, type Seen, steps } from './finding'

/** Shares of light: of a drift, of flicker from frame to frame, and of a light that goes on or off. */
const DRIFT = 0.01
const FLICKER = 0.004
const SWITCH = 0.08
/** By how much more than from beginning to end light has to change in between to be worth the word. */
const MORE = 1.5

const brightness = ({ gain }: Light): number => 0.2126 * gain[0] + 0.7152 * gain[1] + 0.0722 * gain[2]

/** How far levels come from each other, flicker left out, and the middle of the stretch that is farthest from how they begin. */
function wandering(levels: readonly number[]): { by: number; at: number; isBrighter: boolean } {
  const stretches = Array.from({ length: Math.floor(levels.length / BESIDE) }, (_, i) =>
    middle(levels.slice(i * BESIDE, (i + 1) * BESIDE)),
  )
  const begin = stretches[0] ?? 0
  let [least, most, far] = [begin, begin, 0]
  for (const [i, level] of stretches.entries()) {
    least = Math.min(least, level)
    most = Math.max(most, level)
    if (Math.abs(level - begin) > Math.abs(stretches[far]! - begin)) far = i
  }
  const at = far * BESIDE + (BESIDE >> 1)
  return { by: most - least, at, isBrighter: (stretches[far] ?? 0) > begin }
}

export function aboutLight(frames: readonly Seen[], first: number): Finding[] {
  const all = { about: 'light', ...overall(frames) } as const
  const lights = lightsOf(frames)
  const levels = lights.map(brightness)
  const usual = middle(levels)
  const stepped = steps(levels, SWITCH * usual)
  if (stepped.length > FEW) {
    const [from, to] = [stepped[0]!.at, stepped.at(-1)!.at]
    const sentence = `The light changes ${stepped.length} times from frame ${first + from} to ${first + to}: a lamp goes on and off, or the camera exposes anew. Use what lies outside of that, or even it out.`
    return [{ ...all, from, to, isFault: true, word: 'unsteady light', sentence, advice: 'match' }]
  }
  const switched = stepped.map(({ at, by }): Finding => {
    const sentence = `The light ${by > 0 ? 'goes up' : 'goes down'} at frame ${first + at}, by ${percent(Math.abs(by) / usual)}: something was switched, or the camera exposed anew. Cut the take there.`
    return {
      about: 'light',
      from: at,
      to: at,
      isFault: true,
      word: by > 0 ? 'brighter' : 'darker',
      sentence,
      advice: 'split',
    }
  })
  if (switched.length > 0) return switched
  const found: Finding[] = []
  // What a drift does from frame to frame is no flicker: each frame is held against those beside it.
  const flicker = middle(levels.slice(1, -1).map((v, i) => Math.abs(v - (levels[i]! + levels[i + 2]!) / 2))) / usual
  if (flicker > FLICKER) {
    found.push({
      ...all,
      isFault: true,
      sentence: `The light flickers by ${percent(flicker)} from frame to frame. Even it out before you mix takes.`,
      advice: 'match',
    })
  }
  const veil = middle(lights.map(l => l.offset))
  if (veil !== 0) {
    const what = veil > 0 ? 'A veil of light lies over it' : 'Its dark parts are deeper'
    const sentence = `${what}: ${(100 * Math.abs(veil)).toFixed(2)}% of white ${veil > 0 ? 'more' : 'less'} than in the plate, in the dark, too. Match its light.`
    found.push({ ...all, isFault: true, sentence, advice: 'match' })
  }
  const begin = middle(levels.slice(0, BESIDE))
  const drift = middle(levels.slice(-BESIDE)) / begin - 1
  const wander = wandering(levels)
  if (wander.by / begin > Math.max(DRIFT, MORE * Math.abs(drift))) {
    const sentence = `The light wanders by ${percent(wander.by / begin)} over the take, and is ${wander.isBrighter ? 'brightest' : 'darkest'} at frame ${first + wander.at}. Match it to the plate.`
    found.push({ ...all, isFault: true, sentence, advice: 'match' })
  } else if (Math.abs(drift) > DRIFT) {
    const sentence = `The light ${drift > 0 ? 'grows' : 'falls'} by ${percent(Math.abs(drift))} from beginning to end. Match it to the plate.`
    found.push({ ...all, isFault: true, sentence, advice: 'match' })
  }
  if (found.length > 0) return found
  const off = begin - 1
  const isOther = Math.abs(off) > DRIFT
  const sentence = isOther
    ? `The light is even, ${percent(Math.abs(off))} ${off > 0 ? 'brighter' : 'darker'} than the plate's. Match it.`
    : `The light is even, and the plate's.`
  return [{ ...all, isFault: isOther, sentence, advice: isOther ? 'match' : null }]
}
