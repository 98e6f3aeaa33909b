// Layers as wholes: choosing, depth, switches, groups.
import { edits, insideOf, type Layer, momentAt } from '../../core/shot'
import { frameToSeconds, type Rate, secondsToFrame } from '../../core/time'
import { aloneToggled, edit, groupEntered, layerChosen, layersChosen, store } from '../store'
import { type Command, canChange, choosingNew, chosen, hasLayer, ids, inShot, layers, one, shot, view } from './command'
import { sayShown } from './remove'
import { say } from './say'

function chooseNeighbour(by: 1 | -1): void {
  const all = shot()?.layers ?? []
  const at = all.findIndex(l => l.id === view().layer)
  const next = all[Math.max(0, Math.min(all.length - 1, at + by))]
  if (next) store.dispatch(layerChosen(next.id))
}

function toggle(what: 'on' | 'locked'): void {
  const all = layers()
  const now = all.some(l => l[what])
  store.dispatch(edit(what === 'on' ? 'showLayers' : 'lockLayers', ids(), !now))
}

const holdsShot = (layer: Layer | null): boolean => layer !== null && insideOf(layer.source) !== null

/** Goes into the chosen group; the playhead stays at the moment that it shows. */
function enterGroup(): void {
  const layer = chosen()
  const open = shot()
  const inner = layer && insideOf(layer.source)
  if (!inner || !open) return
  const { seconds } = momentAt(layer.timing, view().frame - layer.span.from, open.rate)
  const frame = Math.max(0, Math.min(inner.length - 1, secondsToFrame(seconds, inner.rate)))
  store.dispatch(groupEntered({ into: [...view().into, layer.id], frame, layer: inner.layers[0]?.id ?? null }))
}

/** The frame of its span at which a layer shows a moment of its source, or the one that comes nearest. */
function frameShowing({ span, timing }: Layer, seconds: number, rate: Rate): number {
  let nearest = 0
  let least = Number.POSITIVE_INFINITY
  for (let frame = 0; frame < span.to - span.from; frame++) {
    const off = Math.abs(momentAt(timing, frame, rate).seconds - seconds)
    if (off < least - 1e-9) {
      least = off
      nearest = frame
    }
  }
  return nearest
}

/** Goes back to the shot that the open group lies in. */
export function leaveGroup(): void {
  const { into, frame } = view()
  const inner = shot()
  const id = into.at(-1)
  if (!id || !inner) return
  store.dispatch(groupEntered({ into: into.slice(0, -1), frame: 0, layer: id }))
  const layer = chosen()
  const outer = shot()
  if (!layer || !outer) return
  const at = layer.span.from + frameShowing(layer, frameToSeconds(frame, inner.rate), outer.rate)
  store.dispatch(
    groupEntered({ into: into.slice(0, -1), frame: Math.max(0, Math.min(outer.length - 1, at)), layer: id }),
  )
}

function group(): void {
  const gone = ids()
  if (choosingNew(() => store.dispatch(edit('groupLayers', gone, 'Group')))) {
    sayShown(gone, 'lies in the group now')
    return
  }
  say('These layers cannot be grouped: groups would lie too deep in each other, or nothing of them lies in the shot.')
}

function ungroup(): void {
  const layer = chosen()
  const open = shot()
  if (!layer || !open) return
  const why = edits.whyNotUngrouped(layer, open)
  if (why) {
    say(why)
    return
  }
  choosingNew(() => store.dispatch(edit('ungroup', layer.id)))
}

export const LAYERS: readonly Command[] = [
  {
    id: 'nearer-layer',
    name: 'Choose the nearer layer',
    group: 'Layer',
    keys: 'up',
    applies: inShot,
    run: () => chooseNeighbour(-1),
  },
  {
    id: 'farther-layer',
    name: 'Choose the farther layer',
    group: 'Layer',
    keys: 'down',
    applies: inShot,
    run: () => chooseNeighbour(1),
  },
  {
    id: 'all-layers',
    name: 'Choose every layer',
    group: 'Layer',
    keys: 'mod+a',
    applies: inShot,
    run: () => void store.dispatch(layersChosen(shot()?.layers.map(l => l.id) ?? [])),
  },
  {
    id: 'nearer',
    name: 'Bring nearer the lens',
    group: 'Layer',
    keys: 'alt+shift+up, shift+up',
    applies: hasLayer,
    run: () => void store.dispatch(edit('stepDepth', ids(), -1)),
  },
  {
    id: 'farther',
    name: 'Send farther away',
    group: 'Layer',
    keys: 'alt+shift+down, shift+down',
    applies: hasLayer,
    run: () => void store.dispatch(edit('stepDepth', ids(), 1)),
  },
  {
    id: 'nearest',
    name: 'Put nearest the lens',
    group: 'Layer',
    keys: 'shift+home',
    applies: hasLayer,
    run: () => void store.dispatch(edit('putDepth', ids(), 'nearest')),
  },
  {
    id: 'farthest',
    name: 'Put farthest from the lens',
    group: 'Layer',
    keys: 'shift+end',
    applies: hasLayer,
    run: () => void store.dispatch(edit('putDepth', ids(), 'farthest')),
  },
  { id: 'hide', name: 'Hide or show', group: 'Layer', keys: 'shift+h', applies: canChange, run: () => toggle('on') },
  {
    id: 'alone',
    name: 'See and hear alone, or with the rest',
    group: 'Layer',
    keys: 'shift+a',
    applies: hasLayer,
    run: () => void store.dispatch(aloneToggled(ids())),
  },
  {
    id: 'lock',
    name: 'Lock or unlock',
    group: 'Layer',
    keys: 'shift+l',
    applies: hasLayer,
    run: () => toggle('locked'),
  },
  { id: 'group', name: 'Group the layers', group: 'Group', keys: 'mod+g', applies: canChange, run: group },
  {
    id: 'ungroup',
    name: 'Take the group apart',
    group: 'Group',
    keys: 'mod+shift+g',
    applies: () => one() && holdsShot(chosen()),
    run: ungroup,
  },
  {
    id: 'enter-group',
    name: 'Open the group',
    group: 'Group',
    keys: 'mod+enter',
    applies: () => inShot() && holdsShot(chosen()),
    run: enterGroup,
  },
  {
    id: 'leave-group',
    name: 'Leave the group',
    group: 'Group',
    keys: 'mod+backspace',
    applies: () => inShot() && view().into.length > 0,
    run: leaveGroup,
  },
]
