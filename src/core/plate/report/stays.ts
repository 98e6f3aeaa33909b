// Where somebody who never leaves the picture stays at one place, and where they go from one to another: the acts of one long take.
import type { Whereabouts } from '../whereabouts'
import { middle, type Seen } from './finding'

/** Frames, the last one included. */
export interface Stay {
  from: number
  to: number
}

/** Places that are tried, at most. */
const PLACES = 64
/** What a frame costs, in widths or heights of somebody, that belongs to no stay; and what it costs to begin one, or to end it. */
const ON_THE_WAY = 0.3
const CHANGE = 2
/** Widths or heights between two places that are not the same. */
const APART = 0.8
/** Widths or heights from where somebody is in the first third of a stay to where they are in the last, at most. */
const PAST = 0.3
/** Frames of the shortest stay. */
const LEAST = 10
/** Less of somebody at the picture's border, as a share of what there is of them as a rule, is still coming or already leaving. */
const CUT = 0.8
/** Frames over which somebody sets out or arrives, and how far they come in them, in widths or heights of theirs. */
const STEP = 3
const SETS_OUT = 0.03

type Extent = Pick<Whereabouts, 'width' | 'height'>

/** A stay, and where it was. */
interface Place extends Stay {
  at: Whereabouts[]
}

/** How far one place is from another, in widths or heights of somebody. */
const between = (one: Whereabouts, other: Whereabouts, { width, height }: Extent): number =>
  Math.max(Math.abs(one.x - other.x) / width, Math.abs(one.y - other.y) / height)

/**
 * Which of the places somebody is at, frame by frame, or −1 on the way between: the sequence whose frames are nearest to their places, with as few stays as that is worth (Viterbi 1967).
 */
function placesOf(costs: readonly ((place: number) => number)[], places: number): Int8Array {
  // The last state is being on the way.
  const states = places + 1
  const change = Float64Array.from({ length: states }, (_, s) => (s < places ? CHANGE : 0))
  const came = new Uint8Array(costs.length * states)
  let sums = change.slice()
  const leastLeft = () => {
    const left = sums.map((sum, s) => sum + change[s]!)
    const cost = Math.min(...left)
    return { cost, state: left.indexOf(cost) }
  }
  costs.forEach((cost, i) => {
    const best = leastLeft()
    const next = new Float64Array(states)
    for (let s = 0; s < states; s++) {
      const begun = best.cost + change[s]!
      came[i * states + s] = begun < sums[s]! ? best.state : s
      next[s] = Math.min(begun, sums[s]!) + (s < places ? cost(s) : ON_THE_WAY)
    }
    sums = next
  })
  const found = new Int8Array(costs.length)
  let { state } = leastLeft()
  for (let i = costs.length - 1; i >= 0; i--) {
    found[i] = state < places ? state : -1
    state = came[i * states + state]!
  }
  return found
}

/** Runs of one place that last. */
function runs(found: Int8Array): (Stay & { place: number })[] {
  const all: (Stay & { place: number })[] = []
  found.forEach((place, i) => {
    const last = all.at(-1)
    if (last?.place === place) last.to = i
    else all.push({ from: i, to: i, place })
  })
  return all.filter(run => run.place >= 0 && run.to - run.from + 1 >= LEAST)
}

/** Whether somebody goes past a place rather than stays there: where they are in the first third of a run, and in the last. */
function goesPast(seen: readonly Seen['where'][], { from, to }: Stay, size: Extent): boolean {
  const third = Math.ceil((to - from + 1) / 3)
  const placeIn = (first: number): Whereabouts | null => {
    const there = seen.slice(first, first + third).filter(where => where !== null)
    const [x, y] = [middle(there.map(w => w.x)), middle(there.map(w => w.y))]
    return there[0] ? { ...there[0], x, y } : null
  }
  const [begun, ended] = [placeIn(from), placeIn(to - third + 1)]
  return begun !== null && ended !== null && between(begun, ended, size) > PAST
}

/** Stays without the frames in which somebody sets out for the next one, or arrives from the one before. */
function atRest(stays: readonly Place[], seen: Seen['where'][], size: Extent): Stay[] {
  const nears = (at: number, other: number, to: Whereabouts): boolean => {
    const [one, two] = [seen[at], seen[other]]
    return !!one && !!two && between(two, to, size) - between(one, to, size) > SETS_OUT
  }
  return stays.map(({ from, to }, i) => {
    const [before, next] = [stays[i - 1]?.at.at(-1), stays[i + 1]?.at[0]]
    let [first, last] = [from, to]
    while (before && last - first > LEAST && nears(first, first + STEP, before)) first++
    while (next && last - first > LEAST && nears(last, last - STEP, next)) last--
    return { from: first, to: last }
  })
}

/**
 * The stays of somebody within a stretch of a take, in order; one, all of the stretch, where they stay at one place or never stay. Coming and going belong to the first and the last; what
 * lies between two is the way from one to the other.
 */
export function staysWithin(frames: readonly Seen[], { from, to }: Stay): Stay[] {
  const all = [{ from, to }]
  const inside = frames.slice(from, to + 1)
  const usual = middle(inside.map(f => f.share))
  const isThere = ({ where, share }: Seen) => where !== null && !(where.atBorder && share < CUT * usual)
  const there = inside.filter(isThere).map(f => f.where!)
  const size = { width: middle(there.map(w => w.width)), height: middle(there.map(w => w.height)) }
  if (there.length < 2 * LEAST || size.width === 0 || size.height === 0) return all
  const count = Math.min(PLACES, there.length)
  const places = Array.from({ length: count }, (_, i) => there[Math.floor(((i + 0.5) * there.length) / count)]!)
  const costs = inside.map(frame => {
    const { where } = frame
    // Who is hidden for a moment may be anywhere.
    if (!where) return () => 0
    return isThere(frame) ? (place: number) => Math.min(1, between(where, places[place]!, size)) : () => 1
  })
  const seen = inside.map(f => f.where)
  const stays: Place[] = []
  for (const run of runs(placesOf(costs, count))) {
    if (goesPast(seen, run, size)) continue
    const at = places[run.place]!
    const last = stays.at(-1)
    // Who leans over for a while stays where they are, and who goes on and on stays nowhere.
    if (last?.at.some(place => between(place, at, size) < APART)) {
      last.to = run.to
      last.at.push(at)
    } else stays.push({ from: run.from, to: run.to, at: [at] })
  }
  if (stays.length < 2) return all
  return atRest(stays, seen, size).map((stay, i) => ({
    from: i === 0 ? from : from + stay.from,
    to: i === stays.length - 1 ? to : from + stay.to,
  }))
}
