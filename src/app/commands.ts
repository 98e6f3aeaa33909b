// Every command with its name and shortcut: keys and menus read this list and nothing else.

import { VIEWS } from '../core/plan'
import { edits } from '../core/shot'
import type { StageEngine } from './engine/stage-engine'
import {
  cameraMoved,
  chosenLayer,
  edit,
  keyingSet,
  layerChosen,
  pieceChosen,
  redo,
  shotOf,
  store,
  undo,
  viewChosen,
} from './store'

export interface Command {
  id: string
  name: string
  group: 'Time' | 'Picture' | 'Layer' | 'Edit'
  /** As react-hotkeys-hook writes them; the first one is shown. */
  keys: string
  applies?: () => boolean
  run: (stage: StageEngine) => void
}

const view = () => store.getState().view
const shot = () => shotOf(store.getState())
const chosen = () => chosenLayer(store.getState())
const hasLayer = () => chosen() !== null

const step = (by: number) => (stage: StageEngine) => stage.goTo(view().frame + by)

function startPiece(kind: 'edge' | 'box' | 'oval'): void {
  const layer = chosen()
  const project = store.getState().project.present
  if (!layer || !project) return
  const piece = edits.startPiece(kind, edits.layerSize(layer, project.shot, project.takes))
  store.dispatch(edit('addPiece', layer.id, piece))
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
}

function chooseNeighbour(by: 1 | -1): void {
  const layers = shot()?.layers ?? []
  const at = layers.findIndex(l => l.id === view().layer)
  const next = layers[Math.max(0, Math.min(layers.length - 1, at + by))]
  if (next) store.dispatch(layerChosen(next.id))
}

function moveInDepth(by: 1 | -1): void {
  const layer = chosen()
  const at = shot()?.layers.findIndex(l => l.id === layer?.id) ?? -1
  if (layer) store.dispatch(edit('reorderLayer', layer.id, Math.max(0, at + by)))
}

function slide(by: number): void {
  const layer = chosen()
  if (layer) store.dispatch(edit('slideLayer', layer.id, layer.span.from + by))
}

export const COMMANDS: readonly Command[] = [
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
  { id: 'start', name: 'To the first frame', group: 'Time', keys: 'home', run: s => s.goTo(0) },
  { id: 'end', name: 'To the last frame', group: 'Time', keys: 'end', run: s => s.goTo((shot()?.length ?? 1) - 1) },
  {
    id: 'fit',
    name: 'Whole picture',
    group: 'Picture',
    keys: 'shift+w',
    run: () => void store.dispatch(cameraMoved(null)),
  },
  {
    id: 'next-view',
    name: 'Next way of looking',
    group: 'Picture',
    keys: 'w',
    run() {
      store.dispatch(viewChosen(VIEWS[(VIEWS.indexOf(view().view) + 1) % VIEWS.length]!))
    },
  },
  { id: 'undo', name: 'Undo', group: 'Edit', keys: 'mod+z', run: () => void store.dispatch(undo()) },
  { id: 'redo', name: 'Redo', group: 'Edit', keys: 'mod+shift+z, mod+y', run: () => void store.dispatch(redo()) },
  {
    id: 'keying',
    name: 'Keying on or off',
    group: 'Edit',
    keys: 'shift+k',
    run: () => void store.dispatch(keyingSet(!view().keying)),
  },
  { id: 'nearer-layer', name: 'Choose the nearer layer', group: 'Layer', keys: 'up', run: () => chooseNeighbour(-1) },
  {
    id: 'farther-layer',
    name: 'Choose the farther layer',
    group: 'Layer',
    keys: 'down',
    run: () => chooseNeighbour(1),
  },
  {
    id: 'nearer',
    name: 'Bring nearer the lens',
    group: 'Layer',
    keys: 'shift+up',
    applies: hasLayer,
    run: () => moveInDepth(-1),
  },
  {
    id: 'farther',
    name: 'Send farther away',
    group: 'Layer',
    keys: 'shift+down',
    applies: hasLayer,
    run: () => moveInDepth(1),
  },
  {
    id: 'earlier',
    name: 'Slide one frame earlier',
    group: 'Layer',
    keys: 'alt+left',
    applies: hasLayer,
    run: () => slide(-1),
  },
  {
    id: 'later',
    name: 'Slide one frame later',
    group: 'Layer',
    keys: 'alt+right',
    applies: hasLayer,
    run: () => slide(1),
  },
  {
    id: 'hide',
    name: 'Hide or show the layer',
    group: 'Layer',
    keys: 'shift+h',
    applies: hasLayer,
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('showLayer', layer.id, !layer.on))
    },
  },
  {
    id: 'matte',
    name: 'Take the matte away or bring it back',
    group: 'Layer',
    keys: 'shift+m',
    applies: hasLayer,
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('switchMatte', layer.id, !layer.matteOn))
    },
  },
  { id: 'edge', name: 'New edge', group: 'Layer', keys: 'shift+e', applies: hasLayer, run: () => startPiece('edge') },
  { id: 'box', name: 'New box', group: 'Layer', keys: 'shift+b', applies: hasLayer, run: () => startPiece('box') },
  { id: 'oval', name: 'New oval', group: 'Layer', keys: 'shift+o', applies: hasLayer, run: () => startPiece('oval') },
]

export const commandOf = (id: string): Command => {
  const command = COMMANDS.find(c => c.id === id)
  if (!command) throw new Error(`There is no command “${id}”.`)
  return command
}

/** A shortcut as people read it. */
export const shownKeys = (keys: string): string =>
  keys
    .split(',')[0]!
    .split('+')
    .map(
      part =>
        ({ mod: 'Ctrl', left: '←', right: '→', up: '↑', down: '↓' })[part] ?? part[0]!.toUpperCase() + part.slice(1),
    )
    .join(' ')
