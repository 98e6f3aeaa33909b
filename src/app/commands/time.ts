// Moving the playhead, and the lanes under it.
import { keysOf } from '../../core/keys'
import { getValue, keyedPaths } from '../../core/shot'
import { canMark, keepAct, markIn, markOut } from '../engine/acts'
import { unsureFrames } from '../engine/cut-outs'
import type { StageEngine } from '../engine/stage-engine'
import { countingSet, lanesZoomed, snappingSet, stagedFrame, stagedShot, store, takeClosed } from '../store'
import { timeScale, zoomedAt } from '../time-scale'
import { type Command, hasLayer, inShot, layers, shot, view } from './command'

const step = (by: number) => (stage: StageEngine) => stage.goTo(stagedFrame(store.getState()) + by)

/** Goes to the nearest of some frames before or after the playhead, if there is one. */
function jump(frames: readonly number[], way: 1 | -1) {
  const { frame } = view()
  const ahead = frames.filter(f => (way > 0 ? f > frame : f < frame))
  return ahead.length > 0 ? (way > 0 ? Math.min(...ahead) : Math.max(...ahead)) : null
}

const cuts = (): number[] => {
  const open = shot()
  if (!open) return []
  const ends = open.layers.flatMap(l => [l.span.from, l.span.to])
  return [...ends, 0, open.length - 1].filter(f => f >= 0 && f < open.length)
}

const marks = (): number[] => shot()?.marks.map(m => m.frame) ?? []

const keys = (): number[] =>
  layers().flatMap(layer => keyedPaths(layer).flatMap(path => keysOf(getValue(layer, path)!).map(k => k.frame)))

const unsure = (): number[] => layers().flatMap(layer => unsureFrames(layer.id))

const jumper = (frames: () => number[], way: 1 | -1) => (stage: StageEngine) => {
  const to = jump(frames(), way)
  if (to !== null) stage.goTo(to)
}

/** Zooms the lanes about the playhead, or about their middle where that is out of sight. */
function zoomLanes(factor: number): void {
  const staged = stagedShot(store.getState())
  if (!staged) return
  const { lanes, lanesWidth } = view()
  const frame = stagedFrame(store.getState())
  const scale = timeScale(staged.length, lanesWidth, lanes)
  const x = scale.x(frame)
  const about = x >= 0 && x <= lanesWidth ? x : lanesWidth / 2
  store.dispatch(lanesZoomed(zoomedAt(scale, factor, about, staged.length)))
}

export const TIME: readonly Command[] = [
  {
    id: 'play',
    name: 'Play or stop',
    group: 'Time',
    keys: 'space',
    run: s => (view().playing ? s.stop() : void s.play()),
  },
  { id: 'forward', name: 'One frame on', group: 'Time', keys: 'right', run: step(1) },
  { id: 'back', name: 'One frame back', group: 'Time', keys: 'left', run: step(-1) },
  { id: 'forward-ten', name: 'Ten frames on', group: 'Time', keys: 'shift+right', run: step(10) },
  { id: 'back-ten', name: 'Ten frames back', group: 'Time', keys: 'shift+left', run: step(-10) },
  { id: 'start', name: 'To the first frame', group: 'Go to', keys: 'home', run: s => s.goTo(0) },
  {
    id: 'end',
    name: 'To the last frame',
    group: 'Go to',
    keys: 'end',
    run: s => s.goTo((stagedShot(store.getState())?.length ?? 1) - 1),
  },
  {
    id: 'frame',
    name: 'To a frame by its number',
    group: 'Go to',
    keys: 'n',
    run: () => void store.dispatch(countingSet(true)),
  },
  { id: 'next-cut', name: 'To the next cut', group: 'Go to', keys: 'pagedown', applies: inShot, run: jumper(cuts, 1) },
  { id: 'last-cut', name: 'To the cut before', group: 'Go to', keys: 'pageup', applies: inShot, run: jumper(cuts, -1) },
  {
    id: 'next-key',
    name: 'To the next key',
    group: 'Go to',
    keys: 'shift+pagedown',
    applies: inShot,
    run: jumper(keys, 1),
  },
  {
    id: 'last-key',
    name: 'To the key before',
    group: 'Go to',
    keys: 'shift+pageup',
    applies: inShot,
    run: jumper(keys, -1),
  },
  {
    id: 'next-mark',
    name: 'To the next mark',
    group: 'Go to',
    keys: 'alt+pagedown',
    applies: inShot,
    run: jumper(marks, 1),
  },
  {
    id: 'last-mark',
    name: 'To the mark before',
    group: 'Go to',
    keys: 'alt+pageup',
    applies: inShot,
    run: jumper(marks, -1),
  },
  {
    id: 'next-unsure',
    name: 'To the next unsure frame',
    group: 'Go to',
    keys: 'u',
    applies: hasLayer,
    run: jumper(unsure, 1),
  },
  {
    id: 'last-unsure',
    name: 'To the unsure frame before',
    group: 'Go to',
    keys: 'alt+u',
    applies: hasLayer,
    run: jumper(unsure, -1),
  },
  { id: 'lanes-in', name: 'Lanes closer', group: 'Time', keys: 'alt+up', run: () => zoomLanes(1.6) },
  { id: 'lanes-out', name: 'Lanes wider', group: 'Time', keys: 'alt+down', run: () => zoomLanes(1 / 1.6) },
  {
    id: 'lanes-whole',
    name: 'The whole shot in the lanes',
    group: 'Time',
    keys: 'alt+w',
    run: () => void store.dispatch(lanesZoomed(null)),
  },
  {
    id: 'snapping',
    name: 'Snapping on or off',
    group: 'Time',
    keys: 'shift+s',
    run: () => void store.dispatch(snappingSet(!view().snapping)),
  },
  { id: 'mark-in', name: 'In here', group: 'Take', keys: 'i', applies: canMark, run: markIn },
  { id: 'mark-out', name: 'Out here', group: 'Take', keys: 'o', applies: canMark, run: markOut },
  { id: 'keep-act', name: 'Keep the part as an act', group: 'Take', keys: 'k', applies: canMark, run: keepAct },
  {
    id: 'leave-take',
    name: 'Back to the shot',
    group: 'Take',
    keys: 'escape',
    applies: () => view().take !== null,
    run: () => void store.dispatch(takeClosed()),
  },
]
