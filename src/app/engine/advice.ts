// What can be done about what a take says, each in one touch that can be taken back.
import { type Advice, type Finding, lightsOf } from '../../core/plate'
import { edits, type Layer, LIMITS, momentAt, newId, plateFor, type Shot, type Take } from '../../core/shot'
import { frameToSeconds, type Rate, secondsToFrame } from '../../core/time'
import { editIn, groupEntered, projectOf, rootShot, store, takeChanged } from '../store'
import { placeActs, placePlate } from './place'
import type { TakeReport } from './reports'

/** A finding with all that is needed to do something about it. */
export interface Case {
  take: Take
  rate: Rate
  report: TakeReport
  finding: Finding
  shot: Shot
  /** Layers of the shot that show the take. */
  layers: readonly Layer[]
}

interface Doing {
  /** What the button says. */
  name(one: Case): string
  /** Why it cannot be done, or null. */
  hindered(one: Case): string | null
  isDone(one: Case): boolean
  run(one: Case, gesture: string): void
}

const isShown = (layer: Layer, take: string): boolean =>
  layer.source.kind === 'take' && layer.source.digest === take && layer.source.use !== 'sound'

const noLayer = ({ layers, take }: Case): string | null =>
  layers.length === 0 ? `Nothing in the shot shows “${take.name}” yet.` : null

const lights = ({ rate, report }: Case) => ({ rate, values: lightsOf(report.seen) })
const shifts = ({ rate, report }: Case) => ({ rate, values: report.seen.map(s => s.movement) })
const middleOf = ({ take }: Case) => {
  const { width, height } = take.picture!.size
  return { x: width / 2, y: height / 2 }
}

/** The frame of the shot at which a layer first shows a frame of its take, or one later; the end of its span where it never does. */
function firstShown({ span, timing }: Layer, rate: Rate, of: Rate, frame: number): number {
  for (let at = span.from; at < span.to; at++) {
    const { seconds } = momentAt(timing, at - span.from, rate)
    if (secondsToFrame(seconds + 1e-3, of) >= frame) return at
  }
  return span.to
}

/** Where a layer is cut so that a part of it begins with a frame of its take; null where there is nothing to cut. */
function cutBefore(layer: Layer, rate: Rate, of: Rate, frame: number): number | null {
  const at = firstShown(layer, rate, of, frame)
  return at > layer.span.from && at < layer.span.to ? at : null
}

const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other)

/** Seconds of a finding's stretch. */
const stretchOf = ({ rate, finding: { from, to } }: Case) => ({
  from: frameToSeconds(from, rate),
  to: frameToSeconds(to + 1, rate),
})

const titled = (word: string): string => word[0]!.toUpperCase() + word.slice(1)

const actsOf = (one: Case): Finding[] => one.report.findings.filter(f => f.about === 'people' && f.advice === 'acts')

/** The one layer that plays all acts of the take: it is cut, with all that was done to it. */
function playedLayer(one: Case): Layer | null {
  const showsActs = (layer: Layer) =>
    actsOf(one)
      .map(actOf(layer, one))
      .every(({ from, to }) => from < to)
  const played = one.layers.filter(layer => layer.timing.kind === 'play' && showsActs(layer))
  return played.length === 1 && !played[0]!.locked ? played[0]! : null
}

/** The frames of the shot in which a layer shows an act of its take. */
const actOf =
  (layer: Layer, { shot, rate }: Case) =>
  ({ word, from, to }: Finding) => ({
    name: titled(word),
    from: firstShown(layer, shot.rate, rate, from),
    to: firstShown(layer, shot.rate, rate, to + 1),
  })

const DOINGS: Readonly<Record<Exclude<Advice, 'empty'>, Doing>> = {
  steady: {
    name: () => 'Steady it onto the plate',
    hindered: one =>
      noLayer(one) ?? (one.layers.some(l => l.locked) ? 'A layer of the take is locked: unlock it first.' : null),
    isDone: one =>
      one.layers.length > 0 &&
      one.layers.every(l => same(edits.steadyPlace(l, one.shot.rate, shifts(one), middleOf(one)), l.place)),
    run(one, gesture) {
      for (const { id } of one.layers) store.dispatch(editIn(gesture, 'steadyLayer', id, shifts(one), middleOf(one)))
    },
  },
  match: {
    name: () => 'Match its light',
    hindered: noLayer,
    isDone: one =>
      one.layers.length > 0 &&
      one.layers.every(l => same(edits.matchedLight(l, one.shot.rate, lights(one)), l.looks[0]?.values)),
    run(one, gesture) {
      for (const { id } of one.layers) store.dispatch(editIn(gesture, 'matchLight', id, lights(one)))
    },
  },
  split: {
    name: () => 'Cut the take there',
    hindered: noLayer,
    isDone: ({ layers, shot, rate, finding }) =>
      layers.length > 0 && layers.every(l => cutBefore(l, shot.rate, rate, finding.from) === null),
    run({ layers, shot, rate, finding }, gesture) {
      for (const layer of layers) {
        const at = cutBefore(layer, shot.rate, rate, finding.from)
        if (at !== null) store.dispatch(editIn(gesture, 'splitLayers', [layer.id], at))
      }
    },
  },
  plate: {
    name: () => 'Use it as the plate',
    hindered: () => null,
    isDone(one) {
      const { from, to } = stretchOf(one)
      return one.layers.some(
        ({ timing }) => timing.kind === 'loop' && Math.abs(timing.from - from) + Math.abs(timing.to - to) < 1e-6,
      )
    },
    run(one, gesture) {
      placePlate(one.take, stretchOf(one), gesture)
    },
  },
  acts: {
    name: one => (actsOf(one).length > 1 ? 'Cut into these acts' : 'Cut to this act'),
    hindered(one) {
      const { length } = actsOf(one)
      const isMuch = length > LIMITS.acts || one.shot.layers.length + length > LIMITS.layers
      return isMuch ? `${length} acts are more than the shot has room for.` : null
    },
    isDone: one => actsOf(one).every(({ word }) => one.take.acts.some(a => a.name.toLowerCase() === word)),
    run(one, gesture) {
      const acts = actsOf(one).map(finding => ({
        id: newId(),
        name: titled(finding.word),
        ...stretchOf({ ...one, finding }),
      }))
      store.dispatch(takeChanged({ digest: one.take.digest, acts }, gesture))
      const layer = playedLayer(one)
      if (layer) store.dispatch(editIn(gesture, 'cutIntoActs', layer.id, actsOf(one).map(actOf(layer, one))))
      else placeActs(one.take, acts, gesture)
    },
  },
}

/** What is advised is done to the shot, not to a group of it that is open. */
function leaveGroups(shot: Shot): void {
  const { into, frame } = store.getState().view
  if (into.length === 0) return
  store.dispatch(groupEntered({ into: [], frame: Math.min(frame, shot.length - 1), layer: null }))
}

/** What can be done about a finding: with the reason where it cannot, and whether it has been done; null where nothing can. */
export function doingFor(
  take: Take,
  report: TakeReport,
  finding: Finding,
): { name: string; hindered: string | null; isDone: boolean; run(): void } | null {
  const [project, shot] = [projectOf(store.getState()), rootShot(store.getState())]
  if (!finding.advice || finding.advice === 'empty' || !project || !shot || take.picture?.kind !== 'film') return null
  const layers = shot.layers.filter(l => isShown(l, take.digest))
  const one: Case = { take, rate: take.picture.rate, report, finding, shot, layers }
  const doing = DOINGS[finding.advice]
  return {
    name: doing.name(one),
    hindered: doing.hindered(one),
    isDone: doing.isDone(one),
    run() {
      leaveGroups(shot)
      doing.run(one, newId())
    },
  }
}

/** Whether somebody is in a take all the time, and the shot has no set to stand behind them. */
export function lacksPlate({ digest }: Take, { findings }: TakeReport): boolean {
  const [project, shot] = [projectOf(store.getState()), rootShot(store.getState())]
  const people = findings.filter(f => f.about === 'people' && !f.isFault)
  if (!project || !shot || people.length === 0 || people.some(f => f.advice === 'plate')) return false
  const shown = shot.layers.findLast(l => isShown(l, digest))
  return plateFor(shot, project.takes, shown) === null
}

/** Puts a plate that was made behind all that the shot has, unless it stands there already. */
export function standBehind(plate: Take): void {
  const shot = rootShot(store.getState())
  const farthest = shot?.layers.at(-1)
  if (!shot || (farthest && isShown(farthest, plate.digest) && farthest.matte.length === 0)) return
  leaveGroups(shot)
  placePlate(plate, { from: 0, to: 0 })
}
