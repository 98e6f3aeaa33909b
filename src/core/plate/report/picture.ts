// Whether the camera refocused, and what is black or white beyond telling.
import { isHeldByHand } from './camera'
import { FEW, type Finding, middle, overall, percent, type Seen, steps } from './finding'

/** By how much sharpness has to change for the camera to have refocused, and how much less of it than the plate's is soft. */
const REFOCUS = 0.12
const SOFT = 0.75
/** Shares of the picture that may be clipped. */
const WHITE = 0.02
const BLACK = 0.15
/** Share of the picture on which somebody may stand in the plate. */
const NOBODY = 0.0015
/** σ of grain, codes, from which it is in the way. */
const NOISY = 6

export function aboutPicture(frames: readonly Seen[], first: number): Finding[] {
  const all = { about: 'picture', ...overall(frames), isFault: true, advice: null } as const
  const found: Finding[] = []
  const occupied = frames.at(-1)?.occupied ?? 0
  if (occupied > NOBODY)
    found.push({
      ...all,
      sentence: `Somebody stands in the plate, on ${percent(occupied)} of the picture: the set that they hide there would be cut out with whoever is here.`,
      advice: 'empty',
    })
  // What is seen beside the plate is never as sharp as that.
  const sharp = isHeldByHand(frames) ? [] : frames.map(f => f.sharp)
  const refocused = steps(sharp, REFOCUS)
  if (refocused.length > FEW) {
    const [from, to] = [refocused[0]!.at, refocused.at(-1)!.at]
    const sentence = `The camera refocuses ${refocused.length} times from frame ${first + from} to ${first + to}: it looks for its focus. Use what lies outside of that, or film it again with the focus held.`
    found.push({ ...all, from, to, word: 'refocused', sentence })
  } else {
    for (const { at, by } of refocused) {
      const sentence = `The camera refocuses at frame ${first + at}: the set is ${by < 0 ? 'softer' : 'sharper'} from there on. Cut the take there, each part by a plate that is as sharp.`
      found.push({ ...all, from: at, to: at, word: 'refocused', sentence, advice: 'split' })
    }
  }
  if (!found.some(f => f.word === 'refocused') && sharp.length > 0 && middle(sharp) < SOFT)
    found.push({ ...all, sentence: 'The set is softer than in the plate: edges of what is cut out will be unsure.' })
  const [white, black] = [middle(frames.map(f => f.bright)), middle(frames.map(f => f.dark))]
  if (white > WHITE)
    found.push({
      ...all,
      sentence: `${percent(white)} of the picture is white beyond telling: nobody can be cut out there.`,
    })
  if (black > BLACK)
    found.push({
      ...all,
      sentence: `${percent(black)} of the picture is black beyond telling: nobody can be cut out there.`,
    })
  const grain = frames.flatMap(f => f.grain ?? [])
  if (grain.length > 0) {
    const [dark, between, light] = (['dark', 'middle', 'light'] as const).map(of => middle(grain.map(g => g[of])))
    const noisy = Math.max(dark!, between!, light!) > NOISY
    const what = `Its grain is ${dark!.toFixed(1)} codes in the dark, ${between!.toFixed(1)} between and ${light!.toFixed(1)} in the light.`
    const sentence = noisy ? `${what} That is much: what is cut out will be less sure.` : what
    found.push({ ...all, isFault: noisy, sentence })
  }
  return found
}
