// When nobody is there, and where each act begins and ends, the shadow's coming and going told apart from the body's.
import { type Finding, middle, overall, percent, type Seen } from './finding'
import { staysWithin } from './stays'

/** Shares of the picture that are nobody yet, and those that are too much to tell anything. */
const NOBODY = 0.0015
const EVERYBODY = 0.6
/** The same, shadow included, where the light is another one; stops by which a channel of it is, and the share of a take for which it may be as in the plate. */
const MUCH = 0.4
const OTHER_LIGHT = 0.6
const BRIEFLY = 0.2
/** Share of the picture, beyond what it is as a rule, that is a shadow. */
const SHADOW = 0.002
/** Share of the picture, beyond what it is in an empty stretch as a rule, that is an elbow still. */
const ELBOW = 0.0002
/** Frames of the shortest stretch that is worth a word. */
const LEAST = 5

/** What a stretch is called in which somebody goes from one act to another. */
export const ON_THE_WAY = 'on the way'

interface Stretch {
  from: number
  to: number
  isEmpty: boolean
}

/** A part of a take: somebody acts, goes from one place to another between two acts, or is not there. */
interface Part {
  from: number
  to: number
  is: 'act' | 'way' | 'empty'
}

/** Stretches with and without anybody; what lasts for less than one is part of what it interrupts. */
function stretches(frames: readonly Seen[]): Stretch[] {
  const found: Stretch[] = []
  for (let from = 0; from < frames.length; ) {
    const isEmpty = frames[from]!.share < NOBODY
    let to = from
    for (let next = from; next < frames.length; next++) {
      if (frames[next]!.share < NOBODY === isEmpty) to = next
      else if (next - to >= LEAST) break
    }
    found.push({ from, to, isEmpty })
    from = to + 1
  }
  const bare = found.map((part, i) =>
    part.isEmpty ? trimmed(frames, part, f => f.share, ELBOW, { first: i > 0, last: i < found.length - 1 }) : part,
  )
  return bare.map((part, i) =>
    part.isEmpty ? part : { ...part, from: (bare[i - 1]?.to ?? -1) + 1, to: (bare[i + 1]?.from ?? frames.length) - 1 },
  )
}

/** A stretch without the frames at its ends in which there is more of something than there is of it as a rule. */
function trimmed(
  frames: readonly Seen[],
  part: Stretch,
  of: (frame: Seen) => number,
  more: number,
  ends: { first: boolean; last: boolean },
): Stretch {
  const usual = middle(frames.slice(part.from, part.to + 1).map(of)) + more
  let { from, to } = part
  while (ends.first && of(frames[from]!) > usual) from++
  while (ends.last && of(frames[to]!) > usual) to--
  return { ...part, from, to }
}

/** Frames by which a shadow is in the picture before somebody is, and after. */
function shadowBeside(frames: readonly Seen[], { from, to }: Part): { before: number; after: number } {
  const usual = middle(frames.filter(f => f.share < NOBODY).map(f => f.shade))
  const isShaded = (at: number) => frames[at] !== undefined && frames[at].shade > usual + SHADOW
  let [first, last] = [from, to]
  while (isShaded(first - 1) && frames[first - 1]!.share < NOBODY) first--
  while (isShaded(last + 1) && frames[last + 1]!.share < NOBODY) last++
  return { before: from - first, after: last - to }
}

/** A take parted by who is there, and where: whoever stays at one place, then at another, acts twice. */
function partsOf(frames: readonly Seen[]): Part[] {
  return stretches(frames).flatMap((stretch): Part[] => {
    // A plate has no room for a shadow.
    if (stretch.isEmpty)
      return [{ ...trimmed(frames, stretch, f => f.shade, SHADOW, { first: true, last: true }), is: 'empty' }]
    return staysWithin(frames, stretch).flatMap(({ from, to }, i, all) => {
      const act = { from, to, is: 'act' as const }
      const before = all[i - 1]
      return before && from > before.to + 1 ? [{ from: before.to + 1, to: from - 1, is: 'way' }, act] : [act]
    })
  })
}

const plural = (count: number): string => `${count} frame${count === 1 ? '' : 's'}`

function shadowWords({ before, after }: { before: number; after: number }): string {
  const words = [
    ...(before > 0 ? [`${plural(before)} before`] : []),
    ...(after > 0 ? [`${plural(after)} after`] : []),
  ].join(' and ')
  return words === '' ? '' : ` Their shadow is in the picture ${words}: leave it room.`
}

/** By how many stops the channel is off that is most. */
const stopsOff = (frames: readonly Seen[]): number =>
  Math.max(...[0, 1, 2].map(c => Math.abs(Math.log2(middle(frames.map(f => f.gain[c]!))))))

export function aboutPeople(frames: readonly Seen[], first: number): Finding[] {
  const all = { about: 'people', ...overall(frames) } as const
  if (middle(frames.map(f => f.share)) > EVERYBODY) {
    const sentence = 'Most of the picture is unlike the plate: it shows another place, or somebody fills it.'
    return [{ ...all, isFault: true, sentence, advice: null }]
  }
  // All along: where a lamp is switched, that is to be said.
  const unlike = frames.map(f => f.share + f.shade).sort((a, b) => a - b)[Math.floor(frames.length * BRIEFLY)]!
  if (unlike > MUCH && stopsOff(frames) > OTHER_LIGHT) {
    const sentence = `The plate was filmed in another light: with that made up for, ${percent(unlike)} of this take stays unlike it. Nothing can be told by it: choose one that was taken beside it.`
    return [{ ...all, isFault: true, sentence, advice: null }]
  }
  const parts = partsOf(frames)
  const acts = parts.filter(p => p.is === 'act')
  const isPlate = ({ from, to, is }: Part) => is === 'empty' && to - from + 1 >= LEAST
  const advice = acts.length > 1 || parts.some(isPlate) ? 'acts' : null
  return parts.flatMap((part): Finding[] => {
    const { from, to, is } = part
    const own = { about: 'people', from, to, isFault: false } as const
    const span = `${first + from} to ${first + to}`
    if (is === 'act') {
      const word = `act ${acts.indexOf(part) + 1}`
      const sentence = `A${word.slice(1)}: frames ${span}.${shadowWords(shadowBeside(frames, part))}`
      return [{ ...own, word, sentence, advice }]
    }
    if (is === 'way')
      return [{ ...own, word: ON_THE_WAY, sentence: `On the way to another place: frames ${span}.`, advice: null }]
    if (!isPlate(part)) return []
    return [
      {
        ...own,
        word: 'nobody here',
        sentence: `Nobody is there from frame ${first + from} to ${first + to}: a plate.`,
        advice: 'plate',
      },
    ]
  })
}
